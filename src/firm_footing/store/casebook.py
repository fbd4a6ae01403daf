"""What was decided in all lessons, and what became of it?"""

from collections.abc import Sequence
from datetime import datetime
from typing import Any, NamedTuple

from sqlalchemy import ColumnElement, and_, func, select
from sqlmodel import Session, col

from firm_footing.core.case.past import DecisionOutcome
from firm_footing.core.frame import Handedness
from firm_footing.store.tables import Decision, FollowUp, Lesson, LoggedBlock, Outcome, Student


class DecidedCase(NamedTuple):
    """The last decision of one lesson.

    club : of the first baseline
    shape : what its balls did when it was decided, in a word
    verdict : what became of it; None until it is known
    """

    lesson_id: str
    student_name: str
    handedness: Handedness
    decided_at: datetime
    cause: str
    ranked_first: str | None
    shape: str | None
    club: str | None
    verdict: Outcome | None


def decided_cases(session: Session, most: int, before: datetime | None = None) -> list[DecidedCase]:
    """The newest first; of those decided before a moment, where one is named."""
    rows = (
        select(
            col(Decision.lesson_id),
            col(Student.name),
            col(Student.handedness),
            col(Decision.decided_at),
            col(Decision.cause),
            col(Decision.ranked_first),
            col(Decision.shape),
            _first_club(),
            col(FollowUp.verdict),
        )
        .select_from(Decision)
        .join(Lesson, col(Lesson.id) == Decision.lesson_id)
        .join(Student, col(Student.id) == Lesson.student_id)
        .outerjoin(FollowUp, col(FollowUp.lesson_id) == Decision.lesson_id)
        .where(_is_the_last())
        .order_by(col(Decision.decided_at).desc())
        .limit(most)
    )
    if before is not None:
        rows = rows.where(col(Decision.decided_at) < before)
    return [DecidedCase(*row) for row in session.connection().execute(rows)]


class Told(NamedTuple):
    """How many decisions came back, and how many of them were confirmed.

    agreed : whether the ranking's first was decided on; None where nothing had spoken yet
    """

    agreed: bool | None
    confirmed: int
    of: int


def what_came_back(session: Session) -> Sequence[Told]:
    """Over all lessons, by whether the ranking's first was decided on."""
    agreed = col(Decision.cause) == col(Decision.ranked_first)
    rows = session.connection().execute(
        select(
            agreed,
            func.count().filter(col(FollowUp.verdict) == "confirmed"),
            func.count(),
        )
        .select_from(Decision)
        .join(FollowUp, col(FollowUp.lesson_id) == Decision.lesson_id)
        .where(col(FollowUp.verdict).is_not(None), _is_the_last())
        .group_by(agreed)
    )
    return [
        Told(None if same is None else bool(same), confirmed, of) for same, confirmed, of in rows
    ]


def known_fates(session: Session) -> list[tuple[str, DecisionOutcome]]:
    """Lessons of whose decision it is known what became of it, the oldest first."""
    rows = session.connection().execute(
        select(col(Decision.lesson_id), col(Decision.cause), col(FollowUp.verdict))
        .select_from(Decision)
        .join(FollowUp, col(FollowUp.lesson_id) == Decision.lesson_id)
        .where(col(FollowUp.verdict).is_not(None), _is_the_last())
        .order_by(col(Decision.decided_at))
    )
    return [
        (lesson, DecisionOutcome(decided=cause, fate=verdict, known_by=("follow_up",)))
        for lesson, cause, verdict in rows
    ]


def _is_the_last() -> ColumnElement[bool]:
    """Nothing was decided in the same lesson after it."""
    later = Decision.__table__.alias("later")  # type: ignore[attr-defined]
    same = and_(
        later.c.lesson_id == Decision.lesson_id, later.c.decided_at > col(Decision.decided_at)
    )
    return ~select(later.c.id).where(same).exists()


def _first_club() -> Any:
    return (
        select(col(LoggedBlock.club))
        .where(
            col(LoggedBlock.lesson_id) == Decision.lesson_id, col(LoggedBlock.kind) == "baseline"
        )
        .order_by(col(LoggedBlock.position))
        .limit(1)
        .correlate(Decision)
        .scalar_subquery()
    )
