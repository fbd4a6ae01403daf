"""When it said 60 to 80 per cent, how many of a hundred came true?"""

from collections.abc import Iterable
from itertools import pairwise
from typing import Final, NamedTuple

from firm_footing.core.patterns.shares import Share, share_of

BANDS: Final = (0.0, 0.2, 0.4, 0.6, 0.8, 1.0)
"""Limits of the bands in which what was said is put together."""


class Band(NamedTuple):
    """Decisions of which about the same was said.

    low, high : between which probabilities, 0 to 1
    said : the mean of what was said
    share : how many of them came true
    """

    low: float
    high: float
    said: float
    share: Share


def reliability(decisions: Iterable[tuple[float, bool]]) -> list[Band]:
    """Bands that hold any decision, the lowest first.

    decisions : what was said, 0 to 1, and whether it came true
    """
    told = list(decisions)
    found = []
    for low, high in pairwise(BANDS):
        here = [d for d in told if low <= d[0] < high or d[0] == high == BANDS[-1]]
        if here:
            said = sum(p for p, _ in here) / len(here)
            found.append(Band(low, high, said, share_of(sum(came for _, came in here), len(here))))
    return found
