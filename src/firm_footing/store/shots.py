"""Which balls were hit?"""

from typing import Any

from sqlalchemy import func, true
from sqlalchemy.orm import aliased
from sqlmodel import Session, col, select

from firm_footing.core.case import Shot
from firm_footing.store.changes.conflicts import Was, merged, was_there
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.quotas import count_of, within_quota
from firm_footing.store.errors import not_found, refused
from firm_footing.store.lessons import get_block
from firm_footing.store.tables import LoggedBlock, LoggedShot


def put_shot(
    session: Session,
    lesson_id: str,
    shot_id: str,
    block_id: str,
    observed: Shot,
    touched: dict[str, float],
    was: Was | None = None,
) -> LoggedShot:
    """Log a ball under the client's id, or change the one that has it.

    The same request again changes nothing, so a client may repeat it after a lost answer.

    was : see `merged`

    Raises
    ------
    NotFoundError
        There is no such lesson, or the block is none of it.
    RefusedError
        There are as many as may be.
    ConflictError
        It is another than `was` by now.

    """
    place = session.exec(_place_of(lesson_id, block_id, shot_id)).first()
    if place is None:
        get_block(session, lesson_id, block_id)  # says which of the two is not there
        raise not_found("block")
    shot: LoggedShot | None = place[0]
    in_lesson, in_block, last = place[1:]
    values = {"observed": observed, "touched": touched}
    if shot is None:
        was_there("ball", was, values)
        within_quota(LoggedShot, in_lesson)
        with Step(session, lesson_id, f"ball {in_block + 1}") as step:
            shot = LoggedShot(
                id=shot_id,
                block_id=block_id,
                position=0 if last is None else last + 1,
                observed=observed,
                touched=touched,
            )
            step.add(shot)
        return shot
    if shot.block_id != block_id:
        raise refused(
            "This ball belongs to another block.",
            "block_id",
            "Nothing was changed. Log it under a new id.",
        )
    with Step(session, lesson_id, f"change of ball {shot_number(session, shot)}") as step:
        step.change(shot, **merged(shot, values, was))
    return shot


def _place_of(lesson_id: str, block_id: str, shot_id: str) -> Any:
    """The ball, where it is there; balls in lesson and block, and the last place in the block."""
    in_block = col(LoggedShot.block_id) == block_id
    there = aliased(LoggedShot)
    counts = select(func.count(), func.max(LoggedShot.position)).where(in_block).subquery()
    return (
        select(there, count_of(LoggedShot, lesson_id).scalar_subquery(), counts)  # type: ignore[call-overload]
        .select_from(LoggedBlock)
        .outerjoin(there, col(there.id) == shot_id)
        .join(counts, true())
        .where(LoggedBlock.id == block_id, LoggedBlock.lesson_id == lesson_id)
    )


def delete_shot(session: Session, lesson_id: str, shot_id: str) -> None:
    """Take a ball out; it can be undone. A ball already gone is no error."""
    shot = session.get(LoggedShot, shot_id)
    if shot is None:
        return
    block = session.get(LoggedBlock, shot.block_id)
    if block is None or block.lesson_id != lesson_id:
        raise not_found("shot")
    with Step(session, lesson_id, f"deletion of ball {shot_number(session, shot)}") as step:
        step.delete(shot)


def shot_number(session: Session, shot: LoggedShot) -> int:
    """Which ball of its block this is, counted from one."""
    earlier = session.exec(
        select(LoggedShot.id).where(
            LoggedShot.block_id == shot.block_id, LoggedShot.position <= shot.position
        )
    )
    return len(earlier.all())
