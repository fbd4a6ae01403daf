"""stills of a film, kept with consent

Revision ID: 0015
Revises: 0014
"""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "still",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column(
            "lesson_id", sa.String(), sa.ForeignKey("lesson.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column("film_id", sa.String(), nullable=True),
        sa.Column("event", sa.String(), nullable=True),
        sa.Column("measure", sa.String(), nullable=False),
        sa.Column("consent", sa.String(), nullable=False),
        sa.Column("on_sheet", sa.Boolean(), nullable=False),
        sa.Column("jpeg_base64", sa.String(), nullable=False),
        sa.Column("taken_at", sa.DateTime(), nullable=False),
    )
    op.create_index("ix_still_lesson_id", "still", ["lesson_id"])


def downgrade() -> None:
    op.drop_table("still")
