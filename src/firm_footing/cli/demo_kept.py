"""Where does the demo's database come from? Made once, kept, and moved to today at every start.

Making it takes some seconds, for every demo lesson is ranked. What is kept is made anew when any
file of the program or of the knowledge is another one. Its moments and days are then moved as far
as time went on since: the lesson that was begun twenty minutes ago is so again.
"""

import json
import os
import re
import shutil
import tempfile
from collections.abc import Callable
from datetime import UTC, date, datetime, timedelta
from hashlib import blake2b
from pathlib import Path
from typing import Any, Final

from platformdirs import user_cache_path
from sqlalchemy import Connection, Date, Engine, Table
from sqlmodel import Session, SQLModel

from firm_footing.files.knowledge_files import KNOWLEDGE_FOLDER
from firm_footing.store.columns import AsJson, Instant
from firm_footing.store.database import open_database

PACKAGE: Final = Path(__file__).parents[1]
MOMENT: Final = re.compile(r"\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d+)?(Z|[+-]\d\d:\d\d)?")
DAY: Final = re.compile(r"\d{4}-\d\d-\d\d")


def demo_database(
    path: Path, fill: Callable[[Session], None], folder: Path | None = None
) -> Engine:
    """Open a demo database at `path`, a copy of the one kept in `folder`, as of now.

    fill : puts everyone into an empty database; asked when none is kept
    folder : left out: the user's cache folder; where it cannot be written, nothing is kept
    """
    kept = (folder or user_cache_path("firm-footing")) / f"demo-{_key()}.db"
    try:
        if not kept.is_file():
            _make(kept, fill)
        shutil.copyfile(kept, path)
        made = datetime.fromtimestamp(kept.stat().st_mtime, UTC)
    except OSError:
        path.unlink(missing_ok=True)
        engine = open_database(path, lasting=False)
        with Session(engine) as session:
            fill(session)
        return engine
    engine = open_database(path, lasting=False)
    with engine.begin() as connection:
        move(connection, datetime.now(UTC) - made, date.today() - made.astimezone().date())
    return engine


def _make(kept: Path, fill: Callable[[Session], None]) -> None:
    """Make it beside its place, put it there whole, and let go of older ones."""
    kept.parent.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=kept.parent) as folder:
        own, began = Path(folder) / "demo.db", datetime.now(UTC).timestamp()
        engine = open_database(own, lasting=False)
        with Session(engine) as session:
            fill(session)
        with engine.connect() as connection:
            connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
        engine.dispose()
        os.utime(own, (began, began))
        own.replace(kept)
    for older in set(kept.parent.glob("demo-*.db")) - {kept}:
        older.unlink(missing_ok=True)


def _key() -> str:
    """Another one whenever a file of the program or of the knowledge is."""
    files = [*PACKAGE.rglob("*.py"), *PACKAGE.rglob("*.yaml"), *KNOWLEDGE_FOLDER.glob("*.yaml")]
    stats = sorted((str(f), f.stat().st_mtime_ns, f.stat().st_size) for f in files)
    return blake2b(json.dumps(stats).encode(), digest_size=8).hexdigest()


def move(connection: Connection, by: timedelta, days: timedelta) -> None:
    """Move every moment of a database by so much, and every day by so many days."""
    for table in SQLModel.metadata.sorted_tables:
        _move_rows(connection, table, by, days)


def _move_rows(connection: Connection, table: Table, by: timedelta, days: timedelta) -> None:
    moved: dict[str, Callable[[str], str]] = {}
    for column in table.columns:
        if isinstance(column.type, Instant):
            moved[column.name] = lambda text: str(datetime.fromisoformat(text) + by)
        elif isinstance(column.type, Date):
            moved[column.name] = lambda text: str(date.fromisoformat(text) + days)
        elif isinstance(column.type, AsJson):
            moved[column.name] = lambda text: json.dumps(_moved(json.loads(text), by, days))
    if not moved:
        return
    names = ", ".join(f'"{name}"' for name in moved)
    rows = connection.exec_driver_sql(f'SELECT rowid, {names} FROM "{table.name}"').all()
    setting = ", ".join(f'"{name}" = ?' for name in moved)
    for number, *values in rows:
        new = [v and change(v) for v, change in zip(values, moved.values(), strict=True)]
        if new != values:
            connection.exec_driver_sql(
                f'UPDATE "{table.name}" SET {setting} WHERE rowid = ?', (*new, number)
            )


def _moved(value: Any, by: timedelta, days: timedelta) -> Any:
    """The same JSON, every text that is a moment or a day moved."""
    if isinstance(value, dict):
        return {name: _moved(part, by, days) for name, part in value.items()}
    if isinstance(value, list):
        return [_moved(part, by, days) for part in value]
    if isinstance(value, str) and MOMENT.fullmatch(value):
        zulu = value.endswith("Z")
        text = (datetime.fromisoformat(value) + by).isoformat()
        return text.replace("+00:00", "Z") if zulu else text
    if isinstance(value, str) and DAY.fullmatch(value):
        return str(date.fromisoformat(value) + days)
    return value
