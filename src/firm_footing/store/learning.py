"""What do the lessons teach? Each is studied once, and what they teach together is made of that.

A lesson is studied when it is over: finished, or what came back is known. What is learned is never
written into the knowledge; it can be made anew from the lessons at any time.
"""

from datetime import datetime
from hashlib import sha256
from typing import Any, Final, NamedTuple

import numpy as np
from sqlalchemy import or_, select
from sqlmodel import Session, col

from firm_footing.core.case import Case, School
from firm_footing.core.case.base import Strict
from firm_footing.core.case.past import Taught
from firm_footing.core.coaching.before_after import compare
from firm_footing.core.coaching.drills import EMPTY, Worked
from firm_footing.core.coaching.predicted import moves_of
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.counts import (
    LessonSeen,
    answers_in,
    by_itself,
    likelihood_from,
    with_fate,
)
from firm_footing.core.learning.eye import EyeAnswer
from firm_footing.core.learning.fates import (
    fate_of_retest,
    measured_fates,
    signs_of_film,
    signs_of_trace,
)
from firm_footing.core.learning.learned import Learned, learn
from firm_footing.core.learning.told import bits_told
from firm_footing.store.casebook import DecidedCase, decided_cases
from firm_footing.store.cases import case_of
from firm_footing.store.changes.idempotency import end_of_change
from firm_footing.store.changes.steps import LAST_AND_UNDONE, revision_from
from firm_footing.store.colleagues import usable_of
from firm_footing.store.columns import now
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.own_tables import (
    AppSetting,
    ColleagueCasebook,
    LearnedLayer,
    StudiedLesson,
    UndoEntry,
)
from firm_footing.store.tables import Decision, FollowUp, Lesson

CHOICE: Final = "casebook"
LEAST_LOG: Final = -30.0
"""Sets of causes that are less likely than exp of this, beside the likeliest, count as this."""
KEPT_AS: Final = np.dtype("<f2")
"""Of a log-likelihood: three digits, which is within half a per cent where it counts."""


class LearningChoice(Strict):
    """What the instructor chose of learning.

    use : whether rankings use what was learned
    pooled : whether colleagues' casebooks teach as well
    since : decisions before it teach nothing: the casebook was begun anew then
    held : causes that stay as common, and looks that stay as often wrong, as the files say
    """

    use: bool = True
    pooled: bool = True
    since: datetime | None = None
    held: tuple[str, ...] = ()


def learning_choice(session: Session) -> LearningChoice:
    """What was chosen; at first everything teaches, and is used."""
    kept = session.get(AppSetting, CHOICE)
    return LearningChoice() if kept is None else LearningChoice.model_validate_json(kept.value)


def choose(session: Session, chosen: LearningChoice) -> None:
    """From now on."""
    session.merge(AppSetting(name=CHOICE, value=chosen.model_dump_json()))
    end_of_change(session)


class ToStudy(NamedTuple):
    """A lesson that is over, as it is now."""

    lesson_id: str
    state: str


def lessons_to_study(session: Session, known: Knowledge) -> list[ToStudy]:
    """Those that were never studied, or have changed since, the oldest first."""
    of_lesson = or_(
        col(UndoEntry.lesson_id) == Lesson.id, col(UndoEntry.row_id) == Lesson.student_id
    )
    last, undone = (
        select(value).where(of_lesson).correlate(Lesson).scalar_subquery()
        for value in LAST_AND_UNDONE
    )
    rows = (
        select(col(Lesson.id), last, undone, col(StudiedLesson.state))
        .outerjoin(StudiedLesson, col(StudiedLesson.lesson_id) == Lesson.id)
        .outerjoin(FollowUp, col(FollowUp.lesson_id) == Lesson.id)
        .where(
            select(col(Decision.id)).where(col(Decision.lesson_id) == Lesson.id).exists(),
            or_(col(Lesson.finished), col(FollowUp.verdict).is_not(None)),
        )
        .order_by(col(Lesson.started_at), col(Lesson.id))
    )
    found = []
    for lesson_id, last_change, taken_back, studied in session.connection().execute(rows):
        state = f"{revision_from(last_change, taken_back)}-{known.version}"
        if studied != state:
            found.append(ToStudy(lesson_id, state))
    return found


def study(session: Session, which: ToStudy, known: Knowledge) -> StudiedLesson | None:
    """What one lesson teaches, to be kept; None where its decision is not known here any more."""
    content = content_of(session, which.lesson_id)
    if not content.decisions:
        return None
    decision = content.decisions[-1]
    case = case_of(content)
    inference = infer(by_itself(case), known)
    log = np.log(np.maximum(likelihood_from(inference), np.exp(LEAST_LOG)))
    retest = fate_of_retest(_compared(content, case, decision, known), known)
    signs = (of(case, decision.cause, known) for of in (signs_of_trace, signs_of_film))
    return StudiedLesson(
        lesson_id=which.lesson_id,
        state=which.state,
        cause=decision.cause,
        measured=measured_fates(retest, *signs),
        said=_said_of(decision),
        told=bits_told(inference),
        taken=tuple(inference.counted),
        answers=answers_in(inference),
        proposed={c["id"]: c["gain_bits"] for c in decision.ranking.get("next_checks", ())},
        log_likelihood=log.astype(KEPT_AS).tobytes(),
    )


def keep(session: Session, found: StudiedLesson | LearnedLayer) -> None:
    """What was worked out, in the place of what was before."""
    session.merge(found)
    end_of_change(session)


def _said_of(decision: Decision) -> float | None:
    """What the ranking said of the cause; None in one of an early version."""
    causes = decision.ranking.get("causes", ())
    return next((c.get("root") for c in causes if c["id"] == decision.cause), None)


def _compared(content: LessonContent, case: Case, decision: Decision, known: Knowledge) -> Any:
    """The retest of this lesson, where its measure was fixed before the first ball."""
    if content.lesson.primary is None or content.lesson.primary_before is not None:
        return None
    elsewhere = {i for i, block in enumerate(content.blocks) if block.own_targets}
    return compare(case, content.lesson.primary, moves_of(decision.prediction), known, elsewhere)


def what_teaches(session: Session, known: Knowledge) -> tuple[list[DecidedCase], str]:
    """Decisions of studied lessons whose fate is known, and a digest of all that they teach by."""
    chosen = learning_choice(session)
    rows = select(col(StudiedLesson.lesson_id), col(StudiedLesson.state))
    states: dict[str, str] = {row[0]: row[1] for row in session.connection().execute(rows)}
    cases = [
        case
        for case in decided_cases(session, known, since=chosen.since)
        if case.outcome is not None and case.lesson_id in states
    ]
    cases.sort(key=lambda case: case.lesson_id)
    parts = [known.version]
    for case in cases:
        assert case.outcome is not None
        parts += [case.lesson_id, states[case.lesson_id], case.outcome.model_dump_json()]
    parts += [c.id for c in _pooled(session, known, chosen)]
    return cases, sha256("\n".join(parts).encode()).hexdigest()


def _pooled(session: Session, known: Knowledge, chosen: LearningChoice) -> list[ColleagueCasebook]:
    return usable_of(session, known) if chosen.pooled else []


def is_learned(session: Session, known: Knowledge) -> bool:
    """Whether what the lessons teach is made of them as they are."""
    kept = session.get(LearnedLayer, 1)
    return kept is not None and kept.made_of == what_teaches(session, known)[1]


def learn_from_lessons(session: Session, known: Knowledge) -> LearnedLayer:
    """What they teach, made anew, to be kept."""
    cases, made_of = what_teaches(session, known)
    rows = (
        select(
            col(Lesson.id),
            col(Lesson.school),
            col(StudiedLesson.log_likelihood),
            col(StudiedLesson.answers),
        )
        .join(StudiedLesson, col(StudiedLesson.lesson_id) == Lesson.id)
        .where(col(Lesson.id).in_([case.lesson_id for case in cases]))
    )
    said = {row[0]: row[1:] for row in session.connection().execute(rows)}
    seen = [_seen(case, *said[case.lesson_id], known) for case in cases]
    theirs = [c.learned for c in _pooled(session, known, learning_choice(session))]
    learned = learn(seen, known, colleagues=theirs)
    return LearnedLayer(made_of=made_of, learned=learned, made_at=now())


def _seen(
    case: DecidedCase,
    school: School,
    packed: bytes,
    answers: tuple[EyeAnswer, ...],
    known: Knowledge,
) -> LessonSeen:
    assert case.outcome is not None
    log: FloatArray = np.frombuffer(packed, KEPT_AS).astype(np.float64)
    likelihood = with_fate(np.exp(log), case.outcome, known)
    return LessonSeen(likelihood, school, case.outcome, case.student_id, case.lesson_id, answers)


class LayerInUse(NamedTuple):
    """What was learned last, and what rankings take over of it.

    taught : what is not held still; nothing where it is not used
    worked : what became of the lessons with each drill; empty where it is not used
    """

    learned: Learned | None = None
    made_at: datetime | None = None
    taught: Taught = Taught()
    worked: Worked = EMPTY


def layer_in_use(session: Session, known: Knowledge) -> LayerInUse:
    """Of this version of the knowledge; nothing of another's."""
    kept = session.get(LearnedLayer, 1)
    learned = None if kept is None else kept.learned
    if kept is None or learned is None or learned.knowledge != known.version:
        return LayerInUse()
    chosen = learning_choice(session)
    if not chosen.use:
        return LayerInUse(learned, kept.made_at)
    taught = learned.taught_but(chosen.held)
    return LayerInUse(learned, kept.made_at, taught, _worked(session, known, chosen))


def _worked(session: Session, known: Knowledge, chosen: LearningChoice) -> Worked:
    found: dict[tuple[str, str], tuple[int, int]] = {}
    for case in decided_cases(session, known, since=chosen.since):
        if case.drill is not None and case.outcome is not None:
            came, of = found.get((case.cause, case.drill), (0, 0))
            found[case.cause, case.drill] = (came + case.came_true, of + 1)
    return found
