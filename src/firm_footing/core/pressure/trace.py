"""What does one pressure trace say, from its samples to its signs?"""

from dataclasses import dataclass, replace
from threading import Lock
from typing import Final

import numpy as np
from cachetools import LRUCache, cached

from firm_footing.core.case import Trace
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import Pattern
from firm_footing.core.physics.forward import LOW_POINT
from firm_footing.core.pressure.events import Events, events_of
from firm_footing.core.pressure.measures import Measures, measures_of
from firm_footing.core.pressure.recorded import (
    Recorded,
    TraceError,
    recorded_of,
    with_feet_swapped,
)
from firm_footing.core.pressure.signs import ByWhom, Judged, detect_signs
from firm_footing.core.pressure.typed import TOLD_BY, as_swing


@dataclass(frozen=True, eq=False)
class TraceRead:
    """One trace, read, measured and judged.

    corridor : name of the school whose corridor judged it
    drill : the drill in force, None without one
    maybe_swapped : the other way round it would fit the corridor far better
    a_style : a reverse-style swing with sound contact: its retreat is no fault
    """

    recorded: Recorded
    events: Events
    measures: Measures
    judged: Judged
    corridor: str
    drill: str | None
    maybe_swapped: bool
    a_style: bool = False

    @property
    def signs(self) -> tuple[str, ...]:
        """Ids of the signs that are there."""
        return tuple(s.id for s in self.judged.signs if s.there)


KEPT_STEPS: Final = 250_000
"""Even steps of the traces that were read last: those of several lessons, some 60 MB at most."""


def _steps_of(read: TraceRead) -> int:
    return int(read.recorded.t_s.size)


AT_ONCE_S = 1e-4
"""A window that is none."""


@cached(LRUCache(maxsize=KEPT_STEPS, getsizeof=_steps_of), lock=Lock())
def read_trace(
    trace: Trace,
    school: str,
    knowledge: Knowledge,
    drill: str | None = None,
    heel_toe: str = "undecided",
) -> TraceRead:
    """Read a trace by a pressure school's corridor, or by the corridor of the drill in force.

    heel_toe : the heel-and-toe school that judges the feet

    Raises
    ------
    TraceError
        The samples are no trace of a swing, or the events contradict each other.

    """
    numbers = knowledge.traces
    swing, recording = trace, numbers.recording
    if trace.typed_pct:  # exact at its events: there is no noise to take a mean of
        swing, recording = as_swing(trace), recording.model_copy(update={"window_s": AT_ONCE_S})
    recorded = recorded_of(swing, recording)
    events = events_of(recorded, swing.events, numbers.timing)
    measures = measures_of(recorded, events, numbers)
    corridor = knowledge.corridors.ranges(school, drill)
    by = ByWhom(*corridor, heel_toe)
    judged = detect_signs(recorded, events, measures, by, numbers.signs)
    if trace.typed_pct:
        judged = _as_typed(judged)
    return TraceRead(
        recorded=recorded,
        events=events,
        measures=measures,
        judged=judged,
        corridor=corridor[0],
        drill=drill if drill in knowledge.corridors.drills else None,
        maybe_swapped=not trace.typed_pct and _maybe_swapped(trace, judged, by, knowledge),
    )


def _as_typed(judged: Judged) -> Judged:
    """Only what shares at a few events can tell."""
    signs = tuple(s for s in judged.signs if s.id in TOLD_BY)
    untold = ("shift_starts_after_top", "loads_late")
    answers = {check: share for check, share in judged.answers.items() if check not in untold}
    return replace(judged, signs=signs, answers=answers)


def _maybe_swapped(
    trace: Trace,
    judged: Judged,
    by: ByWhom,
    knowledge: Knowledge,
) -> bool:
    """Whether the feet may have been exchanged: far outside as it is, well inside the other way."""
    as_is = float(np.mean(np.abs(list(judged.deviation_pct.values()))))
    numbers = knowledge.traces
    if as_is < numbers.signs.swapped_from_pct:
        return False
    try:
        recorded = recorded_of(with_feet_swapped(trace), numbers.recording)
        events = events_of(recorded, trace.events, numbers.timing)
    except TraceError:
        return False
    other = detect_signs(
        recorded, events, measures_of(recorded, events, numbers), by, numbers.signs
    )
    return float(np.mean(np.abs(list(other.deviation_pct.values())))) < 0.4 * as_is


def with_contact(read: TraceRead, pattern: Pattern, knowledge: Knowledge) -> TraceRead:
    """The same, seen beside the balls: falling back with sound contact is a style, not a fault."""
    if "retreat" not in read.signs or read.measures.style != "reverse":
        return read
    if not _sound(pattern, knowledge):
        return read
    kept = tuple(s for s in read.judged.signs if s.id != "retreat")
    answers = {k: v for k, v in read.judged.answers.items() if k != "lead_peak_then_retreat"}
    return replace(read, judged=replace(read.judged, signs=kept, answers=answers), a_style=True)


def _sound(pattern: Pattern, knowledge: Knowledge) -> bool:
    """Enough balls, the low point not behind the ball, no path to the pull side."""
    path, delivered = pattern.path_deg, pattern.delivered
    known = pattern.low_point_cm is not None or pattern.contact_says
    few = pattern.balls < knowledge.numbers.decision.least_balls
    if few or path is None or delivered is None or not known:
        return False
    limits = knowledge.traces.signs
    low = float(delivered.mean[LOW_POINT]) - pattern.ball_forward_cm
    return path.value > limits.sound_path_deg and low > limits.sound_low_point_cm
