"""what is heard, cued, drilled, sent home and followed up

Revision ID: 0005
Revises: 0004
"""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    # added in place: a table made anew would be dropped first, and what belongs to it with it
    for name in ("listen", "cue", "sheet"):
        op.add_column("lesson", sa.Column(name, sa.JSON(), nullable=False, server_default="{}"))
    for name in ("drill", "primary"):
        op.add_column("lesson", sa.Column(name, sa.String(), nullable=True))
    agreed = sa.Column("guardian_agreed", sa.Boolean(), nullable=False, server_default=sa.false())
    op.add_column("student", agreed)
    op.create_table(
        "repetition",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column("lesson_id", sa.String(), nullable=False),
        sa.Column("drill", sa.String(), nullable=False),
        sa.Column("result", sa.String(), nullable=False),
        sa.Column("done_at", sa.DateTime(), nullable=False),
        sa.ForeignKeyConstraint(["lesson_id"], ["lesson.id"], ondelete="CASCADE"),
    )
    op.create_index("ix_repetition_lesson_id", "repetition", ["lesson_id"])
    op.create_table(
        "follow_up",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column("lesson_id", sa.String(), nullable=False),
        sa.Column("due_on", sa.Date(), nullable=False),
        sa.Column("practised", sa.Integer(), nullable=True),
        sa.Column("passes", sa.Integer(), nullable=True),
        sa.Column("course", sa.String(), nullable=False),
        sa.Column("verdict", sa.String(), nullable=True),
        sa.Column("answered_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["lesson_id"], ["lesson.id"], ondelete="CASCADE"),
    )
    op.create_index("ix_follow_up_lesson_id", "follow_up", ["lesson_id"])
    op.create_table(
        "clock",
        sa.Column("lesson_id", sa.String(), primary_key=True),
        sa.Column("used_s", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["lesson_id"], ["lesson.id"], ondelete="CASCADE"),
    )


def downgrade() -> None:
    for table in ("clock", "follow_up", "repetition"):
        op.drop_table(table)
    op.drop_column("student", "guardian_agreed")
    for name in ("listen", "cue", "sheet", "drill", "primary"):
        op.drop_column("lesson", name)
