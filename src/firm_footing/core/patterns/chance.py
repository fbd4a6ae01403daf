"""Is a difference more than chance? The one test behind every such word.

Welch's t test (Welch 1947): two means with spreads of their own, few balls on either side. Balls
that happen to agree are no certainty, so each measure has a floor for its spread, in its own unit
(`numbers.yaml`). A number that was worked out, and not noted, brings its own standard error.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from statistics import fmean
from typing import Final

import numpy as np
from scipy.special import stdtr

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.readings import NotedValue, as_reading, curve_deg, start_deg
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.physics.turf import low_point

NOTED: Final = (
    "start_deg", "curve_deg", "heel_toe_mm", "low_point_cm", "carry_m", "carry_lost_pct"
)  # fmt: skip
"""What is noted ball by ball: degrees + push side, mm + toe, cm + ahead, metres, per cent."""


@dataclass(frozen=True)
class MeanDifference:
    """A mean before and after.

    before, after : means
    by, se : after minus before, with its standard error
    surprise : how probable so large a difference is by chance alone
    """

    before: float
    after: float
    by: float
    se: float
    p_value: float


def change_of(
    before: Sequence[float], after: Sequence[float], floor: float
) -> MeanDifference | None:
    """Difference of two means by Welch's test; None with fewer than two balls on a side.

    floor : standard deviation that single balls scatter with at least
    """
    if len(before) < 2 or len(after) < 2:
        return None
    spreads = (spread2(before, floor), spread2(after, floor))
    by = fmean(after) - fmean(before)
    se, p_value = welch(by, spreads, (len(before), len(after)))
    return MeanDifference(fmean(before), fmean(after), by, se, p_value)


def change_of_estimates(
    before: tuple[float, float], after: tuple[float, float], balls: tuple[int, int]
) -> MeanDifference:
    """The same of two numbers that were worked out, each with its standard error."""
    by = after[0] - before[0]
    spreads = (before[1] ** 2 * balls[0], after[1] ** 2 * balls[1])
    se, p_value = welch(by, spreads, (max(2, balls[0]), max(2, balls[1])))
    return MeanDifference(before[0], after[0], by, se, p_value)


def spread2(values: Sequence[float], floor: float) -> float:
    """Variance of balls, never below the floor's square."""
    return max(float(np.var(values, ddof=1)), floor**2)


def welch(by: float, spreads: tuple[float, float], balls: tuple[int, int]) -> tuple[float, float]:
    """Standard error of a difference, and how probable so large a one is by chance.

    spreads : variances of single balls
    """
    parts = [v / n for v, n in zip(spreads, balls, strict=True)]
    se = math.sqrt(sum(parts))
    freedom = sum(parts) ** 2 / sum(p**2 / (n - 1) for p, n in zip(parts, balls, strict=True))
    return se, two_sided(by / se, freedom)


def two_sided(t: float, freedom: float) -> float:
    """P(a t variable is farther from zero)."""
    return 2 * float(stdtr(freedom, -abs(t)))


def holm(p_values: Sequence[float | None], level: float) -> list[bool]:
    """Which of several differences are more than chance, all of them together (Holm 1979).

    p_values : None where nothing was compared
    level : how often, without any difference, one or more would be called real
    """
    order = sorted((p, i) for i, p in enumerate(p_values) if p is not None)
    sure = [False] * len(p_values)
    for rank, (p, i) in enumerate(order):
        if p > level / (len(order) - rank):
            break
        sure[i] = True
    return sure


def is_significant(change: MeanDifference | None, numbers: Numbers) -> bool:
    """Whether it is more than chance makes of one number in ten."""
    return change is not None and change.p_value <= numbers.chance.level


def floor_of(name: str, numbers: Numbers) -> float:
    """The floor of a measure of `NOTED`, in its unit."""
    value: float = getattr(numbers.chance.floor, name)
    return value


def values_of(blocks: Iterable[Block], numbers: Numbers) -> dict[str, tuple[float, ...]]:
    """Measure of `NOTED` to the values of the balls that show it; words by their middle."""
    found: dict[str, list[float]] = {name: [] for name in NOTED}
    for block in blocks:
        for shot in block.shots:
            values = noted(shot, block, numbers)
            for name in NOTED:
                if (value := values[name]) is not None:
                    found[name].append(value)
    return {name: tuple(values) for name, values in found.items()}


def noted(shot: Shot, block: Block, numbers: Numbers) -> dict[str, float | None]:
    """What one ball was noted with, by the names of `NOTED`, and where its divot started.

    A ball off the hosel or topped shows no flight.
    """
    start = start_deg(shot, numbers)
    lowest = low_point(shot, numbers.turf)
    flies = shot.contact not in ("hosel", "top")

    def value(note: NotedValue | None) -> float | None:
        return None if note is None or not flies else as_reading(note, numbers).value

    divot = shot.divot_start_cm
    return {
        "start_deg": value(start),
        "curve_deg": value(curve_deg(shot, numbers, start)),
        "heel_toe_mm": shot.heel_toe_mm,
        "low_point_cm": None if lowest is None else lowest.cm,
        "divot_start_cm": shot.brush_start_cm if divot is None else divot,
        "carry_m": shot.carry_m,
        "carry_lost_pct": carry_lost_pct(shot, block),
    }


def carry_lost_pct(shot: Shot, block: Block) -> float | None:
    """Carry short of the expected, per cent of it; None where either was not named."""
    if shot.carry_m is None or block.expected_carry_m is None:
        return None
    return 100 * (1 - shot.carry_m / block.expected_carry_m)
