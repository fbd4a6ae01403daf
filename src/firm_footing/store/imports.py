"""How do many balls at once come into a lesson, each only once?"""

import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlmodel import Session

from firm_footing.core.case import Shot
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.quotas import require_quota
from firm_footing.store.columns import now
from firm_footing.store.database import take_turn
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.lessons import get_block
from firm_footing.store.own_tables import ColumnMapping
from firm_footing.store.tables import (
    LoggedBlock,
    LoggedShot,
    new_id,
)


@dataclass(frozen=True)
class Incoming:
    """A ball to be taken in.

    key : the same whenever the same ball is sent again
    club : None where it is not said
    """

    key: str
    club: str | None
    shot: Shot


@dataclass(frozen=True)
class Taken:
    """How many balls were added, and how many were there already."""

    added: int
    already: int


def take_in(session: Session, lesson_id: str, block_id: str, balls: Sequence[Incoming]) -> Taken:
    """Add the balls that are not there yet; one step, so that one undo takes all back.

    A ball goes to the block when its club is the block's or not said; to the last baseline block of
    its club, or a new one, otherwise. An empty block takes the club of the first ball.
    """
    first = get_block(session, lesson_id, block_id)
    content = content_of(session, lesson_id)
    both = zip(ids_of(lesson_id, balls), balls, strict=True)
    new = [(shot_id, ball) for shot_id, ball in both if not _has(session, shot_id)]
    require_quota(session, LoggedShot, lesson_id, len(new))
    with Step(session, lesson_id, f"{len(new)} imported balls") as step:
        if new and not content.shots[first.id] and new[0][1].club is not None:
            step.change(first, club=new[0][1].club)
        blocks, last = list(content.blocks), _last_positions(content)
        for shot_id, ball in new:
            block = _block_for(ball, first, blocks, lesson_id, step)
            last[block.id] = last.get(block.id, -1) + 1
            step.add(
                LoggedShot(
                    id=shot_id, block_id=block.id, position=last[block.id], observed=ball.shot
                )
            )
    return Taken(len(new), len(balls) - len(new))


def ids_of(lesson_id: str, balls: Sequence[Incoming]) -> list[str]:
    """Ids that are the same for the same balls in the same lesson.

    Balls that are alike in everything are told apart by which of them it is.
    """
    seen: dict[str, int] = {}
    found = []
    for ball in balls:
        seen[ball.key] = seen.get(ball.key, 0) + 1
        name = f"{lesson_id}\n{ball.key}\n{seen[ball.key]}"
        found.append(str(uuid.uuid5(uuid.NAMESPACE_OID, name)))
    return found


def how_many_there(session: Session, lesson_id: str, balls: Sequence[Incoming]) -> int:
    """How many of these balls the lesson has already."""
    return sum(_has(session, i) for i in ids_of(lesson_id, balls))


def remembered(session: Session, fingerprint: str) -> list[dict[str, Any]] | None:
    """What the columns were agreed to hold; None when never."""
    kept = session.get(ColumnMapping, fingerprint)
    return None if kept is None else kept.columns


def remember(session: Session, fingerprint: str, columns: list[dict[str, Any]]) -> None:
    """Keep what the columns hold for the next time."""
    take_turn(session)
    kept = session.get(ColumnMapping, fingerprint) or ColumnMapping(
        fingerprint=fingerprint, columns=columns
    )
    kept.columns, kept.used_at = columns, now()
    session.add(kept)
    session.commit()


def _has(session: Session, shot_id: str) -> bool:
    return session.get(LoggedShot, shot_id) is not None


def _last_positions(content: LessonContent) -> dict[str, int]:
    return {block: shots[-1].position for block, shots in content.shots.items() if shots}


def _block_for(
    ball: Incoming, first: LoggedBlock, blocks: list[LoggedBlock], lesson_id: str, step: Step
) -> LoggedBlock:
    if ball.club in (None, first.club):
        return first
    same = [b for b in blocks if b.club == ball.club and b.kind == "baseline"]
    if same:
        return same[-1]
    position = max(b.position for b in blocks) + 1
    block = LoggedBlock(id=new_id(), lesson_id=lesson_id, position=position, club=ball.club or "7i")
    step.add(block)
    blocks.append(block)
    return block
