"""How is a lesson changed? One way for every kind of change."""

from typing import Annotated

from fastapi import APIRouter, Body
from pydantic import Field

from firm_footing.api.answers.changes import AnswerCheck, DeleteAnswer
from firm_footing.api.balls.changes import DeleteBall, LogBall
from firm_footing.api.changes.write_response import ChangedLesson, Reply
from firm_footing.api.coaching.changes import TapRepetition
from firm_footing.api.context import Known, RowId, Writing
from firm_footing.api.errors import responses
from firm_footing.api.films.changes import DeleteFilm, PutFilm
from firm_footing.api.lessons.changes import (
    ChangeLesson,
    ChangeStudentOf,
    Decide,
    DeleteNote,
    PutBlock,
    PutNote,
    Redo,
    Undo,
)
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.changes import PutFollowUp
from firm_footing.api.stills.changes import ChangeStill, DeleteStill, PutStill
from firm_footing.api.traces.changes import ChangeTrace, DeleteTrace, PutTrace

router = APIRouter(route_class=ParsedOnceRoute, tags=["changes"])

AnyChange = Annotated[
    LogBall
    | DeleteBall
    | AnswerCheck
    | DeleteAnswer
    | PutBlock
    | PutNote
    | DeleteNote
    | ChangeLesson
    | ChangeStudentOf
    | Decide
    | TapRepetition
    | PutFollowUp
    | PutTrace
    | ChangeTrace
    | DeleteTrace
    | PutFilm
    | DeleteFilm
    | PutStill
    | ChangeStill
    | DeleteStill
    | Undo
    | Redo,
    Field(discriminator="kind"),
]
"""Every kind of change, told apart by `kind`."""


@router.post(
    "/lessons/{lesson_id}/changes", summary="Change a lesson", responses=responses(404, 409, 422)
)
def change_lesson(
    session: Writing,
    known: Known,
    outcome: Reply,
    lesson_id: RowId,
    change: Annotated[AnyChange, Body()],
) -> ChangedLesson:
    """Made once for each `Idempotency-Key`; the answer is the lesson as it then is."""
    change.apply(session, known, lesson_id)
    return outcome(lesson_id)
