"""How does everything that is kept leave in an open format, and come back equal?

A zip of JSON lines, one file a table, one row a line, as the tables name things; golfer-neutral and
SI like the database. What could be undone, paired devices and agreed table headings stay behind.
"""

import json
import zipfile
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path
from typing import Any, Final, NamedTuple

from pydantic import ValidationError
from sqlalchemy import String, inspect, type_coerce
from sqlalchemy import select as sa_select
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session, SQLModel, select

from firm_footing.store.changes.row_values import content_of_row
from firm_footing.store.columns import OneOf
from firm_footing.store.database import take_turn
from firm_footing.store.files.backups import why
from firm_footing.store.files.opening import CannotOpenError
from firm_footing.store.files.row_limits import validated
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
MEND: Final = "Mend that line, or export it anew."


class Brought(NamedTuple):
    """Rows that were added, and rows that were there already and stay as they are."""

    added: int
    already: int


def export(session: Session, to: Path) -> int:
    """Write everything into a new file; how many rows.

    Words that are not known here any more leave as they are kept.

    Raises
    ------
    CannotOpenError
        The file cannot be written.

    """
    half, rows = to.with_name(to.name + ".part"), 0
    try:
        half.unlink(missing_ok=True)
        half.touch(mode=0o600)
        with zipfile.ZipFile(half, "w", zipfile.ZIP_DEFLATED) as archive:
            archive.writestr(HEAD, json.dumps({"format": FORMAT, "version": VERSION}))
            for table in TABLES:
                lines = [json.dumps(row, ensure_ascii=False) for row in _kept_rows(session, table)]
                archive.writestr(_file(table), "".join(f"{line}\n" for line in lines))
                rows += len(lines)
        half.replace(to)
    except OSError as error:
        with suppress(OSError):
            half.unlink(missing_ok=True)
        raise CannotOpenError(
            f"The export could not be written to {to} ({why(error)}).",
            "Choose a folder that has room and can be written.",
        ) from error
    return rows


def bring_in(session: Session, exported: Path) -> Brought:
    """Add what an export holds, all of it or nothing; rows that are there already stay.

    Every value is read as the API reads it; words of a knowledge that is not here are kept.

    Raises
    ------
    CannotOpenError
        The file is no export, or a row of it is broken: file and line are said, nothing is changed.

    """
    added = already = 0
    take_turn(session)
    try:
        with zipfile.ZipFile(exported) as archive:
            version = _version(archive, exported)
            for table in (t for t in TABLES if version >= SINCE.get(t, 1)):
                seen: set[Any] = set()
                for place, row in _rows(archive, table):
                    key = inspect(row).mapper.primary_key_from_instance(row)
                    if tuple(key) in seen:
                        raise CannotOpenError(f"{place}: its id stands twice.", MEND)
                    seen.add(tuple(key))
                    if session.get(table, key):
                        already += 1
                        continue
                    _belongs(session, row, place)
                    session.add(row)
                    added += 1
                session.flush()
    except (OSError, zipfile.BadZipFile, RuntimeError, KeyError) as error:
        # encrypted, packed by other means, or a file is missing in it
        session.rollback()
        raise CannotOpenError(
            f"{exported} is no export of Firm Footing, or it is damaged.",
            "Name the zip that 'firm-footing export' wrote, as it wrote it.",
        ) from error
    except IntegrityError as error:
        session.rollback()
        raise CannotOpenError(
            f"Rows of {exported} do not belong together.", "Export it anew."
        ) from error
    except BaseException:
        session.rollback()
        raise
    session.commit()
    return Brought(added, already)


def _kept_rows(session: Session, table: type[SQLModel]) -> Iterator[dict[str, Any]]:
    """Rows as JSON; words that are not known here stand as they are kept."""
    columns = table.__table__.columns  # type: ignore[attr-defined]
    words = [c for c in columns if isinstance(c.type, OneOf)]
    rows = session.exec(select(table).order_by(*_key(table)))
    if not words:
        yield from (content_of_row(row) for row in rows)
        return
    kept = session.connection().execute(
        sa_select(*(type_coerce(c, String).label(c.name) for c in words)).order_by(*_key(table))
    )
    for row, raw in zip(rows, kept.mappings(), strict=True):
        yield content_of_row(row) | dict(raw)


def _version(archive: zipfile.ZipFile, exported: Path) -> int:
    try:
        head = _json(archive.read(HEAD))
        version = head["version"] if head["format"] == FORMAT else None
    except (ValueError, RecursionError, TypeError, KeyError):
        version = None
    if type(version) is not int or version < 1:
        raise CannotOpenError(f"{exported} is no export of Firm Footing.", "Name one.")
    if version > VERSION:
        raise CannotOpenError(f"{exported} was made by a newer version.", "Install that one.")
    return version


def _rows(archive: zipfile.ZipFile, table: type[SQLModel]) -> Iterator[tuple[str, SQLModel]]:
    """Each row with where it stands."""
    name = _file(table)
    if archive.getinfo(name).file_size > LARGEST:
        raise CannotOpenError(f"{name} is too large.", "It is not ours.")
    with archive.open(name) as lines:
        for number, line in enumerate(lines, 1):
            place = f"{name}, line {number}"
            try:
                yield place, validated(table, _json(line))
            except ValidationError as error:
                first = error.errors(include_url=False, include_context=False)[0]
                field = ".".join(str(step) for step in first["loc"]) or "the row"
                raise CannotOpenError(f"{place}: {field}: {first['msg']}.", MEND) from error
            except (TypeError, ValueError, RecursionError) as error:
                raise CannotOpenError(f"{place} cannot be read.", MEND) from error


def _json(text: bytes) -> Any:
    def no_constant(name: str) -> Any:
        raise ValueError(name)

    return json.loads(text, parse_constant=no_constant)


def _belongs(session: Session, row: SQLModel, place: str) -> None:
    """Refuse a row whose block, recording or film is another lesson's."""
    lesson = getattr(row, "lesson_id", None)
    for column, table in (("block_id", LoggedBlock), ("recording_id", Recording)):
        named = getattr(row, column, None)
        if named is None or lesson is None:
            continue
        there = session.get(table, named)
        if getattr(there, "lesson_id", None) != lesson:
            raise CannotOpenError(f"{place}: its {column[:-3]} is of another lesson.", MEND)


def _file(table: type[SQLModel]) -> str:
    return f"{table.__tablename__}.jsonl"


def _key(table: type[SQLModel]) -> list[Any]:
    return list(table.__table__.primary_key)  # type: ignore[attr-defined]
