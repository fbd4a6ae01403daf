"""What was answered to the looks?"""

from fastapi import APIRouter

from firm_footing.api.changes.schemas import AnswerIn
from firm_footing.api.changes.write_response import ChangedLesson, Reply
from firm_footing.api.context import Known, RowId, Writing
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.store import answers
from firm_footing.store.errors import refused

router = APIRouter(route_class=ParsedOnceRoute, tags=["answers"])
ERRORS = responses(404, 409, 422)


@router.put(
    "/lessons/{lesson_id}/answers/{answer_id}",
    summary="Answer a look, or change the answer",
    responses=ERRORS,
)
def put_answer(
    session: Writing,
    known: Known,
    outcome: Reply,
    lesson_id: RowId,
    answer_id: RowId,
    new: AnswerIn,
) -> ChangedLesson:
    """The client makes the id; several answers to one check stand side by side."""
    check = known.check.get(new.check_id)
    if check is None:
        raise refused(f"No check is called '{new.check_id}'.", "check_id", "Nothing was changed.")
    values = new.model_dump(exclude={"was"}) | {"source": new.source or check.sources[0]}
    answers.put_answer(session, lesson_id, answer_id, check.question, values, new.was)
    return outcome(lesson_id)


@router.delete(
    "/lessons/{lesson_id}/answers/{answer_id}", summary="Take an answer back", responses=ERRORS
)
def delete_answer(
    session: Writing, outcome: Reply, lesson_id: RowId, answer_id: RowId
) -> ChangedLesson:
    """It can be undone; an answer already gone is no error."""
    answers.delete_answer(session, lesson_id, answer_id)
    return outcome(lesson_id)
