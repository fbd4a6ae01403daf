"""A stand-in for a launch monitor: a student hits balls, the device sends each to the open lesson.

It shares nothing with the application but the HTTP interface. What it measures of each ball comes
from the physics and the stated noise of such devices.
"""

from collections.abc import Callable

import httpx
import numpy as np
from numpy.random import Generator

from firm_footing.core.case import Shot
from firm_footing.core.estimation.expected import setting_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.core.physics.forward import play
from firm_footing.simulators.noting import measured
from firm_footing.simulators.sending import Destination, send_change
from firm_footing.simulators.student import SimulatedStudent, make_student, swing


class SimulatedMonitor:
    """Balls of one simulated student, one after the other."""

    def __init__(
        self,
        causes: tuple[str, ...],
        mode: Mode,
        target: Destination,
        knowledge: Knowledge,
        seed: int,
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


def send(
    client: httpx.Client, target: Destination, shot: Shot, wait: Callable[[float], None]
) -> None:
    """Send one ball."""
    observed = shot.model_dump(mode="json", exclude_none=True)
    ball = {"block_id": target.block_id, "observed": observed}
    send_change(client, target, "shot", ball, wait)
