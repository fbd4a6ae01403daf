"""Which steps of a lesson are there, and whose is each?"""

from hashlib import blake2b
from typing import Any, Final, NamedTuple

from sqlalchemy import and_, case, or_, true
from sqlmodel import Session, col, delete, func, select

from firm_footing.store.changes.idempotency import sender_of
from firm_footing.store.own_tables import UndoEntry
from firm_footing.store.tables import Lesson


class NextSteps(NamedTuple):
    """What an undo and a redo of the sender would touch; None where there is nothing."""

    undo: UndoEntry | None
    redo: UndoEntry | None


def next_steps(session: Session, lesson_id: str) -> NextSteps:
    """A change of the sender's last step that stands and of the first one taken back.

    Of anybody's where the sender made none.
    """
    own = col(UndoEntry.lesson_id) == lesson_id, _own(session, lesson_id)
    step = col(UndoEntry.step)
    last, first = (
        select(UndoEntry.id)
        .where(*own, col(UndoEntry.undone).is_(undone))
        .order_by(order)
        .limit(1)
        .scalar_subquery()
        for undone, order in ((False, step.desc()), (True, step))
    )
    both = select(UndoEntry).where(or_(col(UndoEntry.id) == last, col(UndoEntry.id) == first))
    found = {entry.undone: entry for entry in session.exec(both)}
    return NextSteps(found.get(False), found.get(True))


def revision_of(session: Session, lesson_id: str) -> int:
    """A number that is another one whenever the lesson is, below 2^48; it says nothing of order.

    It is drawn from the last change and those that are taken back. Changes of its student count,
    wherever they were made. The number of a change that is forgotten is never given again.
    """
    student = select(Lesson.student_id).where(Lesson.id == lesson_id).scalar_subquery()
    of_lesson = or_(col(UndoEntry.lesson_id) == lesson_id, col(UndoEntry.row_id) == student)
    last, undone = session.exec(select(*LAST_AND_UNDONE).where(of_lesson)).one()
    return revision_from(last, undone)


LAST_AND_UNDONE: Final = (
    func.max(UndoEntry.id),
    func.group_concat(case((col(UndoEntry.undone), UndoEntry.id)), "."),
)
"""Of the changes of a lesson: the last, and those that are taken back."""


def revision_from(last: int | None, undone: str | None) -> int:
    """The revision of a lesson with these changes."""
    digest = blake2b(f"{last or 0}-{undone or 0}".encode(), digest_size=6).digest()
    return int.from_bytes(digest, "big")


def _own(session: Session, lesson_id: str) -> Any:
    """Steps of the sender's page; any, where it has made none in this lesson."""
    page = sender_of(session).page
    if page is None:
        return true()
    own = select(UndoEntry.id).where(UndoEntry.lesson_id == lesson_id, UndoEntry.made_by == page)
    return (col(UndoEntry.made_by) == page) | ~own.exists()


def changes_of(
    session: Session, lesson_id: str, step: int | None, write: str | None
) -> list[UndoEntry]:
    """Of a step, by its number or by the write that made it, in their order."""
    named = UndoEntry.write == write if write is not None else UndoEntry.step == step
    return list(
        session.exec(
            select(UndoEntry)
            .where(UndoEntry.lesson_id == lesson_id, named)
            .order_by(col(UndoEntry.id))
        )
    )


def begin_step(session: Session, lesson_id: str) -> int:
    """The number of a new step. What its sender took back before is not done again."""
    taken_back = (
        col(UndoEntry.undone).is_(True),
        col(UndoEntry.made_by).is_not_distinct_from(sender_of(session).page),
    )
    last, forgotten = session.exec(
        select(func.max(UndoEntry.step), func.max(case((and_(*taken_back), 1), else_=0))).where(
            UndoEntry.lesson_id == lesson_id
        )
    ).one()
    if forgotten:
        session.exec(delete(UndoEntry).where(col(UndoEntry.lesson_id) == lesson_id, *taken_back))
    return (last or 0) + 1
