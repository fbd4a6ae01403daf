"""how often the eye is wrong: the answers of studied lessons, and what a decision was made with

Lessons are studied anew, for their answers were not kept.

Revision ID: 0023
Revises: 0022
"""

import sqlalchemy as sa
from alembic import op

revision = "0023"
down_revision = "0022"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("DELETE FROM studied_lesson")
    op.execute("DELETE FROM learned_layer")
    op.add_column(
        "studied_lesson", sa.Column("answers", sa.JSON, nullable=False, server_default="[]")
    )
    op.add_column("decision", sa.Column("eye", sa.JSON, nullable=False, server_default="[]"))


def downgrade() -> None:
    op.drop_column("decision", "eye")
    op.drop_column("studied_lesson", "answers")
