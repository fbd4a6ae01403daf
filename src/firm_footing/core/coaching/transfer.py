"""Where does every ball go, when each one has a target of its own?

Blocked practice shows what was learnt, a new target for every ball whether it stays (common
practice, no source). The targets are drawn by a seed, so that a lesson opened again has the same.
"""

from dataclasses import dataclass

import numpy as np

from firm_footing.core.knowledge.coaching import TransferNumbers


@dataclass(frozen=True)
class Target:
    """One ball's target.

    bearing_deg : from the middle of the range, + to the push side; the ball's own start and curve
        are still noted from the line to its target
    carry_pct : of the usual carry
    """

    bearing_deg: float
    carry_pct: float


def targets_for(seed: str, balls: int, numbers: TransferNumbers) -> tuple[Target, ...]:
    """Targets of so many balls, in order; no two alike in a row, and the first few never change.

    Parameters
    ----------
    seed : the same for the same block

    """
    rng = np.random.default_rng(list(seed.encode()))
    every = [Target(b, c) for b in numbers.bearings_deg for c in numbers.carry_pct]
    found: list[Target] = []
    while len(found) < balls:
        others = [t for t in every if not found or t.bearing_deg != found[-1].bearing_deg]
        found.append(others[int(rng.integers(len(others)))])
    return tuple(found)
