"""Which steps of a lesson are there, and whose is each?"""

from hashlib import blake2b
from typing import Any

from sqlalchemy import case, or_, true
from sqlmodel import Session, col, delete, func, select

from firm_footing.store.changes.idempotency import sender_of
from firm_footing.store.own_tables import UndoEntry
from firm_footing.store.tables import Lesson


def last_done(session: Session, lesson_id: str) -> UndoEntry | None:
    """A change of the sender's last step that stands; of anybody's where they made none."""
    return session.exec(
        select(UndoEntry)
        .where(
            UndoEntry.lesson_id == lesson_id,
            col(UndoEntry.undone).is_(False),
            _own(session, lesson_id),
        )
        .order_by(col(UndoEntry.step).desc())
        .limit(1)
    ).first()


def first_undone(session: Session, lesson_id: str) -> UndoEntry | None:
    """A change of the sender's first step taken back; of anybody's where they made none."""
    return session.exec(
        select(UndoEntry)
        .where(
            UndoEntry.lesson_id == lesson_id,
            col(UndoEntry.undone).is_(True),
            _own(session, lesson_id),
        )
        .order_by(col(UndoEntry.step))
        .limit(1)
    ).first()


def revision_of(session: Session, lesson_id: str) -> int:
    """A number that is another one whenever the lesson is, below 2^48; it says nothing of order.

    It is drawn from the last change and those that are taken back. Changes of its student count,
    wherever they were made. The number of a change that is forgotten is never given again.
    """
    student = select(Lesson.student_id).where(Lesson.id == lesson_id).scalar_subquery()
    last, undone = session.exec(
        select(
            func.max(UndoEntry.id),
            func.group_concat(case((col(UndoEntry.undone), UndoEntry.id)), "."),
        ).where(or_(col(UndoEntry.lesson_id) == lesson_id, col(UndoEntry.row_id) == student))
    ).one()
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


def last_step(session: Session, lesson_id: str) -> int:
    """Number of the lesson's last step; 0 before the first."""
    last = session.exec(
        select(func.max(UndoEntry.step)).where(UndoEntry.lesson_id == lesson_id)
    ).one()
    return last or 0


def forget_undone(session: Session, lesson_id: str) -> None:
    """The sender does something new: what they took back is not done again."""
    session.exec(
        delete(UndoEntry).where(
            col(UndoEntry.lesson_id) == lesson_id,
            col(UndoEntry.undone).is_(True),
            col(UndoEntry.made_by).is_not_distinct_from(sender_of(session).page),
        )
    )
