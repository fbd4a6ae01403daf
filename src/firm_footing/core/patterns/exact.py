"""Are two shares of balls different by more than chance?

Fisher's exact test (Fisher 1935): given how many balls count in all, every way of dealing them out
to the two blocks is as likely as its hypergeometric weight; the p-value is that of all ways no
likelier than the one that came. Looked at after every ball, the test wants a smaller level for each
look; as shares have few outcomes, that level is computed: the largest at which no share whatever
raises a false alarm more often than it may, over all looks together. A level found so makes the
test unconditional (as Boschloo 1970 does with one look), and less timid than Fisher's own.
"""

import math
from functools import lru_cache
from typing import Final

import numpy as np

from firm_footing.core.frame.arrays import FloatArray

TRUE_SHARES: Final = np.arange(0.02, 1.0, 0.04)
"""Shares of an unchanged student that the level is held at."""


@lru_cache(maxsize=1024)
def fisher_table(before: int, after: int) -> FloatArray:
    """(before + 1, after + 1) two-sided p-values of Fisher's test, by what counts in each block.

    Parameters
    ----------
    before, after : balls of the two blocks

    """
    table = np.ones((before + 1, after + 1))
    for both in range(before + after + 1):
        came = np.arange(max(0, both - after), min(before, both) + 1)
        ways = [math.comb(before, c) * math.comb(after, both - c) for c in came.tolist()]
        weight = np.array(ways) / math.comb(before + after, both)
        no_likelier = weight[None, :] <= weight[:, None] * (1 + 1e-9)
        table[came, both - came] = no_likelier @ weight
    return table


@lru_cache(maxsize=256)
def nominal_share_level(before: int, first: int, looks: int, level: float) -> float:
    """The p-value from which on a look counts as a change of shares.

    Parameters
    ----------
    before : balls of the baseline
    first, looks : the first and the last ball of the retest after which it is looked at
    level : how often an unchanged student may be called changed, all looks together

    Returns
    -------
    The largest that keeps the level whatever the share is; 0.0 where none does.

    """
    tables = [fisher_table(before, after) for after in range(first, looks + 1)]
    candidates = np.unique(np.concatenate([t.ravel() for t in tables]))
    low, high = 0, len(candidates)  # candidates[low - 1] holds, candidates[high] does not
    while low < high:
        middle = (low + high) // 2
        alarms = false_alarms(before, first, looks, float(candidates[middle]))
        low, high = (middle + 1, high) if alarms.max() <= level else (low, middle)
    return float(candidates[low - 1]) if low else 0.0


def false_alarms(before: int, first: int, looks: int, nominal: float) -> FloatArray:
    """(shares,) how often a student of each of `TRUE_SHARES` who did not change is called changed.

    Exact: the retest is followed ball by ball, by how many of it count.
    """
    share = TRUE_SHARES[:, None, None]
    going = np.zeros((len(TRUE_SHARES), before + 1, looks + 2))
    came = np.arange(before + 1)
    ways = np.array([math.comb(before, c) for c in came.tolist()], dtype=float)
    going[:, :, 0] = (
        ways * TRUE_SHARES[:, None] ** came * (1 - TRUE_SHARES[:, None]) ** (before - came)
    )
    alarms = np.zeros(len(TRUE_SHARES))
    for after in range(1, looks + 1):
        step = going * (1 - share)
        step[:, :, 1:] += going[:, :, :-1] * share
        going = step
        if after >= first:
            real = fisher_table(before, after) <= nominal
            alarms += (going[:, :, : after + 1] * real).sum(axis=(1, 2))
            going[:, :, : after + 1] *= ~real
    return alarms
