"""Who takes lessons?"""

from collections.abc import Mapping
from typing import Any

from sqlmodel import Session, col, func, select

from firm_footing.store.conflicts import not_changed_elsewhere
from firm_footing.store.errors import not_found
from firm_footing.store.tables import Lesson, Student


def all_students(session: Session) -> list[Student]:
    """Everyone, by name."""
    return list(session.exec(select(Student).order_by(func.lower(Student.name))))


def get_student(session: Session, student_id: str) -> Student:
    """The student of this id; NotFoundError when there is none."""
    student = session.get(Student, student_id)
    if student is None:
        raise not_found("student", student_id)
    return student


def add_student(session: Session, student: Student) -> Student:
    """Keep a new student."""
    session.add(student)
    session.commit()
    return student


def change_student(
    session: Session, student_id: str, values: dict[str, Any], was: Mapping[str, Any] | None = None
) -> Student:
    """Give a student new values; `was` as for `not_changed_elsewhere`."""
    student = get_student(session, student_id)
    not_changed_elsewhere(student, values, was or {})
    for name, value in values.items():
        setattr(student, name, value)
    session.add(student)
    session.commit()
    return student


def delete_student(session: Session, student_id: str) -> None:
    """Delete a student with all that belongs to them; the database cascades."""
    session.delete(get_student(session, student_id))
    session.commit()


def lessons_of(session: Session, student_id: str) -> list[Lesson]:
    """A student's lessons, the newest first."""
    return list(
        session.exec(
            select(Lesson)
            .where(Lesson.student_id == student_id)
            .order_by(col(Lesson.started_at).desc())
        )
    )
