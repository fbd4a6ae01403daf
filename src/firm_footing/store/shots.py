"""Which balls were hit?"""

from sqlmodel import Session, select

from firm_footing.core.case import Shot
from firm_footing.store.changes.conflicts import Was, merged, was_there
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.quotas import next_position, require_quota
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
    """
    get_block(session, lesson_id, block_id)
    shot = session.get(LoggedShot, shot_id)
    values = {"observed": observed, "touched": touched}
    if shot is None:
        was_there("ball", was, values)
        require_quota(session, LoggedShot, lesson_id)
        number = _count(session, block_id) + 1
        with Step(session, lesson_id, f"ball {number}") as step:
            shot = LoggedShot(
                id=shot_id,
                block_id=block_id,
                position=next_position(session, LoggedShot, block_id),
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


def _count(session: Session, block_id: str) -> int:
    return len(session.exec(select(LoggedShot.id).where(LoggedShot.block_id == block_id)).all())
