"""Everything leaves in an open format and comes back equal."""

import json
import re
import stat
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from sqlmodel import Session, select

from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.demo import fill_with_demo
from firm_footing.store.database import open_database
from firm_footing.store.files.exchange import TABLES, bring_in, export
from firm_footing.store.files.opening import CannotOpenError
from firm_footing.store.notes import put_note
from firm_footing.store.stills import put_still
from firm_footing.store.tables import Lesson, Still


@pytest.fixture(scope="module")
def exported(tmp_path_factory: pytest.TempPathFactory, knowledge: Knowledge) -> Path:
    """The demo's people and lessons."""
    folder = tmp_path_factory.mktemp("exported")
    engine = open_database(folder / "demo.db")
    with Session(engine) as session:
        fill_with_demo(session, knowledge)
        lesson = session.exec(select(Lesson)).first()
        assert lesson is not None
        put_note(session, lesson.id, "n", "Bring the short tees.")
        put_still(session, Still(id="s", lesson_id=lesson.id, consent="student", jpeg_base64="/9"))
        assert export(session, folder / "all.zip") > 300
    engine.dispose()
    return folder / "all.zip"


def content(path: Path) -> dict[str, bytes]:
    with zipfile.ZipFile(path) as archive:
        return {name: archive.read(name) for name in archive.namelist()}


def test_what_comes_back_is_equal_and_comes_but_once(exported: Path, tmp_path: Path) -> None:
    engine = open_database(tmp_path / "own.db")
    with Session(engine) as session:
        first = bring_in(session, exported)
        again = bring_in(session, exported)
        export(session, tmp_path / "again.zip")
    assert first.already == again.added == 0
    assert first.added == again.already
    assert content(tmp_path / "again.zip") == content(exported)
    engine.dispose()


def test_every_table_of_a_lesson_is_in_it(exported: Path) -> None:
    empty = [name for name, data in content(exported).items() if not data.strip()]
    assert empty == []
    assert len(content(exported)) == len(TABLES) + 1


def test_an_export_from_before_there_were_instructors_comes_in(
    exported: Path, tmp_path: Path
) -> None:
    older = tmp_path / "older.zip"
    with zipfile.ZipFile(older, "w") as archive:
        for name, data in content(exported).items():
            if name != "instructor.jsonl":
                archive.writestr(name, data.replace(b'"version": 3', b'"version": 1'))
    engine = open_database(tmp_path / "own.db")
    with Session(engine) as session:
        assert bring_in(session, older).added > 300
        assert bring_in(session, exported).added == 4  # the instructor, two films, and a still
    engine.dispose()


def test_a_broken_row_is_named_and_nothing_comes_in(exported: Path, tmp_path: Path) -> None:
    broken = tmp_path / "broken.zip"
    with zipfile.ZipFile(broken, "w") as archive:
        for name, data in content(exported).items():
            archive.writestr(name, data + b"{}\n" if name == "note.jsonl" else data)
    engine = open_database(tmp_path / "own.db")
    with Session(engine) as session:
        with pytest.raises(CannotOpenError, match=r"note.jsonl, line \d+: "):
            bring_in(session, broken)
        assert bring_in(session, exported).already == 0
    engine.dispose()


def test_what_is_no_export_is_said(tmp_path: Path) -> None:
    words = tmp_path / "words.zip"
    words.write_text("no zip at all")
    engine = open_database(tmp_path / "own.db")
    with Session(engine) as session, pytest.raises(CannotOpenError, match="no export"):
        bring_in(session, words)
    engine.dispose()


def changed(exported: Path, to: Path, name: str, change: Callable[[bytes], bytes]) -> Path:
    """The export with one of its files another."""
    with zipfile.ZipFile(to, "w") as archive:
        for file, data in content(exported).items():
            archive.writestr(file, change(data) if file == name else data)
    return to


def first_row(field: str, value: str) -> Callable[[bytes], bytes]:
    """The first row with another value of a field, written as JSON."""

    def change(data: bytes) -> bytes:
        head, _, rest = data.partition(b"\n")
        row = json.loads(head)
        told = json.dumps({**row, field: "THE VALUE"}).replace('"THE VALUE"', value)
        return told.encode() + b"\n" + rest

    return change


BAD: dict[str, tuple[str, Callable[[bytes], bytes], str]] = {
    "null version": ("export.json", lambda d: d.replace(b"3", b"null"), "no export"),
    "negative version": ("export.json", lambda d: d.replace(b"3", b"-3"), "no export"),
    "no head": ("export.json", lambda _: b"[]", "no export"),
    "infinite handicap": (
        "student.jsonl", first_row("handicap", "Infinity"), "student.jsonl, line 1"
    ),
    "handicap of 400": ("student.jsonl", first_row("handicap", "400"), "student.jsonl, line 1"),
    "2^70": ("block.jsonl", first_row("position", str(2**70)), "block.jsonl, line 1"),
    "a name of 300 letters": (
        "student.jsonl", first_row("name", f'"{"x" * 300}"'), "student.jsonl, line 1"
    ),
    "no name": ("student.jsonl", first_row("name", '""'), "student.jsonl, line 1"),
    "an id with a slash": ("note.jsonl", first_row("id", '"../a"'), "note.jsonl, line 1"),
    "an id twice": (
        "note.jsonl", lambda d: d + d.partition(b"\n")[0] + b"\n", "its id stands twice"
    ),
    "a key missing": (
        "note.jsonl", lambda d: d.replace(b'"text"', b'"words"', 1), "note.jsonl, line 1"
    ),
    "a list": ("note.jsonl", lambda d: b"[]\n" + d, "note.jsonl, line 1"),
    "deep brackets": ("note.jsonl", lambda d: b"[" * 20_000 + b"\n" + d, "note.jsonl, line 1"),
    "a recording of another lesson": (
        "pressure_trace.jsonl", lambda d: d, "is of another lesson"
    ),
    "ragged samples": (
        "recording.jsonl",
        lambda d: re.sub(rb'"samples": \[\[[^,]*, ', b'"samples": [[', d, count=1),
        "recording.jsonl, line",
    ),
}  # fmt: skip


@pytest.mark.parametrize("what", BAD)
def test_what_no_export_of_ours_holds_is_said_and_changes_nothing(
    exported: Path, tmp_path: Path, what: str
) -> None:
    name, change, said = BAD[what]
    if what == "a recording of another lesson":
        whose = json.loads(content(exported)[name].splitlines()[0])["lesson_id"]
        lessons = [json.loads(row)["id"] for row in content(exported)["lesson.jsonl"].splitlines()]
        change = first_row("lesson_id", json.dumps(next(i for i in lessons if i != whose)))
    bad = changed(exported, tmp_path / "bad.zip", name, change)
    engine = open_database(tmp_path / "own.db")
    with Session(engine) as session:
        with pytest.raises(CannotOpenError, match=re.escape(said)):
            bring_in(session, bad)
        assert [len(session.exec(select(t)).all()) for t in TABLES] == [0] * len(TABLES)
    engine.dispose()


def test_a_damaged_or_locked_zip_is_said(exported: Path, tmp_path: Path) -> None:
    data = bytearray(exported.read_bytes())
    middle = len(data) // 3
    data[middle : middle + 40] = bytes(40)
    damaged, locked, cut = (tmp_path / f"{n}.zip" for n in ("damaged", "locked", "cut"))
    damaged.write_bytes(data)
    cut.write_bytes(exported.read_bytes()[:-3000])
    with zipfile.ZipFile(locked, "w") as archive:
        for name, part in content(exported).items():
            archive.writestr(name, part)
    flagged = bytearray(locked.read_bytes())
    for mark, at in ((b"PK\x03\x04", 6), (b"PK\x01\x02", 8)):
        place = flagged.find(mark)
        while place >= 0:
            flagged[place + at] |= 1  # "encrypted"
            place = flagged.find(mark, place + 4)
    locked.write_bytes(flagged)
    engine = open_database(tmp_path / "own.db")
    with Session(engine) as session:
        for bad in (damaged, locked, cut):
            with pytest.raises(CannotOpenError):
                bring_in(session, bad)
        assert bring_in(session, exported).already == 0
    engine.dispose()


def test_an_export_of_a_site_that_added_causes_and_clubs_opens(
    exported: Path, tmp_path: Path
) -> None:
    added = tmp_path / "added.zip"
    with zipfile.ZipFile(added, "w") as archive:
        for name, data in content(exported).items():
            other = data.replace(b'"backs_up"', b'"our_own_cause"').replace(b'"7i"', b'"z7"')
            other = other.replace(b'"kind": "baseline"', b'"kind": "our_kind"')
            archive.writestr(name, other)
    engine = open_database(tmp_path / "own.db")
    with Session(engine) as session:
        bring_in(session, added)
        export(session, tmp_path / "again.zip")
    assert content(tmp_path / "again.zip") == content(added)
    assert stat.S_IMODE((tmp_path / "again.zip").stat().st_mode) == 0o600
    engine.dispose()


def test_the_half_written_export_is_its_owners_from_the_first_byte(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    seen: list[int] = []
    opened = zipfile.ZipFile

    def noting(file: Any, *args: Any, **more: Any) -> zipfile.ZipFile:
        seen.append(stat.S_IMODE(Path(file).stat().st_mode))
        return opened(file, *args, **more)

    monkeypatch.setattr(zipfile, "ZipFile", noting)
    engine = open_database(tmp_path / "own.db")
    with Session(engine) as session:
        export(session, tmp_path / "all.zip")
    assert seen == [0o600]
    engine.dispose()
