"""How does a device find the open lesson and send to it? Over HTTP only, as any other would."""

import time
import uuid
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import httpx

from firm_footing.core.case import Block
from firm_footing.core.case.evidence import School
from firm_footing.core.knowledge import Knowledge

TRIES = 5


@dataclass(frozen=True)
class Destination:
    """Where the balls go: a lesson, its last block, and what it says of student and club."""

    lesson_id: str
    block_id: str
    block: Block
    student_name: str
    handicap: float
    school: School


class NoLessonError(Exception):
    """There is no lesson to send to; says why."""


def find_lesson(client: httpx.Client, lesson_id: str | None, knowledge: Knowledge) -> Destination:
    """The lesson of this id, or the newest that is not finished.

    Raises
    ------
    NoLessonError
        There is none.

    """
    if lesson_id is None:
        day = client.get("/api/day").raise_for_status().json()
        lesson_id = next((x["id"] for x in day["lessons"] if not x["finished"]), None)
        if lesson_id is None:
            raise NoLessonError("No lesson is open. Start one, then run this again.")
    answer = client.get(f"/api/lessons/{lesson_id}")
    if answer.status_code == httpx.codes.NOT_FOUND:
        raise NoLessonError(answer.json()["message"])
    lesson: dict[str, Any] = answer.raise_for_status().json()
    last = lesson["blocks"][-1]
    handicap = lesson["student"]["handicap"]
    return Destination(
        lesson_id=lesson_id,
        block_id=last["id"],
        block=Block(
            club=last["club"], expected_carry_m=last["expected_carry_m"], teed=last["teed"]
        ),
        student_name=lesson["student"]["name"],
        handicap=knowledge.numbers.handicap_left_out if handicap is None else handicap,
        school=School(**lesson["school"]),
    )


def send_change(
    client: httpx.Client,
    target: Destination,
    kind: str,
    body: dict[str, Any],
    wait: Callable[[float], None] = time.sleep,
) -> None:
    """Send under an id of our own; a connection that fails is tried again, and it is stored once.

    kind : of change, `shot` or `trace`

    Raises
    ------
    httpx.HTTPError
        It failed every time, or was refused.

    """
    change = {"kind": kind, "id": str(uuid.uuid4()), "body": body}
    for tried in range(TRIES):
        try:
            client.post(f"/api/lessons/{target.lesson_id}/changes", json=change).raise_for_status()
        except httpx.TransportError:
            if tried == TRIES - 1:
                raise
            wait(2.0**tried)
        else:
            return
