"""What was answered to the looks?"""

from typing import Any

from sqlmodel import Session

from firm_footing.store.errors import not_found, refused
from firm_footing.store.history import Step
from firm_footing.store.lessons import get_block, get_lesson
from firm_footing.store.tables import CheckAnswer


def put_answer(
    session: Session, lesson_id: str, answer_id: str, what: str, values: dict[str, Any]
) -> CheckAnswer:
    """Keep an answer under the client's id, or change the one that has it.

    what : how the check is called when the step is offered for undo
    values : check_id, answer, source, block_id
    """
    get_lesson(session, lesson_id)
    if values.get("block_id") is not None:
        get_block(session, lesson_id, values["block_id"])
    answer = session.get(CheckAnswer, answer_id)
    with Step(session, lesson_id, f"answer to “{what}”") as step:
        if answer is None:
            answer = CheckAnswer(id=answer_id, lesson_id=lesson_id, **values)
            step.add(answer)
        elif answer.lesson_id != lesson_id or answer.check_id != values["check_id"]:
            raise refused(
                "This answer belongs to another check.",
                "answer_id",
                "Nothing was changed. Send it under a new id.",
            )
        else:
            step.change(answer, **values)
    return answer


def delete_answer(session: Session, lesson_id: str, answer_id: str) -> None:
    """Take an answer back; it can be undone. An answer already gone is no error."""
    answer = session.get(CheckAnswer, answer_id)
    if answer is None:
        return
    if answer.lesson_id != lesson_id:
        raise not_found("answer", answer_id)
    with Step(session, lesson_id, "removal of an answer") as step:
        step.delete(answer)
