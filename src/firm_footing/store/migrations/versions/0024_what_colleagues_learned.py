"""what colleagues' casebooks taught

Revision ID: 0024
Revises: 0023
"""

import sqlalchemy as sa
from alembic import op

revision = "0024"
down_revision = "0023"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "colleague_casebook",
        sa.Column("id", sa.String, primary_key=True),
        sa.Column("name", sa.String, nullable=False),
        sa.Column("learned", sa.JSON, nullable=False),
        sa.Column("added_at", sa.DateTime, nullable=False),
    )


def downgrade() -> None:
    op.drop_table("colleague_casebook")
