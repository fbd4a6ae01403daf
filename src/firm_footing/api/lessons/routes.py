"""What happens in a lesson? Every write answers with the whole lesson as it then is."""

from collections.abc import AsyncIterator
from typing import Annotated

from fastapi import APIRouter, Body, Depends, Request
from fastapi.sse import EventSourceResponse
from sqlmodel import Session
from starlette.concurrency import run_in_threadpool

from firm_footing.api.changes.schemas import (
    NewLesson,
    Reopening,
    StepIn,
)
from firm_footing.api.changes.write_response import ChangedLesson, Reply
from firm_footing.api.context import Known, RowId, Store, Writing, session_for
from firm_footing.api.errors import responses, responses_of_stream
from firm_footing.api.instructors.routes import Mine
from firm_footing.api.lessons.changes import club_is_known
from firm_footing.api.lessons.schemas import LessonOut, Revision
from firm_footing.api.lessons.views import lesson_view
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.store import lessons
from firm_footing.store.changes import steps
from firm_footing.store.changes.idempotency import Sender
from firm_footing.store.tables import Lesson, new_id

router = APIRouter(route_class=ParsedOnceRoute, tags=["lessons"])
ERRORS = responses(404, 409, 422)
LAST, NO_ID = StepIn(), Reopening()
STREAM_S = 12.0
"""A browser has six lines to one server, and some keep the streams of pages that were left: those
of pages open for three seconds (`useRevisions.ts`) are four at most."""


@router.post(
    "/students/{student_id}/lessons",
    status_code=201,
    summary="Start a lesson",
    responses=responses(404, 409, 422),
)
def add_lesson(
    session: Writing, known: Known, mine: Mine, outcome: Reply, student_id: RowId, new: NewLesson
) -> ChangedLesson:
    """It starts with an empty baseline block. The same id again starts no second one."""
    if new.club is not None:
        club_is_known(known, new.club)
    if not lessons.begun_before(session, new.id, student_id):
        lesson = Lesson(
            id=new.id or new_id(),
            student_id=student_id,
            complaint=new.complaint,
            zone=new.zone,
            given_by=mine.name if mine else "",
            school=new.school,
        )
        return outcome(lessons.add_lesson(session, lesson, new.club, block_id=new.block_id).id)
    return outcome(str(new.id))


@router.post(
    "/lessons/{lesson_id}/reopen",
    status_code=201,
    summary="Start a lesson that takes this one up again",
    responses=ERRORS,
)
def reopen(
    session: Writing,
    mine: Mine,
    outcome: Reply,
    lesson_id: RowId,
    new: Annotated[Reopening, Body()] = NO_ID,
) -> ChangedLesson:
    """With the same club, for a short new baseline beside the earlier ones."""
    student_id = lessons.get_lesson(session, lesson_id).student_id
    if not lessons.begun_before(session, new.id, student_id):
        given_by = mine.name if mine else ""
        again = lessons.reopen(session, lesson_id, new.id, new.zone, given_by)
        return outcome(again.id)
    return outcome(str(new.id))


@router.get("/lessons/{lesson_id}", summary="A lesson with everything in it", responses=ERRORS)
def read_lesson(session: Store, lesson_id: RowId) -> LessonOut:
    """Student, blocks with balls, answers, notes, decisions."""
    return lesson_view(session, lesson_id)


@router.get("/lessons/{lesson_id}/revision", summary="Has it changed?", responses=ERRORS)
def read_revision(request: Request, session: Store, lesson_id: RowId) -> Revision:
    """For a screen that asks often: a device may have sent a ball."""
    lessons.get_lesson(session, lesson_id)
    return _revision(request, session, lesson_id)


def _revision(request: Request, session: Session, lesson_id: str) -> Revision:
    taught: int = request.app.state.learner.times_kept
    return Revision(revision=steps.revision_of(session, lesson_id), taught=taught)


def _known_lesson(request: Request, lesson_id: RowId) -> None:
    with session_for(request, Sender()) as session:  # closed before the stream begins
        lessons.get_lesson(session, lesson_id)


@router.get(
    "/lessons/{lesson_id}/revisions",
    summary="Its revision, again after every change",
    responses=responses_of_stream(404, 422),
    response_class=EventSourceResponse,
    dependencies=[Depends(_known_lesson)],
)
async def stream_revisions(request: Request, lesson_id: RowId) -> AsyncIterator[Revision]:
    """Server-sent events for some seconds; a page that is still there then asks again by itself."""

    def revision() -> Revision:
        with session_for(request, Sender()) as session:
            return _revision(request, session, lesson_id)

    told = None
    async for _ in request.app.state.arrivals.each(STREAM_S):
        now = await run_in_threadpool(revision)
        if now != told:
            yield now
        told = now


@router.delete("/lessons/{lesson_id}", status_code=204, summary="Delete a lesson", responses=ERRORS)
def delete_lesson(session: Writing, lesson_id: RowId) -> None:
    """Cannot be undone."""
    lessons.delete_lesson(session, lesson_id)
