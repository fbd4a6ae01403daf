"""Two films beside each other: which ones there are, and what has changed between them?"""

from datetime import date
from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import Field

from firm_footing.api.context import Known, RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.films.views import club_of
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.wire import Out
from firm_footing.core.case import Film
from firm_footing.core.film import FilmError
from firm_footing.core.film.compare import MeasureChange, PictureLaid, changes, laid_together
from firm_footing.store import films
from firm_footing.store.cases import case_of
from firm_footing.store.errors import refused
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.tables import FilmMarks

router = APIRouter(route_class=ParsedOnceRoute, tags=["films"])


class StudentFilm(Out):
    """A film of a student that was marked."""

    id: str
    lesson_id: str
    on: date = Field(description="The day of its lesson")
    block: str = Field(description="What was hit in it: baseline, trial, retest; and the club")
    name: str
    marks: Film


class FilmLaidOut(Out):
    """How a picture is laid on another: a place of it, what a pixel is worth, and its level."""

    at: tuple[float, float] = Field(description="Pixels, golfer-neutral: the same place in both")
    cm_per_px: float
    level_rad: float = Field(description="How far level ground rises to the right in the picture")


class ChangeOut(Out):
    """One measure before and after."""

    measure: str
    before: float
    after: float
    by: float
    sd: float
    beyond_chance: bool
    text: str


class BesideOut(Out):
    """Two films of one side."""

    before: FilmLaidOut
    after: FilmLaidOut
    changes: list[ChangeOut]


@router.get(
    "/students/{student_id}/films", summary="A student's films", responses=responses(404, 422)
)
def read_student_films(session: Store, student_id: RowId) -> list[StudentFilm]:
    """Of all lessons, the newest first."""
    found = []
    for row, lesson, block in films.films_of_student(session, student_id):
        hit = "" if block is None else f"{block.kind}, {block.club}"
        found.append(
            StudentFilm(
                id=row.id,
                lesson_id=lesson.id,
                on=lesson.day,
                block=hit,
                name=row.name,
                marks=row.marks,
            )
        )
    return found


@router.get(
    "/films/{before_id}/beside",
    summary="What changed between two films",
    responses=responses(404, 409, 422),
)
def read_beside(
    session: Store,
    known: Known,
    before_id: RowId,
    after: Annotated[str, Query(pattern=r"^[A-Za-z0-9_-]{1,64}$", description="The later film")],
) -> BesideOut:
    """Both measures, and whether the change is more than their doubt."""
    rows = [films.get_film(session, film_id) for film_id in (before_id, after)]
    first, second = (row.marks for row in rows)
    if first.view != second.view:
        raise refused(
            "One of these films is seen down the line and the other face on.",
            "after",
            "Choose two films of the same side.",
        )
    clubs = _club(session, rows[0]), _club(session, rows[1])
    try:
        laid = laid_together([first, second], known.film)
        changed = changes(first, second, clubs, known)
    except FilmError as error:
        raise refused(str(error), "before_id", "Touch a scale in both films.") from error
    return BesideOut(
        before=_laid(laid[0]), after=_laid(laid[1]), changes=[_changed(c) for c in changed]
    )


def _club(session: Store, row: FilmMarks) -> str:
    content = content_of(session, row.lesson_id)
    place = next(i for i, film in enumerate(content.films) if film.id == row.id)
    return club_of(case_of(content), place)


def _laid(laid: PictureLaid) -> FilmLaidOut:
    return FilmLaidOut(at=laid.at, cm_per_px=laid.cm_per_px, level_rad=laid.level_rad)


def _changed(change: MeasureChange) -> ChangeOut:
    return ChangeOut(
        measure=change.before.measure.id,
        before=change.before.value,
        after=change.after.value,
        by=change.value,
        sd=change.sd,
        beyond_chance=change.beyond_chance,
        text=change.text,
    )
