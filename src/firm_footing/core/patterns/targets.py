"""Do measured launch and shaft lean reach what one wants of the club?

The shaft leans toward the target by what the loft at the ball is less than the loft of the club.
"""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from firm_footing.core.case import Block
from firm_footing.core.knowledge import Knowledge


@dataclass(frozen=True)
class Wanted:
    """A measured number and what is wanted of it, degrees.

    value : mean of the balls that were measured
    least, most : where it is wanted; None where any less will do
    """

    name: Literal["launch_deg", "lean_deg"]
    value: float
    least: float | None
    most: float


def wanted_of(block: Block, knowledge: Knowledge) -> tuple[Wanted, ...]:
    """What was measured of a block whose club has a target."""
    target = knowledge.club[block.club].target
    if target is None:
        return ()
    launches = [s.launch_deg for s in block.shots if s.launch_deg is not None]
    lofts = [s.dynamic_loft_deg for s in block.shots if s.dynamic_loft_deg is not None]
    found = []
    if launches:
        found.append(Wanted("launch_deg", float(np.mean(launches)), None, target.launch_below_deg))
    if lofts:
        lean = target.loft_deg - float(np.mean(lofts))
        found.append(Wanted("lean_deg", lean, target.lean_least_deg, target.lean_most_deg))
    return tuple(found)
