"""What do a few numbers read off a mat's own screen show?

They become a swing of usual timing that goes straight from number to number, so that the same
corridor and the same limits judge it. When something started, and what the feet did, they cannot
tell.
"""

from typing import Final

import numpy as np

from firm_footing.core.case import Trace
from firm_footing.core.knowledge.pressure import SWING_EVENTS, SwingEvent
from firm_footing.core.pressure.recorded import TraceError

LEAST: Final = 3
USUAL_S: Final[dict[SwingEvent, float]] = {
    "address": -1.05, "shaft_level_back": -0.65, "lead_arm_level_back": -0.49, "top": -0.25,
    "lead_arm_level_down": -0.10, "shaft_level_down": -0.05, "impact": 0.0, "finish": 0.4,
}  # fmt: skip
"""A downswing of a quarter of a second and a backswing of three times that; common practice."""
TOLD_BY: Final = ("weak", "never_left", "rush", "retreat", "reversed")
"""The signs that shares at events can show."""


def as_swing(trace: Trace) -> Trace:
    """The typed shares as samples; the ends go on quietly, what was not typed lies between.

    Raises
    ------
    TraceError
        Fewer than three shares, or none at impact.

    """
    said = trace.typed_pct
    if len(said) < LEAST or "impact" not in said:
        raise TraceError("It takes the share at impact and two more.")
    given = [name for name in USUAL_S if name in said]
    t = np.arange(-1.5, 0.5, 0.01)
    shares = np.interp(t, [USUAL_S[n] for n in given], [said[n] for n in given])
    rows = np.round(np.stack([t, shares], axis=1), 3).tolist()
    return Trace(
        block=trace.block,
        shot=trace.shot,
        samples=tuple(tuple(row) for row in rows),
        events={name: USUAL_S[name] for name in SWING_EVENTS},
    )
