"""May this file be opened as our database? Asked before anything in it is touched."""

import sqlite3
import stat
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from pathlib import Path
from typing import Final

from alembic.script import ScriptDirectory
from filelock import FileLock, Timeout

APPLICATION_ID: Final = 0x46664F74
"""SQLite keeps it in the file's header, so that other programs can tell whose it is."""
HEADER: Final = b"SQLite format 3\x00"
OURS: Final = {"alembic_version", "student", "lesson"}
"""Tables that every database of ours has had since its first version."""
MIGRATIONS: Final = Path(__file__).parents[1] / "migrations"


@dataclass
class CannotOpenError(Exception):
    """The database cannot be used; nothing was changed.

    message : what is wrong, a sentence
    hint : what to do
    """

    message: str
    hint: str

    def __str__(self) -> str:
        return f"{self.message} Nothing was changed. {self.hint}"


def may_be_opened(path: Path) -> None:
    """Look at a file without changing it; one that is missing or empty will be made.

    Raises
    ------
    CannotOpenError
        With the reason and what to do.

    """
    elsewhere = "Name another file with FIRM_FOOTING_DB."
    if path.is_dir():
        raise CannotOpenError(f"{path} is a folder, not a database.", elsewhere)
    if not path.exists() or path.stat().st_size == 0:
        _can_be_written(path)
        return
    try:
        with path.open("rb") as file:
            start = file.read(len(HEADER))
    except OSError as error:
        raise CannotOpenError(
            f"{path} cannot be read.", "Ask whoever owns the file to let you."
        ) from error
    if start != HEADER:
        raise CannotOpenError(f"{path} is not a database.", elsewhere)
    _can_be_written(path)
    _look_inside(path)


def may_be_restored(path: Path) -> None:
    """Look at a backup without changing it; it may lie where nothing can be written.

    Raises
    ------
    CannotOpenError
        It holds none of our tables, or is damaged, newer, or cannot be read.

    """
    try:
        with path.open("rb") as file:
            start = file.read(len(HEADER))
    except OSError as error:
        raise CannotOpenError(f"{path} cannot be read.", "Name the backup's file.") from error
    if start != HEADER:
        raise CannotOpenError(f"{path} is no backup of Firm Footing.", "Name the backup's file.")
    _look_inside(path, may_be_empty=False)


def _look_inside(path: Path, may_be_empty: bool = True) -> None:
    try:
        # the file and what waits beside it in -wal are read together, neither is written
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True, timeout=2.0)) as there:
            _is_ours(there, path, may_be_empty)
    except sqlite3.OperationalError as error:
        if "locked" in str(error):
            raise CannotOpenError(
                f"{path} is in use by another program.",
                "Close that program, or wait for its backup to end, and start again.",
            ) from error
        if "unable to open" in str(error):
            raise _not_writable(path) from error
        raise _damaged(path) from error
    except sqlite3.DatabaseError as error:
        raise _damaged(path) from error


def _can_be_written(path: Path) -> None:
    try:
        if path.exists():
            with path.open("r+b"):
                pass
        else:
            path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
            path.touch(mode=0o600)
    except OSError as error:
        raise _not_writable(path) from error


def _is_ours(there: sqlite3.Connection, path: Path, may_be_empty: bool) -> None:
    tables = {row[0] for row in there.execute("SELECT name FROM sqlite_master WHERE type='table'")}
    (application,) = there.execute("PRAGMA application_id").fetchone()
    if not tables and not may_be_empty:
        raise CannotOpenError(f"{path} is empty: there is nothing to restore.", "Name another one.")
    if tables and not (tables >= OURS and application in (0, APPLICATION_ID)):
        raise CannotOpenError(
            f"{path} belongs to another program.", "Name another file with FIRM_FOOTING_DB."
        )
    if there.execute("PRAGMA quick_check(1)").fetchone() != ("ok",):
        raise _damaged(path)
    if tables:
        found = there.execute("SELECT version_num FROM alembic_version").fetchone()
        known = {script.revision for script in ScriptDirectory(str(MIGRATIONS)).walk_revisions()}
        if found is None or found[0] not in known:
            raise CannotOpenError(
                f"{path} was made by a newer version of Firm Footing.",
                "Install that version, or restore a backup made by this one.",
            )


def _not_writable(path: Path) -> CannotOpenError:
    return CannotOpenError(
        f"{path} cannot be written.",
        "Make the file and its folder writable, or name another file with FIRM_FOOTING_DB.",
    )


def _damaged(path: Path) -> CannotOpenError:
    return CannotOpenError(
        f"{path} is damaged and cannot be read.",
        "Restore the newest backup: firm-footing restore FILE.",
    )


def only_for_its_owner(path: Path) -> None:
    """Names and health notes are in it: nobody else on this machine reads it."""
    for file in (path, *(path.with_name(path.name + end) for end in ("-wal", "-shm"))):
        if file.exists() and stat.S_IMODE(file.stat().st_mode) != 0o600:
            file.chmod(0o600)


@contextmanager
def the_only_server(path: Path) -> Iterator[None]:
    """One program at a time serves or restores a database.

    Raises
    ------
    CannotOpenError
        Another one has it.

    """
    lock = FileLock(path.with_name(path.name + ".lock"), timeout=0, mode=0o600)
    try:
        lock.acquire()
    except Timeout as error:
        raise CannotOpenError(
            f"{path} is being served already.",
            "Open the page that is running, or stop that one first.",
        ) from error
    try:
        yield
    finally:
        lock.release()
