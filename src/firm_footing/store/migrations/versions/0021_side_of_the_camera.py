"""a camera stands to one side: where only its distance from the line was said, nobody said

Revision ID: 0021
Revises: 0020
"""

import json
from collections.abc import Callable

import sqlalchemy as sa
from alembic import op

revision = "0021"
down_revision = "0020"
branch_labels = None
depends_on = None

MARKS = sa.table("film_marks", sa.column("id", sa.String), sa.column("marks", sa.String))


def upgrade() -> None:
    _rewrite(lambda off: None if off > 0 else off)


def downgrade() -> None:
    """A side is no distance: what was said is taken without it."""
    _rewrite(abs)


def _rewrite(change: Callable[[float], float | None]) -> None:
    connection = op.get_bind()
    for row in connection.execute(sa.select(MARKS)).fetchall():
        marks = json.loads(row.marks)
        if marks.get("off_line_cm") is not None:
            marks["off_line_cm"] = change(marks["off_line_cm"])
            kept = sa.update(MARKS).where(MARKS.c.id == row.id)
            connection.execute(kept.values(marks=json.dumps(marks)))
