"""students who come no more, and since when and on which side a limit is

Revision ID: 0007
Revises: 0006
"""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    # added in place: a table made anew would be dropped first, and what belongs to it with it
    archived = sa.Column("archived", sa.Boolean(), nullable=False, server_default=sa.false())
    op.add_column("student", archived)
    details = sa.Column("limit_details", sa.JSON(), nullable=False, server_default="{}")
    op.add_column("student", details)


def downgrade() -> None:
    op.drop_column("student", "limit_details")
    op.drop_column("student", "archived")
