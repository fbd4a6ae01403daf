"""Does a block change while it is hit? A student tires, or finds something.

The Mann-Kendall test for a trend (Mann 1945, Kendall 1975), with ties and a correction for whole
numbers; so many things are looked at that each must be the surer (Bonferroni).
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from statistics import NormalDist, median

from firm_footing.core.knowledge.numbers import BlockNumbers


@dataclass(frozen=True)
class Drift:
    """Something that changed from the first ball to the last.

    what : which quantity, by its name in a pattern; `scatter` is the distance from the middle
    change : over the whole block, by the median of all slopes, in the quantity's unit
    chance : how often chance alone would show as much
    """

    what: str
    change: float
    chance: float


def drifts_of(
    series: Mapping[str, Sequence[float | None]], block: BlockNumbers
) -> tuple[Drift, ...]:
    """The quantities that change, the surest first.

    Parameters
    ----------
    series : by quantity, a value for every ball in the order they were hit, None where not noted

    """
    found = []
    for what, values in series.items():
        noted = [(i, v) for i, v in enumerate(values) if v is not None]
        if len(noted) < block.drift_least:
            continue
        chance = trend_chance([v for _, v in noted])
        if chance < block.drift_share / len(series):
            slope = median((b - a) / (j - i) for (i, a), (j, b) in combinations(noted, 2))
            found.append(Drift(what, slope * (len(values) - 1), chance))
    return tuple(sorted(found, key=lambda d: d.chance))


def trend_chance(values: Sequence[float]) -> float:
    """Two-sided probability that values in random order rise or fall as steadily, 0 to 1."""
    n = len(values)
    steady = sum((b > a) - (b < a) for a, b in combinations(values, 2))
    ties = [values.count(v) for v in set(values)]
    variance = (n * (n - 1) * (2 * n + 5) - sum(t * (t - 1) * (2 * t + 5) for t in ties)) / 18
    if variance <= 0:
        return 1.0
    z = max(0, abs(steady) - 1) / math.sqrt(variance)
    return min(1.0, 2 * (1 - NormalDist().cdf(z)))
