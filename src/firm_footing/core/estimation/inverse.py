"""Which delivery do the balls of a block imply, and how sure is it?

    middle of the block ──► each ball's delivery ──► what was noted of it
        prior               the player's scatter       values with noise, words as intervals

Bayes over the forward models. The physics is made linear about each ball's own delivery, again and
again; an interval is replaced by the normal curve that has the same effect on what is believed
(expectation propagation: Minka 2001, from memory; exact for one interval, and close to exact for
many, since an interval's likelihood is log-concave). A wild ball weighs less, as under a
Student's t. What the balls say is kept apart from the prior, so that a reasoner with priors of its
own can use it; and it is also given together with the errors that all balls of a block share (a mat
that is not square to the target, a carry held against a doubtful mark), for that reasoner to weigh.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Block
from firm_footing.core.estimation.intervals import interval_slopes
from firm_footing.core.estimation.linear import LinearPhysics
from firm_footing.core.estimation.observations import (
    UNOBSERVED_VARIANCE,
    Observations,
    is_observed,
    observations_of,
)
from firm_footing.core.estimation.readings import READINGS
from firm_footing.core.estimation.scatter import Away
from firm_footing.core.estimation.shared import SharedErrors, shared_errors
from firm_footing.core.estimation.shown import Physics
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.physics.forward import HEIGHT, LOW_POINT, PARTS

SWEEPS = (2, 1, 2)
"""How often the intervals are fitted, each time that the physics is made linear anew.

More change the middle by less than a thousandth of its doubt; in the second pass the physics moves
farther than the intervals do.
"""
ELSEWHERE: Final = READINGS.index("contact_elsewhere")
"""A word that leaves most of the face open says nothing of how widely balls scatter on it."""
LIMITS = np.array([30.0, 30.0, 25.0, 40.0, 15.0, 45.0, 20.0])
"""A ball's delivery is looked for this far either way, order of `PARTS`."""


@dataclass(frozen=True, eq=False)
class Delivered:
    """What a block says of its delivery, in the order of `PARTS`.

    prior_mean, prior : (7,), (7, 7) what is usual and its precision
    information, vector : (7, 7), (7,) information matrix and vector of what the balls say, without
        prior and as if nothing were off for a whole block
    shared_sd : (errors,) standard deviations of the errors that a block's balls share
    with_shared, vector_with_shared : (7 + errors, 7 + errors), (7 + errors,) information of the
        delivery and of the shared errors together
    mean, covariance : (7,), (7, 7) of the block's middle, with the prior
    balls, ball_covariance : (n, 7), (n, 7, 7) of each ball
    distances2 : (n,) squared standardised distance of each ball from the middle, by usual scatter
    weights : (n,) below one for balls far out
    scatter2 : (n, 7) variance of each ball about the middle, as fitted to its block
    counted : (n,) notes that the distance is made of
    own_share : part of those notes' variance that is the player's own scatter
    speed_named : whether club speed is against a carry that the instructor expects; otherwise it is
        against what these balls or the handicap make usual, and says nothing about the student
    """

    prior_mean: FloatArray
    prior: FloatArray
    information: FloatArray
    vector: FloatArray
    shared_sd: FloatArray
    with_shared: FloatArray
    vector_with_shared: FloatArray
    mean: FloatArray
    covariance: FloatArray
    balls: FloatArray
    ball_covariance: FloatArray
    distances2: FloatArray
    weights: FloatArray
    scatter2: FloatArray
    counted: NDArray[np.int_]
    own_share: float
    speed_named: bool


def read_delivery(
    blocks: tuple[Block, ...], knowledge: Knowledge, handicap: float | None = None
) -> Delivered:
    """The delivery of all balls of these blocks together.

    Raises
    ------
    ValueError
        There is no ball.

    """
    physics = [Physics(b, knowledge, handicap) for b in blocks if b.shots]
    balls = [(s, b) for b in blocks for s in b.shots]
    if not balls:
        raise ValueError("there is no ball to read")
    noted = observations_of(balls, knowledge)
    certain = np.array([s.contact == "hosel" for s, _ in balls])
    named = all(b.expected_carry_m is not None for b in blocks if b.shots)
    shared = shared_errors(blocks, knowledge, handicap)
    return _Inverse(physics, noted, certain, knowledge, handicap).run(named, shared, knowledge)


class _Inverse:
    """One block's reading; the state is the sites of all notes and the deliveries so far."""

    def __init__(
        self,
        physics: list[Physics],
        noted: Observations,
        certain: NDArray[np.bool_],
        knowledge: Knowledge,
        handicap: float | None,
    ) -> None:
        self.noted, self.certain = noted, certain
        numbers = knowledge.numbers.delivery
        self.tail_df = numbers.ball_tail_df
        self.spread = numbers.scatter_spread
        self.prior_mean, self.prior, self.usual2 = _populations(knowledge, handicap)
        self.value, self.variance = noted.value.copy(), noted.variance.copy()
        self.known = np.stack([is_observed(noted, part) for part in range(len(PARTS))], axis=1)
        self.physics = LinearPhysics(physics, noted.made)
        self.weights: FloatArray = np.ones(len(noted.value))
        self.scatter2 = np.tile(self.usual2, (len(noted.value), 1))

    def run(self, speed_named: bool, shared: SharedErrors, knowledge: Knowledge) -> Delivered:
        """Make it linear, fit the intervals, weigh the balls; again from there."""
        mean = self.prior_mean
        covariance = _inverse(self.prior)
        parts = np.tile(mean, (len(self.value), 1))
        around = np.tile(covariance + np.diag(self.usual2), (len(self.value), 1, 1))
        for done, sweeps in enumerate(SWEEPS):
            shown, slopes, self.left_over = self.physics.linear(parts, _root(around))
            offset = shown - (slopes @ parts[:, :, None])[:, :, 0]
            away = self._away(mean, offset, slopes, self.noted.value, self.noted.variance)
            if done:  # about their own middle, not the usual one
                noise2 = self.variance.copy()
                noise2[:, ELSEWHERE] = UNOBSERVED_VARIANCE
                self._fit_scatter(self._away(mean, offset, slopes, self.value, noise2))
            fitted2 = away.distances2(self.scatter2)
            tail = np.minimum(1.0, (self.tail_df + away.counted) / (self.tail_df + fitted2))
            self.weights = np.where(self.certain, 1.0, tail)
            for _ in range(sweeps):
                said, vector, each, each_vector = self._sites(offset, slopes)
                covariance = _inverse(self.prior + said)
                mean = covariance @ (self.prior @ self.prior_mean + vector)
                balls, ball_covariance = self._balls(each, each_vector, mean, covariance)
                self._fit_intervals(offset, slopes, balls, ball_covariance)
            parts, around = self._from_here(mean, covariance, balls, ball_covariance)
        speed = self.physics.speed_of_marks(slopes)
        slopes = np.concatenate([slopes, shared.slopes, speed], axis=2)
        shared_sd = np.concatenate([shared.sd, shared.mark_pct])
        self._take_in_doubtful_carries(shared, knowledge)
        with_shared, vector_with_shared, _, _ = self._sites(offset, slopes)
        return Delivered(
            self.prior_mean, self.prior, said, vector, shared_sd, with_shared, vector_with_shared,
            mean, covariance, balls, ball_covariance,
            away.distances2(np.tile(self.usual2, (len(self.value), 1))), self.weights,
            self.scatter2, away.counted, self._own_share(slopes), speed_named,
        )  # fmt: skip

    def _take_in_doubtful_carries(self, shared: SharedErrors, knowledge: Knowledge) -> None:
        """Carries held against a mark that nobody named count beside what the mark may be off."""
        balls, column = np.flatnonzero(~np.isnan(shared.carry)), READINGS.index("carry")
        self.value[balls, column] = shared.carry[balls]
        self.variance[balls, column] = (knowledge.numbers.reading.carry_sd_pct / 100) ** 2

    def _from_here(
        self,
        mean: FloatArray,
        covariance: FloatArray,
        balls: FloatArray,
        around: FloatArray,
    ) -> tuple[FloatArray, FloatArray]:
        """Where to make it linear next, and with what doubt.

        A ball's own delivery counts in what was noted directly; in the rest, the block's. Were its
        own taken there too, every ball would be read with the slopes that suit it best, and what
        all balls share (loft, speed) would be drawn to where little scatter is needed.
        """
        parts = np.where(self.known, np.clip(balls, -LIMITS, LIMITS), mean)
        both = self.known[:, :, None] & self.known[:, None, :]
        neither = ~self.known[:, :, None] & ~self.known[:, None, :]
        whole = covariance + self.scatter2[:, :, None] * np.eye(len(PARTS))
        return parts, np.where(both, around, np.where(neither, whole, 0.0))

    def _sites(
        self, offset: FloatArray, slopes: FloatArray
    ) -> tuple[FloatArray, FloatArray, FloatArray, FloatArray]:
        """Information of the middle (d, d), (d,); and of each ball (n, d, d), (n, d).

        d is 7, or more where errors are read that all balls share, which do not scatter.
        """
        weighted = slopes / (self.variance + self.left_over)[:, :, None]
        each = weighted.swapaxes(1, 2) @ slopes
        each_vector = (weighted * (self.value - offset)[:, :, None]).sum(axis=1)
        size = slopes.shape[2]
        scatter2 = np.zeros((len(slopes), size))
        scatter2[:, : len(PARTS)] = self.scatter2 / self.weights[:, None]
        through = np.linalg.inv(np.eye(size) + each * scatter2[:, None, :])
        information = (through @ each).sum(axis=0)
        vector = (through @ each_vector[:, :, None])[:, :, 0].sum(axis=0)
        return (information + information.T) / 2, vector, each, each_vector

    def _balls(
        self, each: FloatArray, each_vector: FloatArray, mean: FloatArray, covariance: FloatArray
    ) -> tuple[FloatArray, FloatArray]:
        """Mean and covariance of each ball's delivery."""
        own = self.weights[:, None] / self.scatter2
        alone = np.linalg.inv(each + own[:, :, None] * np.eye(len(PARTS)))
        balls = (alone @ (own * mean + each_vector)[:, :, None])[:, :, 0]
        share = alone * own[:, None, :]
        return balls, alone + share @ covariance @ share.swapaxes(1, 2)

    def _fit_intervals(
        self, offset: FloatArray, slopes: FloatArray, balls: FloatArray, covariance: FloatArray
    ) -> None:
        """Replace each interval by the normal curve of the same effect."""
        rows, columns = np.nonzero(self.noted.interval)
        a = slopes[rows, columns]
        middle = (a * balls[rows]).sum(axis=1) + offset[rows, columns]
        variance = (a[:, None, :] @ covariance[rows] @ a[:, :, None])[:, 0, 0]
        value = self.value[rows, columns]
        own = self.variance[rows, columns] + self.left_over[rows, columns]
        rest = np.maximum(1 / variance - 1 / own, 1e-9)
        without = (middle / variance - value / own) / rest
        least, most = self.noted.least[rows, columns], self.noted.most[rows, columns]
        limit_variance = self.noted.limit_variance[rows, columns] + self.left_over[rows, columns]
        slope, bend = interval_slopes(without, 1 / rest + limit_variance, least, most)
        self.value[rows, columns] = without - slope / bend
        self.variance[rows, columns] = np.maximum(
            -1 / bend - 1 / rest - self.left_over[rows, columns], 1e-4
        )

    def _away(
        self,
        mean: FloatArray,
        offset: FloatArray,
        slopes: FloatArray,
        value: FloatArray,
        noise2: FloatArray,
    ) -> Away:
        """How far each ball lies from a middle, by these values of its readings."""
        variance = noise2 + self.left_over
        away = value - offset - slopes @ mean
        weighted = slopes / variance[:, :, None]
        return Away(
            each=weighted.swapaxes(1, 2) @ slopes,
            pulled=(weighted * away[:, :, None]).sum(axis=1),
            away2=(away**2 / variance).sum(axis=1),
            counted=(noise2 < UNOBSERVED_VARIANCE).sum(axis=1),
        )

    def _fit_scatter(self, away: Away) -> None:
        """Each block's scatter, fitted to its balls; up and down the face it is as is usual.

        A ball off the hosel says where it was struck, and nothing of how the others scatter.
        """
        without_height = away.without(HEIGHT, self.usual2[HEIGHT])
        for here in self.physics.blocks:
            ordinary = np.zeros(len(self.certain), dtype=bool)
            ordinary[here] = ~self.certain[here]
            factor2 = without_height.of(ordinary).fitted_factor2(
                np.sqrt(self.usual2[:HEIGHT]), self.prior[:HEIGHT, :HEIGHT], self.spread
            )
            self.scatter2[here, :HEIGHT] = factor2 * self.usual2[:HEIGHT]

    def _own_share(self, slopes: FloatArray) -> float:
        """Part of the notes' variance that is the player's own usual scatter."""
        counted = self.noted.variance < UNOBSERVED_VARIANCE
        scattered = (slopes[:, :, : len(PARTS)] ** 2 @ self.usual2)[counted].sum()
        noise = (self.noted.variance + self.left_over)[counted].sum()
        return float(scattered / (scattered + noise)) if counted.any() else 0.0


def _inverse(matrix: FloatArray) -> FloatArray:
    return np.linalg.inv(matrix).astype(np.float64, copy=False)


def _root(covariance: FloatArray) -> FloatArray:
    """Lower triangle whose square it is."""
    return np.linalg.cholesky(covariance).astype(np.float64, copy=False)


@lru_cache(maxsize=64)
def _populations(
    knowledge: Knowledge, handicap: float | None
) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Stated prior of a block's middle: mean (7,), precision (7, 7); and balls' scatter² (7,)."""
    numbers = knowledge.numbers.delivery
    stroke = knowledge.numbers.handicap_left_out if handicap is None else handicap
    mean = np.zeros(len(PARTS))
    mean[LOW_POINT] = numbers.cause_free_low_point_cm(stroke)
    height = numbers.ball_height_sd_mm
    prior_sd = np.array([*numbers.prior_sd.row(), height])
    ball_sd = np.array([*numbers.ball_sd.row(), height])
    return mean, np.diag(1 / prior_sd**2), ball_sd**2
