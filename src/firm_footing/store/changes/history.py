"""What was done, and how is it undone?

Every change runs inside a `Step`. The step keeps each touched row as it was before and after, so
that undo and redo need to know nothing about what the rows mean. Steps of one page are taken back
on that page: two tablets at one lesson do not undo each other's work. What was changed again since,
from whatever page or lesson, is not swept away: the undo is refused.
"""

from types import TracebackType
from typing import Any, Self

from sqlalchemy import or_
from sqlalchemy.exc import IntegrityError
from sqlmodel import Session, SQLModel, col, select

from firm_footing.store.changes.idempotency import end_of_change, sender_of
from firm_footing.store.changes.row_values import (
    content_of_row,
    fields_that_differ,
    row_of,
    with_fields,
)
from firm_footing.store.changes.steps import (
    begin_step,
    changes_of,
    next_steps,
)
from firm_footing.store.errors import RefusedError, refused
from firm_footing.store.own_tables import UndoEntry
from firm_footing.store.tables import (
    CheckAnswer,
    Decision,
    FilmMarks,
    FollowUp,
    Lesson,
    LoggedBlock,
    LoggedShot,
    Note,
    PressureTrace,
    Repetition,
    Student,
)

UNDOABLE: dict[str, type[SQLModel]] = {
    str(table.__tablename__): table
    for table in (
        Lesson,
        LoggedBlock,
        LoggedShot,
        CheckAnswer,
        PressureTrace,
        FilmMarks,
        Note,
        Decision,
        Repetition,
        FollowUp,
        Student,
    )
}


class Step:
    """One thing the instructor did; commits when it ends well, rolls back when it does not.

    lesson_id : the lesson it is done in; None outside of one: it is kept, and no undo names it
    student_id : whose it is, outside of a lesson
    """

    def __init__(
        self, session: Session, lesson_id: str | None, what: str, student_id: str | None = None
    ) -> None:
        self.session = session
        self.lesson_id = lesson_id
        self.student_id = student_id
        self.what = what
        self.changes: list[UndoEntry] = []

    def __enter__(self) -> Self:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        if kind is not None:
            self.session.rollback()
            return
        number = 0
        if self.changes and self.lesson_id is not None:
            number = begin_step(self.session, self.lesson_id)
        for change in self.changes:
            change.step = number
            self.session.add(change)
        end_of_change(self.session, self.lesson_id, self.student_id)

    def add(self, row: SQLModel) -> None:
        """Put in a new row."""
        self.session.add(row)
        self.session.flush()
        self._keep(row, None, content_of_row(row))

    def change(self, row: SQLModel, **values: Any) -> None:
        """Give an existing row new values; nothing is kept when none of them is new."""
        before = content_of_row(row)
        for name, value in values.items():
            setattr(row, name, value)
        after = content_of_row(row)
        if after != before:
            self.session.add(row)
            self.session.flush()
            self._keep(row, before, after)

    def delete(self, row: SQLModel) -> None:
        """Take a row out."""
        before = content_of_row(row)
        self.session.delete(row)
        self.session.flush()
        self._keep(row, before, None)

    def _keep(
        self, row: SQLModel, before: dict[str, Any] | None, after: dict[str, Any] | None
    ) -> None:
        known = before or after or {}
        self.changes.append(
            UndoEntry(
                lesson_id=self.lesson_id,
                student_id=self.student_id,
                step=0,
                what=self.what,
                table=str(row.__tablename__),
                row_id=known["id"],
                before=before,
                after=after,
                made_by=sender_of(self.session).page,
                write=sender_of(self.session).write,
            )
        )


def undo(
    session: Session, lesson_id: str, step: int | None = None, write: str | None = None
) -> str | None:
    """Take back a step; what it was.

    step : its number
    write : the id its sender gave it; where that changed nothing, nothing is taken back
    Neither : the sender's last one that stands.

    Nothing happens when there is none, or when the one named is taken back already.

    Raises
    ------
    RefusedError
        What the step did was changed since, or something rests on it.

    """
    if step is None and write is None:
        last = next_steps(session, lesson_id).undo
        step = last.step if last else None
    changes = [c for c in changes_of(session, lesson_id, step, write) if not c.undone]
    for change in reversed(changes):
        _not_overtaken(session, change, change.after)
        _put(session, change, change.before)
        change.undone = True
    end_of_change(session, lesson_id)
    return changes[0].what if changes else None


def redo(
    session: Session, lesson_id: str, step: int | None = None, write: str | None = None
) -> str | None:
    """Do a step again: the one named as for `undo`, else the sender's first one taken back.

    Nothing happens when there is none, or when the one named stands already.

    Raises
    ------
    RefusedError
        What the step did was changed since, or what it rests on is taken back.

    """
    if step is None and write is None:
        first = next_steps(session, lesson_id).redo
        step = first.step if first else None
    changes = [c for c in changes_of(session, lesson_id, step, write) if c.undone]
    for change in changes:
        _not_overtaken(session, change, change.before)
        _put(session, change, change.after)
        change.undone = False
    end_of_change(session, lesson_id)
    return changes[0].what if changes else None


def _not_overtaken(session: Session, change: UndoEntry, expected: dict[str, Any] | None) -> None:
    """Refuse what would sweep a later change away, from whatever page or lesson.

    expected : the row as it has to be now, in the fields that the change touched
    """
    table = UNDOABLE[change.table]
    touched = fields_that_differ(table, change.before, change.after)
    later = session.exec(
        select(UndoEntry).where(
            UndoEntry.row_id == change.row_id,
            UndoEntry.table == change.table,
            col(UndoEntry.id) > change.id,
            col(UndoEntry.undone).is_(False),
            or_(
                col(UndoEntry.lesson_id).is_distinct_from(change.lesson_id),
                col(UndoEntry.step) != change.step,
            ),
        )
    )
    for other in later:
        theirs = fields_that_differ(table, other.before, other.after)
        if any(mine.overlaps(their) for mine in touched for their in theirs):
            raise _overtaken(session, change)
    row = session.get(table, change.row_id)
    if row is None or expected is None:
        stays = row is None and (expected is None or change.before is None)
    else:
        stays = not any(
            mine.overlaps(there)
            for there in fields_that_differ(table, content_of_row(row), expected)
            for mine in touched
        )
    if not stays or (change.table == LoggedBlock.__tablename__ and _holds(session, change)):
        raise _overtaken(session, change)


def _holds(session: Session, change: UndoEntry) -> bool:
    """Whether a block that would go holds anything."""
    if change.before is not None or change.undone:
        return False
    return any(
        session.exec(select(table).where(table.block_id == change.row_id).limit(1)).first()
        for table in (LoggedShot, CheckAnswer, PressureTrace, FilmMarks)
    )


def _overtaken(session: Session, change: UndoEntry) -> RefusedError:
    what = change.what
    session.rollback()
    return refused(
        f"This was changed since, on this page or another: {what}.",
        "step",
        "Nothing was taken back or done again. Change it by hand, so that nobody's work is lost.",
    )


def _put(session: Session, change: UndoEntry, content: dict[str, Any] | None) -> None:
    """Make the row what `content` says it was; None takes it out."""
    table, what = UNDOABLE[change.table], change.what
    row = session.get(table, change.row_id)
    try:
        if content is None:
            if row is not None:
                session.delete(row)
        elif row is None:
            session.add(row_of(table, content))
        else:
            touched = fields_that_differ(table, change.before, change.after)
            for name, value in with_fields(table, content_of_row(row), content, touched).items():
                setattr(row, name, value)
        session.flush()
    except IntegrityError as error:
        session.rollback()
        raise refused(
            f"What this belongs to is not there any more: {what}.",
            "step",
            "Nothing was changed. Do it again by hand where it belongs now.",
        ) from error
