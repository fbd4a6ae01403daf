"""What is in each of many lessons, counted: a few statements, however many lessons there are."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from sqlmodel import Session, col, func, select

from firm_footing.store.tables import (
    CheckAnswer,
    Clock,
    Decision,
    FollowUp,
    Lesson,
    LoggedBlock,
    LoggedShot,
    Repetition,
    Student,
)


@dataclass
class Brief:
    """One lesson.

    balls : by the kind of their block
    decided : the cause decided on last
    stage : where it was left; None when it was not timed
    """

    lesson: Lesson
    student: Student
    balls: dict[str, int] = field(default_factory=dict)
    answers: int = 0
    repetitions: int = 0
    decided: str | None = None
    follow_up: FollowUp | None = None
    stage: str | None = None


def briefs_of(session: Session, lessons: Sequence[Lesson]) -> list[Brief]:
    """In the order of the lessons."""
    ids = [lesson.id for lesson in lessons]
    whose = {lesson.student_id for lesson in lessons}
    students = {s.id: s for s in session.exec(select(Student).where(col(Student.id).in_(whose)))}
    found = {x.id: Brief(lesson=x, student=students[x.student_id]) for x in lessons}
    balls = (
        select(LoggedBlock.lesson_id, LoggedBlock.kind, func.count(col(LoggedShot.id)))
        .join(LoggedShot, col(LoggedShot.block_id) == LoggedBlock.id)
        .where(col(LoggedBlock.lesson_id).in_(ids))
        .group_by(LoggedBlock.lesson_id, LoggedBlock.kind)
    )
    for lesson_id, kind, count in session.exec(balls):
        found[lesson_id].balls[kind] = count
    for lesson_id, count in _counted(session, CheckAnswer, ids):
        found[lesson_id].answers = count
    for lesson_id, count in _counted(session, Repetition, ids):
        found[lesson_id].repetitions = count
    decided = (
        select(Decision.lesson_id, Decision.cause)
        .where(col(Decision.lesson_id).in_(ids))
        .order_by(col(Decision.decided_at))
    )
    for lesson_id, cause in session.exec(decided):
        found[lesson_id].decided = cause
    for follow_up in session.exec(select(FollowUp).where(col(FollowUp.lesson_id).in_(ids))):
        found[follow_up.lesson_id].follow_up = follow_up
    for clock in session.exec(select(Clock).where(col(Clock.lesson_id).in_(ids))):
        found[clock.lesson_id].stage = clock.stage
    return list(found.values())


def _counted(session: Session, table: Any, ids: Sequence[str]) -> Sequence[tuple[str, int]]:
    rows = session.exec(
        select(table.lesson_id, func.count(table.id))
        .where(table.lesson_id.in_(ids))
        .group_by(table.lesson_id)
    )
    return [(lesson_id, count) for lesson_id, count in rows]
