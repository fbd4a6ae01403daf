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
    with op.batch_alter_table("lesson") as lesson:
        for name in ("listen", "cue", "sheet"):
            lesson.add_column(sa.Column(name, sa.JSON(), nullable=False, server_default="{}"))
        for name in ("drill", "primary"):
            lesson.add_column(sa.Column(name, sa.String(), nullable=True))
    with op.batch_alter_table("lesson") as lesson:
        for name in ("listen", "cue", "sheet"):
            lesson.alter_column(name, server_default=None)
    with op.batch_alter_table("student") as student:
        student.add_column(
            sa.Column("guardian_agreed", sa.Boolean(), nullable=False, server_default=sa.false())
        )
    with op.batch_alter_table("student") as student:
        student.alter_column("guardian_agreed", server_default=None)
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
    with op.batch_alter_table("student") as student:
        student.drop_column("guardian_agreed")
    with op.batch_alter_table("lesson") as lesson:
        for name in ("listen", "cue", "sheet", "drill", "primary"):
            lesson.drop_column(name)
