"""samples of a trace are kept compressed

Revision ID: 0019
Revises: 0018
"""

import json
import math
import struct
import zlib
from collections.abc import Callable
from typing import Any

from alembic import op

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    _rewrite("BLOB NOT NULL DEFAULT x''", _packed)


def downgrade() -> None:
    _rewrite("TEXT NOT NULL DEFAULT ''", _unpacked)


def _rewrite(kind: str, change: Callable[[Any], str | bytes]) -> None:
    """A new column for the old one: making the table anew would take the traces on it along.

    One row after the other: all of them at once may be more than there is memory.
    """
    connection = op.get_bind()
    connection.exec_driver_sql(f"ALTER TABLE recording ADD COLUMN new_samples {kind}")
    for (key,) in connection.exec_driver_sql("SELECT id FROM recording").fetchall():
        kept = connection.exec_driver_sql("SELECT samples FROM recording WHERE id = ?", (key,))
        new = change(kept.scalar_one())
        connection.exec_driver_sql("UPDATE recording SET new_samples = ? WHERE id = ?", (new, key))
    connection.exec_driver_sql("ALTER TABLE recording DROP COLUMN samples")
    connection.exec_driver_sql("ALTER TABLE recording RENAME COLUMN new_samples TO samples")


def _packed(kept: str) -> bytes:
    """A line of JSON with what is no sample, then eight bytes a number, NaN for none."""
    said = json.loads(kept)
    rows, columns = said.pop("samples"), said["columns"]
    flat = [math.nan if v is None else v for row in rows for v in row]
    head = {"columns": columns, "typed_pct": said.get("typed_pct", {})}
    numbers = struct.pack(f"<{len(flat)}d", *flat)
    return zlib.compress(json.dumps(head).encode() + b"\n" + numbers, level=1)


def _unpacked(kept: bytes) -> str:
    head, _, numbers = zlib.decompress(kept).partition(b"\n")
    said = json.loads(head)
    flat = [None if math.isnan(v) else v for (v,) in struct.iter_unpack("<d", numbers)]
    wide = max(1, len(said["columns"]))
    said["samples"] = [flat[i : i + wide] for i in range(0, len(flat), wide)]
    if not said["typed_pct"]:
        del said["typed_pct"]
    return json.dumps(said)
