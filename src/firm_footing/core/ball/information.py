"""How much does one ball say about the delivery?

A ball's linear readings, with their noise and the player's own scatter, boil down to a few numbers
that add up over balls. They are kept for balls seen before: in a lesson all but the newest are.
"""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.ball.readings import READINGS, Reading, design_of, read_ball
from firm_footing.core.case import Block, Shot
from firm_footing.core.knowledge import Knowledge

FloatArray = NDArray[np.float64]
START, CURVE = READINGS.index("start"), READINGS.index("curve")


@dataclass(frozen=True, eq=False)
class BallInformation:
    """What one ball adds.

    precision : (quantities, quantities) information about the middle of the block
    pull : (quantities,) precision @ what this ball alone would say
    size2 : squared standardised size of its readings
    readings : how many there are
    own_variance, noise_variance : the player's scatter and the noise in its readings, summed
    start, curve : the directions as noted, None where they were not
    hosel : struck with the hosel
    """

    precision: FloatArray
    pull: FloatArray
    size2: float
    readings: int
    own_variance: float
    noise_variance: float
    start: Reading | None
    curve: Reading | None
    hosel: bool


def information_of(shot: Shot, block: Block, knowledge: Knowledge) -> BallInformation:
    """What this ball of this block adds."""
    return _kept(shot, block.club, block.teed, block.expected_carry_m, knowledge)


@lru_cache(maxsize=4096)
def _kept(
    shot: Shot, club_id: str, teed: bool | None, expected_m: float | None, knowledge: Knowledge
) -> BallInformation:
    club, numbers = knowledge.club[club_id], knowledge.numbers
    block = Block(club=club_id, teed=teed, expected_carry_m=expected_m)
    row = read_ball(shot, block, club, numbers)
    made = [i for i, reading in enumerate(row) if reading is not None]
    read = [reading for reading in row if reading is not None]
    design = design_of(club)[made]
    values = np.array([r.value for r in read])
    noise = np.array([r.sd for r in read]) ** 2
    scatter = (design * ball_scatter(knowledge) ** 2) @ design.T
    weights = np.linalg.inv(scatter + np.diag(noise))
    return BallInformation(
        precision=design.T @ weights @ design,
        pull=design.T @ weights @ values,
        size2=float(values @ weights @ values),
        readings=len(made),
        own_variance=float(np.trace(scatter)),
        noise_variance=math.fsum(noise),
        start=row[START],
        curve=row[CURVE],
        hosel=shot.contact == "hosel",
    )


def ball_scatter(knowledge: Knowledge) -> FloatArray:
    """(quantities,) how one player's balls scatter, one standard deviation."""
    numbers = knowledge.numbers
    return np.array([*numbers.delivery.ball_sd.row()[:5], numbers.carry_loss.ball_sd_pct])
