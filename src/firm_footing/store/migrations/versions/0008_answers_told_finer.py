"""how clearly an answer shows its fact, where that was told more finely than by a word

Revision ID: 0008
Revises: 0007
"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("check_answer", sa.Column("share", sa.Float(), nullable=True))


def downgrade() -> None:
    op.drop_column("check_answer", "share")
