"""A stand-in for a launch monitor: a student hits balls, the device sends each to the open lesson.

It shares nothing with the application but the HTTP interface. What it measures of each ball comes
from the physics and the stated noise of such devices.
"""

import uuid
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import httpx
import numpy as np
from numpy.random import Generator

from firm_footing.core.ball.forward import play
from firm_footing.core.case import Block, Shot
from firm_footing.core.delivery.expected import setting_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.standins.noting import measured
from firm_footing.standins.student import SimulatedStudent, make_student, swing

TRIES = 5


@dataclass(frozen=True)
class Target:
    """Where the balls go: a lesson, its last block, and what it says of student and club."""

    lesson_id: str
    block_id: str
    block: Block
    student_name: str
    handicap: float


class NoLessonError(Exception):
    """There is no lesson to send to; says why."""


def find_lesson(client: httpx.Client, lesson_id: str | None, knowledge: Knowledge) -> Target:
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
    return Target(
        lesson_id=lesson_id,
        block_id=last["id"],
        block=Block(
            club=last["club"], expected_carry_m=last["expected_carry_m"], teed=last["teed"]
        ),
        student_name=lesson["student"]["name"],
        handicap=knowledge.numbers.handicap_left_out if handicap is None else handicap,
    )


class SimulatedMonitor:
    """Balls of one simulated student, one after the other."""

    def __init__(
        self, causes: tuple[str, ...], mode: Mode, target: Target, knowledge: Knowledge, seed: int
    ) -> None:
        self.rng: Generator = np.random.default_rng(seed)
        self.knowledge, self.target = knowledge, target
        self.student: SimulatedStudent = make_student(
            causes, target.handicap, mode, knowledge, self.rng
        )
        self.hit = 0

    def ball(self) -> Shot:
        """The next one."""
        setting = setting_of(self.target.block, self.knowledge, self.target.handicap)
        parts = swing(self.student, 1, self.knowledge, self.rng, self.hit)
        self.hit += 1
        (shot,) = measured(parts, play(parts, setting), setting, self.knowledge, self.rng)
        return shot


def send(client: httpx.Client, target: Target, shot: Shot, wait: Callable[[float], None]) -> None:
    """Send one ball; a connection that fails is tried again, and the ball is stored once.

    Raises
    ------
    httpx.HTTPError
        It failed every time, or was refused.

    """
    url = f"/api/lessons/{target.lesson_id}/shots/{uuid.uuid4()}"
    observed = shot.model_dump(mode="json", exclude_none=True)
    body = {"block_id": target.block_id, "observed": observed}
    for tried in range(TRIES):
        try:
            client.put(url, json=body).raise_for_status()
        except httpx.TransportError:
            if tried == TRIES - 1:
                raise
            wait(2.0**tried)
        else:
            return
