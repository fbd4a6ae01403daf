"""What does a block hit with a constraint in force say?

A constraint should take certain causes away and does something to everyone by itself. The change
from the baseline is judged by every story: had it these causes, the change should show.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Block, Case
from firm_footing.core.knowledge import Drill, Knowledge
from firm_footing.core.pattern import Pattern, read_pattern
from firm_footing.core.reasoning.delivery import (
    COMBINED,
    DeliveryReading,
    reading_of,
    scatter_says,
)
from firm_footing.core.reasoning.evidence import Piece, restoring
from firm_footing.core.reasoning.joint import judge
from firm_footing.core.reasoning.removal import branches, change_of
from firm_footing.core.reasoning.stories import Stories

FloatArray = NDArray[np.float64]


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


def change_read(before: Pattern, during: Pattern, knowledge: Knowledge) -> DeliveryReading:
    """The change of whatever both patterns show, `during` minus `before`.

    Combinations are left out: they weigh their parts differently from block to block.
    """
    first, second = reading_of(before, knowledge), reading_of(during, knowledge)
    shared = [
        (i, second.names.index(name))
        for i, name in enumerate(first.names)
        if name in second.names and name not in COMBINED
    ]
    a, b = [i for i, _ in shared], [j for _, j in shared]
    return DeliveryReading(
        names=tuple(first.names[i] for i in a),
        value=second.value[b] - first.value[a],
        design=first.design[a],
        noise=first.noise[np.ix_(a, a)] + second.noise[np.ix_(b, b)],
    )


def trial_piece(
    trial: Trial,
    baselines: tuple[Block, ...],
    severity: FloatArray | None,
    stories: Stories,
    handicap: float,
) -> Piece | None:
    """The evidence of one trial block; None where nothing can be compared.

    severity : (most, stories) of each cause, from the baseline; see `Joint`
    """
    before = read_pattern(baselines, stories.knowledge, handicap)
    during = read_pattern((trial.block,), stories.knowledge, handicap)
    reading = change_read(before, during, stories.knowledge)
    if not reading.names:
        return None
    log = change_log(trial.drill, reading, severity, stories, during)
    return Piece(trial.evidence, log, restoring(log))


def change_log(
    drill: Drill,
    reading: DeliveryReading,
    severity: FloatArray | None,
    stories: Stories,
    during: Pattern,
) -> FloatArray:
    """(stories,) log density of a change of the delivery with this constraint in force."""
    numbers = stories.knowledge.numbers
    everyone, spread2 = of_everyone(drill, stories.knowledge)
    base = reading.design * spread2 @ reading.design.T + reading.noise
    removes = drill.constraint.removes if drill.constraint else ()
    logs = []
    for branch in branches(stories, removes, numbers.trial.removed_when_done):
        expected = everyone[:, None] + change_of(stories, branch, severity)
        found = judge(
            off=reading.value[:, None] - reading.design @ expected,
            spreads=numbers.delivery.effect_spread * stories.effects @ reading.design.T,
            listed=branch.gone,
            base=base,
            tail_df=numbers.delivery.person_tail_df,
        )
        log = np.log(branch.probability) + found.log
        if during.scatter is not None:
            left = _scatter_left(stories, branch.gone)
            log = log + scatter_says(during.scatter, left, numbers.delivery.scatter_spread)
        logs.append(log)
    out: FloatArray = np.logaddexp.reduce(logs, axis=0)
    return out


def of_everyone(drill: Drill, knowledge: Knowledge) -> tuple[FloatArray, FloatArray]:
    """(6,) mean and variance of what a constraint does to any player by itself."""
    row = np.array(drill.constraint.everyone.row() if drill.constraint else (0.0,) * 6)
    return row, (knowledge.numbers.trial.everyone_spread * row) ** 2


def _scatter_left(stories: Stories, gone: NDArray[np.int_]) -> FloatArray:
    """(stories,) how much wider the balls scatter with what is left."""
    widening = _widening(stories)
    left = np.where(gone == len(stories.effects) - 1, widening[stories.variant_of], 1.0)
    out: FloatArray = left.max(axis=0)
    return out


@lru_cache(maxsize=4)
def _widening(stories: Stories) -> FloatArray:
    """(variants + 1,) scatter factor of each variant."""
    factors = np.array([*(c.scatter_factor for c in stories.knowledge.causes), 1.0])
    out: FloatArray = factors[stories.variant_cause]
    return out
