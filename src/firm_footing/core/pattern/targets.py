"""Do measured launch and shaft lean reach what one wants of the club?

The shaft leans toward the target by what the loft at the ball is less than the loft of the club.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import erf, sqrt
from typing import Literal

import numpy as np

from firm_footing.core.case import Block
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.clubs import ClubTarget


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
    balls: int


def wanted_of(block: Block, knowledge: Knowledge) -> tuple[Wanted, ...]:
    """What was measured of a block whose club has a target."""
    target = knowledge.club[block.club].target
    if target is None:
        return ()
    launches = [s.launch_deg for s in block.shots if s.launch_deg is not None]
    leans = _leans(block, target)
    found = []
    if launches:
        mean = float(np.mean(launches))
        found.append(Wanted("launch_deg", mean, None, target.launch_below_deg, len(launches)))
    if leans:
        mean, least, most = float(np.mean(leans)), target.lean_least_deg, target.lean_most_deg
        found.append(Wanted("lean_deg", mean, least, most, len(leans)))
    return tuple(found)


def flip_share(blocks: Sequence[Block], knowledge: Knowledge) -> float | None:
    """How clearly the hands flip by the measured lean, 0 to 1; None where it was not measured.

    It says what the loft of these balls says: it answers the look, and is no evidence of its own.
    """
    shares = []
    for block in blocks:
        target = knowledge.club[block.club].target
        leans = [] if target is None else _leans(block, target)
        if target is not None and leans:
            off = target.flip_below_deg.at - float(np.mean(leans))
            shares.append(0.5 * (1 + erf(off / (sqrt(2) * target.flip_below_deg.doubt))))
    return float(np.mean(shares)) if shares else None


def _leans(block: Block, target: ClubTarget) -> list[float]:
    lofts = (s.dynamic_loft_deg for s in block.shots)
    return [target.loft_deg - loft for loft in lofts if loft is not None]
