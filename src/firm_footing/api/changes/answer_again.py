"""What does a change answer that had arrived already, when it is sent again?

Whatever the route: nothing is done a second time, and the answer is the thing as it is now.
"""

from collections.abc import Callable
from typing import Final

from fastapi import Request
from pydantic import BaseModel
from sqlmodel import Session
from starlette.concurrency import run_in_threadpool
from starlette.responses import Response

from firm_footing.api.changes.write_response import changed_lesson
from firm_footing.api.coaching.routes import read_clock
from firm_footing.api.context import DuplicateWriteError, session_for
from firm_footing.api.instructors.routes import InstructorOut
from firm_footing.api.lessons.schemas import StudentOut
from firm_footing.store.changes.idempotency import Sender
from firm_footing.store.instructors import get_instructor
from firm_footing.store.own_tables import SentWrite
from firm_footing.store.students import get_student

AnswerView = Callable[[Session, Request, SentWrite], BaseModel]


def _student(session: Session, _request: Request, sent: SentWrite) -> BaseModel:
    return StudentOut.model_validate(get_student(session, str(sent.made)))


def _instructor(session: Session, _request: Request, sent: SentWrite) -> BaseModel:
    return InstructorOut.model_validate(get_instructor(session, str(sent.made)))


VIEWS: Final[dict[str, AnswerView]] = {
    "add_student": _student,
    "change_student": _student,
    "change_mine": _instructor,
    "add_instructor": _instructor,
    "add_time": lambda session, request, sent: read_clock(
        session, request.app.state.knowledge, str(sent.lesson_id)
    ),
}
"""By the name of the route, where it answers neither nothing nor the changed lesson."""


async def answer_again(request: Request, error: Exception) -> Response:
    """The answer in place of the first one, which may have been lost."""
    assert isinstance(error, DuplicateWriteError)
    route, sent = request.scope["route"], error.before
    status = route.status_code or 200
    if status == 204:
        return Response(status_code=204)

    def answer() -> Response:
        with session_for(request, Sender(page=request.headers.get("page-id"))) as session:
            view = VIEWS.get(route.name, _changed)
            found = view(session, request, sent).model_dump_json()
        return Response(found, status, media_type="application/json")

    return await run_in_threadpool(answer)


def _changed(session: Session, request: Request, sent: SentWrite) -> BaseModel:
    state, wanted = request.app.state, request.query_params.get("diagnosis") == "true"
    return changed_lesson(session, state.knowledge, state.conclusions, str(sent.lesson_id), wanted)
