"""What was decided in all lessons, and what became of it?"""

from collections.abc import Mapping
from datetime import datetime
from functools import lru_cache
from typing import Any, NamedTuple

from sqlalchemy import ColumnElement, and_, func, select
from sqlalchemy.orm import aliased
from sqlmodel import Session, col

from firm_footing.core.case.past import DecisionOutcome
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.casebook import Fate, KnownBy
from firm_footing.core.learning.fates import outcome_of
from firm_footing.store.own_tables import StudiedLesson
from firm_footing.store.tables import Decision, FollowUp, Lesson, LoggedBlock, Student


class DecidedCase(NamedTuple):
    """The last decision of one lesson.

    said : what the ranking said then, that one starts with the cause decided on; None until the
        lesson is studied
    club : of the first baseline
    shape : what its balls did when it was decided, in a word
    drill : worked with; None: none was chosen
    outcome : what became of it, by all that says so; None until it is known
    """

    lesson_id: str
    student_id: str
    student_name: str
    handedness: Handedness
    decided_at: datetime
    cause: str
    ranked_first: str | None
    said: float | None
    shape: str | None
    club: str | None
    drill: str | None
    outcome: DecisionOutcome | None

    @property
    def agreed(self) -> bool | None:
        """Whether the ranking's first was decided on; None where nothing had spoken yet."""
        return None if self.ranked_first is None else self.cause == self.ranked_first

    @property
    def came_true(self) -> bool:
        """Whether it was confirmed, and not only partly."""
        return self.outcome is not None and self.outcome.fate == "confirmed"


def decided_cases(
    session: Session,
    known: Knowledge,
    most: int | None = None,
    before: datetime | None = None,
    since: datetime | None = None,
) -> list[DecidedCase]:
    """The newest first; `before` and `since`: only those decided before, or from a moment on."""
    rows = (
        select(
            col(Decision.lesson_id),
            col(Student.id),
            col(Student.name),
            col(Student.handedness),
            col(Decision.decided_at),
            col(Decision.cause),
            col(Decision.ranked_first),
            col(StudiedLesson.said),
            col(Decision.shape),
            _first_club(),
            col(Lesson.drill),
            col(FollowUp.verdict),
            col(StudiedLesson.cause),
            col(StudiedLesson.measured),
            _found_later(),
        )
        .select_from(Decision)
        .join(Lesson, col(Lesson.id) == Decision.lesson_id)
        .join(Student, col(Student.id) == Lesson.student_id)
        .outerjoin(FollowUp, col(FollowUp.lesson_id) == Decision.lesson_id)
        .outerjoin(StudiedLesson, col(StudiedLesson.lesson_id) == Decision.lesson_id)
        .where(_is_the_last(), col(Decision.cause).in_(known.cause))
        .order_by(col(Decision.decided_at).desc())
    )
    if most is not None:
        rows = rows.limit(most)
    if before is not None:
        rows = rows.where(col(Decision.decided_at) < before)
    if since is not None:
        rows = rows.where(col(Decision.decided_at) >= since)
    found = []
    for row in session.connection().execute(rows):
        *told, came_back, studied, measured, later = row
        outcome = outcome_now(row.cause, came_back, studied, measured, known, later)
        found.append(DecidedCase._make([*told, outcome]))
    return found


class CameTrue(NamedTuple):
    """How many decisions have a known fate, and how many of them were confirmed.

    agreed : whether the ranking's first was decided on; None where nothing had spoken yet
    """

    agreed: bool | None
    confirmed: int
    of: int


def came_true(session: Session, known: Knowledge) -> list[CameTrue]:
    """Over all decisions, those alike put together: there are few kinds of them."""
    kinds = (
        col(Decision.cause) == col(Decision.ranked_first),
        col(Decision.cause),
        col(FollowUp.verdict),
        col(StudiedLesson.cause),
        col(StudiedLesson.measured),
        _found_later().label("later"),
    )
    rows = (
        select(*kinds, func.count())
        .select_from(Decision)
        .join(Lesson, col(Lesson.id) == Decision.lesson_id)
        .outerjoin(FollowUp, col(FollowUp.lesson_id) == Decision.lesson_id)
        .outerjoin(StudiedLesson, col(StudiedLesson.lesson_id) == Decision.lesson_id)
        .where(_is_the_last(), col(Decision.cause).in_(known.cause))
        .group_by(*kinds)
    )
    found = []
    for agreed, cause, *said, count in session.connection().execute(rows):
        came_back, studied, measured, later = said
        outcome = outcome_now(cause, came_back, studied, measured, known, later)
        if outcome is not None:
            confirmed = count if outcome.fate == "confirmed" else 0
            found.append(CameTrue(None if agreed is None else bool(agreed), confirmed, count))
    return found


def outcome_now(
    cause: str,
    came_back: Fate | None,
    measured_cause: str | None,
    measured: Mapping[KnownBy, Fate] | None,
    known: Knowledge,
    later: Mapping[KnownBy, Fate] | None = None,
) -> DecisionOutcome | None:
    """What became of a decision, as far as it is known now.

    came_back : what the student was asked later
    measured : what the lesson said of `measured_cause`, when it was studied
    later : what the student's next lesson on the same cause said of it
    """
    fates = dict(measured or {}) if measured_cause == cause else {}
    found = _outcome(cause, tuple(later.items()), known) if later else None
    if found is not None:
        fates["later_lesson"] = found.fate
    if came_back is not None:
        fates["follow_up"] = came_back
    return _outcome(cause, tuple(fates.items()), known)


@lru_cache(maxsize=1024)
def _outcome(
    cause: str, fates: tuple[tuple[KnownBy, Fate], ...], known: Knowledge
) -> DecisionOutcome | None:
    """Thousands of decisions have a few dozen outcomes."""
    return outcome_of(cause, dict(fates), known.casebook)


def _is_the_last() -> ColumnElement[bool]:
    """Nothing was decided in the same lesson after it."""
    later = Decision.__table__.alias("later")  # type: ignore[attr-defined]
    same = and_(
        later.c.lesson_id == Decision.lesson_id, later.c.decided_at > col(Decision.decided_at)
    )
    return ~select(later.c.id).where(same).exists()


def _found_later() -> Any:
    """What the student's next lesson on the same cause measured of it."""
    lesson, studied = aliased(Lesson), aliased(StudiedLesson)
    return (
        select(col(studied.measured))
        .join(lesson, col(lesson.id) == col(studied.lesson_id))
        .where(
            col(lesson.student_id) == Lesson.student_id,
            col(lesson.started_at) > Lesson.started_at,
            col(studied.cause) == Decision.cause,
        )
        .order_by(col(lesson.started_at))
        .limit(1)
        .correlate(Lesson, Decision)
        .scalar_subquery()
    )


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
