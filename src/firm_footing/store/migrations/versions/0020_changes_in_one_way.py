"""changes of a lesson are asked for in one way: how the earlier ones were is forgotten

Revision ID: 0020
Revises: 0019
"""

from alembic import op

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("UPDATE sent_write SET asked = NULL WHERE lesson_id IS NOT NULL")


def downgrade() -> None:
    upgrade()
