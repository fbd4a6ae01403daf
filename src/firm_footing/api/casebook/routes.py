"""What became of the decisions, and how does a student come along?"""

import hashlib
import io
import zipfile
from collections.abc import Mapping, Sequence
from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Query, Response

from firm_footing.api.balls.schemas import MovedOut
from firm_footing.api.casebook.schemas import CasebookOut, CaseOut, ConfirmedOut
from firm_footing.api.coaching.schemas import ProgressOut, StepOut, StripOut
from firm_footing.api.context import Known, RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.attachments import attached_as
from firm_footing.core.case import Case, to_file
from firm_footing.core.case.days import Moment
from firm_footing.core.inference.trace_answers import counts, read_traces
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import Estimate, Pattern, read_pattern
from firm_footing.core.patterns.along_time import strips_of
from firm_footing.core.patterns.compare import BlockMove, by_club, moved_along
from firm_footing.core.patterns.shares import share_of
from firm_footing.core.pressure.several import usual_signs
from firm_footing.store import casebook, students
from firm_footing.store.cases import case_of
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.lesson_reading import content_of

router = APIRouter(route_class=ParsedOnceRoute, tags=["casebook"])
PAGE = 50
SHOWN = ("start_deg", "curve_deg", "path_deg", "low_point_cm", "heel_toe_mm", "carry_lost_pct")


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


@router.get(
    "/students/{student_id}/progress",
    summary="A student's lessons along time",
    responses=responses(404, 422),
)
def read_progress(session: Store, known: Known, student_id: RowId) -> ProgressOut:
    """The first one first."""
    students.get_student(session, student_id)
    steps = []
    overall: tuple[BlockMove, ...] = ()
    first: dict[str, Pattern] = {}
    newest: dict[str, Pattern] = {}
    for row in reversed(students.lessons_of(session, student_id)):
        content = content_of(session, row.id)
        case = case_of(content)
        here = by_club(case, known)
        steps.append(_step(content, case, newest, here, known))
        if here:
            overall = moved_along(first, here, known.numbers)
        first = here | first
        newest = newest | here
    return ProgressOut(steps=steps, overall=[MovedOut.model_validate(m) for m in overall])


def _step(
    content: LessonContent,
    case: Case,
    earlier: Mapping[str, Pattern],
    here: Mapping[str, Pattern],
    known: Knowledge,
) -> StepOut:
    pattern = read_pattern(case.baselines, known, case.handicap)
    values: dict[str, float] = {}
    for name in SHOWN:
        estimate: Estimate | None = getattr(pattern, name)
        if estimate is not None:
            values[name] = estimate.value
    read = [r for i, r in read_traces(case, pattern, known) if counts(case, i)]
    decision = content.decisions[-1] if content.decisions else None
    lead = [r.measures.lead_pct["impact"] for r in read]
    strips = strips_of(case.baselines, pattern, lead, known.numbers)
    return StepOut(
        lesson_id=content.lesson.id,
        started_at=content.lesson.started_at,
        clubs=list(here),
        values=values,
        moved=[MovedOut.model_validate(m) for m in moved_along(earlier, here, known.numbers)],
        strips={name: StripOut.model_validate(strip) for name, strip in strips.items()},
        signs=list(usual_signs(read)),
        cause=decision.cause if decision else None,
        verdict=content.follow_up.verdict if content.follow_up else None,
        drill=content.lesson.drill,
        passes=sum(r.result == "pass" for r in content.repetitions),
    )


@router.get(
    "/students/{student_id}/cases.zip",
    summary="All lessons of a student as case files",
    responses=responses(404, 422),
    response_class=Response,
)
def export_student(session: Store, student_id: RowId) -> Response:
    """One case file for each lesson; bodily limits and notes stay out."""
    student = students.get_student(session, student_id)
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as archive:
        for lesson in students.lessons_of(session, student_id):
            file = to_file(case_of(content_of(session, lesson.id)))
            text = file.model_dump_json(exclude_none=True, exclude_defaults=True, indent=1)
            archive.writestr(f"{lesson.started_at:%Y-%m-%d}-{lesson.id[:8]}.case.json", text)
    headers = attached_as(student.name, datetime.now(UTC).date(), "-lessons.zip")
    return Response(packed.getvalue(), media_type="application/zip", headers=headers)
