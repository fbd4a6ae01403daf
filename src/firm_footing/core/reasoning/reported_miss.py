"""Which looks come first before a ball is hit? The student has already named the miss."""

from firm_footing.core.case import Block, Case, Shot
from firm_footing.core.knowledge import Knowledge

BALLS_FOR_EACH = 2
"""A miss that is only told weighs as much as two balls of it, each noted in a word."""


def as_if_hit(case: Case, misses: tuple[str, ...], knowledge: Knowledge) -> Case:
    """The case with balls as the student tells them, where none was hit yet; else the case itself.

    For ordering looks only: what is told is no evidence once balls can be seen.
    """
    if any(block.shots for block in case.baselines) or not misses:
        return case
    known = {m.id: m for m in knowledge.misses}
    shots = tuple(
        Shot.model_validate(known[name].ball)
        for name in misses
        if name in known
        for _ in range(BALLS_FOR_EACH)
    )
    return case.model_copy(update={"blocks": (*case.blocks, Block(shots=shots, surface="turf"))})
