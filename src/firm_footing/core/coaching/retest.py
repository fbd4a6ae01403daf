"""Is the change real already, not yet, did it not hold, or how many more balls would tell?

One measure is fixed before the first ball of the retest. After every ball the retest so far is held
against the whole baseline, each time at a nominal level so small that all looks together raise a
false alarm in one retest out of ten. Means are compared by the test of `core/patterns/chance.py`,
at levels found by simulation for balls before and after (`scripts/find_nominal_levels.py`;
`tests/core/test_retest.py` holds them to it); shares by that of `core/patterns/exact.py`, at one
level that is computed (as Pocock 1977 does for groups). Whoever hits on after a change was real
may lose it again: what all balls together no longer bear out has not held.
"""

import math
from dataclasses import dataclass
from statistics import NormalDist, fmean
from typing import Final, Literal

from scipy.special import stdtrit

from firm_footing.core.coaching.measures import Series
from firm_footing.core.knowledge.coaching import RetestNumbers
from firm_footing.core.patterns.chance import change_of, spread2, welch
from firm_footing.core.patterns.exact import fisher_table, nominal_share_level

NORMAL: Final = NormalDist()

State = Literal["real", "not_held", "not_yet", "too_few"]
Direction = Literal["better", "worse", "other_side", "same"]
"""Which way a measure went: `other_side` is as far off as it was, on the other side."""


@dataclass(frozen=True)
class MeasureMove:
    """A mean, or a share, before and after.

    by, se : after minus before, with its standard error
    p_value : how probable so large a difference is by chance alone
    direction : toward where it should be, or away from it
    """

    before: float
    after: float
    by: float
    se: float
    p_value: float
    direction: Direction


@dataclass(frozen=True)
class RetestResult:
    """Where the retest stands.

    state : 'real' once any look so far was beyond the nominal level, 'not_held' where all balls
        together no longer bear that out; 'too_few' before the first look
    moved : what all balls so far show; None with too few on a side
    real_at : ball of the retest at which it became real, from 1
    more : how many more balls would tell if the change stays as it is; None when it is or was
        real, or when `most_more` would not do
    at_first : which way the balls up to `real_at` went; None where it never was real
    """

    state: State
    moved: MeasureMove | None
    real_at: int | None
    more: int | None
    at_first: Direction | None = None


def moved_by(series: Series, balls: int | None = None) -> MeasureMove | None:
    """What the first so many balls of the retest show, all of them with None.

    None with fewer than two balls on a side, or where the baseline has none.
    """
    before, after = series.before, series.after if balls is None else series.after[:balls]
    if series.is_share:
        if not before or not after:
            return None
        was, now = fmean(before), fmean(after)
        p_value = float(fisher_table(len(before), len(after))[int(sum(before)), int(sum(after))])
        se = math.sqrt(was * (1 - was) / len(before) + now * (1 - now) / len(after))
        return MeasureMove(was, now, now - was, se, p_value, _direction(series, was, now))
    change = change_of(before, after, series.floor)
    if change is None:
        return None
    direction = _direction(series, change.before, change.after)
    return MeasureMove(change.before, change.after, change.by, change.se, change.p_value, direction)


def _direction(series: Series, before: float, after: float) -> Direction:
    nearer = series.off(before) - series.off(after)
    by, number = abs(after - before), series.measure.number
    if by == 0:
        return "same"
    if abs(nearer) < by / 2 and number and not number.more_is_sound:
        return "other_side"
    return "better" if nearer > 0 else "worse" if nearer < 0 else "same"


def level_of(series: Series, after: int, numbers: RetestNumbers) -> float:
    """The p-value from which on the look after so many balls of the retest counts."""
    balls = len(series.before)
    if series.is_share:
        return nominal_share_level(balls, numbers.first_look, numbers.looks, numbers.level)
    return numbers.nominal_level(balls, after)


def evaluate_retest(series: Series, numbers: RetestNumbers) -> RetestResult:
    """Where a retest stands after its balls so far, in the order they were hit."""
    after = len(series.after)
    now = moved_by(series)
    first = numbers.first_look
    if now is None or after < first:
        return RetestResult("too_few", now, None, max(1, first - after))
    for balls in range(first, min(after, numbers.looks) + 1):
        then = moved_by(series, balls)
        if then is not None and then.p_value <= level_of(series, balls, numbers):
            held = now.by * then.by > 0 and now.p_value <= numbers.holds_to
            return RetestResult(
                "real" if held else "not_held", now, balls, None, at_first=then.direction
            )
    return RetestResult("not_yet", now, None, _more(series, now, numbers))


def _more(series: Series, now: MeasureMove, numbers: RetestNumbers) -> int | None:
    """Balls that would tell if mean and scatter, or the share, stay as they are."""
    hit = len(series.after)
    for more in range(1, min(numbers.most_more, numbers.looks - hit) + 1):
        if _p_value(series, now.after, hit + more) <= level_of(series, hit + more, numbers):
            return more
    return None


def _p_value(series: Series, after: float, balls: int) -> float:
    """Of so many balls with this mean, or share, and the scatter so far."""
    before = len(series.before)
    if series.is_share:
        counted = int(sum(series.before))
        return float(fisher_table(before, balls)[counted, round(after * balls)])
    was = spread2(series.before, series.floor)
    now = spread2(series.after, series.floor) if len(series.after) > 1 else was
    _, p_value = welch(after - fmean(series.before), (was, now), (before, balls))
    return p_value


def power(series: Series, after: float, balls: int, numbers: RetestNumbers) -> float:
    """How often a retest of so many balls would be called better, were this its true mean or share.

    By its last look alone: a little less than with all of them.
    """
    before = len(series.before)
    if before < 2:
        return 0.0
    level = level_of(series, balls, numbers)
    if series.is_share:
        came = int(sum(series.before))
        row = fisher_table(before, balls)[came]
        return math.fsum(
            math.comb(balls, k) * after**k * (1 - after) ** (balls - k)
            for k in range(balls + 1)
            if row[k] <= level and k / balls < came / before
        )
    spread = math.sqrt(spread2(series.before, series.floor) * (1 / before + 1 / balls))
    if level <= 0:
        return 0.0
    beyond = float(stdtrit(before + balls - 2, 1 - level / 2))
    return NORMAL.cdf(abs(after - fmean(series.before)) / spread - beyond)
