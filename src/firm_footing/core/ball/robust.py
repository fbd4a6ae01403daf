"""Where is the middle of balls that scatter, when one of them may be wild?

Location under a multivariate Student's t, by iterated reweighting: the maximum-likelihood location
for heavy tails (Lange, Little & Taylor 1989, from memory), but with no ball weighing more than one.
One weight for each ball. The scatter from ball to ball is known; only the middle is sought.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]

MOST_ITERATIONS = 50
SETTLED = 1e-4
"""Iteration stops once no weight moves by more than this."""

VAGUE = 1e-9
"""Precision added to every quantity so that one without readings stays finite and says nothing."""


@dataclass(frozen=True)
class Location:
    """The middle of a block.

    mean : (d,)
    precision : (d, d), information of all balls together; zero or singular where little was read
    weights : (n,), below one for balls far out
    distances2 : (n,), squared standardised distance of each ball from the middle
    """

    mean: FloatArray
    precision: FloatArray
    weights: FloatArray
    distances2: FloatArray


def locate(
    precision: FloatArray,
    pull: FloatArray,
    size2: FloatArray,
    readings: NDArray[np.int_],
    certain: NDArray[np.bool_],
    tail_df: float,
) -> Location:
    """Robust middle of n balls in d quantities.

    Parameters
    ----------
    precision : (n, d, d), pull : (n, d), size2 : (n,), readings : (n,)
        What each ball says: its squared distance from a middle m is
        size2 - 2 pull @ m + m @ precision @ m.
    certain : (n,) bool
        Balls that keep full weight however far out they are (a shank is information).
    tail_df : float
        Degrees of freedom of the tails; large means Gaussian.

    """
    n, d = pull.shape
    flat = precision.reshape(n, d * d)
    vague = VAGUE * np.eye(d)
    weights: FloatArray = np.ones(n)
    before: FloatArray = np.zeros(n)
    for _ in range(MOST_ITERATIONS):
        together = (weights @ flat).reshape(d, d)
        mean = np.linalg.solve(together + vague, weights @ pull)
        squares = flat @ np.outer(mean, mean).ravel()
        distances2 = np.maximum(size2 - 2 * (pull @ mean) + squares, 0.0)
        if np.abs(weights - before).max() < SETTLED:
            break
        before = weights
        tail = np.minimum((tail_df + readings) / (tail_df + distances2), 1.0)
        weights = np.where(certain, 1.0, tail)
    return Location(np.asarray(mean, dtype=np.float64), together, weights, distances2)
