"""What was answered to the looks?"""

from collections.abc import Mapping
from typing import Any

from sqlmodel import Session, col, select

from firm_footing.store.changes.conflicts import Was, merged, was_there
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.quotas import require_quota
from firm_footing.store.errors import not_found, refused
from firm_footing.store.lessons import get_block, get_lesson
from firm_footing.store.tables import CheckAnswer


def put_answer(
    session: Session,
    lesson_id: str,
    answer_id: str,
    what: str,
    values: Mapping[str, Any],
    was: Was | None = None,
) -> CheckAnswer:
    """Keep an answer under the client's id, or change the one that has it.

    An earlier answer to the same check by the same means, seen with the same block, makes room for
    it and stays in the history: two pages that answer the same look do not contradict each other.

    what : how the check is called when the step is offered for undo
    values : check_id, answer, source, block_id
    was : see `merged`

    Raises
    ------
    NotFoundError
        There is no such lesson, or the block is none of it.
    RefusedError
        It belongs to another check or lesson, or there are as many as may be.
    ConflictError
        It is another than `was` by now.

    """
    get_lesson(session, lesson_id)
    if values.get("block_id") is not None:
        get_block(session, lesson_id, values["block_id"])
    answer = session.get(CheckAnswer, answer_id)
    with Step(session, lesson_id, f"answer to “{what}”") as step:
        if answer is None:
            was_there("answer", was, values)
            require_quota(session, CheckAnswer, lesson_id)
            for earlier in _instead_of(session, lesson_id, values):
                step.delete(earlier)
            answer = CheckAnswer(id=answer_id, lesson_id=lesson_id, **values)
            step.add(answer)
        elif answer.lesson_id != lesson_id or answer.check_id != values["check_id"]:
            raise refused(
                "This answer belongs to another check.",
                "answer_id",
                "Nothing was changed. Send it under a new id.",
            )
        else:
            step.change(answer, **merged(answer, values, was))
    return answer


def _instead_of(session: Session, lesson_id: str, values: Mapping[str, Any]) -> list[CheckAnswer]:
    return list(
        session.exec(
            select(CheckAnswer).where(
                CheckAnswer.lesson_id == lesson_id,
                CheckAnswer.check_id == values["check_id"],
                CheckAnswer.source == values["source"],
                col(CheckAnswer.block_id).is_not_distinct_from(values.get("block_id")),
            )
        )
    )


def delete_answer(session: Session, lesson_id: str, answer_id: str) -> None:
    """Take an answer back; it can be undone. An answer already gone is no error."""
    answer = session.get(CheckAnswer, answer_id)
    if answer is None:
        return
    if answer.lesson_id != lesson_id:
        raise not_found("answer")
    with Step(session, lesson_id, "removal of an answer") as step:
        step.delete(answer)
