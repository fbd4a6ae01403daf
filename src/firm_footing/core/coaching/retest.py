"""Is the change real already, not yet, or how many more balls would tell?

One measure is fixed before the first ball of the retest. After every ball the retest so far is held
against the whole baseline by Welch's t test (Welch 1947), each time at the same nominal level, so
small that all looks together raise a false alarm in one retest out of ten (as Pocock 1977 does for
groups). The nominal levels were found by simulation; `tests/core/test_retest.py` holds them to it.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import NormalDist, fmean, variance
from typing import Final, Literal

from firm_footing.core.knowledge.coaching import RetestNumbers

NORMAL: Final = NormalDist()
FIRST_LOOK: Final = 3
"""Balls of the retest before anything is said."""

State = Literal["real", "not_yet", "too_few"]


@dataclass(frozen=True)
class Change:
    """One measure before and after.

    before, after : means
    by : after minus before, with its standard error
    surprise : how probable so large a difference is by chance alone, this look by itself
    """

    before: float
    after: float
    by: float
    se: float
    surprise: float


@dataclass(frozen=True)
class Verdict:
    """Where the retest stands.

    state : 'real' once any look so far was beyond the nominal level; 'too_few' before the first
    real_at : ball of the retest at which it became real, from 1
    more : how many more balls would tell if the change stays as it is; None when it is real, or
        when `most_more` would not do
    """

    state: State
    change: Change | None
    real_at: int | None
    more: int | None


def change_of(
    before: Sequence[float], after: Sequence[float], noise: float = 1e-6
) -> Change | None:
    """Difference of the means and Welch's test; None with fewer than two balls on a side.

    noise : standard deviation of a single note; balls noted alike scatter at least so much
    """
    if len(before) < 2 or len(after) < 2:
        return None
    by = fmean(after) - fmean(before)
    spreads = (max(variance(before), noise**2), max(variance(after), noise**2))
    se, surprise = _welch(by, spreads, (len(before), len(after)))
    return Change(fmean(before), fmean(after), by, se, surprise)


def _welch(by: float, spreads: tuple[float, float], balls: tuple[int, int]) -> tuple[float, float]:
    """Standard error of a difference, and how probable so large a one is by chance."""
    parts = [v / n for v, n in zip(spreads, balls, strict=True)]
    se = math.sqrt(sum(parts))
    freedom = sum(parts) ** 2 / sum(p**2 / (n - 1) for p, n in zip(parts, balls, strict=True))
    return se, two_sided(by / se, freedom)


def two_sided(t: float, freedom: float) -> float:
    """P(a t variable is farther from zero), by Wallace's transformation to a normal one (1959)."""
    z = math.sqrt(freedom * math.log1p(t * t / freedom)) * (8 * freedom + 1) / (8 * freedom + 3)
    return 2 * NORMAL.cdf(-z)


def judge(
    before: Sequence[float], after: Sequence[float], numbers: RetestNumbers, noise: float = 1e-6
) -> Verdict:
    """The verdict after the balls of the retest so far, in the order they were hit.

    Parameters
    ----------
    before : the baseline's values of the primary measure
    after : the retest's, one for each ball that shows it
    noise : standard deviation of a single note

    """
    now = change_of(before, after, noise)
    if now is None or len(after) < FIRST_LOOK:
        return Verdict("too_few", now, None, max(0, FIRST_LOOK - len(after)))
    for balls in range(FIRST_LOOK, len(after) + 1):
        then = change_of(before, after[:balls], noise)
        if then is not None and then.surprise <= numbers.nominal_level:
            return Verdict("real", now, balls, None)
    return Verdict("not_yet", now, None, _more(before, after, now, numbers, noise))


def _more(
    before: Sequence[float],
    after: Sequence[float],
    now: Change,
    numbers: RetestNumbers,
    noise: float,
) -> int | None:
    """Balls that would tell if means and scatter stay as they are."""
    spreads = (max(variance(before), noise**2), max(variance(after), noise**2))
    for more in range(1, numbers.most_more + 1):
        _, surprise = _welch(now.by, spreads, (len(before), len(after) + more))
        if surprise <= numbers.nominal_level:
            return more
    return None
