"""what a decision predicts

Revision ID: 0002
Revises: 0001
"""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("decision") as table:
        table.add_column(sa.Column("prediction", sa.JSON(), nullable=True))


def downgrade() -> None:
    with op.batch_alter_table("decision") as table:
        table.drop_column("prediction")
