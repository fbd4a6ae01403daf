"""Which cause did the instructor choose, and what did the ranking say then?"""

from collections.abc import Mapping
from typing import Any

from sqlmodel import Session

from firm_footing.store.history import Step
from firm_footing.store.lessons import get_lesson
from firm_footing.store.tables import Decision


def add_decision(
    session: Session,
    lesson_id: str,
    cause: str,
    reason: str,
    ranking: Mapping[str, Any],
    knowledge_version: str,
) -> Decision:
    """Keep a decision with the ranking of this moment and the version of what ranked it."""
    get_lesson(session, lesson_id)
    decision = Decision(
        lesson_id=lesson_id,
        cause=cause,
        reason=reason,
        ranking=dict(ranking),
        knowledge_version=knowledge_version,
    )
    with Step(session, lesson_id, "decision") as step:
        step.add(decision)
    return decision
