"""What was done, and how is it undone?

Every change of a lesson runs inside a `Step`. The step keeps each touched row as it was before and
after, so that undo and redo need to know nothing about what the rows mean. Steps of one page are
taken back on that page: two tablets at one lesson do not undo each other's work.
"""

from types import TracebackType
from typing import Any, Self

from sqlalchemy import case, true
from sqlmodel import Session, SQLModel, col, delete, func, select

from firm_footing.store.errors import refused
from firm_footing.store.own_tables import Change
from firm_footing.store.senders import end_of_change, sender_of
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
        end_of_change(self.session, self.lesson_id)

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
                made_by=sender_of(self.session).page,
            )
        )


def undo(session: Session, lesson_id: str, step: int | None = None) -> str | None:
    """Take back a step: the one named, else the sender's last one that stands; what it was.

    Nothing happens when there is none, or when the one named is taken back already.

    Raises
    ------
    RefusedError
        What the step did was changed on another page since.

    """
    if step is None:
        last = last_done(session, lesson_id)
        step = last.step if last else None
    changes = [c for c in _changes(session, lesson_id, step) if not c.undone]
    _not_overtaken(session, changes)
    for change in reversed(changes):
        _put(session, change, change.before)
        change.undone = True
    end_of_change(session, lesson_id)
    return changes[0].what if changes else None


def redo(session: Session, lesson_id: str, step: int | None = None) -> str | None:
    """Do a step again: the one named, else the sender's first one taken back; what it was.

    Nothing happens when there is none, or when the one named stands already.

    Raises
    ------
    RefusedError
        What the step did was changed on another page since.

    """
    if step is None:
        first = first_undone(session, lesson_id)
        step = first.step if first else None
    changes = [c for c in _changes(session, lesson_id, step) if c.undone]
    _not_overtaken(session, changes)
    for change in changes:
        _put(session, change, change.after)
        change.undone = False
    end_of_change(session, lesson_id)
    return changes[0].what if changes else None


def last_done(session: Session, lesson_id: str) -> Change | None:
    """A change of the sender's last step that stands; of anybody's where they made none."""
    return session.exec(
        select(Change)
        .where(
            Change.lesson_id == lesson_id, col(Change.undone).is_(False), _own(session, lesson_id)
        )
        .order_by(col(Change.step).desc())
        .limit(1)
    ).first()


def revision_of(session: Session, lesson_id: str) -> str:
    """A word that is another one whenever the lesson is: its last change, and those taken back.

    The number of a change that is forgotten is never given again.
    """
    last, undone = session.exec(
        select(
            func.max(Change.id),
            func.group_concat(case((col(Change.undone), Change.id)), "."),
        ).where(Change.lesson_id == lesson_id)
    ).one()
    return f"{last or 0}-{undone or 0}"


def first_undone(session: Session, lesson_id: str) -> Change | None:
    """A change of the sender's first step taken back; of anybody's where they made none."""
    return session.exec(
        select(Change)
        .where(
            Change.lesson_id == lesson_id, col(Change.undone).is_(True), _own(session, lesson_id)
        )
        .order_by(col(Change.step))
        .limit(1)
    ).first()


def _own(session: Session, lesson_id: str) -> Any:
    """Steps of the sender's page; any, where it has made none in this lesson."""
    page = sender_of(session).page
    if page is None:
        return true()
    own = select(Change.id).where(Change.lesson_id == lesson_id, Change.made_by == page)
    return (col(Change.made_by) == page) | ~own.exists()


def _not_overtaken(session: Session, changes: list[Change]) -> None:
    """What another page changed since, or put into a block of this step, is not swept away."""
    for change in changes:
        later = session.exec(
            select(Change).where(
                Change.lesson_id == change.lesson_id,
                Change.step > change.step,
                col(Change.undone).is_(False),
                col(Change.made_by).is_distinct_from(change.made_by),
            )
        )
        touched = set(_touched(change, UNDOABLE[change.table]))
        for other in later:
            same = other.row_id == change.row_id
            both = touched & set(_touched(other, UNDOABLE[other.table]))
            within = (other.after or {}).get("block_id") == change.row_id
            if (same and both) or within:
                raise refused(
                    f"The {change.what} was changed on another page since.",
                    "step",
                    "Nothing was taken back. Change it by hand, so that nobody's work is lost.",
                )


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


def _changes(session: Session, lesson_id: str, step: int | None) -> list[Change]:
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
        delete(Change).where(
            col(Change.lesson_id) == lesson_id,
            col(Change.undone).is_(True),
            col(Change.made_by).is_not_distinct_from(sender_of(session).page),
        )
    )


def _dump(row: SQLModel) -> dict[str, Any]:
    return row.model_dump(mode="json")
