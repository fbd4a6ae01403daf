"""what lessons taught: studied lessons, the layer made of them, what a decision was made with

Revision ID: 0022
Revises: 0021
"""

import sqlalchemy as sa
from alembic import op

revision = "0022"
down_revision = "0021"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "studied_lesson",
        sa.Column(
            "lesson_id",
            sa.String,
            sa.ForeignKey("lesson.id", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("state", sa.String, nullable=False),
        sa.Column("cause", sa.String, nullable=False),
        sa.Column("measured", sa.JSON, nullable=False),
        sa.Column("said", sa.Float, nullable=True),
        sa.Column("told", sa.JSON, nullable=False),
        sa.Column("taken", sa.JSON, nullable=False),
        sa.Column("proposed", sa.JSON, nullable=False),
        sa.Column("log_likelihood", sa.LargeBinary, nullable=False),
    )
    op.create_table(
        "learned_layer",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("made_of", sa.String, nullable=False),
        sa.Column("learned", sa.JSON, nullable=True),
        sa.Column("made_at", sa.DateTime, nullable=False),
    )
    op.add_column("decision", sa.Column("how_common", sa.JSON, nullable=False, server_default="[]"))


def downgrade() -> None:
    op.drop_column("decision", "how_common")
    op.drop_table("learned_layer")
    op.drop_table("studied_lesson")
