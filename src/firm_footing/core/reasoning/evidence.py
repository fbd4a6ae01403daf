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
    lost : (stories,) what all the evidence would lose without this piece; None when it is `adds`.
        It differs where pieces hang together: path and face to path, or looks of one group.
    weight : how much this piece counts, below one when it is not independent of others
    inverse : (stories,) exp(-adds) where it is at hand already, to save time
    """

    id: str
    adds: FloatArray
    lost: FloatArray | None = None
    weight: float = 1.0
    inverse: FloatArray | None = None

    @property
    def removed(self) -> FloatArray:
        """(stories,) what to subtract from the total to be without this piece."""
        return self.adds if self.lost is None else self.lost
