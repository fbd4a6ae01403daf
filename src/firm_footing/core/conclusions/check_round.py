"""Which looks together tell most in the minutes there are?

Looks from one standing place share the setting up. The round is built greedily: the look that adds
most per second to what those before it would tell, whatever they turn out to show, all their
outcomes weighed; looks of one dependent group count less, as their answers will.
"""

from collections.abc import Collection
from dataclasses import dataclass

import numpy as np

from firm_footing.core.case import Reading
from firm_footing.core.conclusions.next_check import (
    NextCheck,
    beside,
    information_gain,
    next_checks,
    start_of_each_set,
)
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.answers import error_rates
from firm_footing.core.inference.check_likelihood import fact_table
from firm_footing.core.inference.dependence import group_of, independence
from firm_footing.core.inference.inference import Inference
from firm_footing.core.knowledge.numbers import DependentGroup
from firm_footing.core.knowledge.vocabulary import Source

SHARE_KEPT = 1e-3
"""Hypotheses that weigh less than this part of the heaviest cannot change which looks are best."""


@dataclass(frozen=True)
class Round:
    """Looks to take together, grouped by where one stands for them.

    checks : in the order in which to take them
    gain_bits : mutual information of all their answers with the cause to start with
    seconds : what it takes, every standing place set up once
    """

    checks: tuple[NextCheck, ...]
    gain_bits: float
    seconds: int


def round_of_checks(
    inference: Inference, seconds: int, at_hand: Collection[Source] | None = None
) -> Round:
    """The best set of looks that fits into so many seconds.

    Parameters
    ----------
    seconds : there are for it
    at_hand : means at hand; None means all

    """
    d = inference.knowledge.numbers.decision
    candidates = next_checks(inference, at_hand)
    rows = _Rows(inference, candidates)
    chosen: list[int] = []
    places: set[str] = set()
    used, told = 0, 0.0
    while len(chosen) < d.round_most:
        cost = np.array(
            [
                c.seconds + (0 if _place(inference, c) in places else d.setup_seconds)
                for c in candidates
            ]
        )
        gains = rows.gains(chosen) * _independence(inference, candidates, chosen)
        gains[chosen] = 0.0
        gains[cost > seconds - used] = 0.0
        if not len(gains) or gains.max() < d.min_gain_bits:
            break
        best = int(np.argmax(gains / cost))
        chosen.append(best)
        places.add(_place(inference, candidates[best]))
        used += int(cost[best])
        told += float(gains[best])
    order = [_place(inference, candidates[i]) for i in chosen]
    chosen.sort(key=lambda i: order.index(_place(inference, candidates[i])))
    return Round(tuple(candidates[i] for i in chosen), told, used)


def _place(inference: Inference, check: NextCheck) -> str:
    """Where one stands for a look."""
    return inference.knowledge.check[check.id].view


def _independence(
    inference: Inference, candidates: list[NextCheck], chosen: list[int]
) -> FloatArray:
    """(candidates,) how much an answer counts beside those of its dependent group.

    These are the answers there are, and the looks already chosen, whatever they turn out to show.
    """
    knowledge = inference.knowledge

    def group(check: NextCheck) -> DependentGroup | None:
        asked = Reading(check=check.id, answer="yes", source=check.source)
        return group_of(check.id, [asked], knowledge)

    def counts(check: NextCheck) -> float:
        own = group(check)
        answers, discount = beside(inference, check.id, check.source)
        return independence(
            answers + sum(own is not None and own == other for other in taken), discount
        )

    taken = [group(candidates[i]) for i in chosen]
    return np.array([counts(check) for check in candidates])


class _Rows:
    """The heavy hypotheses, what they decide, and what every candidate would show in them."""

    def __init__(self, inference: Inference, candidates: list[NextCheck]) -> None:
        space, knowledge, now = inference.space, inference.knowledge, inference.now
        heavy = np.flatnonzero(now.hypothesis > SHARE_KEPT * now.hypothesis.max())
        self.weight = now.hypothesis[heavy] / now.hypothesis[heavy].sum()
        of_set = start_of_each_set(space, inference.starts, inference.root)
        start = of_set[space.hypotheses.set_of]
        self.decision = start[heavy]
        self.decisions = len(knowledge.causes) + 1
        order = {name: column for column, name in enumerate(inference.bases)}
        columns = [order[c.id] for c in candidates]
        eye, numbers = inference.case.eye, knowledge.numbers
        wrong = [error_rates(knowledge.check[c.id], c.source, eye, numbers) for c in candidates]
        false_yes, false_no = np.array(wrong).reshape(-1, 2).T
        facts = fact_table(space, tuple(inference.bases.items()))
        fact = facts[heavy][:, columns].astype(np.float64)
        self.yes = false_yes * (1 - fact) + (1 - false_no) * fact

    def gains(self, chosen: list[int]) -> FloatArray:
        """(candidates,) bits each would add to the chosen ones, over all their outcomes."""
        total = np.zeros(self.yes.shape[1])
        for outcome in range(2 ** len(chosen)):
            heavy = self.weight.copy()
            for bit, column in enumerate(chosen):
                yes = self.yes[:, column]
                heavy *= yes if outcome >> bit & 1 else 1 - yes
            weight = float(heavy.sum())
            if weight < SHARE_KEPT:
                continue
            picks = np.zeros((self.decisions, len(heavy)))
            picks[self.decision, np.arange(len(heavy))] = heavy / weight
            right = np.zeros((self.yes.shape[1], 2))  # `yes` is the answer already
            found = information_gain(picks @ self.yes, picks.sum(axis=1), right)
            total += weight * found
        return total
