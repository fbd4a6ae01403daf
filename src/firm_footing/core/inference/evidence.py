"""What is one piece of evidence?"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.inference.hypothesis_space import Stories

FloatArray = NDArray[np.float64]


class Weighed(NamedTuple):
    """A piece of evidence, what it does in bits of log2 odds, and how one would say it."""

    evidence: str
    bits: float
    text: str


@dataclass(frozen=True, eq=False)
class Piece:
    """One piece of evidence, weighed against every story.

    The log-likelihoods of all pieces (`adds`) sum to that of all the evidence.

    id : a check's id, or `pattern.…`
    adds : (rows,) log-likelihood, up to a constant; rows are stories or hypotheses
    restores : (rows,) factor that a weight gets back when this piece is taken away, up
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
    """(rows,) `Piece.restores` from the log-likelihood that is lost with the piece."""
    out: FloatArray = np.exp(np.minimum(removed.max() - removed, LARGEST_LOG))
    return out


@dataclass(frozen=True, eq=False)
class Folded:
    """Evidence that can tell sides, summed over the stories of each hypothesis.

    pieces : (hypotheses,) each, an equal part of `log`
    share : (stories,) of its hypothesis, given this evidence; sums to one over each hypothesis
    """

    pieces: tuple[Piece, ...]
    share: FloatArray


def fold(stories: Stories, pieces: Sequence[Piece]) -> Folded:
    """Fold pieces over stories into pieces over hypotheses; exact, as nothing else tells sides."""
    log = stories.log_side.copy()
    for piece in pieces:
        log += piece.adds
    most = np.maximum.reduceat(log, stories.first_story)
    weight = np.exp(log - most[stories.hypothesis_of])
    total = stories.to_hypotheses(weight)
    share = weight / total[stories.hypothesis_of]
    part = (most + np.log(total)) / max(1, len(pieces))
    return Folded(
        tuple(Piece(p.id, part, stories.to_hypotheses(share * p.restores)) for p in pieces), share
    )
