"""What is one piece of evidence?"""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]


class Weighed(NamedTuple):
    """A piece of evidence and what it does, in bits of log2 odds."""

    evidence: str
    bits: float


@dataclass(frozen=True, eq=False)
class Piece:
    """One piece of evidence, weighed against every story.

    The log-likelihoods of all pieces (`adds`) sum to that of all the evidence.

    id : a check's id, or `pattern.…`
    adds : (stories,) log-likelihood, up to a constant
    restores : (stories,) factor that a story's weight gets back when this piece is taken away, up
        to a constant. Not simply exp(-adds) where pieces hang together: path and face to path, or
        looks of one group, which count more when one of them is gone.
    weight : how much this piece counts, below one when it is not independent of others
    """

    id: str
    adds: FloatArray
    restores: FloatArray
    weight: float = 1.0


LARGEST_LOG = 600.0
"""exp of more would overflow; a story that unlikely has no weight left to restore."""


def restoring(removed: FloatArray) -> FloatArray:
    """(stories,) `Piece.restores` from the log-likelihood that is lost with the piece."""
    out: FloatArray = np.exp(np.minimum(removed.max() - removed, LARGEST_LOG))
    return out
