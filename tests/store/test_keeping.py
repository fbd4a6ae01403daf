"""Backups hold everything, restoring loses nothing, and what cannot be opened is told plainly."""

import sqlite3
import stat
import time
from contextlib import closing
from datetime import date, timedelta
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy import text
from sqlmodel import Session

from firm_footing.store import students
from firm_footing.store.database import close_database, open_database
from firm_footing.store.files.backups import back_up, back_up_today, folder_of, last_backup, restore
from firm_footing.store.files.erasing import is_erasing
from firm_footing.store.files.opening import CannotOpenError, may_be_opened, the_only_server
from firm_footing.store.tables import Student


def with_student(path: Path, name: str) -> None:
    engine = open_database(path)
    with Session(engine) as session:
        students.add_student(session, Student(name=name, handedness="right", about="kept secret"))
    close_database(engine)


def names_in(path: Path) -> list[str]:
    with closing(sqlite3.connect(path)) as there:
        return [row[0] for row in there.execute("SELECT name FROM student ORDER BY name")]


def test_a_backup_taken_while_it_is_served_is_one_whole_file(tmp_path: Path) -> None:
    path, to = tmp_path / "own.db", tmp_path / "stick" / "copy.db"
    engine = open_database(path)
    with Session(engine) as session:
        students.add_student(session, Student(name="Oda", handedness="right"))
        back_up(path, to)
    assert names_in(to) == ["Oda"]
    assert sorted(f.name for f in to.parent.iterdir()) == ["copy.db"]
    engine.dispose()


def test_an_orderly_end_leaves_everything_in_the_one_file(tmp_path: Path) -> None:
    path, copy = tmp_path / "own.db", tmp_path / "copied.db"
    with_student(path, "Oda")
    copy.write_bytes(path.read_bytes())
    assert names_in(copy) == ["Oda"]


def test_restoring_keeps_what_it_replaces(tmp_path: Path) -> None:
    path, to = tmp_path / "own.db", tmp_path / "copy.db"
    with_student(path, "Oda")
    back_up(path, to)
    with_student(path, "Pia")
    replaced = restore(to, path)
    assert replaced is not None
    assert (names_in(path), names_in(replaced)) == (["Oda"], ["Oda", "Pia"])
    open_database(path).dispose()


def test_nothing_is_restored_under_a_running_server_or_from_no_backup(tmp_path: Path) -> None:
    path, to, words = tmp_path / "own.db", tmp_path / "copy.db", tmp_path / "notes.txt"
    with_student(path, "Oda")
    back_up(path, to)
    words.write_text("not a database at all")
    with the_only_server(path), pytest.raises(CannotOpenError, match="being served already"):
        restore(to, path)
    for wrong in (words, tmp_path / "missing.db"):
        with pytest.raises(CannotOpenError):
            restore(wrong, path)
    assert names_in(path) == ["Oda"]


def test_daily_backups_stay_for_seven_days_and_four_weeks(tmp_path: Path) -> None:
    path = tmp_path / "own.db"
    with_student(path, "Oda")
    first = date(2026, 1, 1)
    for i in range(60):
        back_up_today(path, first + timedelta(days=i))
    last = first + timedelta(days=59)
    assert back_up_today(path, last) is None
    days = sorted(f.stem.removeprefix("firm-footing-") for f in folder_of(path).iterdir())
    ages = [(last - date.fromisoformat(day)).days for day in days]
    assert [a for a in ages if a < 7] == [6, 5, 4, 3, 2, 1, 0]
    older = [a for a in ages if a >= 7]
    assert len(older) == 4
    assert max(older) < 7 + 28
    found = last_backup(path)
    assert found is not None
    assert names_in(found[0]) == ["Oda"]


def test_only_the_owner_reads_it(tmp_path: Path) -> None:
    path = tmp_path / "deep" / "own.db"
    with_student(path, "Oda")
    path.chmod(0o644)
    engine = open_database(path)
    for file in [path, *path.parent.glob("own.db-*")]:
        assert stat.S_IMODE(file.stat().st_mode) == 0o600, file
    assert stat.S_IMODE(path.parent.stat().st_mode) == 0o700
    engine.dispose()


def test_of_the_deleted_no_byte_is_left(tmp_path: Path) -> None:
    path = tmp_path / "own.db"
    engine = open_database(path)
    with Session(engine) as session:
        said = "pregnant, no impact drills"
        someone = students.add_student(
            session, Student(name="Wilhelmina", handedness="right", about=said)
        )
        students.delete_student(session, someone.id)
    left = b"".join(f.read_bytes() for f in tmp_path.iterdir())
    assert b"Wilhelmina" not in left
    assert said.encode() not in left
    engine.dispose()


@pytest.mark.parametrize(
    ("made", "said"),
    [
        (lambda p: p.write_text("Dear diary, " * 20), "is not a database"),
        (lambda p: p.mkdir(), "is a folder"),
        (lambda p: foreign(p), "belongs to another program"),
        (lambda p: newer(p), "newer version"),
        (lambda p: broken(p), "damaged"),
    ],
)
def test_what_cannot_be_opened_is_said_and_left_as_it_is(
    tmp_path: Path, made: object, said: str
) -> None:
    path = tmp_path / "own.db"
    made(path)  # type: ignore[operator]
    before = path.read_bytes() if path.is_file() else b""
    with pytest.raises(CannotOpenError, match=said) as told:
        open_database(path)
    assert "Nothing was changed." in str(told.value)
    assert (path.read_bytes() if path.is_file() else b"") == before


def test_a_locked_database_is_said(tmp_path: Path) -> None:
    path = tmp_path / "own.db"
    with_student(path, "Oda")
    with closing(sqlite3.connect(path)) as other:
        other.execute("PRAGMA journal_mode = DELETE")
        other.execute("BEGIN EXCLUSIVE")
        with pytest.raises(CannotOpenError, match="in use by another program"):
            may_be_opened(path)


def foreign(path: Path) -> None:
    with closing(sqlite3.connect(path)) as there:
        there.execute("CREATE TABLE recipes (name TEXT)")


def newer(path: Path) -> None:
    with_student(path, "Oda")
    with closing(sqlite3.connect(path)) as there:
        there.execute("UPDATE alembic_version SET version_num = '9999'")
        there.commit()


def broken(path: Path) -> None:
    with_student(path, "Oda")
    path.write_bytes(path.read_bytes()[:9000])


@pytest.mark.parametrize(("lasting", "level"), [(True, 2), (False, 0)])
def test_only_what_is_thrown_away_is_not_waited_for(
    tmp_path: Path, lasting: bool, level: int
) -> None:
    """SQLite's FULL is 2, OFF is 0."""
    engine = open_database(tmp_path / "own.db", lasting=lasting)
    with engine.connect() as connection:
        assert connection.exec_driver_sql("PRAGMA synchronous").scalar() == level
    engine.dispose()


def test_an_empty_or_foreign_file_is_never_restored(tmp_path: Path) -> None:
    own = full(tmp_path / "own.db")
    before = own.read_bytes()
    empty, other = tmp_path / "empty.db", tmp_path / "other.db"
    empty.touch()
    no_tables = tmp_path / "no-tables.db"
    for path, statement in ((other, "CREATE TABLE golf (x)"), (no_tables, "PRAGMA user_version=1")):
        with closing(sqlite3.connect(path)) as there:
            there.execute(statement)
            there.commit()
    for bad in (empty, other, no_tables, tmp_path / "missing.db"):
        with pytest.raises(CannotOpenError):
            restore(bad, own)
    assert own.read_bytes() == before
    assert list(tmp_path.glob("own-replaced-*")) == []


def test_a_backup_that_cannot_be_written_to_is_restored_all_the_same(tmp_path: Path) -> None:
    copy = tmp_path / "copy.db"
    back_up(full(tmp_path / "own.db"), copy)
    copy.chmod(0o400)
    restore(copy, tmp_path / "new.db")
    assert names_in(tmp_path / "new.db") == ["Oda"]


def test_a_full_disk_is_said_and_nothing_is_lost(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    copy, own = tmp_path / "copy.db", full(tmp_path / "own.db")
    back_up(own, copy)
    connect = sqlite3.connect

    def small(path: Any, *args: Any, **more: Any) -> sqlite3.Connection:
        found = connect(path, *args, **more)
        if str(path) == str(tmp_path / "new.db"):
            found.execute("PRAGMA max_page_count = 4")
        return found

    monkeypatch.setattr(sqlite3, "connect", small)
    with pytest.raises(CannotOpenError, match="could not be written"):
        restore(copy, tmp_path / "new.db")
    assert names_in(own) == ["Oda"]


def test_what_restores_put_aside_is_thinned_out(tmp_path: Path) -> None:
    copy, own = tmp_path / "copy.db", full(tmp_path / "own.db")
    back_up(own, copy)
    for year in range(2010, 2020):
        (tmp_path / f"own-replaced-{year}-05-05-101010.db").touch()
    kept = restore(copy, own)
    assert list(tmp_path.glob("own-replaced-*")) == [kept]


def test_what_is_deleted_while_somebody_reads_is_erased_when_they_are_done(tmp_path: Path) -> None:
    path = tmp_path / "own.db"
    engine = open_database(path)
    with Session(engine) as session:
        student = students.add_student(session, Student(name="Quillona Vesp", handedness="right"))
        gone = student.id
    with engine.connect() as reading:
        reading.execute(text("SELECT count(*) FROM student")).all()
        with Session(engine) as session:
            students.delete_student(session, gone)
        assert is_erasing(engine)
        assert b"Quillona" in bytes_beside(path)
    until = time.monotonic() + 10
    while is_erasing(engine) and time.monotonic() < until:
        time.sleep(0.05)
    assert not is_erasing(engine)
    assert b"Quillona" not in bytes_beside(path)
    engine.dispose()


def full(path: Path) -> Path:
    """A database with one student in one file."""
    with_student(path, "Oda")
    return path


def bytes_beside(path: Path) -> bytes:
    return b"".join(p.read_bytes() for p in path.parent.glob(f"{path.name}*") if p.is_file())
