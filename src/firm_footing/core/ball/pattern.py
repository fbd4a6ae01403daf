"""Which delivery does a block of balls imply?

    start, curve, divot, strike, carry  ->  path, face to path, low point, strike, loft, energy

Each with its standard error; what was not seen is None. Every number is golfer-neutral.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.ball.carry import carry_lost_pct
from firm_footing.core.ball.information import BallInformation, information_of
from firm_footing.core.ball.readings import QUANTITIES, Reading
from firm_footing.core.ball.robust import Location, locate
from firm_footing.core.ball.shape import is_two_way, shape_name
from firm_footing.core.case import Block
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.numbers import Numbers

FloatArray = NDArray[np.float64]

KNOWN_SE = dict(zip(QUANTITIES, (5.0, 5.0, 10.0, 20.0, 6.0, 20.0), strict=True))
"""A quantity whose standard error is larger than this counts as not known."""

WINSOR_PER_READING = 6.0
"""Squared distance per reading beyond which a ball says no more about ordinary scatter."""


@dataclass(frozen=True)
class Estimate:
    """A value and its standard error, in the unit its name gives."""

    value: float
    se: float


@dataclass(frozen=True)
class Scatter:
    """How far the balls lie from their middle, against what is usual.

    sum2 : sum of squared standardised distances, about `freedom` for an ordinary player
    freedom : readings minus what was fitted
    own_share : part of the readings' variance that is the player's own scatter, 0 to 1
    """

    sum2: float
    freedom: int
    own_share: float


@dataclass(frozen=True)
class Pattern:
    """What a student's baseline balls show and the delivery they imply.

    directions : path and face to path together: mean (2,) and precision (2, 2), degrees; the
        precision is singular when only one combination of them was seen; None without readings
    two_way : None with fewer balls than could show it
    """

    balls: int
    start_deg: Estimate | None = None
    curve_deg: Estimate | None = None
    directions: tuple[FloatArray, FloatArray] | None = None
    path_deg: Estimate | None = None
    face_to_path_deg: Estimate | None = None
    low_point_cm: Estimate | None = None
    heel_toe_mm: Estimate | None = None
    dynamic_loft_deg: Estimate | None = None
    club_speed_pct: Estimate | None = None
    carry_lost_pct: Estimate | None = None
    scatter: Scatter | None = None
    shape: str | None = None
    two_way: bool | None = None


def read_pattern(blocks: Sequence[Block], knowledge: Knowledge) -> Pattern:
    """The pattern of all balls of these blocks together.

    Parameters
    ----------
    blocks : sequence of Block
        Golfer-neutral blocks; the caller leaves out those hit with something changed.
    knowledge : Knowledge
        For the clubs and the numbers.

    """
    numbers = knowledge.numbers
    balls = [(shot, block) for block in blocks for shot in block.shots]
    if not balls:
        return Pattern(balls=0)
    said = information_of(balls, knowledge)
    location = locate(
        said.precision,
        said.pull,
        said.size2,
        said.readings,
        said.hosel,
        numbers.delivery.ball_tail_df,
    )
    known = _known(location)
    start = _shown(said.start, location)
    curve = _shown(said.curve, location)
    return Pattern(
        balls=len(balls),
        start_deg=start,
        curve_deg=curve,
        directions=_directions(location),
        club_speed_pct=_club_speed(known, [b.club for b in blocks if b.shots], knowledge),
        scatter=_scatter(said, location, numbers),
        shape=_shape(start, curve, numbers),
        two_way=_two_way(said, numbers),
        **known,
    )


def _known(location: Location) -> dict[str, Estimate | None]:
    """Each quantity with its standard error, None where the readings do not fix it."""
    variance = np.diag(np.linalg.inv(location.precision + 1e-6 * np.eye(len(QUANTITIES))))
    ses = np.sqrt(variance)
    return {
        name: Estimate(float(value), float(se)) if se <= KNOWN_SE[name] else None
        for name, value, se in zip(QUANTITIES, location.mean, ses, strict=True)
    }


def _directions(location: Location) -> tuple[FloatArray, FloatArray] | None:
    precision = location.precision[:2, :2]
    return (location.mean[:2], precision) if precision.any() else None


def _shown(readings: Sequence[Reading | None], location: Location) -> Estimate | None:
    """Mean of one reading as the eye would take it, wild balls weighing less."""
    made = [(w, r.value) for w, r in zip(location.weights.tolist(), readings, strict=True) if r]
    if not made:
        return None
    total = sum(w for w, _ in made)
    mean = sum(w * value for w, value in made) / total
    spread = (sum(w * (value - mean) ** 2 for w, value in made) / total) ** 0.5
    return Estimate(mean, max(spread, 1.0) / len(made) ** 0.5)


def _shape(start: Estimate | None, curve: Estimate | None, numbers: Numbers) -> str | None:
    if start is None or curve is None:
        return None
    return shape_name(start.value, curve.value, numbers.shape)


def _two_way(said: BallInformation, numbers: Numbers) -> bool | None:
    pairs = [(a.value, b.value) for a, b in zip(said.start, said.curve, strict=True) if a and b]
    if len(pairs) < 2 * numbers.two_way.least_each:
        return None
    return is_two_way(pairs, numbers.two_way)


def _club_speed(
    known: dict[str, Estimate | None], clubs: Sequence[str], knowledge: Knowledge
) -> Estimate | None:
    """Club speed against the expected, in per cent, from the carry that nothing else explains."""
    lost = known["carry_lost_pct"]
    if lost is None:
        return None
    loss = knowledge.numbers.carry_loss
    delivery = {name: e.value for name, e in known.items() if e}
    per_loft = sum(knowledge.club[c].loss_per_loft_deg for c in clubs) / len(clubs)
    explained = carry_lost_pct(delivery, per_loft, loss)
    se = float(np.hypot(lost.se, loss.model_sd_pct)) / loss.per_club_speed_pct
    return Estimate(-(lost.value - explained) / loss.per_club_speed_pct, se)


def _scatter(said: BallInformation, location: Location, numbers: Numbers) -> Scatter | None:
    """All balls' distances from their middle together; wild ones count as merely far."""
    if len(said.readings) < numbers.delivery.scatter_least_balls:
        return None
    fitted = int(np.linalg.matrix_rank(location.precision))
    freedom = int(said.readings.sum()) - fitted
    capped = np.minimum(location.distances2, WINSOR_PER_READING * said.readings)
    return Scatter(float(capped.sum()), freedom, said.scatter_share) if freedom > 0 else None
