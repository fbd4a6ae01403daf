"""Which pressure traces were recorded, and what was said of them?"""

from collections.abc import Mapping
from typing import Any

from sqlmodel import Session

from firm_footing.core.case import Trace
from firm_footing.store.changes.conflicts import Was, merged
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.quotas import next_position, require_quota
from firm_footing.store.errors import not_found, refused
from firm_footing.store.lessons import get_block, get_lesson, now_at_hand
from firm_footing.store.tables import PressureTrace, Recording, new_id


def put_trace(
    session: Session,
    lesson_id: str,
    trace_id: str,
    recorded: Trace,
    block_id: str | None,
    name: str,
) -> None:
    """Keep a trace under the client's id; the same id again changes nothing.

    A client may so repeat a request after a lost answer.

    Raises
    ------
    NotFoundError
        There is no such lesson, or the block is none of it.
    RefusedError
        It belongs to another lesson, or there are as many as may be.

    """
    lesson = get_lesson(session, lesson_id)
    if block_id is not None:
        get_block(session, lesson_id, block_id)
    there = session.get(PressureTrace, trace_id)
    if there is not None:
        if there.lesson_id != lesson_id:
            raise refused(
                "This trace belongs to another lesson.", "trace_id", "Nothing was changed."
            )
        return
    require_quota(session, PressureTrace, lesson_id)
    position = next_position(session, PressureTrace, lesson_id)
    with Step(session, lesson_id, f"trace {position + 1}") as step:
        recording = Recording(id=new_id(), lesson_id=lesson_id, samples=recorded)
        session.add(recording)
        session.flush()
        step.add(
            PressureTrace(
                id=trace_id,
                lesson_id=lesson_id,
                block_id=block_id,
                recording_id=recording.id,
                position=position,
                name=name,
                events=dict(recorded.events),
            )
        )
        now_at_hand(step, lesson, "mat")


def change_trace(
    session: Session,
    lesson_id: str,
    trace_id: str,
    values: Mapping[str, Any],
    was: Was | None = None,
) -> None:
    """Give a trace new events, another block or name, or swap its feet; it can be undone.

    was : see `merged`
    """
    trace = get_trace(session, lesson_id, trace_id)
    if values.get("block_id") is not None:
        get_block(session, lesson_id, values["block_id"])
    with Step(session, lesson_id, f"change of trace {trace.position + 1}") as step:
        step.change(trace, **merged(trace, values, was))


def delete_trace(session: Session, lesson_id: str, trace_id: str) -> None:
    """Take a trace out; it can be undone. A trace already gone is no error."""
    get_lesson(session, lesson_id)
    trace = session.get(PressureTrace, trace_id)
    if trace is None:
        return
    if trace.lesson_id != lesson_id:
        raise not_found("trace")
    with Step(session, lesson_id, f"deletion of trace {trace.position + 1}") as step:
        step.delete(trace)


def get_trace(session: Session, lesson_id: str, trace_id: str) -> PressureTrace:
    """The trace of this id in this lesson; NotFoundError when there is none."""
    trace = session.get(PressureTrace, trace_id)
    if trace is None or trace.lesson_id != lesson_id:
        raise not_found("trace")
    return trace
