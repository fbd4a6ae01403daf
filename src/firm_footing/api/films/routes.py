"""What was marked in films, and what does it measure?

A film never comes here: only the places that were touched, golfer-neutral, and how much moved from
picture to picture.
"""

from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from firm_footing.api.context import Known, RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.films.views import FilmOut, film_view
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.wire import In, Out
from firm_footing.core.case.limits import FILM_FRAMES
from firm_footing.core.film.finder import MotionError, find_swing
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge.film import FilmEvent
from firm_footing.store.cases import case_of
from firm_footing.store.errors import refused
from firm_footing.store.lesson_reading import content_of

router = APIRouter(route_class=ParsedOnceRoute, tags=["films"])
ERRORS = responses(404, 409, 422)
Frames = Annotated[list[Annotated[float, Field(ge=0, le=1e12)]], Field(max_length=FILM_FRAMES)]


class Motion(In):
    """How much moves in a film, worked out where the film is."""

    change: Frames = Field(description="How much of each picture is another than before")
    down: Annotated[list[Annotated[float, Field(ge=0, le=1)]], Field(max_length=FILM_FRAMES)] = (
        Field(description="How far down that lies")
    )
    fps: Annotated[float, Field(ge=10, le=2000)] = Field(
        description="As the file plays; it may be slower than life"
    )
    around: Annotated[int, Field(ge=0, lt=FILM_FRAMES)] | None = Field(
        None, description="A picture near to impact, where two moves could be the swing"
    )


class ProposedOut(Out):
    """An event as the finder has it."""

    frame: int
    sd_frames: float


@router.get("/lessons/{lesson_id}/films", summary="What the films measure", responses=ERRORS)
def read_films(session: Store, known: Known, lesson_id: RowId) -> list[FilmOut]:
    """Every film with its marks, its measures and what is still to be touched."""
    content = content_of(session, lesson_id)
    inference = infer(case_of(content), known)
    return [film_view(row, inference, i) for i, row in enumerate(content.films)]


@router.post(
    "/films/events", summary="When the events of a swing are", responses=responses(409, 422)
)
def propose_events(known: Known, motion: Motion) -> dict[FilmEvent, ProposedOut]:
    """Proposed from how much moves; nothing is kept."""
    if len(motion.change) != len(motion.down):
        raise refused("Every picture has two numbers.", "down", "Nothing was found.")
    try:
        found = find_swing(motion.change, motion.down, motion.fps, known, motion.around)
    except MotionError as error:
        hint = "Go to a picture near impact and find the events around it, or mark them by hand."
        raise refused(str(error), "change", hint) from error
    return {e: ProposedOut(frame=p.frame, sd_frames=p.sd_frames) for e, p in found.items()}
