"""Which cause did the instructor choose, and what did the ranking say then?"""

from collections.abc import Iterator
from dataclasses import asdict
from typing import Final

from sqlmodel import Session, SQLModel

from firm_footing.core.case import Case
from firm_footing.core.case.past import DecisionOutcome
from firm_footing.core.conclusions.what_if import without
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.diagnosis.ranking import (
    Ranking,
    ranked_first,
    ranking_of,
    rests_on_something,
)
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.store.cases import case_of
from firm_footing.store.changes.history import Step
from firm_footing.store.columns import now
from firm_footing.store.errors import refused
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.tables import Decision, FollowUp, Lesson, new_id


def add_decision(
    session: Session,
    lesson_id: str,
    cause: str,
    reason: str,
    knowledge: Knowledge,
    decision_id: str | None = None,
) -> None:
    """Decide on one cause; it can be undone. Against the order of the ranking it wants a reason.

    Kept with it: what the ranking says at this moment, the version of the knowledge that says it,
    and the pattern predicted without the cause. The same id again decides nothing anew.

    Raises
    ------
    RefusedError
        Another cause stands first and no reason is given.

    """
    content = content_of(session, lesson_id)
    if any(d.id == decision_id for d in content.decisions):
        return
    case = case_of(content)
    ranking = ranking_of(diagnose(case, knowledge, content.lesson.at_hand), knowledge)
    first = ranking["causes"][0]["id"]
    if cause != first and not reason.strip():
        raise refused(
            f"“{knowledge.cause[first].name}” stands first; to decide otherwise wants a reason.",
            "reason",
            "Nothing was changed. Say in a few words why this one, and decide again.",
        )
    decision = _row(lesson_id, case, cause, reason, ranking, knowledge, decision_id)
    with Step(session, lesson_id, "decision") as step:
        step.add(decision)


def _row(
    lesson_id: str,
    case: Case,
    cause: str,
    reason: str,
    ranking: Ranking,
    knowledge: Knowledge,
    decision_id: str | None = None,
) -> Decision:
    return Decision(
        id=decision_id or new_id(),
        lesson_id=lesson_id,
        cause=cause,
        reason=reason,
        ranking=dict(ranking),
        ranked_first=ranked_first(ranking) if rests_on_something(ranking) else None,
        shape=ranking["pattern"]["shape"],
        knowledge_version=knowledge.version,
        how_common=case.how_common,
        eye=case.eye,
        prediction=asdict(without(infer(case, knowledge), cause)),
    )


FROM_A_FILE: Final = "As the case file says."
OF_THE_LESSON: Final = {"retest", "trace", "film"}
"""What a lesson says of its decision by itself, where it was hit again."""


def decided_in_a_file(
    lesson: Lesson, case: Case, outcome: DecisionOutcome, knowledge: Knowledge
) -> Iterator[SQLModel]:
    """Rows of the decision that a case file tells, and of what became of it; the lesson is over.

    What its own retest says is worked out anew; anything else is kept as what came back.
    """
    lesson.finished = True
    ranking = ranking_of(diagnose(case, knowledge, lesson.at_hand), knowledge)
    yield _row(lesson.id, case, outcome.decided, FROM_A_FILE, ranking, knowledge)
    says_itself = any(block.kind == "retest" and block.shots for block in case.blocks)
    if not (says_itself and set(outcome.known_by) <= OF_THE_LESSON):
        yield FollowUp(
            id=lesson.id,
            lesson_id=lesson.id,
            due_on=lesson.today(),
            verdict=outcome.fate,
            answered_at=now(),
        )
