"""Is there room for one more of it in a lesson, and which place does it get?"""

from typing import Any

from sqlmodel import Session, func, select

from firm_footing.core.case import limits
from firm_footing.store.errors import refused
from firm_footing.store.tables import (
    CheckAnswer,
    FilmMarks,
    LoggedBlock,
    LoggedShot,
    Note,
    PressureTrace,
    Repetition,
    Still,
)

MOST: dict[Any, tuple[int, str]] = {
    LoggedBlock: (limits.BLOCKS, "blocks"),
    LoggedShot: (limits.BALLS, "balls"),
    CheckAnswer: (limits.ANSWERS, "answers"),
    PressureTrace: (limits.TRACES, "traces"),
    FilmMarks: (limits.FILMS, "films"),
    Still: (limits.STILLS, "stills"),
    Note: (limits.NOTES, "notes"),
    Repetition: (limits.REPETITIONS, "repetitions"),
}


def require_quota(session: Session, table: Any, lesson_id: str, more: int = 1) -> None:
    """RefusedError when a lesson would hold more rows of a table than it may."""
    within_quota(table, session.exec(count_of(table, lesson_id)).one(), more)


def count_of(table: Any, lesson_id: str) -> Any:
    """How many rows of a table a lesson holds."""
    count = select(func.count()).select_from(table)
    if table is LoggedShot:
        return count.join(LoggedBlock).where(LoggedBlock.lesson_id == lesson_id)
    return count.where(table.lesson_id == lesson_id)


def within_quota(table: Any, there: int, more: int = 1) -> None:
    """RefusedError when so many more than there are would be too many."""
    most, word = MOST[table]
    if there + more > most:
        raise refused(
            f"A lesson holds at most {most} {word}.",
            word,
            "Nothing was changed. Start another lesson for what is more.",
        )


def next_position(session: Session, table: Any, parent_id: str) -> int:
    """The place after the last one of its lesson, or of its block for balls."""
    parent = table.block_id if table is LoggedShot else table.lesson_id
    last = session.exec(select(func.max(table.position)).where(parent == parent_id)).one()
    return 0 if last is None else int(last) + 1
