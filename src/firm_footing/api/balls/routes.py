"""What do the balls of a lesson show, ball by ball, and what moved since earlier baselines?"""

from fastapi import APIRouter

from firm_footing.api.balls.schemas import EarlierOut, MovedOut, ReadBlock
from firm_footing.api.balls.views import read_content
from firm_footing.api.conclusions.kept import version_of
from firm_footing.api.context import Conclusions, Known, RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.core.patterns.compare import by_club, moved_since
from firm_footing.store import earlier
from firm_footing.store.cases import case_of
from firm_footing.store.lesson_reading import content_of

router = APIRouter(route_class=ParsedOnceRoute, tags=["balls"])
ERRORS = responses(404, 422)


@router.get("/lessons/{lesson_id}/balls", summary="What the balls show", responses=ERRORS)
def read_balls(
    session: Store, known: Known, kept: Conclusions, lesson_id: RowId
) -> list[ReadBlock]:
    """Every block that has balls: deliveries, flights, groups, changes, lost distance."""
    key = ("balls", *version_of(session, lesson_id))
    return kept.get_or_compute(key, lambda: read_content(content_of(session, lesson_id), known))


@router.get(
    "/lessons/{lesson_id}/since",
    summary="What moved since earlier baselines",
    responses=ERRORS,
)
def read_since(session: Store, known: Known, lesson_id: RowId) -> list[EarlierOut]:
    """The student's earlier lessons with the same club in the baseline, the newest first."""
    here = content_of(session, lesson_id)
    now_by_club = by_club(case_of(here), known)
    if not now_by_club:
        return []
    found = []
    for lesson in earlier.earlier_lessons(session, here.lesson):
        then_by_club = by_club(case_of(content_of(session, lesson.id)), known)
        for club in now_by_club.keys() & then_by_club.keys():
            then = then_by_club[club]
            moved = moved_since(then, now_by_club[club], known.numbers)
            found.append(
                EarlierOut(
                    lesson_id=lesson.id,
                    started_at=lesson.started_at,
                    club=club,
                    balls=then.balls,
                    moved=[MovedOut.model_validate(m) for m in moved],
                )
            )
    return found
