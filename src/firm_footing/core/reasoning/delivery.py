"""How well does each story predict the delivery that the balls imply?

Gaussian: a story's mean is the player's cause-free delivery plus the effects of its causes, its
variance what differs between people plus half of each effect squared, plus the standard error of
what was read. One `Piece` for each number, so that each can be taken away again.
"""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.ball import Pattern
from firm_footing.core.ball.pattern import Scatter
from firm_footing.core.knowledge import DIMENSIONS
from firm_footing.core.reasoning.evidence import Piece, restoring
from firm_footing.core.reasoning.stories import Stories

FloatArray = NDArray[np.float64]

LOG_2PI = float(np.log(2 * np.pi))
PATH, FACE_TO_PATH = DIMENSIONS.index("path_deg"), DIMENSIONS.index("face_to_path_deg")
SINGLE = ("low_point_cm", "heel_toe_mm", "dynamic_loft_deg", "club_speed_pct")

SCATTER_NODES, _NODE_WEIGHTS = np.polynomial.hermite_e.hermegauss(7)
"""Gauss-Hermite nodes for how widely different people scatter (probabilists' form)."""
LOG_NODE_WEIGHTS = np.log(_NODE_WEIGHTS / _NODE_WEIGHTS.sum())


@lru_cache(maxsize=64)
def expected_delivery(stories: Stories, handicap: float) -> tuple[FloatArray, FloatArray]:
    """Mean (6, stories) and variance (6, stories) of the delivery under every story."""
    numbers = stories.knowledge.numbers.delivery
    mean = stories.shift.copy()
    low, strike = DIMENSIONS.index("low_point_cm"), DIMENSIONS.index("heel_toe_mm")
    mean[low] += numbers.cause_free_low_point_cm(handicap)
    mean[low] = np.maximum(mean[low], numbers.low_point_floor_cm)
    mean[strike] = np.maximum(mean[strike], numbers.strike_floor_mm)
    return mean, stories.spread2 + np.array(numbers.person_sd.row())[:, None] ** 2


def delivery_pieces(pattern: Pattern, stories: Stories, handicap: float) -> list[Piece]:
    """Evidence of the pattern: log-likelihood of every story, number by number."""
    mean, variance = expected_delivery(stories, handicap)
    pieces = _direction_pieces(pattern, mean, variance)
    for name in SINGLE:
        estimate = getattr(pattern, name)
        if estimate is not None:
            d = DIMENSIONS.index(name)
            total = variance[d] + estimate.se**2
            pieces.append(_piece(name, _gauss(estimate.value - mean[d], total)))
    if pattern.scatter is not None:
        pieces.append(_piece("scatter", _scatter(pattern.scatter, stories)))
    if pattern.two_way is not None:
        pieces.append(_piece("two_way", _two_way(pattern.two_way, stories)))
    return pieces


def _direction_pieces(pattern: Pattern, mean: FloatArray, variance: FloatArray) -> list[Piece]:
    """Path and face to path together; what each adds is what is lost without it."""
    if pattern.directions is None:
        return []
    middle, precision = pattern.directions
    noise = np.linalg.inv(precision + 1e-6 * np.eye(2))
    off_path, off_face = middle[0] - mean[PATH], middle[1] - mean[FACE_TO_PATH]
    a = variance[PATH] + noise[0, 0]
    b = variance[FACE_TO_PATH] + noise[1, 1]
    c = noise[0, 1]
    determinant = a * b - c * c
    mahalanobis = (b * off_path**2 - 2 * c * off_path * off_face + a * off_face**2) / determinant
    joint = -0.5 * (mahalanobis + np.log(determinant)) - LOG_2PI
    if pattern.path_deg is None or pattern.face_to_path_deg is None:
        name = "path_deg" if pattern.path_deg is not None else "start_deg"
        return [_piece(name, joint)]
    path_alone, face_alone = _gauss(off_path, a), _gauss(off_face, b)
    return [
        _piece("path_deg", path_alone, lost=joint - face_alone),
        _piece("face_to_path_deg", joint - path_alone),
    ]


def _piece(name: str, adds: FloatArray, lost: FloatArray | None = None) -> Piece:
    """A piece of the pattern; `lost` where it is not what the piece adds."""
    return Piece(f"pattern.{name}", adds, restoring(adds if lost is None else lost))


def _gauss(off: FloatArray, variance: FloatArray) -> FloatArray:
    out: FloatArray = -0.5 * (off**2 / variance + np.log(variance) + LOG_2PI)
    return out


def _scatter(scatter: Scatter, stories: Stories) -> FloatArray:
    """Wider scatter than usual speaks for causes that widen it.

    sum2 is chi-square distributed times the factor squared (its own-scatter share of it); the
    factor differs between people log-normally, which is integrated out.
    """
    spread = stories.knowledge.numbers.delivery.scatter_spread
    factors, which = stories.scatter_levels
    size2 = (factors[:, None] * np.exp(spread * SCATTER_NODES)) ** 2
    wide = scatter.own_share * size2 + 1 - scatter.own_share
    log_density = -0.5 * (scatter.freedom * np.log(wide) + scatter.sum2 / wide)
    by_factor = np.logaddexp.reduce(log_density + LOG_NODE_WEIGHTS, axis=1)
    out: FloatArray = by_factor[which]
    return out


@lru_cache(maxsize=8)
def _two_way(seen: bool, stories: Stories) -> FloatArray:
    """A two-way miss points to a stuck club, whatever got it stuck."""
    numbers = stories.knowledge.numbers.two_way
    stuck = stories.working_through(numbers.mechanism)
    yes = np.where(stuck, numbers.stuck, numbers.ordinary)
    return np.log(yes if seen else 1.0 - yes)
