"""Where is a measure once a cause is mended, wholly or in part?

A number moves as predicted. A share follows from the number whose tail its balls lie in: with
scatter s and a move m, a share p in one tail becomes Phi(Phi^-1(p) - m / s). Of a share with two
tails the normal curve about the number's mean is taken before and after.
"""

import math
from collections.abc import Mapping
from statistics import NormalDist, fmean, stdev
from typing import Any, Final

from firm_footing.core.coaching.measures import Series
from firm_footing.core.knowledge.measures import Tail

NORMAL: Final = NormalDist()
PRIOR_BALLS: Final = 5
"""The usual scatter counts like so many balls beside those that were hit."""


def moves_of(prediction: Mapping[str, Any] | None) -> dict[str, float]:
    """Number to how far it moves without the cause; the carry, as `carry_part`, of itself.

    prediction : a `WhatIf` as it was kept with the decision; None: nothing was predicted
    """
    said = prediction or {}
    now, without, moves = ((said.get(part) or {}) for part in ("now", "without", "moves"))
    found: dict[str, float] = {}
    for name in ("start_deg", "curve_deg", "low_point_cm", "heel_toe_mm", "carry_pct"):
        if moves.get(name):
            found[name] = moves[name]["value"]
        elif now.get(name) and without.get(name):
            found[name] = without[name]["value"] - now[name]["value"]
    carry = found.pop("carry_pct", None)
    if carry is not None:
        found["carry_part"] = carry / (now["carry_pct"]["value"] if now.get("carry_pct") else 100)
    return found


def after_move(
    series: Series, shown: Mapping[str, Series], predicted: Mapping[str, float], part: float
) -> float | None:
    """Mean or share after this part of the predicted change; None where nothing is predicted.

    Parameters
    ----------
    shown : all measures of the same balls, by id
    predicted : number to how far it moves; `carry_part` of itself
    part : of the change, 0 to 1

    """
    if not series.before:
        return None
    if series.measure.share is None:
        move = _move(series, predicted)
        return None if move is None else fmean(series.before) + part * move
    if series.measure.share.any_of:
        return _any_of(series, shown, predicted, part)
    for tail in series.measure.tails:
        move = _move(shown[tail.of], predicted)
        if move is not None:
            return _share_after(series, tail, shown[tail.of], part * move)
    return None


def _move(number: Series, predicted: Mapping[str, float]) -> float | None:
    """How far a number moves, in its unit."""
    if number.measure.id != "carry_m":
        return predicted.get(number.measure.id)
    part = predicted.get("carry_part")
    return None if part is None or not number.before else part * fmean(number.before)


def _share_after(series: Series, tail: Tail, number: Series, move: float) -> float | None:
    """A share once its number has moved."""
    came, balls = sum(series.before), len(series.before)
    share = (came + 0.5) / (balls + 1)
    sd = _scatter(number)
    if tail.beyond is None:
        away = move if tail.at_most is not None else -move
        return NORMAL.cdf(NORMAL.inv_cdf(share) - away / sd)
    if not number.before:
        return None
    mean = fmean(number.before)
    was, now = (_beyond(m, sd, tail.beyond) for m in (mean, mean + move))
    return min(1.0, share * now / was)


def _beyond(mean: float, sd: float, limit: float) -> float:
    return NORMAL.cdf((-limit - mean) / sd) + NORMAL.cdf((mean - limit) / sd)


def _scatter(number: Series) -> float:
    """Standard deviation of single balls: as hit, with what is usual."""
    usual = number.measure.number.usual_scatter if number.measure.number else 1.0
    balls = len(number.before)
    own = stdev(number.before) if balls > 1 else usual
    weight = max(0, balls - 1)
    together = (weight * own**2 + PRIOR_BALLS * usual**2) / (weight + PRIOR_BALLS)
    return max(number.floor, math.sqrt(together))


def _any_of(
    series: Series, shown: Mapping[str, Series], predicted: Mapping[str, float], part: float
) -> float | None:
    """The share of balls that miss in any way, each way thinned out as predicted."""
    assert series.measure.share is not None
    sound_before = sound_after = 1.0
    known = False
    for name in series.measure.share.any_of:
        way = shown[name]
        if not way.before:
            continue
        was = fmean(way.before)
        then = after_move(way, shown, predicted, part)
        known = known or then is not None
        sound_before *= 1 - min(was, 0.98)
        sound_after *= 1 - min(was if then is None else then, 0.98)
    missed = 1 - sound_before
    if not known or missed <= 0:
        return None
    return min(1.0, fmean(series.before) * (1 - sound_after) / missed)
