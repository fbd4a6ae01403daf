"""changes of a student beside those of lessons, the write of each, writes of any route

Revision ID: 0018
Revises: 0017
"""

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute(
        "CREATE TEMPORARY TABLE given AS SELECT seq FROM sqlite_sequence WHERE name='change'"
    )
    with op.batch_alter_table(
        "change", recreate="always", table_kwargs={"sqlite_autoincrement": True}
    ) as change:
        change.alter_column("lesson_id", existing_type=sa.String(), nullable=True)
        change.add_column(
            sa.Column(
                "student_id",
                sa.String(),
                sa.ForeignKey("student.id", ondelete="CASCADE", name="fk_change_student"),
                nullable=True,
            )
        )
        change.add_column(sa.Column("write", sa.String(), nullable=True))
    # a number given once is not given again, also of changes that were forgotten since
    op.execute("DELETE FROM sqlite_sequence WHERE name='change'")
    op.execute("INSERT INTO sqlite_sequence (name, seq) SELECT 'change', seq FROM given")
    op.execute("DROP TABLE given")
    op.create_index("ix_change_student_id", "change", ["student_id"])
    op.create_index("ix_change_row", "change", ["row_id", "table"])
    with op.batch_alter_table("sent_write", recreate="always") as sent:
        sent.alter_column("lesson_id", existing_type=sa.String(), nullable=True)
        sent.add_column(sa.Column("made", sa.String(), nullable=True))
        sent.add_column(sa.Column("asked", sa.String(), nullable=True))


def downgrade() -> None:
    op.execute("DELETE FROM sent_write WHERE lesson_id IS NULL")
    with op.batch_alter_table("sent_write", recreate="always") as sent:
        sent.drop_column("asked")
        sent.drop_column("made")
        sent.alter_column("lesson_id", existing_type=sa.String(), nullable=False)
    op.drop_index("ix_change_row", "change")
    op.drop_index("ix_change_student_id", "change")
    op.execute("DELETE FROM change WHERE lesson_id IS NULL")
    with op.batch_alter_table(
        "change", recreate="always", table_kwargs={"sqlite_autoincrement": True}
    ) as change:
        change.drop_column("write")
        change.drop_column("student_id")
        change.alter_column("lesson_id", existing_type=sa.String(), nullable=False)
