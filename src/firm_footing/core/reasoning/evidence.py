"""What is one piece of evidence?"""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.reasoning.stories import Stories

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
    adds : log-likelihood, up to a constant: (stories,) of balls, (swings,) of a look
    restores : the same shape, factor that a weight gets back when this piece is taken away, up
        to a constant. Not simply exp(-adds) where pieces hang together: path and face to path, or
        looks of one group, which count more when one of them is gone.
    of_swings : True for a look, which cannot tell on which side a two-sided cause is
    weight : how much this piece counts, below one when it is not independent of others
    """

    id: str
    adds: FloatArray
    restores: FloatArray
    of_swings: bool = False
    weight: float = 1.0

    def restores_stories(self, stories: Stories) -> FloatArray:
        """(stories,) `restores` for every story."""
        return self.restores[stories.swing_of] if self.of_swings else self.restores


LARGEST_LOG = 600.0
"""exp of more would overflow; a story that unlikely has no weight left to restore."""


def restoring(removed: FloatArray) -> FloatArray:
    """(stories,) `Piece.restores` from the log-likelihood that is lost with the piece."""
    out: FloatArray = np.exp(np.minimum(removed.max() - removed, LARGEST_LOG))
    return out
