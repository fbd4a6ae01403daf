"""What would this student's pattern be without this cause?"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.ball import Estimate, Pattern
from firm_footing.core.ball.carry import carry_lost_pct
from firm_footing.core.knowledge import DIMENSIONS, Club
from firm_footing.core.reasoning.delivery import FACE_TO_PATH, LOW_POINT, PATH, STRIKE
from firm_footing.core.reasoning.removal import Branch, branches, change_of
from firm_footing.core.reasoning.stories import Stories
from firm_footing.core.reasoning.weighing import Weighing

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class Seen:
    """What an eye on the tee would see of a block, or of a change; None where it is not known.

    start_deg, curve_deg : + push side
    low_point_cm : + ahead of the ball
    heel_toe_mm : + toe
    carry_pct : of the expected carry; of a change, points of it
    """

    start_deg: Estimate | None
    curve_deg: Estimate | None
    low_point_cm: Estimate | None
    heel_toe_mm: Estimate | None
    carry_pct: Estimate | None


@dataclass(frozen=True, eq=False)
class Change:
    """An expected change of the delivery.

    mean : (6,) order of DIMENSIONS
    covariance : (6, 6) how much it differs between the stories and people it may be
    """

    mean: FloatArray
    covariance: FloatArray


@dataclass(frozen=True)
class WhatIf:
    """A pattern as it is and as it would be without one cause and what that brought about."""

    cause: str
    now: Seen
    without: Seen


def without(weighing: Weighing, cause: str, club: Club) -> WhatIf:
    """Predict the pattern without a cause, supposing that it is present.

    Parameters
    ----------
    cause : id of a cause; KeyError when there is none of that name
    club : with which the balls were hit

    """
    stories = weighing.stories
    present = stories.story_members[:, weighing.knowledge.cause_index[cause]]
    change = expected_change(
        stories,
        weighing.story * present,
        branches(stories, (cause,), 1.0),
        weighing.severity,
    )
    now = seen_now(weighing.pattern)
    return WhatIf(cause, now, _after(now, change, weighing, club))


def expected_change(
    stories: Stories,
    weights: FloatArray,
    possible: tuple[Branch, ...],
    severity: FloatArray | None,
) -> Change:
    """Mean and covariance of what changes, over stories and branches.

    Parameters
    ----------
    weights : (stories,) need not sum to one
    possible : what can be gone; see `branches`
    severity : see `Joint`

    """
    heavy = np.flatnonzero(weights > 1e-6 * weights.max())
    weights = weights[heavy] / weights[heavy].sum()
    spread2 = stories.knowledge.numbers.delivery.effect_spread**2
    total = sum(b.probability for b in possible)
    mean = np.zeros(len(DIMENSIONS))
    second = np.zeros((len(DIMENSIONS), len(DIMENSIONS)))
    for branch in possible:
        here = Branch(branch.probability, branch.gone[:, heavy])
        graver = None if severity is None else severity[:, heavy]
        change = change_of(stories, here, graver)
        each = weights * branch.probability / total
        mean += change @ each
        second += (change * each) @ change.T
        for gone in here.gone:
            effect = stories.effects[gone].T
            second += spread2 * (effect * each) @ effect.T
    return Change(mean, second - np.outer(mean, mean))


def seen_now(pattern: Pattern) -> Seen:
    """The pattern as it was seen."""
    lost = pattern.carry_lost_pct
    return Seen(
        start_deg=pattern.start_deg,
        curve_deg=pattern.curve_deg,
        low_point_cm=pattern.low_point_cm,
        heel_toe_mm=pattern.heel_toe_mm,
        carry_pct=lost and Estimate(100 - lost.value, lost.se),
    )


def change_seen(change: Change, club: Club) -> Seen:
    """A change of the delivery as an eye would see it; carry is left out, for it is not linear."""
    start, curve = np.zeros(len(DIMENSIONS)), np.zeros(len(DIMENSIONS))
    start[[PATH, FACE_TO_PATH]] = 1.0, club.start_face_share
    curve[FACE_TO_PATH] = club.curve_per_deg
    each = np.eye(len(DIMENSIONS))

    def of(direction: FloatArray) -> Estimate:
        variance = max(0.0, float(direction @ change.covariance @ direction))
        return Estimate(float(direction @ change.mean), variance**0.5)

    return Seen(of(start), of(curve), of(each[LOW_POINT]), of(each[STRIKE]), None)


def _after(now: Seen, change: Change, weighing: Weighing, club: Club) -> Seen:
    moved = change_seen(change, club)
    return Seen(
        start_deg=_added(now.start_deg, moved.start_deg),
        curve_deg=_added(now.curve_deg, moved.curve_deg),
        low_point_cm=_added(now.low_point_cm, moved.low_point_cm),
        heel_toe_mm=_added(now.heel_toe_mm, moved.heel_toe_mm),
        carry_pct=_carry(now.carry_pct, change, weighing, club),
    )


def _added(now: Estimate | None, change: Estimate | None) -> Estimate | None:
    if now is None or change is None:
        return None
    return Estimate(now.value + change.value, float(np.hypot(now.se, change.se)))


def _carry(now: Estimate | None, change: Change, weighing: Weighing, club: Club) -> Estimate | None:
    """The carry that comes back: the delivery is costed as it is and as it would be."""
    if now is None:
        return None
    loss = weighing.knowledge.numbers.carry_loss
    delivery = {
        name: estimate.value
        for name in DIMENSIONS
        if (estimate := getattr(weighing.pattern, name)) is not None
    }
    better = {
        name: delivery.get(name, 0.0) + float(step)
        for name, step in zip(DIMENSIONS, change.mean, strict=True)
    }
    won = carry_lost_pct(delivery, club.loss_per_loft_deg, loss)
    won -= carry_lost_pct(better, club.loss_per_loft_deg, loss)
    return Estimate(now.value + won, float(np.hypot(now.se, loss.model_sd_pct)))
