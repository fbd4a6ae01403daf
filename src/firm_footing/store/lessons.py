"""What belongs to a lesson, and in which order?"""

from collections.abc import Mapping
from typing import Any

from sqlmodel import Session, col, select

from firm_footing.core.case import School
from firm_footing.core.case.base import Strict
from firm_footing.core.coaching.lesson import Cue, Listen, SheetWords
from firm_footing.core.knowledge.vocabulary import Source
from firm_footing.store.changes.conflicts import Was, merged, was_there
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.idempotency import end_of_change
from firm_footing.store.changes.quotas import next_position, require_quota
from firm_footing.store.errors import not_found, refused
from firm_footing.store.files.erasing import erase
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.students import change_student, get_student
from firm_footing.store.tables import (
    Lesson,
    LoggedBlock,
    LoggedShot,
    new_id,
)


def get_lesson(session: Session, lesson_id: str) -> Lesson:
    """The lesson of this id; NotFoundError when there is none."""
    lesson = session.get(Lesson, lesson_id)
    if lesson is None:
        raise not_found("lesson")
    return lesson


def begun_before(session: Session, lesson_id: str | None, student_id: str) -> bool:
    """Whether the lesson with this id, which its client made, is this student's already.

    Raises
    ------
    RefusedError
        It is another student's.

    """
    there = None if lesson_id is None else session.get(Lesson, lesson_id)
    if there is not None and there.student_id != student_id:
        raise refused("This lesson is another student's.", "id", "Nothing was changed.")
    return there is not None


def recent_lessons(session: Session, most: int = 30) -> list[Lesson]:
    """The newest lessons of all students."""
    return list(session.exec(select(Lesson).order_by(col(Lesson.started_at).desc()).limit(most)))


def add_lesson(
    session: Session,
    lesson: Lesson,
    club: str | None = None,
    expected_carry_m: float | None = None,
    block_id: str | None = None,
) -> Lesson:
    """Keep a new lesson with an empty baseline block of this club, else as the last one began.

    Raises
    ------
    RefusedError
        The block is another lesson's.

    """
    get_student(session, lesson.student_id)
    if block_id is not None and session.get(LoggedBlock, block_id) is not None:
        raise refused("This block is another lesson's.", "block_id", "Nothing was changed.")
    session.add(lesson)
    session.flush()
    if club is None:
        club, expected_carry_m = _last_baseline(session, lesson)
    block = LoggedBlock(
        id=block_id or new_id(),
        lesson_id=lesson.id,
        position=0,
        club=club,
        expected_carry_m=expected_carry_m,
    )
    session.add(block)
    session.flush()
    end_of_change(session, lesson.id)
    return lesson


def _last_baseline(session: Session, lesson: Lesson) -> tuple[str, float | None]:
    """Club and carry of the student's newest baseline with balls; a 7 iron without one."""
    found = session.exec(
        select(LoggedBlock)
        .join(Lesson, col(Lesson.id) == LoggedBlock.lesson_id)
        .join(LoggedShot, col(LoggedShot.block_id) == LoggedBlock.id)
        .where(Lesson.student_id == lesson.student_id, LoggedBlock.kind == "baseline")
        .order_by(col(Lesson.started_at).desc(), col(LoggedBlock.position))
        .limit(1)
    ).first()
    return ("7i", None) if found is None else (found.club, found.expected_carry_m)


def reopen(
    session: Session, lesson_id: str, new: str | None = None, zone: str = "", given_by: str = ""
) -> Lesson:
    """A new lesson that takes up what this one decided: club, drill, cue and what was heard kept.

    Feels and health are asked anew, and an event gone by is forgotten.

    new : the id of the new lesson, where its client made one
    zone : time zone of the new lesson; '' is that of the last one
    """
    before = content_of(session, lesson_id)
    last, listen = before.lesson, before.lesson.listen
    kept = {"misses", "goal", "background", "minutes"}
    if listen.event_on is not None and listen.event_on >= last.today():
        kept |= {"event", "event_on"}
    baseline = next(
        (b for b in before.blocks if b.kind == "baseline"), LoggedBlock(lesson_id="", position=0)
    )
    lesson = Lesson(
        id=new or new_id(),
        zone=zone or last.zone,
        given_by=given_by or last.given_by,
        student_id=last.student_id,
        school=last.school,
        at_hand=last.at_hand,
        lacking=last.lacking,
        drill=last.drill,
        cue=last.cue,
        listen=Listen(**listen.model_dump(include=kept)),
        reopens=last.id,
    )
    return add_lesson(session, lesson, baseline.club, baseline.expected_carry_m)


PARTS: dict[str, type[Strict]] = {
    "school": School, "listen": Listen, "cue": Cue, "sheet": SheetWords
}  # fmt: skip
"""Columns that hold a value of several fields."""


def change_lesson(
    session: Session, lesson_id: str, values: Mapping[str, Any], was: Was | None = None
) -> None:
    """Give a lesson new values, by the names of its columns.

    Of a column of several fields only those sent are changed.

    was : see `merged`

    Raises
    ------
    ConflictError
        A field was changed by somebody else since.

    """
    lesson = get_lesson(session, lesson_id)
    values = merged(lesson, values, was)
    for name, kind in PARTS.items():
        if isinstance(values.get(name), dict):
            values[name] = kind(**getattr(lesson, name).model_dump() | values[name])
    if "primary" in values:
        values["primary_before"] = _fixed_before(session, lesson, values["primary"])
    with Step(session, lesson_id, "change of the lesson") as step:
        step.change(lesson, **values)


def _fixed_before(session: Session, lesson: Lesson, chosen: str | None) -> str | None:
    """The measure fixed before the first ball of the retest; None while none was hit.

    None as well when that one is chosen again; '' where none was fixed before.
    """
    hit = session.exec(
        select(LoggedShot.id)
        .join(LoggedBlock, col(LoggedBlock.id) == LoggedShot.block_id)
        .where(LoggedBlock.lesson_id == lesson.id, LoggedBlock.kind == "retest")
        .limit(1)
    ).first()
    if hit is None:
        return None
    before = lesson.primary or "" if lesson.primary_before is None else lesson.primary_before
    return None if before == (chosen or "") else before


def change_student_of(
    session: Session, lesson_id: str, values: Mapping[str, Any], was: Was | None = None
) -> None:
    """Give the student of a lesson new values, as a step of the lesson that can be undone."""
    student_id = get_lesson(session, lesson_id).student_id
    change_student(session, student_id, values, was, lesson_id)


def now_at_hand(step: Step, lesson: Lesson, means: Source) -> None:
    """As part of a step: a means that was used is at hand from then on."""
    if lesson.at_hand is not None and means not in lesson.at_hand:
        step.change(lesson, at_hand=(*lesson.at_hand, means))


def delete_lesson(session: Session, lesson_id: str) -> None:
    """Delete a lesson with all that belongs to it; not a byte of it is left."""
    session.delete(get_lesson(session, lesson_id))
    end_of_change(session, made=lesson_id)
    erase(session.get_bind().engine)


def get_block(session: Session, lesson_id: str, block_id: str) -> LoggedBlock:
    """The block of this id in this lesson; NotFoundError when there is none, or no lesson."""
    get_lesson(session, lesson_id)
    block = session.get(LoggedBlock, block_id)
    if block is None or block.lesson_id != lesson_id:
        raise not_found("block")
    return block


def put_block(
    session: Session,
    lesson_id: str,
    block_id: str,
    values: Mapping[str, Any],
    was: Was | None = None,
) -> LoggedBlock:
    """Add a block under the client's id, or change the one that has it; `was` as for `merged`.

    Raises
    ------
    NotFoundError
        There is no such lesson.
    RefusedError
        It belongs to another lesson, or there are as many as may be.
    ConflictError
        It is another than `was` by now.

    """
    get_lesson(session, lesson_id)
    block = session.get(LoggedBlock, block_id)
    with Step(session, lesson_id, "change of the block") as step:
        if block is None:
            was_there("block", was, values)
            require_quota(session, LoggedBlock, lesson_id)
            position = next_position(session, LoggedBlock, lesson_id)
            block = LoggedBlock(id=block_id, lesson_id=lesson_id, position=position, **values)
            step.add(block)
        elif block.lesson_id != lesson_id:
            raise refused(
                "This block belongs to another lesson.", "block_id", "Nothing was changed."
            )
        else:
            step.change(block, **merged(block, values, was))
    return block
