"""What was marked in films, and what does it measure?

A film never comes here: only the places that were touched, golfer-neutral, and how much moved from
picture to picture.
"""

from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from firm_footing.api.changes.schemas import OwnId, WasWhole
from firm_footing.api.changes.write_response import ChangedLesson, Reply
from firm_footing.api.context import Known, RowId, Store, Writing
from firm_footing.api.errors import responses
from firm_footing.api.films.views import FilmOut, film_view
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.wire import In, Out
from firm_footing.core.case import Film
from firm_footing.core.case.limits import FILM_FRAMES, NAME
from firm_footing.core.film.finder import MotionError, find_swing
from firm_footing.core.knowledge.pressure import SwingEvent
from firm_footing.store import films, lessons
from firm_footing.store.cases import case_of
from firm_footing.store.errors import refused

router = APIRouter(route_class=ParsedOnceRoute, tags=["films"])
ERRORS = responses(404, 409, 422)
Frames = Annotated[list[Annotated[float, Field(ge=0, le=1e12)]], Field(max_length=FILM_FRAMES)]


class FilmIn(In):
    """A film as far as it is marked; sending it again with more replaces it."""

    marks: Film = Field(description="Golfer-neutral; the block is named beside it")
    block_id: OwnId | None = Field(None, description="Left out: before anything was changed")
    name: Annotated[str, Field(max_length=NAME)] = ""
    was: WasWhole = None


class Motion(In):
    """How much moves in a film, worked out where the film is."""

    change: Frames = Field(description="How much of each picture is another than before")
    down: Annotated[list[Annotated[float, Field(ge=0, le=1)]], Field(max_length=FILM_FRAMES)] = (
        Field(description="How far down that lies")
    )
    fps: Annotated[float, Field(ge=10, le=2000)] = Field(
        description="As the file plays; it may be slower than life"
    )


class ProposedOut(Out):
    """An event as the finder has it."""

    frame: int
    sd_frames: float


@router.get("/lessons/{lesson_id}/films", summary="What the films measure", responses=ERRORS)
def read_films(session: Store, known: Known, lesson_id: RowId) -> list[FilmOut]:
    """Every film with its marks, its measures and what is still to be touched."""
    content = lessons.content_of(session, lesson_id)
    case = case_of(content)
    return [film_view(row, case, i, known) for i, row in enumerate(content.films)]


@router.put("/lessons/{lesson_id}/films/{film_id}", summary="Keep a film's marks", responses=ERRORS)
def put_film(
    session: Writing,
    known: Known,
    outcome: Reply,
    lesson_id: RowId,
    film_id: RowId,
    sent: FilmIn,
) -> ChangedLesson:
    """The client makes the id; the same id again has the marks of then."""
    for point in sent.marks.points:
        if point not in known.film.point:
            raise refused(f"There is no point '{point}'.", "marks", "Nothing was changed.")
    for measure in sent.marks.felt:
        if known.film.can_be_felt(measure) is None:
            raise refused(f"Nobody points to '{measure}'.", "marks", "Nothing was changed.")
    if sent.marks.out_of_order is not None:
        one, other = (e.replace("_", " ") for e in sent.marks.out_of_order)
        raise refused(f"'{other}' does not come after '{one}'.", "marks", "Nothing was changed.")
    marks = sent.marks.model_copy(update={"block": None})
    films.put_film(session, lesson_id, film_id, marks, sent.block_id, sent.name, sent.was)
    return outcome(lesson_id)


@router.delete(
    "/lessons/{lesson_id}/films/{film_id}", summary="Delete a film's marks", responses=ERRORS
)
def delete_film(
    session: Writing, outcome: Reply, lesson_id: RowId, film_id: RowId
) -> ChangedLesson:
    """It can be undone; a film already gone is no error."""
    films.delete_film(session, lesson_id, film_id)
    return outcome(lesson_id)


@router.post(
    "/films/events", summary="When the events of a swing are", responses=responses(409, 422)
)
def propose_events(known: Known, motion: Motion) -> dict[SwingEvent, ProposedOut]:
    """Proposed from how much moves; nothing is kept."""
    if len(motion.change) != len(motion.down):
        raise refused("Every picture has two numbers.", "down", "Nothing was found.")
    try:
        found = find_swing(motion.change, motion.down, motion.fps, known.traces.timing)
    except MotionError as error:
        raise refused(str(error), "change", "Mark the events by hand.") from error
    return {e: ProposedOut(frame=p.frame, sd_frames=p.sd_frames) for e, p in found.items()}
