"""What happens in a lesson? Every write answers with the whole lesson as it then is."""

from collections.abc import AsyncIterator, Container, Iterable
from typing import Annotated

from fastapi import APIRouter, Body, Depends, Request
from fastapi.sse import EventSourceResponse
from starlette.concurrency import run_in_threadpool

from firm_footing.api.changes.schemas import (
    BlockIn,
    DecisionIn,
    LessonChange,
    NewLesson,
    NoteIn,
    Reopening,
    ShotIn,
    StepIn,
    StudentChange,
)
from firm_footing.api.changes.write_response import ChangedLesson, Reply
from firm_footing.api.context import Known, RowId, Store, Writing, session_for
from firm_footing.api.errors import responses, responses_of_stream
from firm_footing.api.instructors.routes import Mine
from firm_footing.api.lessons.schemas import LessonOut, Revision
from firm_footing.api.lessons.views import lesson_view
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.core.coaching.lesson import Cue, Listen, SheetWords
from firm_footing.store import decisions, lessons, notes, shots
from firm_footing.store.changes import history, steps
from firm_footing.store.changes.idempotency import Sender
from firm_footing.store.errors import refused
from firm_footing.store.tables import Lesson, new_id

router = APIRouter(route_class=ParsedOnceRoute, tags=["lessons"])
ERRORS = responses(404, 409, 422)
LAST, NO_ID = StepIn(), Reopening()


@router.post(
    "/students/{student_id}/lessons",
    status_code=201,
    summary="Start a lesson",
    responses=responses(404, 409, 422),
)
def add_lesson(
    session: Writing, known: Known, mine: Mine, student_id: RowId, new: NewLesson
) -> LessonOut:
    """It starts with an empty baseline block. The same id again starts no second one."""
    if new.club is not None:
        _club_is_known(known, new.club)
    if not lessons.begun_before(session, new.id, student_id):
        lesson = Lesson(
            id=new.id or new_id(),
            student_id=student_id,
            complaint=new.complaint,
            zone=new.zone,
            given_by=mine.name if mine else "",
            school=new.school,
        )
        return lesson_view(
            session, lessons.add_lesson(session, lesson, new.club, block_id=new.block_id).id
        )
    return lesson_view(session, str(new.id))


@router.post(
    "/lessons/{lesson_id}/reopen",
    status_code=201,
    summary="Start a lesson that takes this one up again",
    responses=ERRORS,
)
def reopen(
    session: Writing, mine: Mine, lesson_id: RowId, new: Annotated[Reopening, Body()] = NO_ID
) -> LessonOut:
    """With the same club, for a short new baseline beside the earlier ones."""
    student_id = lessons.get_lesson(session, lesson_id).student_id
    if not lessons.begun_before(session, new.id, student_id):
        given_by = mine.name if mine else ""
        again = lessons.reopen(session, lesson_id, new.id, new.zone, given_by)
        return lesson_view(session, again.id)
    return lesson_view(session, str(new.id))


@router.get("/lessons/{lesson_id}", summary="A lesson with everything in it", responses=ERRORS)
def read_lesson(session: Store, lesson_id: RowId) -> LessonOut:
    """Student, blocks with balls, answers, notes, decisions."""
    return lesson_view(session, lesson_id)


@router.get("/lessons/{lesson_id}/revision", summary="Has it changed?", responses=ERRORS)
def read_revision(session: Store, lesson_id: RowId) -> Revision:
    """For a screen that asks often: a device may have sent a ball."""
    lessons.get_lesson(session, lesson_id)
    return Revision(revision=steps.revision_of(session, lesson_id))


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
    """Server-sent events, until the lesson is gone or the server stops."""

    def revision() -> int:
        with session_for(request, Sender()) as session:
            return steps.revision_of(session, lesson_id)

    told = None
    async for _ in request.app.state.arrivals.each():
        now = await run_in_threadpool(revision)
        if now != told:
            yield Revision(revision=now)
        told = now


@router.patch("/lessons/{lesson_id}", summary="Change a lesson", responses=ERRORS)
def change_lesson(
    session: Writing, known: Known, outcome: Reply, lesson_id: RowId, change: LessonChange
) -> ChangedLesson:
    """What is left out stays; `at_hand` null: all is at hand; `drill` and `aid` null: none."""
    sent = change.model_dump(exclude_unset=True, exclude={"was"})
    empties = ("at_hand", "drill", "aid", "primary", "next_at")
    values = {k: v for k, v in sent.items() if v is not None or k in empties}
    _all_is_known(known, change)
    lessons.change_lesson(session, lesson_id, values, change.was)
    return outcome(lesson_id)


@router.patch(
    "/lessons/{lesson_id}/student", summary="Change the student of a lesson", responses=ERRORS
)
def change_student_of(
    session: Writing, outcome: Reply, lesson_id: RowId, change: StudentChange
) -> ChangedLesson:
    """As a step of the lesson: it can be undone. What is left out stays."""
    lessons.change_student_of(session, lesson_id, change.values(), change.was)
    return outcome(lesson_id)


@router.delete("/lessons/{lesson_id}", status_code=204, summary="Delete a lesson", responses=ERRORS)
def delete_lesson(session: Writing, lesson_id: RowId) -> None:
    """Cannot be undone."""
    lessons.delete_lesson(session, lesson_id)


@router.put(
    "/lessons/{lesson_id}/blocks/{block_id}", summary="Add or change a block", responses=ERRORS
)
def put_block(
    session: Writing,
    known: Known,
    outcome: Reply,
    lesson_id: RowId,
    block_id: RowId,
    block: BlockIn,
) -> ChangedLesson:
    """The client makes the id; what is left out stays."""
    values = {name: getattr(block, name) for name in block.model_fields_set - {"was"}}
    values = {
        k: v for k, v in values.items() if not (k in ("kind", "club", "own_targets") and v is None)
    }
    if "club" in values:
        _club_is_known(known, values["club"])
    if values.get("drill") is not None and values["drill"] not in known.drill:
        raise refused(f"No drill is called '{values['drill']}'.", "drill", "Nothing was changed.")
    lessons.put_block(session, lesson_id, block_id, values, block.was)
    return outcome(lesson_id)


@router.put(
    "/lessons/{lesson_id}/shots/{shot_id}", summary="Log or change a ball", responses=ERRORS
)
def put_shot(
    session: Writing, outcome: Reply, lesson_id: RowId, shot_id: RowId, shot: ShotIn
) -> ChangedLesson:
    """The client makes the id, so a repeated request stores the ball once."""
    shots.put_shot(
        session, lesson_id, shot_id, shot.block_id, shot.observed, shot.touched, shot.was
    )
    return outcome(lesson_id)


@router.delete("/lessons/{lesson_id}/shots/{shot_id}", summary="Delete a ball", responses=ERRORS)
def delete_shot(
    session: Writing, outcome: Reply, lesson_id: RowId, shot_id: RowId
) -> ChangedLesson:
    """It can be undone; a ball already gone is no error."""
    shots.delete_shot(session, lesson_id, shot_id)
    return outcome(lesson_id)


@router.put("/lessons/{lesson_id}/notes/{note_id}", summary="Write a note", responses=ERRORS)
def put_note(
    session: Writing, outcome: Reply, lesson_id: RowId, note_id: RowId, note: NoteIn
) -> ChangedLesson:
    """The client makes the id."""
    notes.put_note(session, lesson_id, note_id, note.text, note.was)
    return outcome(lesson_id)


@router.delete("/lessons/{lesson_id}/notes/{note_id}", summary="Delete a note", responses=ERRORS)
def delete_note(
    session: Writing, outcome: Reply, lesson_id: RowId, note_id: RowId
) -> ChangedLesson:
    """It can be undone."""
    notes.delete_note(session, lesson_id, note_id)
    return outcome(lesson_id)


@router.post(
    "/lessons/{lesson_id}/decisions",
    status_code=201,
    summary="Decide on one cause",
    responses=ERRORS,
)
def add_decision(
    session: Writing, known: Known, outcome: Reply, lesson_id: RowId, decision: DecisionIn
) -> ChangedLesson:
    """Kept with what the ranking says now, the knowledge that says it, and what it predicts."""
    if decision.cause not in known.cause:
        raise refused(f"No cause is called '{decision.cause}'.", "cause", "Nothing was changed.")
    decisions.add_decision(session, lesson_id, decision.cause, decision.reason, known, decision.id)
    return outcome(lesson_id)


@router.post("/lessons/{lesson_id}/undo", summary="Take back the last step", responses=ERRORS)
def undo(
    session: Writing, outcome: Reply, lesson_id: RowId, sent: Annotated[StepIn, Body()] = LAST
) -> ChangedLesson:
    """Does nothing when there is nothing to take back, or the step was taken back already."""
    lessons.get_lesson(session, lesson_id)
    history.undo(session, lesson_id, sent.step, sent.write)
    return outcome(lesson_id)


@router.post("/lessons/{lesson_id}/redo", summary="Do a step again", responses=ERRORS)
def redo(
    session: Writing, outcome: Reply, lesson_id: RowId, sent: Annotated[StepIn, Body()] = LAST
) -> ChangedLesson:
    """Does nothing when nothing was taken back, or the step stands already."""
    lessons.get_lesson(session, lesson_id)
    history.redo(session, lesson_id, sent.step, sent.write)
    return outcome(lesson_id)


def _all_is_known(known: Known, change: LessonChange) -> None:
    """Ids that stand in no part of the knowledge would be kept for nothing."""
    listen, sheet = change.listen or Listen(), change.sheet or SheetWords()
    drills = {"drill": change.drill, "aid": change.aid}
    # on the sheet an empty name says that none is to go home
    drills |= {
        "sheet.rehearsal": sheet.rehearsal or None,
        "sheet.ball_drill": sheet.ball_drill or None,
    }
    given: dict[str, tuple[Iterable[str], Container[str], str]] = {
        **{
            place: (() if name is None else (name,), known.drill, "drill")
            for place, name in drills.items()
        },
        "primary": ((change.primary,) if change.primary else (), known.measure, "measure"),
        "lacking": (change.lacking or (), {e.id for e in known.equipment}, "equipment"),
        "cue.felt": (
            (change.cue or Cue()).felt,
            {t.id for t in known.cautions.force_tests},
            "feel test",
        ),
        "listen.misses": (listen.misses, {m.id for m in known.misses}, "miss"),
        "listen.corrected": (listen.corrected, known.check, "belief"),
    }
    for place, (names, there, kind) in given.items():
        for name in names:
            if name not in there:
                raise refused(f"No {kind} is called '{name:.60}'.", place, "Nothing was changed.")


def _club_is_known(known: Known, club: str) -> None:
    if club not in known.club:
        names = ", ".join(known.club)
        raise refused(f"No club is called '{club}'.", "club", f"Known are {names}.")
