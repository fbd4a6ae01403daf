"""Who takes lessons?"""

from collections.abc import Mapping
from typing import Any

from sqlalchemy import or_
from sqlmodel import Session, col, func, select

from firm_footing.store.changes.conflicts import Was, merged
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.idempotency import end_of_change
from firm_footing.store.errors import name_can_be_seen, not_found
from firm_footing.store.files.erasing import erase
from firm_footing.store.tables import Lesson, Student

MOST = 60
"""Students listed at once; the others are found by their names."""


def seen_lately(session: Session, most: int = MOST) -> list[Student]:
    """Those whose last lesson is the newest, by name; who never had one was added for it."""
    last = (
        select(func.max(Lesson.started_at))
        .where(Lesson.student_id == Student.id)
        .correlate(Student)
        .scalar_subquery()
    )
    newest = func.coalesce(last, Student.created_at).desc()
    found = session.exec(select(Student).order_by(newest).limit(most))
    return sorted(found, key=lambda s: s.name.lower())


def how_many(session: Session) -> int:
    """How many there are, the archived too."""
    return session.exec(select(func.count()).select_from(Student)).one()


def find(session: Session, words: str, most: int = MOST) -> list[Student]:
    """Those for whom every word begins some word of the name, by name."""
    query = select(Student)
    for word in words.split():
        begins = word.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")
        query = query.where(
            or_(
                *(
                    col(Student.name).ilike(f"{before}{begins}%", escape="\\")
                    for before in ("", "% ", "%-")
                )
            )
        )
    return list(session.exec(query.order_by(func.lower(Student.name)).limit(most)))


def get_student(session: Session, student_id: str) -> Student:
    """The student of this id; NotFoundError when there is none."""
    student = session.get(Student, student_id)
    if student is None:
        raise not_found("student")
    return student


def add_student(session: Session, student: Student) -> Student:
    """Keep a new student."""
    name_can_be_seen(student.name)
    session.add(student)
    session.flush()
    end_of_change(session, made=student.id)
    return student


def change_student(
    session: Session,
    student_id: str,
    values: Mapping[str, Any],
    was: Was | None = None,
    lesson_id: str | None = None,
) -> Student:
    """Give a student new values; `was` as for `merged`.

    lesson_id : the lesson it is done in, where it can be undone; None: on the student's own page
    """
    student = get_student(session, student_id)
    new = merged(student, values, was)
    name_can_be_seen(new.get("name", student.name))
    whose = student_id if lesson_id is None else None
    with Step(session, lesson_id, "what is known of the student", whose) as step:
        step.change(student, **new)
    return student


def delete_student(session: Session, student_id: str) -> None:
    """Delete a student with all that belongs to them; not a byte of it is left."""
    session.delete(get_student(session, student_id))
    end_of_change(session, made=student_id)
    erase(session.get_bind().engine)


def lessons_of(session: Session, student_id: str) -> list[Lesson]:
    """A student's lessons, the newest first."""
    return list(
        session.exec(
            select(Lesson)
            .where(Lesson.student_id == student_id)
            .order_by(col(Lesson.started_at).desc())
        )
    )
