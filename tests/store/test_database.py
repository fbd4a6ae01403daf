"""Does the database come up in shape, and does it keep its promises?"""

import json
from pathlib import Path

import pytest
from alembic import command
from sqlalchemy import inspect, text
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session

from firm_footing.core.case import Shot
from firm_footing.store import lessons, shots, students
from firm_footing.store.database import database_path, migration_config, open_database
from firm_footing.store.history import Step
from firm_footing.store.steps import last_done
from firm_footing.store.tables import Lesson, LoggedShot, Note, Student


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
        block = lessons.content_of(session, lesson.id).blocks[0]
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
    assert lessons.content_of(session, lesson.id).notes == []
    assert last_done(session, lesson.id) is None


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
        content = lessons.content_of(session, "l")
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
