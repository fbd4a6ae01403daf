"""What of a lesson is drawn along time, beside the student's other lessons?

The matters one works on: low point, strike, face, dispersion, and the lead share at impact where
there is a trace. Each with its doubt and, where it was noted ball by ball, the balls.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean, stdev
from typing import Final

from firm_footing.core.case import Block
from firm_footing.core.estimation.readings import as_reading, curve_deg, start_deg
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.patterns.pattern import Pattern

STRIPS: Final = (
    "low_point_cm", "heel_toe_mm", "face_to_path_deg", "dispersion_deg", "lead_at_impact_pct"
)  # fmt: skip
LEAST_FOR_DISPERSION: Final = 3


@dataclass(frozen=True)
class Strip:
    """One matter in one lesson.

    se : standard error, None where there is but one measurement
    balls : as each was noted; empty where it was worked out for the block
    """

    value: float
    se: float | None
    balls: tuple[float, ...]


def strips_of(
    baselines: Sequence[Block], pattern: Pattern, lead_at_impact: Sequence[float], numbers: Numbers
) -> dict[str, Strip]:
    """Matter to what this lesson's baseline shows of it; what it does not show is left out.

    Parameters
    ----------
    lead_at_impact : per cent of the load, of each trace made without a drill

    """
    found: dict[str, Strip] = {}
    for name in ("low_point_cm", "heel_toe_mm", "face_to_path_deg"):
        estimate = getattr(pattern, name)
        if estimate is not None:
            balls = pattern.values.get(name, ())
            found[name] = Strip(estimate.value, estimate.se, tuple(balls))
    landed = landing_bearings(baselines, numbers)
    if len(landed) >= LEAST_FOR_DISPERSION:
        spread = stdev(landed)
        # of a standard deviation of normal values, to first order
        found["dispersion_deg"] = Strip(spread, spread / math.sqrt(2 * (len(landed) - 1)), ())
    if lead_at_impact:
        many = len(lead_at_impact) > 1
        se = stdev(lead_at_impact) / math.sqrt(len(lead_at_impact)) if many else None
        found["lead_at_impact_pct"] = Strip(fmean(lead_at_impact), se, tuple(lead_at_impact))
    return found


def landing_bearings(blocks: Sequence[Block], numbers: Numbers) -> list[float]:
    """Where each ball landed that was noted with start and curve, degrees + push side."""
    found = []
    for block in blocks:
        for shot in block.shots:
            start = start_deg(shot, numbers)
            curve = curve_deg(shot, numbers, start)
            if start is not None and curve is not None:
                both = as_reading(start, numbers).value + as_reading(curve, numbers).value
                found.append(both)
    return found
