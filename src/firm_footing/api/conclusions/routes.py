"""What follows from a lesson? Nothing here changes it."""

from typing import Annotated

from fastapi import APIRouter, Query

from firm_footing.api.changes.write_response import conclude
from firm_footing.api.conclusions.kept import version_of
from firm_footing.api.conclusions.schemas import (
    BetweenOut,
    DiagnosisOut,
    RoundOut,
    SeparatingOut,
    WhatIfOut,
    WithoutOut,
)
from firm_footing.api.conclusions.views import between_view
from firm_footing.api.context import Conclusions, Known, RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.core.case.past import Taught
from firm_footing.core.conclusions.attribution import attribution_of
from firm_footing.core.conclusions.check_round import round_of_checks
from firm_footing.core.conclusions.separating import separating_blocks
from firm_footing.core.conclusions.what_if import without
from firm_footing.core.diagnosis.between import between
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Source
from firm_footing.core.text.ball_next import ball_next
from firm_footing.store import lessons
from firm_footing.store.cases import case_of
from firm_footing.store.earlier import answered_before
from firm_footing.store.errors import refused
from firm_footing.store.known import TAUGHT
from firm_footing.store.lesson_reading import content_of

router = APIRouter(route_class=ParsedOnceRoute, tags=["conclusions"])
ERRORS = responses(404, 409, 422)
One = Annotated[str, Query(examples=["trail_heel_pops"])]
Other = Annotated[str, Query(examples=["toes_in_downswing"])]


@router.get(
    "/lessons/{lesson_id}/diagnosis", summary="The causes, ranked by the evidence", responses=ERRORS
)
def read_diagnosis(
    session: Store,
    known: Known,
    kept: Conclusions,
    lesson_id: RowId,
    at_hand: Annotated[list[Source] | None, Query(description="Means at hand for looks")] = None,
    learned: Annotated[
        bool, Query(description="False: as if no lesson had taught anything")
    ] = True,
) -> DiagnosisOut:
    """All there is to conclude from the lesson, in one call."""
    if not learned:
        session.info[TAUGHT] = Taught()
    before = answered_before(session, lessons.get_lesson(session, lesson_id))

    def work_out() -> DiagnosisOut:
        content = content_of(session, lesson_id)
        means = at_hand if at_hand is not None else content.lesson.at_hand
        return conclude(content, known, means, before)

    means = None if at_hand is None else tuple(at_hand)
    return kept.get_or_compute(
        ("diagnosis", means, before, *version_of(session, lesson_id)), work_out
    )


@router.get(
    "/lessons/{lesson_id}/between", summary="Why this cause and not that one", responses=ERRORS
)
def read_between(
    session: Store,
    known: Known,
    lesson_id: RowId,
    one: One,
    other: Other,
) -> BetweenOut:
    """The evidence that separates the two, and the looks that would."""
    content = content_of(session, lesson_id)
    _two_causes(known, one, other)
    found = between(infer(case_of(content), known), one, other, content.lesson.at_hand)
    return between_view(found)


@router.get(
    "/lessons/{lesson_id}/separating",
    summary="A short block that would tell two causes apart",
    responses=ERRORS,
)
def read_separating(
    session: Store, known: Known, lesson_id: RowId, one: One, other: Other
) -> list[SeparatingOut]:
    """The best first; empty where no block that this student may hit would tell."""
    case = case_of(content_of(session, lesson_id))
    _two_causes(known, one, other)
    blocks = separating_blocks(infer(case, known), one, other)
    return [SeparatingOut.model_validate(b) for b in blocks]


@router.get(
    "/lessons/{lesson_id}/without", summary="The pattern without one cause", responses=ERRORS
)
def read_without(session: Store, known: Known, lesson_id: RowId, cause: One) -> WithoutOut:
    """Supposing that the cause is present; what it brought about goes with it."""
    case = case_of(content_of(session, lesson_id))
    _is_cause(known, "cause", cause)
    inference = infer(case, known)
    said = ball_next(inference, cause, attribution_of(inference))
    return WithoutOut(
        **WhatIfOut.model_validate(without(inference, cause)).model_dump(),
        sentence=said.sentence if said else "",
        worse=bool(said and said.worse),
    )


@router.get("/lessons/{lesson_id}/round", summary="A round of looks", responses=ERRORS)
def read_round(
    session: Store,
    known: Known,
    lesson_id: RowId,
    seconds: Annotated[int | None, Query(ge=20, le=1800, description="Default 180")] = None,
) -> RoundOut:
    """The looks that together tell most in that time, grouped by standing place."""
    content = content_of(session, lesson_id)
    there_are = seconds or known.numbers.decision.round_seconds
    inference = infer(case_of(content), known)
    return RoundOut.model_validate(round_of_checks(inference, there_are, content.lesson.at_hand))


def _is_cause(known: Knowledge, name: str, cause: str) -> None:
    if cause not in known.cause:
        raise refused(f"No cause is called '{cause}'.", name, "Nothing was changed.")


def _two_causes(known: Knowledge, one: str, other: str) -> None:
    _is_cause(known, "one", one)
    _is_cause(known, "other", other)
    if one == other:
        raise refused("These are the same cause.", "other", "Choose two different ones.")
