"""Does the database come up in shape, and does it keep its promises?"""

import json
from pathlib import Path

import pytest
from alembic import command
from hypothesis import given
from hypothesis import strategies as st
from sqlalchemy import inspect, text
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session

from firm_footing.core.case import Film, Shot, Trace
from firm_footing.core.case.samples import PackedSamples
from firm_footing.store import films, lessons, shots, students
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.steps import next_steps
from firm_footing.store.database import database_path, migration_config, open_database
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.tables import Lesson, LoggedShot, Note, Student
from firm_footing.store.traces import put_trace


def test_migrations_lead_to_the_tables_of_the_code(tmp_path: Path) -> None:
    engine = open_database(tmp_path / "a.db")
    config = migration_config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.check(config)
    assert {"student", "lesson", "shot", "check_answer"} <= set(inspect(engine).get_table_names())
    engine.dispose()


def test_it_writes_ahead_and_minds_foreign_keys(tmp_path: Path) -> None:
    engine = open_database(tmp_path / "a.db")
    with Session(engine) as session:
        assert session.connection().execute(text("PRAGMA journal_mode")).scalar() == "wal"
        session.add(Lesson(student_id="nobody"))
        with pytest.raises(IntegrityError):
            session.commit()
    engine.dispose()


def test_the_place_can_be_named(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FIRM_FOOTING_DB", str(tmp_path / "deep" / "my.db"))
    assert database_path() == tmp_path / "deep" / "my.db"
    assert database_path().parent.is_dir()
    monkeypatch.delenv("FIRM_FOOTING_DB")
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path))
    assert database_path() == tmp_path / "firm-footing" / "firm-footing.db"


def test_what_was_kept_survives_a_restart(tmp_path: Path) -> None:
    seen = Shot(start="pull", heel_toe_mm=-3.5, divot_depth="deep", ball_speed_mps=51.2)
    with Session(open_database(tmp_path / "a.db"), expire_on_commit=False) as session:
        student = students.add_student(session, Student(name="Oda", handedness="right"))
        lesson = lessons.add_lesson(session, Lesson(student_id=student.id))
        block = content_of(session, lesson.id).blocks[0]
        shots.put_shot(session, lesson.id, "s1", block.id, seen, {"start_deg": -4.2})
    with Session(open_database(tmp_path / "a.db")) as session:
        kept = session.get(LoggedShot, "s1")
        assert kept is not None
        assert kept.observed == seen
        assert kept.touched == {"start_deg": -4.2}
        assert kept.hit_at.tzinfo is not None


def test_a_step_that_fails_leaves_nothing_behind(session: Session) -> None:
    student = students.add_student(session, Student(name="Oda", handedness="right"))
    lesson = lessons.add_lesson(session, Lesson(student_id=student.id))

    def half_a_step() -> None:
        with Step(session, lesson.id, "note and trouble") as step:
            step.add(Note(lesson_id=lesson.id, text="kept?"))
            raise ZeroDivisionError

    with pytest.raises(ZeroDivisionError):
        half_a_step()
    assert content_of(session, lesson.id).notes == []
    assert next_steps(session, lesson.id).undo is None


def test_traces_of_before_keep_their_samples_and_events(tmp_path: Path) -> None:
    """A database as it was before samples stood apart (0003), with one trace in it."""
    engine = open_database(tmp_path / "a.db")
    config = migration_config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.downgrade(config, "0003")
        old = '{"columns": ["t", "lead_pct"], "samples": [[0.0, 50.0]], "events": {"top": -0.2}}'
        connection.execute(
            text(
                "INSERT INTO student (id, name, handedness, age_group, limits, about, created_at) "
                "VALUES ('s', 'Oda', 'right', 'adult', '[]', '', '2026-01-01 10:00:00')"
            )
        )
        connection.execute(
            text(
                "INSERT INTO lesson (id, student_id, complaint, school, finished, started_at) "
                "VALUES ('l', 's', '', '{}', 0, '2026-01-02 10:00:00')"
            )
        )
        connection.execute(
            text(
                "INSERT INTO pressure_trace (id, lesson_id, position, content) "
                "VALUES ('t', 'l', 0, :old)"
            ),
            {"old": old},
        )
        command.upgrade(config, "head")
    with Session(engine) as session:
        content = content_of(session, "l")
        (trace,) = content.traces
        assert (trace.events, trace.swapped) == ({"top": -0.2}, False)
        assert content.recordings[trace.recording_id].samples == ((0.0, 50.0),)
        assert content.lesson.listen.minutes == 45
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.downgrade(config, "0003")
        kept = connection.execute(text("SELECT content FROM pressure_trace")).scalar_one()
    assert json.loads(kept) == json.loads(old)
    engine.dispose()


def test_samples_are_kept_compressed_and_come_through_a_change_of_version(tmp_path: Path) -> None:
    rows = tuple((i / 100 - 1, None if i == 7 else 50.0 + i / 7) for i in range(3000))
    trace = Trace(columns=("t", "lead_pct"), samples=rows)
    engine = open_database(tmp_path / "a.db")
    with Session(engine, expire_on_commit=False) as session:
        student = students.add_student(session, Student(name="Oda", handedness="right"))
        lesson = lessons.add_lesson(session, Lesson(student_id=student.id))
        put_trace(session, lesson.id, "t", trace, None, "first")
    config = migration_config()
    with engine.connect() as connection, connection.begin():
        size = connection.execute(text("SELECT length(samples) FROM recording")).scalar_one()
        assert size < len(json.dumps(rows)) / 2
        config.attributes["connection"] = connection
        command.downgrade(config, "0017")
        kept = json.loads(connection.execute(text("SELECT samples FROM recording")).scalar_one())
        assert kept["samples"][7] == list(rows[7])
        last = connection.execute(text("SELECT max(id) FROM change")).scalar_one()
        connection.execute(text("DELETE FROM change"))
        command.upgrade(config, "head")
    with Session(engine) as session:
        content = content_of(session, lesson.id)
        assert [t.name for t in content.traces] == ["first"]
        assert content.recordings[content.traces[0].recording_id].samples == rows
        with Step(session, lesson.id, "note") as step:
            step.add(Note(lesson_id=lesson.id, text="after"))
        assert session.connection().execute(text("SELECT id FROM change")).scalar_one() > last
    engine.dispose()


def test_a_camera_said_to_stand_beside_its_line_without_a_side_is_as_if_nobody_said(
    tmp_path: Path,
) -> None:
    marks = Film(view="face_on", width=720, height=1280, fps=60.0, off_line_cm=30.0)
    engine = open_database(tmp_path / "a.db")
    with Session(engine, expire_on_commit=False) as session:
        student = students.add_student(session, Student(name="Oda", handedness="right"))
        lesson = lessons.add_lesson(session, Lesson(student_id=student.id))
        films.put_film(session, lesson.id, "f", marks, None, "first", None)
    config = migration_config()
    with engine.connect() as connection, connection.begin():
        config.attributes["connection"] = connection
        command.downgrade(config, "0020")
        command.upgrade(config, "head")
    with Session(engine) as session:
        (kept,) = content_of(session, lesson.id).films
        assert kept.marks == marks.model_copy(update={"off_line_cm": None})
    engine.dispose()


@given(
    rows=st.lists(st.tuples(*[st.none() | st.floats(-1e6, 1e6, allow_nan=False)] * 3), max_size=12)
)
def test_packed_samples_are_as_the_rows_they_were_made_of(
    rows: list[tuple[float | None, ...]],
) -> None:
    packed = PackedSamples.of(rows, 3)
    assert (list(packed), len(packed)) == (rows, len(rows))
    assert packed == tuple(rows)
    assert packed[:1] + packed[-1:] == tuple(rows[:1] + rows[-1:])
    names = ("t", "lead_pct", "trail_pct")
    kept = Trace(columns=names, samples=packed)  # type: ignore[arg-type]
    assert kept == Trace(columns=names, samples=tuple(rows))
    assert kept.model_dump_json() == Trace(columns=names, samples=tuple(rows)).model_dump_json()
