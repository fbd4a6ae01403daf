"""What became of the decisions, were they right, and what paid?"""

import hashlib
import io
import zipfile
from collections.abc import Callable, Sequence
from datetime import UTC, datetime
from typing import Annotated, Final

from fastapi import APIRouter, Query, Response

from firm_footing.api.casebook.schemas import (
    BandOut,
    CasebookOut,
    CaseOut,
    ConfirmedOut,
    DrillPays,
    LookPays,
    PartOut,
    PaysOut,
    RightOut,
)
from firm_footing.api.context import Known, Store
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.attachments import attached_as
from firm_footing.core.case import to_file
from firm_footing.core.case.days import Moment
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.reliability import reliability
from firm_footing.core.patterns.shares import share_of
from firm_footing.store import casebook
from firm_footing.store.cases import case_of
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.pays import ToldByLook, minutes_of_stages, never_taken, told_by_look

router = APIRouter(route_class=ParsedOnceRoute, tags=["casebook"])
PAGE: Final = 50
MOST: Final = 12
"""Rows of a list, the first of their order."""


@router.get("/casebook", summary="Decisions and what became of them", responses=responses(422))
def read_casebook(
    session: Store,
    known: Known,
    before: Annotated[
        Moment | None, Query(description="Only those decided before: the next page")
    ] = None,
) -> CasebookOut:
    """The newest first, so many at once; how often they were confirmed is said of all."""
    found = casebook.decided_cases(session, known, PAGE + 1, before)
    told = casebook.came_true(session, known)
    return CasebookOut(
        cases=[_case(c) for c in found[:PAGE]],
        more=len(found) > PAGE,
        decided=_confirmed(told),
        first=_confirmed([t for t in told if t.agreed]),
        against=_confirmed([t for t in told if t.agreed is False]),
    )


def _case(case: casebook.DecidedCase) -> CaseOut:
    kept = case._asdict()
    outcome = kept.pop("outcome")
    return CaseOut(
        **{name: kept[name] for name in CaseOut.model_fields if name in kept},
        agreed=bool(case.agreed),
        fate=outcome and outcome.fate,
        known_by=list(outcome.known_by) if outcome else [],
    )


@router.get(
    "/casebook/cases.zip",
    summary="Lessons whose outcome is known, for `firm-footing learn`",
    response_class=Response,
)
def export_casebook(session: Store, known: Known) -> Response:
    """One case file a lesson, with its outcome and an anonymous word for its student.

    Names, notes, bodily limits and stills stay out.
    """
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        told = [c for c in casebook.decided_cases(session, known) if c.outcome is not None]
        for number, case in enumerate(reversed(told), 1):
            content = content_of(session, case.lesson_id)
            file = to_file(case_of(content))
            key = hashlib.sha256(content.student.id.encode()).hexdigest()[:16]
            student = file.student.model_copy(update={"key": key})
            whole = file.model_copy(update={"student": student, "outcome": case.outcome})
            text = whole.model_dump_json(exclude_none=True, exclude_defaults=True, indent=1)
            archive.writestr(f"{number:05}.case.json", text)
    headers = attached_as("casebook", datetime.now(UTC).date(), ".zip")
    return Response(packed.getvalue(), media_type="application/zip", headers=headers)


def _confirmed(told: Sequence[casebook.CameTrue]) -> ConfirmedOut:
    return ConfirmedOut.model_validate(
        share_of(sum(t.confirmed for t in told), sum(t.of for t in told))
    )


@router.get("/casebook/right", summary="How often the decisions came true")
def read_right(session: Store, known: Known) -> RightOut:
    """Of all decisions whose fate is known."""
    told = [c for c in casebook.decided_cases(session, known) if c.outcome is not None]
    said = [(c.said, c.came_true) for c in told if c.said is not None]
    return RightOut(
        bands=[BandOut.model_validate(band) for band in reliability(said)],
        by_miss=_parts(told, lambda c: [c.shape or "not seen"]),
        by_club=_parts(told, lambda c: [c.club] if c.club else []),
        by_source=_parts(told, lambda c: list(c.outcome.known_by) if c.outcome else []),
    )


@router.get("/casebook/pays", summary="What the time of the lessons brought")
def read_pays(session: Store, known: Known) -> PaysOut:
    """Of the lessons that are over; drills by what became of the decision."""
    cases = casebook.decided_cases(session, known)
    told = [c for c in cases if c.outcome is not None and c.drill in known.drill]
    return PaysOut(
        lessons=len(cases),
        looks=[_pays(t, known) for t in told_by_look(session, known)[:MOST]],
        never=[_pays(t, known) for t in never_taken(session, known)[:MOST]],
        drills=[
            DrillPays(drill=part.word, lessons=part.share.of, share=part.share)
            for part in _parts(told, lambda c: [c.drill] if c.drill else [])
        ],
        minutes=minutes_of_stages(session),
    )


def _pays(told: ToldByLook, known: Knowledge) -> LookPays:
    seconds = known.check[told.check].seconds
    return LookPays(check=told.check, lessons=told.lessons, bits=told.bits, seconds=seconds)


def _parts(
    cases: list[casebook.DecidedCase], words: Callable[[casebook.DecidedCase], list[str]]
) -> list[PartOut]:
    """Decisions by a word, those with the most first."""
    found: dict[str, list[bool]] = {}
    for case in cases:
        for word in words(case):
            found.setdefault(word, []).append(case.came_true)
    in_order = sorted(found.items(), key=lambda part: (-len(part[1]), part[0]))
    return [
        PartOut(word=word, share=ConfirmedOut.model_validate(share_of(sum(came), len(came))))
        for word, came in in_order[:MOST]
    ]
