"""who gives lessons, whose device it is, and who gave a lesson

Revision ID: 0013
Revises: 0012
"""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "instructor",
        sa.Column("id", sa.String(), primary_key=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
        sa.Column("school", sa.JSON(), nullable=False),
        sa.Column("sides", sa.String(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
    )
    with op.batch_alter_table("device") as device:
        device.add_column(sa.Column("instructor_id", sa.String(), nullable=True))
        device.create_foreign_key(
            "fk_device_instructor", "instructor", ["instructor_id"], ["id"], ondelete="SET NULL"
        )
    op.add_column("lesson", sa.Column("given_by", sa.String(), nullable=False, server_default=""))


def downgrade() -> None:
    op.drop_column("lesson", "given_by")
    with op.batch_alter_table("device") as device:
        device.drop_constraint("fk_device_instructor", type_="foreignkey")
        device.drop_column("instructor_id")
    op.drop_table("instructor")
