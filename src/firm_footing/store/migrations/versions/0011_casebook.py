"""what a decision is found by: the ranking's first and the shape, and when it was made

Revision ID: 0011
Revises: 0010
"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("decision", sa.Column("ranked_first", sa.String(), nullable=True))
    op.add_column("decision", sa.Column("shape", sa.String(), nullable=True))
    op.execute(
        "UPDATE decision SET shape = json_extract(ranking, '$.pattern.shape'), ranked_first = "
        "coalesce(json_extract(ranking, '$.start_with'), json_extract(ranking, '$.causes[0].id'))"
    )
    op.create_index("ix_decision_decided_at", "decision", ["decided_at"])
    op.create_index("ix_lesson_started_at", "lesson", ["started_at"])
    op.create_index("ix_follow_up_due_on", "follow_up", ["due_on"])


def downgrade() -> None:
    op.drop_index("ix_follow_up_due_on", "follow_up")
    op.drop_index("ix_lesson_started_at", "lesson")
    op.drop_index("ix_decision_decided_at", "decision")
    op.drop_column("decision", "shape")
    op.drop_column("decision", "ranked_first")
