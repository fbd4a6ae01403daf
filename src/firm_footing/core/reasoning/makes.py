"""What makes a miss, and how much of it?

For the map, before any student: each cause alone against none, on balls as the miss is told.
"""

from functools import lru_cache

from firm_footing.core.case import Case
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.reasoning.reported_miss import as_if_hit
from firm_footing.core.reasoning.weighing import weigh

LEAST = 0.05
"""A cause that makes a miss hardly likelier than no cause does, makes none of it."""


@lru_cache(maxsize=64)
def makers_of(miss: str, knowledge: Knowledge) -> dict[str, float]:
    """Cause id to how much it makes this miss, above 0 to 1 for the one that makes most.

    Measured by the log-likelihood ratio of the balls as the miss is told, the cause alone against
    none. Causes that do not make it are left out.

    Raises
    ------
    KeyError
        No miss is called so.

    """
    if miss not in {m.id for m in knowledge.misses}:
        raise KeyError(miss)
    told = as_if_hit(Case(handedness="right"), (miss,), knowledge)
    points = weigh(told, knowledge).balls.points
    most = float(points.max())
    if most <= LEAST:
        return {}
    shares = zip(knowledge.causes, (points / most).tolist(), strict=True)
    return {cause.id: share for cause, share in shares if share * most > LEAST}
