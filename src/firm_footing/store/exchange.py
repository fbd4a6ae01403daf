"""How does everything that is kept leave in an open format, and come back equal?

A zip of JSON lines, one file a table, one row a line, as the tables name things; golfer-neutral and
SI like the database. What could be undone, paired devices and agreed table headings stay behind.
"""

import json
import zipfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any, Final, NamedTuple

from pydantic import ValidationError
from sqlalchemy import inspect
from sqlmodel import Session, SQLModel, select

from firm_footing.store.database import take_turn
from firm_footing.store.opening import CannotOpenError
from firm_footing.store.tables import (
    CheckAnswer,
    Clock,
    Decision,
    FilmMarks,
    FollowUp,
    Instructor,
    Lesson,
    LoggedBlock,
    LoggedShot,
    Note,
    PressureTrace,
    Recording,
    Repetition,
    Still,
    Student,
)

FORMAT, VERSION = "firm-footing-export", 3
HEAD: Final = "export.json"
TABLES: Final[tuple[type[SQLModel], ...]] = (
    Instructor, Student, Lesson, LoggedBlock, LoggedShot, CheckAnswer, Recording, PressureTrace,
    FilmMarks, Still, Repetition, FollowUp, Clock, Note, Decision,
)  # fmt: skip
"""What others belong to comes first."""
SINCE: Final[dict[type[SQLModel], int]] = {Instructor: 2, FilmMarks: 2, Still: 3}
"""Tables that exports older than this version do not have."""
LARGEST: Final = 2_000_000_000
"""Bytes of one table, unpacked."""


class Brought(NamedTuple):
    """Rows that were added, and rows that were there already and stay as they are."""

    added: int
    already: int


def export(session: Session, to: Path) -> int:
    """Write everything into a new file; how many rows.

    Raises
    ------
    CannotOpenError
        The file cannot be written.

    """
    half, rows = to.with_name(to.name + ".part"), 0
    try:
        with zipfile.ZipFile(half, "w", zipfile.ZIP_DEFLATED) as archive:
            archive.writestr(HEAD, json.dumps({"format": FORMAT, "version": VERSION}))
            for table in TABLES:
                lines = [
                    json.dumps(row.model_dump(mode="json"), ensure_ascii=False)
                    for row in session.exec(select(table).order_by(*_key(table)))
                ]
                archive.writestr(_file(table), "".join(f"{line}\n" for line in lines))
                rows += len(lines)
        half.chmod(0o600)
        half.replace(to)
    except OSError as error:
        half.unlink(missing_ok=True)
        raise CannotOpenError(
            f"The export could not be written to {to} ({error}).",
            "Choose a folder that has room and can be written.",
        ) from error
    return rows


def bring_in(session: Session, exported: Path) -> Brought:
    """Add what an export holds, all of it or nothing; rows that are there already stay.

    Raises
    ------
    CannotOpenError
        The file is no export, or a row of it is broken: which one is said.

    """
    added = already = 0
    take_turn(session)
    try:
        with zipfile.ZipFile(exported) as archive:
            version = _version(json.loads(archive.read(HEAD)), exported)
            for table in (t for t in TABLES if version >= SINCE.get(t, 1)):
                for row in _rows(archive, table, exported):
                    if session.get(table, inspect(row).mapper.primary_key_from_instance(row)):
                        already += 1
                    else:
                        session.add(row)
                        added += 1
                session.flush()
    except (OSError, zipfile.BadZipFile, KeyError, ValueError) as error:
        session.rollback()
        raise CannotOpenError(f"{exported} is no export of Firm Footing.", "Name one.") from error
    except BaseException:
        session.rollback()
        raise
    session.commit()
    return Brought(added, already)


def _version(head: Any, exported: Path) -> int:
    if head["format"] != FORMAT:
        raise ValueError
    if head["version"] > VERSION:
        raise CannotOpenError(f"{exported} was made by a newer version.", "Install that one.")
    return int(head["version"])


def _rows(archive: zipfile.ZipFile, table: type[SQLModel], exported: Path) -> Iterator[SQLModel]:
    name = _file(table)
    if archive.getinfo(name).file_size > LARGEST:
        raise CannotOpenError(f"{name} in {exported} is too large.", "It is not ours.")
    with archive.open(name) as lines:
        for number, line in enumerate(lines, 1):
            try:
                yield table.model_validate(json.loads(line))
            except (ValidationError, json.JSONDecodeError) as error:
                raise CannotOpenError(
                    f"Line {number} of {name} in {exported} cannot be read.", "Mend that line."
                ) from error


def _file(table: type[SQLModel]) -> str:
    return f"{table.__tablename__}.jsonl"


def _key(table: type[SQLModel]) -> list[Any]:
    return list(table.__table__.primary_key)  # type: ignore[attr-defined]
