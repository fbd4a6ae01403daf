"""What was done, and how is it undone?

Every change of a lesson runs inside a `Step`. The step keeps each touched row as it was before and
after, so that undo and redo need to know nothing about what the rows mean.
"""

from types import TracebackType
from typing import Any, Self

from sqlmodel import Session, SQLModel, col, delete, func, select

from firm_footing.store.tables import (
    Block,
    Change,
    CheckAnswer,
    Decision,
    FollowUp,
    Lesson,
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
        Block,
        LoggedShot,
        CheckAnswer,
        PressureTrace,
        Note,
        Decision,
        Repetition,
        FollowUp,
        Student,
    )
}


class Step:
    """One thing the instructor did; commits when it ends well, rolls back when it does not."""

    def __init__(self, session: Session, lesson_id: str, what: str) -> None:
        self.session = session
        self.lesson_id = lesson_id
        self.what = what
        self.changes: list[Change] = []

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
        if self.changes:
            number = _last_step(self.session, self.lesson_id) + 1
            _forget_undone(self.session, self.lesson_id)
            for change in self.changes:
                change.step = number
                self.session.add(change)
        self.session.commit()

    def add(self, row: SQLModel) -> None:
        """Put in a new row."""
        self.session.add(row)
        self.session.flush()
        self._keep(row, None, _dump(row))

    def change(self, row: SQLModel, **values: Any) -> None:
        """Give an existing row new values; nothing is kept when none of them is new."""
        before = _dump(row)
        for name, value in values.items():
            setattr(row, name, value)
        after = _dump(row)
        if after != before:
            self.session.add(row)
            self.session.flush()
            self._keep(row, before, after)

    def delete(self, row: SQLModel) -> None:
        """Take a row out."""
        before = _dump(row)
        self.session.delete(row)
        self.session.flush()
        self._keep(row, before, None)

    def _keep(
        self, row: SQLModel, before: dict[str, Any] | None, after: dict[str, Any] | None
    ) -> None:
        known = before or after or {}
        self.changes.append(
            Change(
                lesson_id=self.lesson_id,
                step=0,
                what=self.what,
                table=str(row.__tablename__),
                row_id=known["id"],
                before=before,
                after=after,
            )
        )


def undo(session: Session, lesson_id: str) -> str | None:
    """Take back the last step that stands; what it was, or None when there is nothing."""
    step = last_done(session, lesson_id)
    if step is None:
        return None
    changes = _changes(session, lesson_id, step.step)
    for change in reversed(changes):
        _put(session, change, change.before)
        change.undone = True
    session.commit()
    return changes[0].what


def redo(session: Session, lesson_id: str) -> str | None:
    """Do again the first step taken back; what it was, or None when there is nothing."""
    step = first_undone(session, lesson_id)
    if step is None:
        return None
    changes = _changes(session, lesson_id, step.step)
    for change in changes:
        _put(session, change, change.after)
        change.undone = False
    session.commit()
    return changes[0].what


def last_done(session: Session, lesson_id: str) -> Change | None:
    """A change of the last step that stands."""
    return session.exec(
        select(Change)
        .where(Change.lesson_id == lesson_id, col(Change.undone).is_(False))
        .order_by(col(Change.step).desc())
        .limit(1)
    ).first()


def revision_of(session: Session, lesson_id: str) -> str:
    """A word that is another one after every change of the lesson."""
    last, undone = session.exec(
        select(func.max(Change.id), func.count(col(Change.id)).filter(col(Change.undone))).where(
            Change.lesson_id == lesson_id
        )
    ).one()
    return f"{last or 0}-{undone}"


def first_undone(session: Session, lesson_id: str) -> Change | None:
    """A change of the first step taken back."""
    return session.exec(
        select(Change)
        .where(Change.lesson_id == lesson_id, col(Change.undone).is_(True))
        .order_by(col(Change.step))
        .limit(1)
    ).first()


def _put(session: Session, change: Change, content: dict[str, Any] | None) -> None:
    """Make the row what `content` says it was; None takes it out."""
    table = UNDOABLE[change.table]
    row = session.get(table, change.row_id)
    if content is None:
        if row is not None:
            session.delete(row)
    elif row is None:
        session.add(table.model_validate(content))
    else:
        wanted = table.model_validate(content)
        for name in _touched(change, table):
            setattr(row, name, getattr(wanted, name))
    session.flush()


def _touched(change: Change, table: type[SQLModel]) -> list[str]:
    """Columns that a change gave new values: what another change did to the others stays."""
    before, after = change.before or {}, change.after or {}
    return [name for name in table.model_fields if before.get(name) != after.get(name)]


def _changes(session: Session, lesson_id: str, step: int) -> list[Change]:
    return list(
        session.exec(
            select(Change)
            .where(Change.lesson_id == lesson_id, Change.step == step)
            .order_by(col(Change.id))
        )
    )


def _last_step(session: Session, lesson_id: str) -> int:
    last = session.exec(select(func.max(Change.step)).where(Change.lesson_id == lesson_id)).one()
    return last or 0


def _forget_undone(session: Session, lesson_id: str) -> None:
    session.exec(
        delete(Change).where(col(Change.lesson_id) == lesson_id, col(Change.undone).is_(True))
    )


def _dump(row: SQLModel) -> dict[str, Any]:
    return row.model_dump(mode="json")
