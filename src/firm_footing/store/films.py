"""What was marked in the films of a lesson?"""

from typing import Any

from sqlmodel import Session, col, select

from firm_footing.core.case import Film
from firm_footing.store.changes.conflicts import Was, merged, was_there
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.quotas import next_position, require_quota
from firm_footing.store.errors import not_found, refused
from firm_footing.store.lessons import get_block, get_lesson, now_at_hand
from firm_footing.store.students import get_student
from firm_footing.store.tables import FilmMarks, Lesson, LoggedBlock


def get_film(session: Session, film_id: str) -> FilmMarks:
    """The marks of this id; NotFoundError when there are none."""
    film = session.get(FilmMarks, film_id)
    if film is None:
        raise not_found("film")
    return film


def films_of_student(
    session: Session, student_id: str
) -> list[tuple[FilmMarks, Lesson, LoggedBlock | None]]:
    """Every film that was marked, with its lesson and block; the newest first."""
    get_student(session, student_id)
    query = (
        select(FilmMarks, Lesson, LoggedBlock)
        .join(Lesson, col(FilmMarks.lesson_id) == col(Lesson.id))
        .join(LoggedBlock, col(FilmMarks.block_id) == col(LoggedBlock.id), isouter=True)
        .where(Lesson.student_id == student_id)
        .order_by(col(Lesson.started_at).desc(), col(FilmMarks.position).desc())
    )
    return [(film, lesson, block) for film, lesson, block in session.exec(query)]


def put_film(
    session: Session,
    lesson_id: str,
    film_id: str,
    marks: Film,
    block_id: str | None,
    name: str,
    was: Was | None = None,
) -> None:
    """Keep a film's marks under the client's id, or those it has by now; it can be undone.

    was : see `merged`

    Raises
    ------
    NotFoundError
        There is no such lesson, or the block is none of it.
    RefusedError
        It belongs to another lesson, or there are as many as may be.
    ConflictError
        It is another than `was` by now.

    """
    lesson = get_lesson(session, lesson_id)
    if block_id is not None:
        get_block(session, lesson_id, block_id)
    values: dict[str, Any] = {"marks": marks, "block_id": block_id, "name": name}
    there = session.get(FilmMarks, film_id)
    if there is not None and there.lesson_id != lesson_id:
        raise refused("This film belongs to another lesson.", "film_id", "Nothing was changed.")
    if there is not None:
        with Step(session, lesson_id, f"mark in film {there.position + 1}") as step:
            step.change(there, **merged(there, values, was))
        return
    was_there("film", was, values)
    require_quota(session, FilmMarks, lesson_id)
    position = next_position(session, FilmMarks, lesson_id)
    with Step(session, lesson_id, f"film {position + 1}") as step:
        step.add(
            FilmMarks(
                id=film_id,
                lesson_id=lesson_id,
                position=position,
                **values,
            )
        )
        now_at_hand(step, lesson, "film")


def delete_film(session: Session, lesson_id: str, film_id: str) -> None:
    """Take a film's marks out; it can be undone. A film already gone is no error."""
    get_lesson(session, lesson_id)
    film = session.get(FilmMarks, film_id)
    if film is None:
        return
    if film.lesson_id != lesson_id:
        raise not_found("film")
    with Step(session, lesson_id, f"deletion of film {film.position + 1}") as step:
        step.delete(film)
