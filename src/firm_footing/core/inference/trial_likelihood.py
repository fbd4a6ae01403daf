"""What does a block hit with a constraint in force say?

A constraint should take certain causes away and does something to everyone by itself. What the
block shows is judged by every configuration beside the baseline: had it these causes, it should
differ.
"""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from firm_footing.core.case import Block, Case
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.delivery_density import log_density
from firm_footing.core.inference.delivery_likelihood import (
    COMBINED,
    STRIKE_NAME,
    DeliveryReading,
    cause_free,
    expected_delivery,
    reading_of,
    scatter_says,
    stopped,
    strike_beyond,
)
from firm_footing.core.inference.evidence import Piece, leave_one_out_weight_of
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.intervention import Branch, branches, shift_of
from firm_footing.core.inference.links import Views
from firm_footing.core.knowledge import DIMENSIONS, Drill, Knowledge
from firm_footing.core.patterns import Pattern, read_pattern
from firm_footing.core.physics.forward import STRIKE


@dataclass(frozen=True)
class Trial:
    """A trial block that can be judged.

    number : index of its block among all blocks of the case
    drill : the constraint in force
    block : its balls, those with which the drill failed left out
    """

    number: int
    drill: Drill
    block: Block

    @property
    def evidence(self) -> str:
        """Its name among the evidence."""
        return f"trial:{self.number}"


def trials_of(case: Case, knowledge: Knowledge) -> list[Trial]:
    """The trial blocks of a case whose constraint is known and that have balls that count."""
    found = []
    for number, block in enumerate(case.blocks):
        drill = constraint_of(block, knowledge)
        shots = tuple(s for s in block.shots if s.drill_ok is not False)
        if block.kind == "trial" and drill is not None and shots:
            kept = block.model_copy(update={"shots": shots})
            found.append(Trial(number, drill, kept))
    return found


def constraint_of(block: Block, knowledge: Knowledge) -> Drill | None:
    """The drill in force that is a constraint; a block at low effort needs none named."""
    if block.drill is not None:
        drill = knowledge.drill.get(block.drill)
        return drill if drill and drill.constraint else None
    if block.effort_pct is None:
        return None
    for drill in knowledge.drills:
        most = drill.constraint.effort_at_most_pct if drill.constraint else None
        if most is not None and block.effort_pct <= most:
            return drill
    return None


def trial_piece(
    trial: Trial,
    baselines: tuple[Block, ...],
    space: HypothesisSpace,
    handicap: float,
    views: Views,
) -> Piece | None:
    """The evidence of one trial block; None where nothing can be compared.

    It is judged beside the baseline, whose doubt both share: the density of what the block shows,
    given what the baseline showed.
    """
    before = read_pattern(baselines, space.knowledge, handicap)
    during = read_pattern((trial.block,), space.knowledge, handicap)
    first = reading_of(before, space.knowledge, shared=False)
    second = of_both(first, reading_of(during, space.knowledge, shared=False))
    if not second.names:
        return None
    possible = branches_of(trial.drill, space, views)
    log = log_given_baseline(trial.drill, first, second, space, handicap, during, possible)
    return Piece(trial.evidence, log, leave_one_out_weight_of(log))


def of_both(first: DeliveryReading, second: DeliveryReading) -> DeliveryReading:
    """What the second reading holds of what the first one read too.

    Combinations are left out: they weigh their parts differently from block to block.
    """
    kept = [i for i, n in enumerate(second.names) if n in first.names and n not in COMBINED]
    return DeliveryReading(
        names=tuple(second.names[i] for i in kept),
        value=second.value[kept],
        design=second.design[kept],
        noise=second.noise[np.ix_(kept, kept)],
    )


def _left_of(
    space: HypothesisSpace, handicap: float, everyone: FloatArray, branch: Branch, strike: float
) -> FloatArray:
    """(6, configurations) mean delivery with the constraint, where this branch is gone.

    everyone : (6,) what the constraint does to everyone
    strike : how many times as far as usual the causes move the strike
    """
    left = space.shift.copy()
    left[:, branch.configurations] -= shift_of(space, branch.gone, None)
    left[STRIKE] *= strike
    return stopped(cause_free(space, handicap)[:, None] + left + everyone[:, None], space)


def log_given_baseline(
    drill: Drill,
    first: DeliveryReading,
    second: DeliveryReading,
    space: HypothesisSpace,
    handicap: float,
    during: Pattern,
    possible: tuple[Branch, ...],
) -> FloatArray:
    """(configurations,) log density of a block's reading so constrained, given the baseline's."""
    numbers = space.knowledge.numbers
    everyone, everyone_spread2 = of_everyone(drill, space.knowledge)
    person = np.array(numbers.delivery.person_sd.row()) ** 2
    n = len(first.names)
    both = np.concatenate([first.design, second.design])
    base = both * person @ both.T
    base[:n, :n] += first.noise
    base[n:, n:] += second.noise + second.design * everyone_spread2 @ second.design.T
    expected, forms = expected_delivery(space, handicap), space.forms
    tail = numbers.delivery.strike_tail
    kept = numbers.delivery.severity_within * forms.unit_effects @ both.T
    gone = kept.copy()
    gone[:, n:] = 0.0
    df = numbers.delivery.person_tail_df
    people, alone, logs = [(1 - tail.share, 1.0), (tail.share, tail.times)], [], []
    if STRIKE_NAME not in first.names:  # then nothing tells those people from the others
        people = [(1.0, 1.0)]
    for share, times in people:
        before = expected + np.eye(len(DIMENSIONS))[:, [STRIKE]] * (
            strike_beyond(space) if times > 1 else 0.0
        )
        first_off = first.value[:, None] - first.design @ before
        log = log_density(first_off, kept[:, :n], forms.variant_of, forms.of, base[:n, :n], df)
        alone.append(math.log(share) + log)
        for branch in possible:
            left = _left_of(space, handicap, everyone, branch, times)
            off = np.concatenate([first_off, second.value[:, None] - second.design @ left])
            is_gone = np.zeros(space.variant_of.shape, dtype=bool)
            is_gone[:, branch.configurations] = branch.gone != space.no_variant
            listed = forms.variant_of + len(kept) * is_gone[:, forms.first]
            log = log_density(off, np.concatenate([kept, gone]), listed, forms.of, base, df)
            if during.scatter is not None:
                factor = _scatter_left(space, branch)
                log += scatter_says(during.scatter, factor, numbers.delivery.scatter_spread)
            logs.append(math.log(share * branch.probability) + log)
    out: FloatArray = np.logaddexp.reduce(logs, axis=0) - np.logaddexp.reduce(alone, axis=0)
    return out


def branches_of(drill: Drill, space: HypothesisSpace, views: Views) -> tuple[Branch, ...]:
    """What can be gone with this constraint in force."""
    removes = drill.constraint.removes if drill.constraint else ()
    return branches(space, removes, space.knowledge.numbers.trial.removed_when_done, views)


def of_everyone(drill: Drill, knowledge: Knowledge) -> tuple[FloatArray, FloatArray]:
    """(6,) mean and variance of what a constraint does to any player by itself."""
    row = np.array(drill.constraint.everyone.row() if drill.constraint else (0.0,) * 6)
    return row, (knowledge.numbers.trial.everyone_spread * row) ** 2


def _scatter_left(space: HypothesisSpace, branch: Branch) -> FloatArray:
    """(configurations,) how much wider the balls scatter with what is left."""
    left: FloatArray = space.scatter_factor.copy()
    widening = _widening(space)[space.variant_of[:, branch.configurations]]
    left[branch.configurations] = np.where(branch.gone == space.no_variant, widening, 1.0).max(
        axis=0
    )
    return left


@lru_cache(maxsize=4)
def _widening(space: HypothesisSpace) -> FloatArray:
    """(variants + 1,) scatter factor of each variant."""
    factors = np.array([*(c.scatter_factor for c in space.knowledge.causes), 1.0])
    out: FloatArray = factors[space.variant_cause]
    return out
