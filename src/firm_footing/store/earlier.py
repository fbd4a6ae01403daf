"""What did the student's lessons before this one hold, and who comes next?"""

from collections.abc import Sequence
from datetime import datetime
from typing import Any, NamedTuple

from sqlmodel import Session, col, select

from firm_footing.core.case.past import PastDecision
from firm_footing.core.coaching.ladder import Result
from firm_footing.core.knowledge.casebook import Fate, KnownBy
from firm_footing.store.casebook import outcome_now
from firm_footing.store.known import knowledge_of
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.own_tables import StudiedLesson
from firm_footing.store.tables import (
    CheckAnswer,
    Decision,
    FollowUp,
    Lesson,
    LoggedBlock,
    LoggedShot,
    Repetition,
    Student,
)


def earlier_lessons(session: Session, lesson: Lesson, most: int = 5) -> list[Lesson]:
    """The same student's lessons before this one, the newest first."""
    return list(
        session.exec(
            select(Lesson)
            .where(Lesson.student_id == lesson.student_id, Lesson.started_at < lesson.started_at)
            .order_by(col(Lesson.started_at).desc())
            .limit(most)
        )
    )


class EarlierDecision(NamedTuple):
    """An earlier lesson with its last decision, what came back, and what it was found to teach."""

    lesson: Lesson
    decision: Decision
    follow_up: FollowUp | None
    studied: StudiedLesson | None


def decided_before(session: Session, lesson: Lesson, most: int = 5) -> list[EarlierDecision]:
    """The same student's earlier lessons that came to a decision, the newest first."""
    rows = session.exec(
        select(Lesson, Decision, FollowUp, StudiedLesson)
        .join(Decision, col(Decision.lesson_id) == Lesson.id)
        .outerjoin(FollowUp, col(FollowUp.lesson_id) == Lesson.id)
        .outerjoin(StudiedLesson, col(StudiedLesson.lesson_id) == Lesson.id)
        .where(Lesson.student_id == lesson.student_id, Lesson.started_at < lesson.started_at)
        .order_by(col(Lesson.started_at).desc(), col(Decision.decided_at).desc())
    )
    last: dict[str, EarlierDecision] = {}
    for row in rows:
        before = EarlierDecision(*row)
        last.setdefault(before.lesson.id, before)
    return list(last.values())[:most]


def past_of(session: Session, lesson: Lesson) -> tuple[PastDecision, ...]:
    """What became of the decisions of the student's lessons before, as far as it is known here."""
    known = knowledge_of(session)
    found = []
    for before in decided_before(session, lesson) if known is not None else ():
        assert known is not None
        came_back = None if before.follow_up is None else before.follow_up.verdict
        cause, measured = (s.cause, s.measured) if (s := before.studied) else (None, None)
        outcome = outcome_now(before.decision.cause, came_back, cause, measured, known)
        if outcome is not None:
            days = float((lesson.started_at - before.lesson.started_at).days)
            found.append(PastDecision(**outcome.model_dump(), days_ago=days))
    return tuple(found)


def measured_in(session: Session, content: LessonContent) -> dict[KnownBy, Fate]:
    """What a lesson itself said became of its last decision, by what says so."""
    studied = session.get(StudiedLesson, content.lesson.id)
    cause = content.decisions[-1].cause if content.decisions else None
    return {} if studied is None or studied.cause != cause else studied.measured


def first_with_club(session: Session, lesson: Lesson, club: str) -> str | None:
    """The student's first lesson whose baseline has balls with this club; None when it is this."""
    return session.exec(
        select(Lesson.id)
        .join(LoggedBlock, col(LoggedBlock.lesson_id) == Lesson.id)
        .join(LoggedShot, col(LoggedShot.block_id) == LoggedBlock.id)
        .where(
            Lesson.student_id == lesson.student_id,
            Lesson.started_at < lesson.started_at,
            LoggedBlock.kind == "baseline",
            LoggedBlock.club == club,
        )
        .order_by(col(Lesson.started_at))
        .limit(1)
    ).first()


def answered_before(session: Session, lesson: Lesson) -> frozenset[str]:
    """Checks that were answered in the student's last lesson that answered any, without a drill."""
    newest = _newest_with(session, lesson, CheckAnswer)
    if newest is None:
        return frozenset()
    rows = session.exec(
        select(CheckAnswer.check_id).where(
            CheckAnswer.lesson_id == newest,
            CheckAnswer.answer != "unknown",
            col(CheckAnswer.block_id).is_(None),
        )
    )
    return frozenset(rows)


def repeated_before(session: Session, lesson: Lesson, drill: str) -> list[Result]:
    """Results with a drill in the student's last lesson that had any, in their order."""
    newest = _newest_with(session, lesson, Repetition)
    if newest is None:
        return []
    rows = session.exec(
        select(Repetition)
        .where(Repetition.lesson_id == newest, Repetition.drill == drill)
        .order_by(col(Repetition.done_at))
    )
    return [row.result for row in rows]


def _newest_with(
    session: Session, lesson: Lesson, table: type[CheckAnswer] | type[Repetition]
) -> str | None:
    """The student's newest lesson before this one that has rows of a table."""
    return session.exec(
        select(Lesson.id)
        .join(table, col(table.lesson_id) == Lesson.id)
        .where(Lesson.student_id == lesson.student_id, Lesson.started_at < lesson.started_at)
        .order_by(col(Lesson.started_at).desc())
        .limit(1)
    ).first()


def last_cause() -> Any:
    """What the lesson of a query decided on last, as a column of it."""
    return (
        select(Decision.cause)
        .where(Decision.lesson_id == Lesson.id)
        .order_by(col(Decision.decided_at).desc())
        .limit(1)
        .correlate(Lesson)
        .scalar_subquery()
    )


class Booked(NamedTuple):
    """A student who comes again.

    lesson : the one in which it was agreed
    cause : what it decided on last
    asked : whether somebody asked how it went since
    """

    at: datetime
    lesson: Lesson
    student: Student
    cause: str | None
    asked: bool


def booked(session: Session, since: datetime, most: int = 50) -> Sequence[Booked]:
    """Who comes from a moment on, the soonest first; who has begun a lesson since then has come."""
    later = select(Lesson.id, Lesson.student_id, Lesson.started_at).subquery()
    came = (
        select(later.c.id)
        .where(later.c.student_id == Lesson.student_id, later.c.started_at > Lesson.started_at)
        .exists()
    )
    rows = session.exec(
        select(Lesson, Student, last_cause(), FollowUp.verdict)
        .join(Student, col(Student.id) == Lesson.student_id)
        .outerjoin(FollowUp, col(FollowUp.lesson_id) == Lesson.id)
        .where(col(Lesson.next_at) >= since, ~came)
        .order_by(col(Lesson.next_at))
        .limit(most)
    )
    return [
        Booked(lesson.next_at, lesson, student, cause, verdict is not None)
        for lesson, student, cause, verdict in rows
        if lesson.next_at is not None
    ]
