"""How does a case file come in and a lesson go out?"""

from collections.abc import Iterable
from typing import Annotated

from fastapi import APIRouter, Body, Query, Response
from sqlmodel import SQLModel

from firm_footing.api.changes.schemas import PersonName
from firm_footing.api.changes.write_response import ChangedLesson, Reply
from firm_footing.api.context import Known, RowId, Store, Writing
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.attachments import attached_as
from firm_footing.core.case import CaseFile, to_file
from firm_footing.files.case_files import check_sense, in_si, plain_stills
from firm_footing.store import students
from firm_footing.store.cases import case_of, stills_to_file, store_case
from firm_footing.store.decisions import decided_in_a_file
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.tables import Lesson, Student

router = APIRouter(route_class=ParsedOnceRoute, tags=["case files"])
EXAMPLE = {
    "format": "firm-footing-case",
    "version": 1,
    "student": {"handedness": "right"},
    "checks": {"trail_heel_up_early": "yes"},
}


@router.post(
    "/cases",
    status_code=201,
    summary="Open a case file as a lesson",
    responses=responses(404, 409, 422),
)
def open_case(
    session: Writing,
    known: Known,
    outcome: Reply,
    file: Annotated[CaseFile, Body(examples=[EXAMPLE])],
    student_id: Annotated[
        str | None, Query(description="Whose lesson; left out: a new one")
    ] = None,
    name: Annotated[
        PersonName, Query(description="What a new student is called")
    ] = "From a case file",
) -> ChangedLesson:
    """All of it or nothing; the error names the place in the file."""
    check_sense(file, known)
    case = in_si(file)
    if student_id is not None:
        student = students.get_student(session, student_id)
    else:
        student = Student(
            name=name,
            handedness=case.handedness,
            handicap=case.handicap,
            dominant_leg=case.dominant_leg,
            limits=case.limits,
        )
    pictures = plain_stills(file)

    def decided(lesson: Lesson) -> Iterable[SQLModel]:
        return decided_in_a_file(lesson, case, file.outcome, known) if file.outcome else ()

    lesson = store_case(session, case, student, known, file.notes, stills=pictures, also=decided)
    return outcome(lesson.id)


@router.get(
    "/lessons/{lesson_id}/case",
    summary="Save a lesson as a case file",
    responses=responses(404, 422),
    response_model_exclude_defaults=True,
)
def save_case(
    session: Store,
    response: Response,
    lesson_id: RowId,
    limits: Annotated[bool, Query(description="Include bodily limits")] = False,
    notes: Annotated[bool, Query(description="Include notes")] = False,
    stills: Annotated[bool, Query(description="Include stills out of films")] = False,
) -> CaseFile:
    """Real sides, metres; bodily limits, notes and stills stay out unless asked for."""
    content = content_of(session, lesson_id)
    file = to_file(case_of(content), with_limits=limits)
    if notes:
        file = file.model_copy(update={"notes": tuple(n.text for n in content.notes)})
    if stills:
        file = file.model_copy(update={"stills": stills_to_file(session, content)})
    on = content.lesson.day
    response.headers.update(attached_as(content.student.name, on, ".case.json"))
    return file
