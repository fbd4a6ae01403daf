"""How is the whole database kept elsewhere, and brought back?

While it is served, much of a database stands in the file beside it (`-wal`), so copying the one
file keeps next to nothing. SQLite's own online backup does it right, served or not.
"""

import re
import sqlite3
from contextlib import closing, suppress
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from typing import Final

from firm_footing.store.files.opening import (
    CannotOpenError,
    may_be_opened,
    may_be_restored,
    the_only_server,
)

DAYS, WEEKS = 7, 4
"""Backups kept of the last days, and of the weeks before them."""
DAILY: Final = "firm-footing-*.db"
DAY: Final = re.compile(r"-(\d{4}-\d\d-\d\d)(-\d{6})?$")
"""At the end of the name of a backup, and of what a restore has put aside."""


def back_up(database: Path, to: Path) -> Path:
    """Write all that is kept into one new file, and check it.

    Raises
    ------
    CannotOpenError
        The database or the new file cannot be used. An older file there is not touched then.

    """
    may_be_opened(database)
    half = to.with_name(to.name + ".part")
    try:
        to.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        half.unlink(missing_ok=True)
        half.touch(mode=0o600)
        with closing(sqlite3.connect(database)) as here, closing(sqlite3.connect(half)) as there:
            here.backup(there)
            there.execute("PRAGMA journal_mode = DELETE")
            _sound(there, half)
        half.replace(to)
    except (OSError, sqlite3.Error) as error:
        with suppress(OSError):
            half.unlink(missing_ok=True)
        raise CannotOpenError(
            f"The backup could not be written to {to} ({why(error)}).",
            "Choose a folder that has room and can be written.",
        ) from error
    return to


def restore(backup: Path, database: Path) -> Path | None:
    """Put a backup in the database's place; where what was there is kept, None without any.

    Raises
    ------
    CannotOpenError
        The backup is none, or the database is being served or cannot be written. What was there is
        then as it was, or in the file that the message names.

    """
    if not backup.exists():
        raise CannotOpenError(f"There is no file {backup}.", "Name the backup's file.")
    may_be_restored(backup)
    with closing(_reading(backup)) as there:
        _sound(there, backup)
        expected = _counts(there)
    with the_only_server(database):
        replaced = None
        if database.exists() and database.stat().st_size:
            at = datetime.now(UTC).strftime("%Y-%m-%d-%H%M%S")
            replaced = database.with_name(f"{database.stem}-replaced-{at}.db")
            back_up(database, replaced)
        kept = f" What was there is in {replaced}." if replaced else ""
        try:
            # into the same file by SQLite itself: what stood beside it in -wal goes with it
            with closing(_reading(backup)) as there, closing(sqlite3.connect(database)) as here:
                there.backup(here)
                _sound(here, database)
                whole = _counts(here) == expected
        except (OSError, sqlite3.Error) as error:
            raise CannotOpenError(
                f"The backup could not be written to {database} ({why(error)}).{kept}",
                "Make room on the disk, or name another file with FIRM_FOOTING_DB.",
            ) from error
        if not whole:
            raise CannotOpenError(
                f"Not all of {backup} has arrived in {database}.{kept}", "Restore it once more."
            )
        for old in _too_many(_replaced(database), datetime.now(UTC).date()):
            old.unlink()
    return replaced


def _reading(backup: Path) -> sqlite3.Connection:
    return sqlite3.connect(f"file:{backup}?mode=ro", uri=True)


def _counts(there: sqlite3.Connection) -> dict[str, int]:
    """How many rows each table has."""
    names = there.execute("SELECT name FROM sqlite_master WHERE type='table'").fetchall()
    return {
        name: there.execute(f'SELECT count(*) FROM "{name}"').fetchone()[0]
        for (name,) in names
        if not name.startswith("sqlite_")
    }


def _replaced(database: Path) -> list[Path]:
    """What restores have put aside, the oldest first."""
    return sorted(database.parent.glob(f"{database.stem}-replaced-*.db"))


def back_up_today(database: Path, today: date, anew: bool = False) -> Path | None:
    """The day's first backup, in the folder beside the database; None when it is there already.

    anew : in the place of today's, if there is one

    Older ones are thinned out: the last days stay, and one of each week before them.
    """
    folder = folder_of(database)
    to = folder / f"firm-footing-{today.isoformat()}.db"
    if to.exists() and not anew:
        return None
    made = back_up(database, to)
    for old in _too_many(sorted(folder.glob(DAILY)), today):
        old.unlink()
    return made


def folder_of(database: Path) -> Path:
    """Where the daily backups of a database are."""
    return database.with_name(f"{database.stem}-backups")


def last_backup(database: Path) -> tuple[Path, datetime] | None:
    """The newest daily backup and when it was made."""
    found = sorted(folder_of(database).glob(DAILY))
    if not found:
        return None
    return found[-1], datetime.fromtimestamp(found[-1].stat().st_mtime, UTC)


def _too_many(files: list[Path], today: date) -> list[Path]:
    """Those that are neither of the last days nor the newest of one of the weeks before them."""
    weeks: set[tuple[int, int]] = set()
    found = []
    for file in reversed(files):
        try:
            day = date.fromisoformat(DAY.search(file.stem)[1])  # type: ignore[index]
        except (ValueError, TypeError):
            continue
        if today - day < timedelta(days=DAYS):
            continue
        year, week, _ = day.isocalendar()
        young = today - day < timedelta(days=DAYS + 7 * WEEKS)
        if young and (year, week) not in weeks and len(weeks) < WEEKS:
            weeks.add((year, week))
        else:
            found.append(file)
    return found


def why(error: Exception) -> str:
    """What the system says of it, without its number."""
    return (error.strerror if isinstance(error, OSError) else None) or str(error)


def _sound(there: sqlite3.Connection, path: Path) -> None:
    whole = there.execute("PRAGMA integrity_check(1)").fetchone() == ("ok",)
    if not whole or there.execute("PRAGMA foreign_key_check").fetchone() is not None:
        raise CannotOpenError(f"{path} is damaged.", "Take an older backup.")
