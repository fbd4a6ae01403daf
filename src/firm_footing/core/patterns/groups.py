"""Is this block one swing with its scatter, or two swings?

Seven pull-slices and three push-hooks have a middle that nobody hit. Two groups are told from one
by how much better they explain where the balls started and how they curved: a mixture of two normal
curves against one, each as wide as a player's balls scatter, give or take, over a thin background
for wild balls. Fitted by expectation and maximisation (Dempster, Laird & Rubin 1977) from many
first splits; the gain that counts was set on simulated blocks of one swing.
"""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.numbers import BlockNumbers, Shape
from firm_footing.core.patterns.shape import shape_name

BACKGROUND_SHARE, BACKGROUND_WIDTH = 0.04, 4.0
"""Share of wild balls and how many times wider they lie."""
SCALE_SPREAD = 0.22
"""How much the size of the scatter differs between players (log)."""
DIRECTIONS, ROUNDS = 8, 12
TRIED_ROUNDS, KEPT_SPLITS = 4, 12
"""After so many rounds only the most promising first splits are fitted on."""


@dataclass(frozen=True)
class BallGroup:
    """Balls that belong together.

    balls : their numbers in the block, from 0
    start_deg, curve_deg : their middle, + push side
    shape : in the trade's word
    """

    balls: tuple[int, ...]
    start_deg: float
    curve_deg: float
    shape: str


def groups_of(
    flown: FloatArray, covariance: FloatArray, block: BlockNumbers, shape: Shape
) -> tuple[BallGroup, ...]:
    """Two groups, the larger first; none where one explains the balls as well.

    Parameters
    ----------
    flown : (n, 2) start and curve in degrees, NaN where not noted
    covariance : (2, 2) how one swing's balls scatter, the doubt of the notes included

    """
    noted = np.flatnonzero(np.isfinite(flown).all(axis=1))
    if len(noted) < 2 * block.groups_least + 1:
        return ()
    root = np.linalg.cholesky(covariance)
    standard = np.linalg.solve(root, (flown[noted] - flown[noted].mean(axis=0)).T).T
    splits = _splits(standard)
    one, _ = _fit(standard, np.ones((1, 1, len(noted))))
    two, belongs = _fit(standard, np.stack([splits, 1 - splits]))
    if two - one < block.groups_gain:
        return ()
    sides = [np.flatnonzero(belongs >= 0.5), np.flatnonzero(belongs < 0.5)]
    if min(len(side) for side in sides) < block.groups_least:
        return ()
    return tuple(
        _group(noted[side], flown, shape) for side in sorted(sides, key=lambda s: (-len(s), s[0]))
    )


def _group(balls: NDArray[np.int_], flown: FloatArray, shape: Shape) -> BallGroup:
    start, curve = flown[balls].mean(axis=0).tolist()
    return BallGroup(tuple(balls.tolist()), start, curve, shape_name(start, curve, shape))


def _splits(standard: FloatArray) -> FloatArray:
    """(splits, n) first guesses: the balls parted across lines in several directions."""
    angles = np.arange(DIRECTIONS) * np.pi / DIRECTIONS
    found = []
    for angle in angles:
        order = np.argsort(standard @ (np.cos(angle), np.sin(angle)), kind="stable")
        rank = np.argsort(order, kind="stable")
        found += [rank < cut for cut in range(1, len(standard))]
    return np.unique(np.array(found), axis=0).astype(np.float64)


def _fit(standard: FloatArray, first: FloatArray) -> tuple[float, FloatArray]:
    """Greatest log-likelihood over the first splits, and how far each ball is of the first group.

    standard : (n, 2) with a usual scatter of one
    first : (groups, splits, n) how far each ball is of each group to begin with
    """
    tried = _rounds(standard, first, np.ones(first.shape[1:]), TRIED_ROUNDS)
    best = np.argsort(-tried.log, kind="stable")[:KEPT_SPLITS]
    kept = tried.belongs[:, best], tried.ordinary[best]
    fitted = _rounds(standard, *kept, ROUNDS - TRIED_ROUNDS)
    best_of_all = int(np.argmax(fitted.log))
    return float(fitted.log[best_of_all]), fitted.belongs[0, best_of_all]


class _Fitted(NamedTuple):
    """log (splits,), belongs (groups, splits, n), and ordinary (splits, n): P(not a wild ball)."""

    log: FloatArray
    belongs: FloatArray
    ordinary: FloatArray


def _rounds(
    standard: FloatArray, belongs: FloatArray, ordinary: FloatArray, rounds: int
) -> _Fitted:
    """So many rounds of expectation and maximisation."""
    wild = _density((standard**2).sum(axis=1), np.array(BACKGROUND_WIDTH**2))
    for _ in range(rounds):
        weight = belongs * ordinary
        total = np.maximum(weight.sum(axis=2), 1e-9)
        middle = (weight @ standard) / total[:, :, None]
        away2 = ((standard[None, None] - middle[:, :, None]) ** 2).sum(axis=3)
        log_size = _log_size((weight * away2).sum(axis=(0, 2)), weight.sum(axis=(0, 2)))
        size2 = np.exp(2 * log_size)
        share = total / total.sum(axis=0)
        each = share[:, :, None] * _density(away2, size2[None, :, None])
        both = each.sum(axis=0)
        belongs = each / np.maximum(both, 1e-300)
        all_of_it = (1 - BACKGROUND_SHARE) * both + BACKGROUND_SHARE * wild
        ordinary = (1 - BACKGROUND_SHARE) * both / all_of_it
    log = np.log(all_of_it).sum(axis=1) - 0.5 * (log_size / SCALE_SPREAD) ** 2
    return _Fitted(log, belongs, ordinary)


def _log_size(away2: FloatArray, balls: FloatArray) -> FloatArray:
    """(splits,) the likeliest scatter against the usual (log), by Newton's steps."""
    log_size = np.zeros_like(away2)
    for _ in range(4):
        pull = away2 * np.exp(-2 * log_size)
        slope = pull - 2 * balls - log_size / SCALE_SPREAD**2
        log_size = log_size + slope / (2 * pull + 1 / SCALE_SPREAD**2)
    return log_size


def _density(away2: FloatArray, size2: FloatArray) -> FloatArray:
    out: FloatArray = np.exp(-0.5 * away2 / size2) / (2 * np.pi * size2)
    return out
