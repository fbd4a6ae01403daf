"""Which looks come first before a ball is hit? The student has already named the miss."""

from collections.abc import Sequence

from firm_footing.core.case import Block, Case, Shot
from firm_footing.core.estimation.expected import expected_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.misses import Miss

BALLS_FOR_EACH = 2
"""A miss that is only told weighs as much as two balls of it, each noted in a word."""


def as_if_hit(case: Case, misses: tuple[str, ...], knowledge: Knowledge) -> Case:
    """The case with balls as the student tells them, where none was hit yet; else the case itself.

    For ordering looks only: what is told is no evidence once balls can be seen.
    """
    if any(block.shots for block in case.baselines) or not misses:
        return case
    known = {m.id: m for m in knowledge.misses}
    return with_balls(case, [known[name] for name in misses if name in known], knowledge)


def with_balls(case: Case, told: Sequence[Miss], knowledge: Knowledge) -> Case:
    """The case with a few balls of each of these misses."""
    block = Block(surface="turf")
    expected_m = expected_of(block, knowledge, case.handicap).carry_m
    shots = tuple(
        _ball(miss, kind, expected_m)
        for miss in told
        for kind in miss.balls
        for _ in range(max(1, BALLS_FOR_EACH // len(miss.balls)))
    )
    told_block = block.model_copy(update={"shots": shots})
    return case.model_copy(update={"blocks": (*case.blocks, told_block)})


def _ball(miss: Miss, kind: dict[str, str | float], expected_m: float) -> Shot:
    carry = {} if miss.carry_part is None else {"carry_m": round(miss.carry_part * expected_m)}
    return Shot.model_validate(kind | carry)
