"""How probable is each cause now, and how probable would it be without one piece of evidence?"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.reasoning.evidence import Piece
from firm_footing.core.reasoning.scratch import scratch
from firm_footing.core.reasoning.stories import Stories
from firm_footing.core.reasoning.swings import Table

FloatArray = NDArray[np.float64]

NEARLY_SURE = 1.0 - 1e-6
"""Above this, P(absent) is summed by itself: 1 - P(present) would lose digits."""


@dataclass(frozen=True, eq=False)
class Posterior:
    """Probabilities after all the evidence.

    story : (stories,) sums to one
    swing : (swings,) the same, summed over sides
    cause_set : (sets,) sums to one
    present : (causes,) P(cause present)
    root : (causes,) P(cause present and no cause directly upstream of it is)
    bits : (pieces, causes) log2 of the cause's odds with everything minus without that piece
    log_story : (stories,) log-likelihood of all the evidence and of the telling, without the prior
    """

    story: FloatArray
    swing: FloatArray
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
    of_balls = [p for p in pieces if not p.of_swings]
    of_looks = [p for p in pieces if p.of_swings]
    total = log_telling.copy()
    for piece in of_balls:
        total += piece.adds
    if of_looks:
        total += add_up(of_looks)[stories.swing_of]
    story = story_weights(total, prior)
    swing = stories.to_swings(story)
    present, by_swing = _present_and_log2_odds(swing, [None, *of_looks], stories.swings.table)
    _, by_story = _present_and_log2_odds(story, of_balls, stories.table)
    now = by_swing[0]
    without = dict(zip([*of_balls, *of_looks], [*by_story, *by_swing[1:]], strict=True))
    bits = [now - without[piece] for piece in pieces]
    return Posterior(
        story=story,
        swing=swing,
        cause_set=stories.to_sets(story),
        present=present[0],
        root=swing @ stories.swing_roots,
        bits=np.array(bits).reshape(len(pieces), present.shape[1]),
        log_story=total,
    )


def add_up(pieces: Sequence[Piece]) -> FloatArray:
    """Sum of the log-likelihoods of one or more pieces of the same kind."""
    total = pieces[0].adds.copy()
    for piece in pieces[1:]:
        total += piece.adds
    return total


def story_weights(logs: FloatArray, prior: FloatArray) -> FloatArray:
    """(stories,) prior × exp(logs), summing to one."""
    weights: FloatArray = logs - logs.max()
    np.exp(weights, out=weights)
    weights *= prior
    weights /= weights.sum()
    return weights


def _present_and_log2_odds(
    weights: FloatArray, removed: Sequence[Piece | None], table: Table
) -> tuple[FloatArray, FloatArray]:
    """(removed, causes) weight of each cause, and log2 of P(present) / P(absent).

    One row without each of these pieces, None for none of them; weights need not sum to one.
    """
    rows = scratch(f"rows of {len(weights)}", len(removed), len(weights))
    for row, piece in zip(rows, removed, strict=True):
        np.multiply(weights, 1.0 if piece is None else piece.restores, out=row)
    sums = rows @ table.present_and_one
    present, total = sums[:, :-1], sums[:, -1:]
    absent = total - present
    sure = (present > NEARLY_SURE * total).any(axis=0)
    if sure.any():
        absent[:, sure] = rows @ table.absent[:, sure]
    return present, np.log2(present / absent)
