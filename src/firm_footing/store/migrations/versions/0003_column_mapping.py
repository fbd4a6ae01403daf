"""what the columns of a table of balls hold, remembered

Revision ID: 0003
Revises: 0002
"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "column_mapping",
        sa.Column("fingerprint", sa.String(), primary_key=True),
        sa.Column("columns", sa.JSON(), nullable=False),
        sa.Column("used_at", sa.DateTime(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("column_mapping")
