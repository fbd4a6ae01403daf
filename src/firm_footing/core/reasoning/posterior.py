"""How probable is each cause now, and how probable would it be without one piece of evidence?"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.reasoning.evidence import Piece
from firm_footing.core.reasoning.scratch import scratch
from firm_footing.core.reasoning.stories import Stories

FloatArray = NDArray[np.float64]

NEARLY_SURE = 1.0 - 1e-6
"""Above this, P(absent) is summed by itself: 1 - P(present) would lose digits."""


@dataclass(frozen=True, eq=False)
class Posterior:
    """Probabilities after all the evidence.

    story : (stories,) sums to one
    cause_set : (sets,) sums to one
    present : (causes,) P(cause present)
    root : (causes,) P(cause present and no cause directly upstream of it is)
    bits : (pieces, causes) log2 of the cause's odds with everything minus without that piece
    log_story : (stories,) log-likelihood of all the evidence and of the telling, without the prior
    """

    story: FloatArray
    cause_set: FloatArray
    present: FloatArray
    root: FloatArray
    bits: FloatArray
    log_story: FloatArray


def posterior(
    stories: Stories, prior: FloatArray, log_telling: FloatArray, pieces: Sequence[Piece]
) -> Posterior:
    """Combine prior and evidence exactly, over all stories.

    Parameters
    ----------
    prior : (stories,) prior of each story's set of causes
    log_telling : (stories,) log probability of each story given its set
    pieces : the evidence

    """
    total = add_up(log_telling, pieces)
    rows = scratch("rows", len(pieces) + 1, len(total))
    story = story_weights(total, prior)
    rows[0] = story
    for row, piece in zip(rows[1:], pieces, strict=True):
        np.multiply(story, piece.restores, out=row)
    present, log_odds = _present_and_log2_odds(rows, stories)
    return Posterior(
        story=story,
        cause_set=stories.to_sets(story),
        present=present[0],
        root=story @ stories.story_roots,
        bits=log_odds[0] - log_odds[1:],
        log_story=total,
    )


def add_up(start: FloatArray, pieces: Sequence[Piece]) -> FloatArray:
    """(stories,) `start` plus the log-likelihoods of all pieces."""
    total = start.copy()
    for piece in pieces:
        total += piece.adds
    return total


def story_weights(logs: FloatArray, prior: FloatArray) -> FloatArray:
    """(stories,) prior × exp(logs), summing to one."""
    weights: FloatArray = logs - logs.max()
    np.exp(weights, out=weights)
    weights *= prior
    weights /= weights.sum()
    return weights


def _present_and_log2_odds(rows: FloatArray, stories: Stories) -> tuple[FloatArray, FloatArray]:
    """(rows, causes) weight of the cause, and log2 of P(present) / P(absent).

    Rows need not sum to one.
    """
    sums = rows @ stories.story_members_and_one
    present, total = sums[:, :-1], sums[:, -1:]
    absent = total - present
    sure = (present > NEARLY_SURE * total).any(axis=0)
    if sure.any():
        absent[:, sure] = rows @ stories.story_absent[:, sure]
    return present, np.log2(present / absent)
