"""Everything leaves in an open format and comes back equal."""

import zipfile
from pathlib import Path

import pytest
from sqlmodel import Session, select

from firm_footing.core.knowledge import Knowledge
from firm_footing.standins.demo import fill_with_demo
from firm_footing.store.database import open_database
from firm_footing.store.exchange import TABLES, bring_in, export
from firm_footing.store.notes import put_note
from firm_footing.store.opening import CannotOpenError
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
