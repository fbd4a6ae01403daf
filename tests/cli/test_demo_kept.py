"""The demo is made once; what is kept is as of today at every start."""

import json
import os
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy import Date, Engine
from sqlmodel import Session, SQLModel, select

from firm_footing.cli.demo_kept import demo_database
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.demo import fill_with_demo
from firm_footing.store.changes import history
from firm_footing.store.columns import AsJson, Instant
from firm_footing.store.own_tables import UndoEntry
from firm_footing.store.tables import Lesson


def fill(session: Session) -> None:
    fill_with_demo(session, load_knowledge())


def refuse(_: Session) -> None:
    raise AssertionError("it was made again")


@pytest.fixture(scope="module")
def folder(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """With a demo in it."""
    folder = tmp_path_factory.mktemp("kept")
    demo_database(folder / "first.db", fill, folder).dispose()
    return folder


def told(engine: Engine, kind: type) -> list[Any]:
    """All there is in the columns of a kind, as it lies in the file."""
    found = []
    with engine.connect() as connection:
        for table in SQLModel.metadata.sorted_tables:
            for column in table.columns:
                if isinstance(column.type, kind):
                    rows = connection.exec_driver_sql(
                        f'SELECT "{column.name}" FROM "{table.name}" ORDER BY rowid'
                    )
                    found += [row[0] for row in rows if row[0] is not None]
    return found


def test_moments_and_days_are_moved_and_nothing_else(folder: Path, tmp_path: Path) -> None:
    (kept,) = folder.glob("demo-*.db")
    made = kept.stat().st_mtime

    def opened(name: str, ago: timedelta) -> Engine:
        """As if it had been made so long before."""
        os.utime(kept, (made - ago.total_seconds(),) * 2)
        try:
            return demo_database(tmp_path / name, refuse, folder)
        finally:
            os.utime(kept, (made, made))

    before, after = opened("before.db", timedelta()), opened("after.db", timedelta(days=3))
    moments = [[datetime.fromisoformat(t) for t in told(e, Instant)] for e in (before, after)]
    assert len(moments[0]) > 300
    apart = [b - a for a, b in zip(*moments, strict=True)]
    assert all(abs(a - timedelta(days=3)) < timedelta(seconds=20) for a in apart)
    days = [[date.fromisoformat(t) for t in told(e, Date)] for e in (before, after)]
    assert [a + timedelta(days=3) for a in days[0]] == days[1] != []
    texts = [[json.loads(t) for t in told(e, AsJson)] for e in (before, after)]
    assert len(texts[0]) == len(texts[1]) > 300
    same = [a == b for a, b in zip(*texts, strict=True)]
    assert 0.2 < sum(same) / len(same) < 1  # what holds no moment is as it was
    for engine in (before, after):
        engine.dispose()


def test_the_open_lesson_began_a_while_ago_and_its_steps_are_taken_back(
    folder: Path, tmp_path: Path
) -> None:
    engine = demo_database(tmp_path / "demo.db", refuse, folder)
    with Session(engine) as session:
        newest = session.exec(select(Lesson).order_by(Lesson.started_at.desc())).first()  # type: ignore[attr-defined]
        assert newest is not None
        ago = datetime.now(UTC) - newest.started_at
        assert timedelta(0) < ago < timedelta(hours=2)
        steps = session.exec(select(UndoEntry).where(UndoEntry.lesson_id == newest.id)).all()
        if steps:
            assert history.undo(session, newest.id) is not None
            assert history.redo(session, newest.id) is not None
    engine.dispose()


def test_where_nothing_can_be_kept_it_is_made_each_time(tmp_path: Path) -> None:
    (tmp_path / "file").touch()
    made = []
    engine = demo_database(tmp_path / "demo.db", made.append, tmp_path / "file")
    assert len(made) == 1
    engine.dispose()
