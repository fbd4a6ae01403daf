"""a second aid on the bench, and whether a repetition was judged in the feel or the real swing

Revision ID: 0009
Revises: 0008
"""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("lesson", sa.Column("aid", sa.String(), nullable=True))
    op.add_column(
        "repetition", sa.Column("real", sa.Boolean(), nullable=False, server_default=sa.false())
    )


def downgrade() -> None:
    op.drop_column("repetition", "real")
    op.drop_column("lesson", "aid")
