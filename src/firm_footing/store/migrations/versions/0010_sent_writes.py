"""changes that have arrived, the page of each step, the time zone of each lesson

Revision ID: 0010
Revises: 0009
"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("change", sa.Column("made_by", sa.String(), nullable=True))
    op.add_column("lesson", sa.Column("zone", sa.String(), nullable=False, server_default=""))
    op.create_table(
        "sent_write",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column(
            "lesson_id",
            sa.String(),
            sa.ForeignKey("lesson.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("arrived_at", sa.DateTime(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("sent_write")
    op.drop_column("lesson", "zone")
    op.drop_column("change", "made_by")
