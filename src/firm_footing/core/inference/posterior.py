"""How probable is each cause now, and how probable would it be without one piece of evidence?"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.evidence import Piece
from firm_footing.core.inference.hypothesis_space import HypothesisSpace

NEARLY_SURE = 1.0 - 1e-6
"""Above this, P(absent) is summed by itself: 1 - P(present) would lose digits."""


@dataclass(frozen=True, eq=False)
class Posterior:
    """Probabilities after all the evidence.

    hypothesis : (hypotheses,) sums to one
    cause_set : (sets,) sums to one
    present : (causes,) P(cause at work)
    bits : (pieces, causes) log2 of the cause's odds with everything minus without that piece
    log : (hypotheses,) log-likelihood of all the evidence with mode and severities, no prior
    """

    hypothesis: FloatArray
    cause_set: FloatArray
    present: FloatArray
    bits: FloatArray
    log: FloatArray


def posterior(
    space: HypothesisSpace, prior: FloatArray, probability_stuck: float, pieces: Sequence[Piece]
) -> Posterior:
    """Combine prior and evidence exactly, over all hypotheses.

    Parameters
    ----------
    prior : (sets,) prior of each set of causes
    probability_stuck : P(stuck) for this player
    pieces : the evidence, over hypotheses

    """
    log = space.log_prior_in_set(probability_stuck)
    for piece in pieces:
        log += piece.log_likelihood
    hypothesis = normalised(log, prior[space.hypotheses.set_of])
    cause_set = space.to_sets(hypothesis)
    without = [space.to_sets(hypothesis * piece.leave_one_out_weight) for piece in pieces]
    present, log_odds = _present_and_log2_odds(np.array([cause_set, *without]), space.members)
    return Posterior(
        hypothesis=hypothesis,
        cause_set=cause_set,
        present=present[0],
        bits=log_odds[0] - log_odds[1:],
        log=log,
    )


def normalised(logs: FloatArray, prior: FloatArray) -> FloatArray:
    """(hypotheses,) prior × exp(logs), summing to one."""
    weights: FloatArray = logs - logs.max()
    np.exp(weights, out=weights)
    weights *= prior
    weights /= weights.sum()
    return weights


def _present_and_log2_odds(
    cause_set: FloatArray, members: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """(rows, causes) weight of each cause, and log2 of P(present) / P(absent).

    Parameters
    ----------
    cause_set : (rows, sets) weights of the sets, which need not sum to one in a row
    members : (sets, causes) 1.0 where the cause is present

    """
    present, total = cause_set @ members, cause_set.sum(axis=1, keepdims=True)
    absent = total - present
    sure = (present > NEARLY_SURE * total).any(axis=0)
    if sure.any():
        absent[:, sure] = cause_set @ (1.0 - members[:, sure])
    return present, np.log2(present / absent)
