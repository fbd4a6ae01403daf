"""Is the change real already, not yet, or how many more balls would tell?

One measure is fixed before the first ball of the retest. After every ball the retest so far is held
against the whole baseline by the test of `core/pattern/chance.py`, each time at the same nominal
level, so small that all looks together raise a false alarm in one retest out of ten (as Pocock 1977
does for groups). The nominal levels were found by simulation; `tests/core/test_retest.py` holds
them to it.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

from firm_footing.core.knowledge.coaching import RetestNumbers
from firm_footing.core.pattern.chance import Change, change_of, spread2, welch

FIRST_LOOK: Final = 3
"""Balls of the retest before anything is said."""

State = Literal["real", "not_yet", "too_few"]


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


def judge(
    before: Sequence[float], after: Sequence[float], numbers: RetestNumbers, floor: float
) -> Verdict:
    """The verdict after the balls of the retest so far, in the order they were hit.

    Parameters
    ----------
    before : the baseline's values of the primary measure
    after : the retest's, one for each ball that shows it
    floor : standard deviation that single balls scatter with at least

    """
    now = change_of(before, after, floor)
    if now is None or len(after) < FIRST_LOOK:
        return Verdict("too_few", now, None, max(0, FIRST_LOOK - len(after)))
    for balls in range(FIRST_LOOK, len(after) + 1):
        then = change_of(before, after[:balls], floor)
        if then is not None and then.surprise <= numbers.nominal_level:
            return Verdict("real", now, balls, None)
    return Verdict("not_yet", now, None, _more(before, after, now, numbers, floor))


def _more(
    before: Sequence[float],
    after: Sequence[float],
    now: Change,
    numbers: RetestNumbers,
    floor: float,
) -> int | None:
    """Balls that would tell if means and scatter stay as they are."""
    spreads = (spread2(before, floor), spread2(after, floor))
    for more in range(1, numbers.most_more + 1):
        _, surprise = welch(now.by, spreads, (len(before), len(after) + more))
        if surprise <= numbers.nominal_level:
            return more
    return None
