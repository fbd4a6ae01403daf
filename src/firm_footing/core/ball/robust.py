"""Where is the middle of readings that scatter, when one of them may be wild?

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
    readings : (n,), how many readings each ball has
    scatter_share : part of the readings' variance that is the player's own scatter, 0 to 1
    """

    mean: FloatArray
    precision: FloatArray
    weights: FloatArray
    distances2: FloatArray
    readings: NDArray[np.int_]
    scatter_share: float


def locate(
    values: FloatArray,
    sds: FloatArray,
    design: FloatArray,
    scatter_sd: FloatArray,
    tail_df: float,
    certain: NDArray[np.bool_],
) -> Location:
    """Robust middle of n balls with r linear readings of d quantities each.

    Parameters
    ----------
    values : (n, r)
        The readings; ignored where `sds` is inf.
    sds : (n, r)
        One standard deviation of each reading, inf where it was not made.
    design : (n, r, d)
        reading = design @ quantity + noise.
    scatter_sd : (d,)
        How one player's balls scatter around their middle.
    tail_df : float
        Degrees of freedom of the tails; large means Gaussian.
    certain : (n,) bool
        Balls that keep full weight however far out they are (a shank is information).

    """
    made = np.isfinite(sds)
    h = np.where(made[:, :, None], design, 0.0)
    noise = np.where(made, sds, 1.0) ** 2
    scatter = (h * scatter_sd**2) @ h.swapaxes(1, 2)
    inverse = np.linalg.inv(scatter + noise[:, :, None] * np.eye(values.shape[1]))
    z = np.where(made, values, 0.0)[:, :, None]
    h_inverse = h.swapaxes(1, 2) @ inverse
    information = h_inverse @ h
    pull = (h_inverse @ z)[:, :, 0]
    size2 = (z.swapaxes(1, 2) @ inverse @ z)[:, 0, 0]
    counts = made.sum(axis=1)

    n, d = pull.shape
    flat = information.reshape(n, d * d)
    vague = VAGUE * np.eye(d)
    weights, before = np.ones(n), np.zeros(n)
    for _ in range(MOST_ITERATIONS):
        precision = (weights @ flat).reshape(d, d)
        mean = np.linalg.solve(precision + vague, weights @ pull)
        distances2 = np.maximum(size2 - 2 * (pull @ mean) + information @ mean @ mean, 0.0)
        if np.abs(weights - before).max() < SETTLED:
            break
        before = weights
        tail = np.minimum((tail_df + counts) / (tail_df + distances2), 1.0)
        weights = np.where(certain, 1.0, tail)
    own = float(np.trace(scatter, axis1=1, axis2=2).sum())
    total = own + float(noise[made].sum())
    return Location(
        mean=mean,
        precision=precision,
        weights=weights,
        distances2=distances2,
        readings=counts,
        scatter_share=own / total if total > 0 else 0.0,
    )
