"""what is not at hand, lessons that reopen another, balls with own targets, the stage left

Revision ID: 0006
Revises: 0005
"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    # added in place: a table made anew would be dropped first, and what belongs to it with it
    op.add_column("lesson", sa.Column("lacking", sa.JSON(), nullable=False, server_default="[]"))
    op.add_column("lesson", sa.Column("reopens", sa.String(), nullable=True))
    own = sa.Column("own_targets", sa.Boolean(), nullable=False, server_default=sa.false())
    op.add_column("block", own)
    op.add_column("clock", sa.Column("stage", sa.String(), nullable=True))


def downgrade() -> None:
    op.drop_column("clock", "stage")
    op.drop_column("block", "own_targets")
    for name in ("reopens", "lacking"):
        op.drop_column("lesson", name)
