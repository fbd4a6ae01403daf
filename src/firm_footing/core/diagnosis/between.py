"""Why this cause and not that one?

What separates two causes: the evidence that speaks for one against the other, and the looks that
would tell which of them it is, were it just one of the two.
"""

from collections.abc import Collection
from dataclasses import dataclass

import numpy as np

from firm_footing.core.conclusions.next_check import NextCheck, best_checks
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.evidence import PairEvidence
from firm_footing.core.inference.inference import Inference
from firm_footing.core.knowledge.vocabulary import Source
from firm_footing.core.text.evidence_lines import noted


@dataclass(frozen=True)
class Between:
    """What separates `one` from `other`.

    probability : P(one without the other | exactly one of the two)
    evidence : bits toward `one` (+) or toward `other` (-), the largest first
    checks : the looks that would tell which, the best per second first
    """

    one: str
    other: str
    probability: float
    evidence: tuple[PairEvidence, ...]
    checks: tuple[NextCheck, ...]


def between(
    inference: Inference, one: str, other: str, at_hand: Collection[Source] | None = None
) -> Between:
    """Separate two causes.

    Bits of a piece: log2 odds of "one without the other" against "the other without one", with
    everything, minus the same without that piece.

    Raises
    ------
    KeyError
        When no cause has one of the ids.

    """
    space, index = inference.space, inference.knowledge.cause_index
    members = space.members
    first, second = (members[:, index[c]] for c in (one, other))
    only = first * (1 - second), second * (1 - first)
    only_first, only_second = (mark[space.hypotheses.set_of] for mark in only)
    hypothesis = inference.now.hypothesis

    def log2_odds(weights: FloatArray) -> float:
        return float(np.log2((weights @ only_first) / (weights @ only_second)))

    everything = log2_odds(hypothesis)
    evidence = [
        PairEvidence(
            p.id,
            everything - log2_odds(hypothesis * p.leave_one_out_weight),
            noted(inference, p.id),
        )
        for p in inference.pieces
    ]
    one_of_two = hypothesis * (only_first + only_second)
    return Between(
        one=one,
        other=other,
        probability=float((hypothesis @ only_first) / one_of_two.sum()),
        evidence=tuple(sorted(evidence, key=lambda w: -abs(w.bits))),
        checks=tuple(
            best_checks(
                inference,
                one_of_two / one_of_two.sum(),
                only[0].astype(np.int_),
                2,
                at_hand,
            )
        ),
    )
