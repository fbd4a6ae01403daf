"""What is one piece of evidence?"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.hypothesis_space import HypothesisSpace


class PairEvidence(NamedTuple):
    """A piece of evidence, what it does in bits of log2 odds, and how one would say it."""

    evidence: str
    bits: float
    text: str


@dataclass(frozen=True, eq=False)
class Piece:
    """One piece of evidence, weighed against every configuration.

    The log-likelihoods of all pieces (`log_likelihood`) sum to that of all the evidence.

    id : a check's id, or `pattern.…`
    log_likelihood : (rows,) up to a constant; rows are configurations or hypotheses
    leave_one_out_weight : (rows,) factor that a weight gets back when this piece is taken away, up
        to a constant. Not simply exp(-log_likelihood) where pieces hang together: path and face to
        path, or looks of one group, which count more when one of them is gone.
    weight : how much this piece counts, below one when it is not independent of others
    """

    id: str
    log_likelihood: FloatArray
    leave_one_out_weight: FloatArray
    weight: float = 1.0


LARGEST_LOG = 600.0
"""exp of more would overflow; a configuration that unlikely has no weight left to restore."""


def leave_one_out_weight_of(removed: FloatArray) -> FloatArray:
    """(rows,) `Piece.leave_one_out_weight` from the log-likelihood that is lost with the piece."""
    out: FloatArray = np.exp(np.minimum(removed.max() - removed, LARGEST_LOG))
    return out


@dataclass(frozen=True, eq=False)
class Marginalised:
    """Evidence that can tell sides, summed over the configurations of each hypothesis.

    pieces : (hypotheses,) each, an equal part of `log`
    share : (configurations,) of its hypothesis, given this evidence; sums to one over each
        hypothesis
    """

    pieces: tuple[Piece, ...]
    share: FloatArray


def marginalise_sides(space: HypothesisSpace, pieces: Sequence[Piece]) -> Marginalised:
    """Pieces over configurations as pieces over hypotheses; exact: nothing else tells sides."""
    log = space.log_side.copy()
    for piece in pieces:
        log += piece.log_likelihood
    most = np.maximum.reduceat(log, space.first_configuration)
    weight = np.exp(log - most[space.hypothesis_of])
    total = space.to_hypotheses(weight)
    share = weight / total[space.hypothesis_of]
    part = (most + np.log(total)) / max(1, len(pieces))
    return Marginalised(
        tuple(
            Piece(p.id, part, space.to_hypotheses(share * p.leave_one_out_weight)) for p in pieces
        ),
        share,
    )
