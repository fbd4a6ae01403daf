"""How often did something come true, and how far can so few cases be trusted?"""

import math
from statistics import NormalDist
from typing import NamedTuple

LIKELY = NormalDist().inv_cdf(0.9)
"""Standard errors on either side within which a number lies four times in five."""


class Share(NamedTuple):
    """So many of so many, and between which shares the truth lies four times in five."""

    came: int
    of: int
    low: float
    high: float


def share_of(came: int, of: int) -> Share:
    """A share with its interval (Wilson 1927); nothing is known of none: 0 to 1."""
    if of == 0:
        return Share(0, 0, 0.0, 1.0)
    z2, share = LIKELY**2, came / of
    middle = (share + z2 / (2 * of)) / (1 + z2 / of)
    half = LIKELY / (1 + z2 / of) * math.sqrt(share * (1 - share) / of + z2 / (4 * of**2))
    return Share(came, of, max(0.0, middle - half), min(1.0, middle + half))
