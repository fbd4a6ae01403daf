"""What would this student's pattern be without this cause?"""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.inference import Inference
from firm_footing.core.inference.intervention import (
    Branch,
    OwnSizes,
    branches,
    change_of,
    only_itself,
)
from firm_footing.core.knowledge import DIMENSIONS
from firm_footing.core.patterns import Estimate, Pattern
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    LOW_POINT,
    PARTS,
    PATH,
    STRIKE,
    Setting,
    clear_of_ground_cm,
)
from firm_footing.core.physics.surrogate import land


@dataclass(frozen=True)
class SeenBall:
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
class DeliveryShift:
    """An expected change of the delivery.

    mean : (6,) order of DIMENSIONS
    covariance : (6, 6) how much it differs between the configurations and people it may be
    """

    mean: FloatArray
    covariance: FloatArray


class Moved(NamedTuple):
    """A number of the delivery now and without a cause, in its unit."""

    now: float
    then: float


@dataclass(frozen=True)
class WhatIf:
    """A pattern as it is and as it would be without one cause and what that brought about.

    moves : by how much each number changes, also of those that the balls did not show
    path_deg, face_to_path_deg : of the club, + push side; None where the balls do not fix it
    """

    cause: str
    now: SeenBall
    without: SeenBall
    moves: SeenBall
    path_deg: Moved | None
    face_to_path_deg: Moved | None


def without(inference: Inference, cause: str, *, alone: bool = False) -> WhatIf:
    """Predict the pattern without a cause, supposing that it is present.

    Parameters
    ----------
    cause : id of a cause; KeyError when there is none of that name
    alone : whether what it brought about stays

    """
    space = inference.space
    present = space.configuration_members[:, inference.knowledge.cause_index[cause]]
    change = expected_change(
        space,
        inference.configuration * present,
        only_itself(space, cause)
        if alone
        else branches(space, (cause,), 1.0, inference.schools.views),
        inference.own_sizes,
        inference.handicap,
    )
    now = seen_now(inference.pattern)
    moves = change_seen(change, inference)
    pattern = inference.pattern
    return WhatIf(
        cause,
        now,
        _after(now, moves),
        moves,
        path_deg=_moved_by(pattern.path_deg, float(change.mean[PATH])),
        face_to_path_deg=_moved_by(pattern.face_to_path_deg, float(change.mean[FACE_TO_PATH])),
    )


def _moved_by(now: Estimate | None, by: float) -> Moved | None:
    return None if now is None else Moved(now.value, now.value + by)


def expected_change(
    space: HypothesisSpace,
    weights: FloatArray,
    possible: tuple[Branch, ...],
    sizes: OwnSizes | None,
    handicap: float,
) -> DeliveryShift:
    """Mean and covariance of what changes, over configurations and branches.

    Parameters
    ----------
    weights : (configurations,) need not sum to one
    possible : what can be gone; see `branches`
    sizes : of every configuration; None where nothing is known

    """
    heavy = weights > 1e-6 * weights.max()
    spread2 = space.knowledge.numbers.delivery.severity_within**2
    total = weights[heavy].sum() * sum(b.probability for b in possible)
    mean = np.zeros(len(DIMENSIONS))
    second = np.zeros((len(DIMENSIONS), len(DIMENSIONS)))
    gone_share = np.zeros(len(space.unit_effects))  # how often each variant is gone
    for branch in possible:
        counts = heavy[branch.configurations]  # elsewhere nothing changes
        kept = Branch(branch.probability, branch.configurations[counts], branch.gone[:, counts])
        here, gone = kept.configurations, kept.gone
        each = weights[here] * branch.probability / total
        own = None if sizes is None else sizes.of(here)
        change = change_of(space, kept, own, handicap)
        mean += change @ each
        second += (change * each) @ change.T
        for row in gone:
            gone_share += np.bincount(row, each, len(gone_share))
    second += spread2 * (space.unit_effects.T * gone_share) @ space.unit_effects
    return DeliveryShift(mean, second - np.outer(mean, mean))


def seen_now(pattern: Pattern) -> SeenBall:
    """The pattern as it was seen."""
    lost = pattern.carry_lost_pct
    return SeenBall(
        start_deg=pattern.start_deg,
        curve_deg=pattern.curve_deg,
        low_point_cm=pattern.low_point_cm,
        heel_toe_mm=pattern.heel_toe_mm,
        carry_pct=lost and Estimate(100 - lost.value, lost.se),
    )


def change_seen(change: DeliveryShift, inference: Inference) -> SeenBall:
    """A change of the delivery as an eye would see it."""
    mean, se = _moved(change, inference)
    start, curve, low_point, strike, carry = (
        Estimate(m, s) for m, s in zip(mean.tolist(), se.tolist(), strict=True)
    )
    return SeenBall(start, curve, low_point, strike, carry)


def _moved(change: DeliveryShift, inference: Inference) -> tuple[FloatArray, FloatArray]:
    """(5,) what the eye would see change, from where the delivery is now, and the doubt of it."""
    here = np.zeros(len(PARTS))
    here[LOW_POINT] = clear_of_ground_cm(inference.setting)
    if inference.pattern.delivered is not None:
        here = inference.pattern.delivered.mean
    size, ways = np.linalg.eigh(change.covariance)
    each = (ways * np.sqrt(np.maximum(size, 0.0))).T
    steps = np.zeros((2 + 2 * len(each), len(PARTS)))
    steps[1:, : len(DIMENSIONS)] = change.mean + np.vstack([np.zeros_like(each[:1]), each, -each])
    seen = _eye(here + steps, inference.setting)
    up, down = seen[2 : 2 + len(each)], seen[2 + len(each) :]
    return seen[1] - seen[0], np.sqrt((((up - down) / 2) ** 2).sum(axis=0))


def _eye(parts: FloatArray, setting: Setting) -> FloatArray:
    """(n, 5) start, curve, low point, strike, and carry in per cent of a square blow's."""
    square = np.zeros((1, len(PARTS)))
    square[0, LOW_POINT] = clear_of_ground_cm(setting)
    landed = land(np.vstack([square, parts]), setting)
    carry = 100 * np.exp(landed.log_carry - landed.log_carry[0])
    return np.stack(
        [
            landed.launch.direction_deg[1:],
            landed.curve_deg[1:],
            parts[:, LOW_POINT],
            parts[:, STRIKE],
            carry[1:],
        ],
        axis=1,
    )


def _after(now: SeenBall, moved: SeenBall) -> SeenBall:
    return SeenBall(
        start_deg=_added(now.start_deg, moved.start_deg),
        curve_deg=_added(now.curve_deg, moved.curve_deg),
        low_point_cm=_added(now.low_point_cm, moved.low_point_cm),
        heel_toe_mm=_added(now.heel_toe_mm, moved.heel_toe_mm),
        carry_pct=_added(now.carry_pct, moved.carry_pct),
    )


def _added(now: Estimate | None, change: Estimate | None) -> Estimate | None:
    if now is None or change is None:
        return None
    return Estimate(now.value + change.value, float(np.hypot(now.se, change.se)))
