"""What makes a miss, and how much of it?

For the map, before any student: each cause alone against none, on balls as the miss is told.
"""

from functools import lru_cache

import numpy as np

from firm_footing.core.case import Case
from firm_footing.core.conclusions.reported_miss import with_balls
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.misses import Miss

LEAST = 0.05
"""A cause that makes a miss hardly likelier than no cause does, makes none of it."""


@lru_cache(maxsize=64)
def makers_of(miss: str, knowledge: Knowledge) -> dict[str, float]:
    """Cause id to how much it makes this miss, above 0 to 1 for the one that makes most.

    Measured by the log-likelihood ratio of the balls as the miss is told, the cause alone against
    none, in the player whom it fits best, an ordinary or a good one; a miss that comes in two kinds
    is made by what makes both, as much as the lesser one.
    Causes that do not make it are left out.

    Raises
    ------
    KeyError
        No miss is called so.

    """
    if miss not in {m.id for m in knowledge.misses}:
        raise KeyError(miss)
    found = next(m for m in knowledge.misses if m.id == miss)
    points = np.min([_points(found, kind, knowledge) for kind in found.balls], axis=0)
    most = float(points.max())
    if most <= LEAST:
        return {}
    shares = zip(knowledge.causes, (points / most).tolist(), strict=True)
    return {cause.id: share for cause, share in shares if share * most > LEAST}


def _points(miss: Miss, kind: dict[str, str | float], knowledge: Knowledge) -> FloatArray:
    one_kind = miss.model_copy(update={"balls": (kind,)})
    players = (None, knowledge.numbers.stuck_mode.handicap_low)
    cases = [Case(handedness="right", handicap=handicap) for handicap in players]
    told = [with_balls(case, (one_kind,), knowledge) for case in cases]
    out: FloatArray = np.max([infer(case, knowledge).balls.points for case in told], axis=0)
    return out
