"""which measure a retest was first fixed on, and when the student comes again

Revision ID: 0017
Revises: 0016
"""

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("lesson", sa.Column("primary_before", sa.String(), nullable=True))
    op.add_column("lesson", sa.Column("next_at", sa.DateTime(), nullable=True))
    op.create_index("ix_lesson_next_at", "lesson", ["next_at"])


def downgrade() -> None:
    op.drop_index("ix_lesson_next_at", "lesson")
    op.drop_column("lesson", "next_at")
    op.drop_column("lesson", "primary_before")
