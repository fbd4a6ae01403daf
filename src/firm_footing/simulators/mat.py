"""A stand-in for a pressure mat: a student swings on it, each trace goes to the open lesson."""

from collections.abc import Callable

import httpx
import numpy as np
from numpy.random import Generator

from firm_footing.core.case import Trace
from firm_footing.core.case.evidence import PressureSchool
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.simulators.pressing import habit_of, press
from firm_footing.simulators.sending import Destination, send_change
from firm_footing.simulators.student import make_student


class SimulatedMat:
    """Swings of one simulated student, one after the other."""

    def __init__(
        self,
        causes: tuple[str, ...],
        mode: Mode,
        target: Destination,
        knowledge: Knowledge,
        seed: int,
        school: PressureSchool | None = None,
        rate_hz: float = 200.0,
        noise_pct: float = 1.0,
    ) -> None:
        """Choose the student and the device; the school left out is the lesson's."""
        self.rng: Generator = np.random.default_rng(seed)
        self.knowledge = knowledge
        self.school: PressureSchool = school or target.school.pressure
        self.rate_hz, self.noise_pct = rate_hz, noise_pct
        self.student = make_student(causes, target.handicap, mode, knowledge, self.rng)
        self.habit = habit_of(self.student, self.rng)

    def swing(self, name_events: bool = False) -> Trace:
        """The next one."""
        return press(
            self.student,
            self.habit,
            self.school,
            self.knowledge,
            self.rng,
            self.rate_hz,
            self.noise_pct,
            name_events,
        )


def send(
    client: httpx.Client,
    target: Destination,
    trace: Trace,
    name: str,
    wait: Callable[[float], None],
) -> None:
    """Send one trace."""
    recorded = {"columns": trace.columns, "samples": trace.samples, "events": trace.events}
    kept = {"block_id": target.block_id, "recorded": recorded, "name": name}
    send_change(client, target, "trace", kept, wait)
