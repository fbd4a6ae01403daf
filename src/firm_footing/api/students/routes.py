"""Who takes lessons?"""

from datetime import timedelta
from typing import Annotated

from fastapi import APIRouter, Query, Response

from firm_footing.api.changes.schemas import NewStudent, StudentChange
from firm_footing.api.context import Known, RowId, Store, Writing
from firm_footing.api.errors import responses
from firm_footing.api.lessons.schemas import BookedOut, LessonBrief, StudentOut, TodayOut
from firm_footing.api.lessons.views import lesson_briefs
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.attachments import attached_as
from firm_footing.core.case.limits import NAME
from firm_footing.files.calendar_files import lessons_calendar
from firm_footing.store import earlier, lessons, students
from firm_footing.store.columns import now
from firm_footing.store.tables import Student

router = APIRouter(route_class=ParsedOnceRoute, tags=["students"])
STILL_SHOWN = timedelta(hours=12)
"""A lesson that was agreed stays on the day for so long, until it has begun."""


@router.get("/day", summary="Who was here lately, and the newest lessons")
def read_day(session: Store, known: Known) -> TodayOut:
    """What the day page shows."""
    return TodayOut(
        students=[StudentOut.model_validate(s) for s in students.seen_lately(session)],
        of=students.how_many(session),
        lessons=lesson_briefs(session, known, lessons.recent_lessons(session)),
        booked=[
            BookedOut(
                lesson_id=b.lesson.id,
                student_id=b.student.id,
                student_name=b.student.name,
                handedness=b.student.handedness,
                at=b.at,
                cause=b.cause,
                asked=b.asked,
                drill=b.lesson.drill,
            )
            for b in earlier.booked(session, now() - STILL_SHOWN)
        ],
    )


@router.get(
    "/booked.ics",
    summary="Who comes, as a calendar",
    response_class=Response,
)
def read_booked_calendar(session: Store, known: Known) -> Response:
    """An hour each, at the time agreed; the same lesson makes the same entry."""
    names = {c.id: c.name for c in known.causes}
    coming = [
        (b.lesson.id, b.at, b.student.name, names.get(b.cause or "", ""))
        for b in earlier.booked(session, now() - STILL_SHOWN)
    ]
    headers = attached_as("lessons", now().date(), ".ics")
    return Response(lessons_calendar(coming, now()), media_type="text/calendar", headers=headers)


@router.get("/students", summary="Find students by name", responses=responses(422))
def find_students(
    session: Store,
    find: Annotated[str, Query(max_length=NAME, description="Beginnings of words of the name")],
) -> list[StudentOut]:
    """At most as many as the day lists, by name."""
    return [StudentOut.model_validate(s) for s in students.find(session, find)]


@router.post("/students", status_code=201, summary="Add a student", responses=responses(409, 422))
def add_student(session: Writing, new: NewStudent) -> StudentOut:
    """A name and a hand are enough. The same id again adds no second one."""
    values = {name: value for name, value in dict(new).items() if value is not None}
    there = None if new.id is None else session.get(Student, new.id)
    return StudentOut.model_validate(there or students.add_student(session, Student(**values)))


@router.get("/students/{student_id}", summary="One student", responses=responses(404, 422))
def read_student(session: Store, student_id: RowId) -> StudentOut:
    """One student."""
    return StudentOut.model_validate(students.get_student(session, student_id))


@router.patch(
    "/students/{student_id}", summary="Change a student", responses=responses(404, 409, 422)
)
def change_student(session: Writing, student_id: RowId, change: StudentChange) -> StudentOut:
    """What is left out stays; only handicap and dominant leg can be emptied with null."""
    changed = students.change_student(session, student_id, change.values(), change.was)
    return StudentOut.model_validate(changed)


@router.delete(
    "/students/{student_id}",
    status_code=204,
    summary="Delete a student with all that belongs to them",
    responses=responses(404, 409, 422),
)
def delete_student(session: Writing, student_id: RowId) -> None:
    """Cannot be undone; export the case files first."""
    students.delete_student(session, student_id)


@router.get(
    "/students/{student_id}/lessons", summary="A student's lessons", responses=responses(404, 422)
)
def read_lessons(session: Store, known: Known, student_id: RowId) -> list[LessonBrief]:
    """The newest first."""
    students.get_student(session, student_id)
    return lesson_briefs(session, known, students.lessons_of(session, student_id))
