"""what was marked in films of a swing

Revision ID: 0014
Revises: 0013
"""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "film_marks",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column(
            "lesson_id", sa.String(), sa.ForeignKey("lesson.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column(
            "block_id", sa.String(), sa.ForeignKey("block.id", ondelete="CASCADE"), nullable=True
        ),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("marks", sa.JSON(), nullable=False),
        sa.Column("marked_at", sa.DateTime(), nullable=False),
    )
    op.create_index("ix_film_marks_lesson_id", "film_marks", ["lesson_id"])
    op.create_index("ix_film_marks_block_id", "film_marks", ["block_id"])


def downgrade() -> None:
    op.drop_table("film_marks")
