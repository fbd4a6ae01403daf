"""What is in a lesson, read in a few statements."""

from dataclasses import replace
from functools import lru_cache
from typing import Any

from sqlalchemy import bindparam, exists
from sqlalchemy.orm import aliased
from sqlmodel import Session, col, select

from firm_footing.store.columns import UNREADABLE
from firm_footing.store.earlier import past_of
from firm_footing.store.errors import not_found
from firm_footing.store.known import knowledge_of, taught_of, with_known_only, worked_of
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.tables import (
    CheckAnswer,
    Clock,
    Decision,
    FilmMarks,
    FollowUp,
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


def content_of(session: Session, lesson_id: str) -> LessonContent:
    """Everything in a lesson that is known here, where the session has its knowledge."""
    told = UNREADABLE.set([])
    try:
        found = _content_of(session, lesson_id)
        found = replace(found, unreadable=tuple(UNREADABLE.get()))
    finally:
        UNREADABLE.reset(told)
    known = knowledge_of(session)
    return found if known is None else with_known_only(found, known)


def _content_of(session: Session, lesson_id: str) -> LessonContent:
    head = session.exec(_head(), params={"lesson": lesson_id}).first()
    if head is None:
        raise not_found("lesson")
    lesson, student, clock, follow_up, has_earlier, *holds = head
    there = {table for table, any_row in zip(HELD, holds, strict=True) if any_row}

    def rows(table: Any, order: str) -> list[Any]:
        return _of(session, table, lesson_id, order) if table in there else []

    blocks: list[LoggedBlock] = _of(session, LoggedBlock, lesson_id, "position")
    shots: dict[str, list[LoggedShot]] = {block.id: [] for block in blocks}
    for shot in session.exec(
        select(LoggedShot)
        .where(col(LoggedShot.block_id).in_(shots))
        .order_by(col(LoggedShot.position))
    ):
        shots[shot.block_id].append(shot)
    return LessonContent(
        lesson=lesson,
        student=student,
        blocks=blocks,
        shots=shots,
        answers=rows(CheckAnswer, "answered_at"),
        traces=rows(PressureTrace, "position"),
        recordings={r.id: r.samples for r in rows(Recording, "id")},
        films=rows(FilmMarks, "position"),
        notes=rows(Note, "written_at"),
        decisions=rows(Decision, "decided_at"),
        repetitions=rows(Repetition, "done_at"),
        follow_up=follow_up,
        used_s=clock.used_s if clock else {},
        stage=clock.stage if clock else None,
        past=past_of(session, lesson) if has_earlier else (),
        taught=taught_of(session),
        worked=worked_of(session),
        has_stills=Still in there,
        has_earlier=has_earlier,
    )


HELD: tuple[Any, ...] = (
    CheckAnswer, PressureTrace, Recording, FilmMarks, Note, Decision, Repetition, Still
)  # fmt: skip
"""What a lesson may hold besides its balls: read only where there is any of it."""


@lru_cache(maxsize=1)
def _head() -> Any:
    """A lesson, what there is one of with it, and what it holds any of; in one statement."""
    before = aliased(Lesson)
    earlier = exists().where(
        col(before.student_id) == Lesson.student_id,
        col(before.started_at) < Lesson.started_at,
    )
    holds = (exists().where(table.lesson_id == Lesson.id) for table in HELD)
    return (
        select(Lesson, Student, Clock, FollowUp, earlier, *holds)  # type: ignore[call-overload]
        .join(Student, col(Student.id) == Lesson.student_id)
        .outerjoin(Clock, col(Clock.lesson_id) == Lesson.id)
        .outerjoin(FollowUp, col(FollowUp.lesson_id) == Lesson.id)
        .where(Lesson.id == bindparam("lesson"))
    )


def _of(session: Session, table: Any, lesson_id: str, order: str) -> list[Any]:
    return list(session.exec(_rows_of_lesson(table, order), params={"lesson": lesson_id}))


@lru_cache(maxsize=32)
def _rows_of_lesson(table: Any, order: str) -> Any:
    """Put together once: that takes longer than asking for the few rows."""
    return (
        select(table).where(table.lesson_id == bindparam("lesson")).order_by(getattr(table, order))
    )
