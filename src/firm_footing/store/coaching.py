"""What was drilled, how long did it take, and what came back?"""

from collections.abc import Mapping
from datetime import date
from typing import Any

from sqlmodel import Session, col, select

from firm_footing.core.coaching.ladder import Result
from firm_footing.store.changes.conflicts import Was, merged
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.idempotency import end_of_change
from firm_footing.store.changes.quotas import require_quota
from firm_footing.store.columns import now
from firm_footing.store.earlier import last_cause
from firm_footing.store.errors import refused
from firm_footing.store.lessons import get_lesson
from firm_footing.store.tables import Clock, FollowUp, Lesson, Repetition, Student

MOST_DUE = 50
"""More than anybody calls in a day; the others come up as these are answered."""


def put_repetition(
    session: Session,
    lesson_id: str,
    repetition_id: str,
    drill: str,
    result: Result,
    real: bool = False,
) -> None:
    """Keep a repetition under the client's id; the same id again changes nothing.

    Raises
    ------
    NotFoundError
        There is no such lesson.
    RefusedError
        It belongs to another lesson, or there are as many as may be.

    """
    get_lesson(session, lesson_id)
    there = session.get(Repetition, repetition_id)
    if there is not None:
        if there.lesson_id != lesson_id:
            raise refused("This belongs to another lesson.", "id", "Nothing was changed.")
        return
    require_quota(session, Repetition, lesson_id)
    with Step(session, lesson_id, f"repetition: {result}") as step:
        row = Repetition(
            id=repetition_id, lesson_id=lesson_id, drill=drill, result=result, real=real
        )
        step.add(row)


def add_time(
    session: Session, lesson_id: str, stage: str, seconds: float, now_in: str | None = None
) -> None:
    """Seconds more in a stage; a step of its own kind, for time cannot be undone.

    now_in : the stage the lesson is in now; None when it is still the same
    """
    get_lesson(session, lesson_id)
    clock = session.get(Clock, lesson_id) or Clock(lesson_id=lesson_id)
    clock.used_s = clock.used_s | {stage: clock.used_s.get(stage, 0.0) + seconds}
    clock.stage = now_in or stage
    session.add(clock)
    end_of_change(session, lesson_id)


def put_follow_up(
    session: Session,
    lesson_id: str,
    due_on: date,
    values: Mapping[str, Any],
    was: Was | None = None,
) -> None:
    """Say when to ask, or what came back; it can be undone.

    due_on : used when nothing was kept yet
    was : see `merged`
    """
    get_lesson(session, lesson_id)
    kept = session.get(FollowUp, lesson_id)
    values = dict(values) if kept is None else merged(kept, values, was)
    if values.get("verdict") is not None:
        values["answered_at"] = now()
    with Step(session, lesson_id, "follow-up") as step:
        if kept is None:
            values = {"due_on": due_on} | values
            step.add(FollowUp(id=lesson_id, lesson_id=lesson_id, **values))
        else:
            step.change(kept, **values)


def due(
    session: Session, most: int = MOST_DUE
) -> list[tuple[FollowUp, Lesson, Student, str | None]]:
    """Lessons nobody has asked after yet with what they decided last, the longest due first."""
    rows = session.exec(
        select(FollowUp, Lesson, Student, last_cause())
        .join(Lesson, col(Lesson.id) == FollowUp.lesson_id)
        .join(Student, col(Student.id) == Lesson.student_id)
        .where(col(FollowUp.verdict).is_(None))
        .order_by(col(FollowUp.due_on))
        .limit(most)
    )
    return [tuple(row) for row in rows]
