"""How does a student come along from lesson to lesson?"""

import io
import zipfile
from collections.abc import Mapping
from datetime import UTC, datetime
from typing import Final

from fastapi import APIRouter, Response

from firm_footing.api.balls.schemas import MovedOut
from firm_footing.api.coaching.schemas import ProgressOut, StepOut, StripOut
from firm_footing.api.context import Known, RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.attachments import attached_as
from firm_footing.core.case import Case, to_file
from firm_footing.core.inference.trace_answers import counts, read_traces
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import Estimate, Pattern, read_pattern
from firm_footing.core.patterns.along_time import strips_of
from firm_footing.core.patterns.compare import BlockMove, by_club, moved_along
from firm_footing.core.pressure.several import usual_signs
from firm_footing.store import students
from firm_footing.store.cases import case_of
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.lesson_reading import content_of

router = APIRouter(route_class=ParsedOnceRoute, tags=["students"])
SHOWN: Final = (
    "start_deg", "curve_deg", "path_deg", "low_point_cm", "heel_toe_mm", "carry_lost_pct"
)  # fmt: skip


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
