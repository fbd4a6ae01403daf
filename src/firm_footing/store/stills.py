"""Which stills are kept of a lesson? Deleted, they are gone for good: no step brings them back."""

from sqlalchemy.orm import defer
from sqlmodel import Session, col, select

from firm_footing.core.case.still import Consent
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.quotas import require_quota
from firm_footing.store.errors import not_found, refused
from firm_footing.store.files.erasing import erase
from firm_footing.store.lessons import get_lesson
from firm_footing.store.students import get_student
from firm_footing.store.tables import Still, Student

WHAT = "still"


def stills_of(session: Session, lesson_id: str, with_pictures: bool = True) -> list[Still]:
    """The stills of a lesson, the first taken first; pictures are read later where not wanted."""
    query = select(Still).where(Still.lesson_id == lesson_id).order_by(col(Still.taken_at))
    if not with_pictures:
        query = query.options(defer(col(Still.jpeg_base64)))  # type: ignore[arg-type]
    return list(session.exec(query))


def get_still(session: Session, lesson_id: str, still_id: str) -> Still:
    """The still of this id; NotFoundError when it is not there, or in another lesson."""
    still = session.get(Still, still_id)
    if still is None or still.lesson_id != lesson_id:
        raise not_found(WHAT)
    return still


def guardian_agreed(student: Student, consent: Consent) -> None:
    """RefusedError for a picture of a junior that no guardian agreed to."""
    if student.age_group == "junior" and consent != "guardian":
        raise refused(
            "A picture of a junior is kept only when a guardian agrees.",
            "consent",
            "The picture was not kept.",
        )


def put_still(session: Session, still: Still) -> None:
    """Keep a still under the client's id; one that is there already stays as it is.

    Raises
    ------
    RefusedError
        The lesson holds two already, the id is another lesson's, or a junior's guardian was not
        asked.

    """
    student = get_student(session, get_lesson(session, still.lesson_id).student_id)
    guardian_agreed(student, still.consent)
    there = session.get(Still, still.id)
    if there is not None and there.lesson_id != still.lesson_id:
        raise refused("This still belongs to another lesson.", "still_id", "Nothing was changed.")
    if there is None:
        require_quota(session, Still, still.lesson_id)
    with Step(session, still.lesson_id, WHAT):
        if there is None:
            session.add(still)


def put_on_sheet(session: Session, lesson_id: str, still_id: str, on_sheet: bool) -> None:
    """Whether it goes home with the student."""
    still = get_still(session, lesson_id, still_id)
    with Step(session, lesson_id, WHAT):
        still.on_sheet = on_sheet
        session.add(still)


def delete_still(session: Session, lesson_id: str, still_id: str) -> None:
    """Gone for good, out of the file too. One already gone is no error."""
    get_lesson(session, lesson_id)
    still = session.get(Still, still_id)
    if still is not None and still.lesson_id != lesson_id:
        raise not_found(WHAT)
    with Step(session, lesson_id, WHAT):
        if still is not None:
            session.delete(still)
    if still is not None:
        erase(session.get_bind().engine)
