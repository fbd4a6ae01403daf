"""How much does each ball say about the delivery?

A ball's linear readings, with their noise and the player's own scatter, boil down to a few numbers
that add up over balls. All balls at once.
"""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.ball.readings import READINGS, Reading, design_of, read_ball
from firm_footing.core.case import Block, Shot
from firm_footing.core.knowledge import Knowledge

FloatArray = NDArray[np.float64]
START, CURVE = READINGS.index("start"), READINGS.index("curve")


@dataclass(frozen=True, eq=False)
class BallInformation:
    """What n balls add to the middle of their block, ball by ball.

    precision : (n, quantities, quantities) information about the middle
    pull : (n, quantities) precision @ what this ball alone would say
    size2 : (n,) squared standardised size of its readings
    readings : (n,) how many there are
    scatter_share : part of the readings' variance that is the player's own scatter, 0 to 1
    start, curve : the directions as noted, None where they were not
    hosel : (n,) struck with the hosel
    """

    precision: FloatArray
    pull: FloatArray
    size2: FloatArray
    readings: NDArray[np.int_]
    scatter_share: float
    start: list[Reading | None]
    curve: list[Reading | None]
    hosel: NDArray[np.bool_]


def information_of(balls: list[tuple[Shot, Block]], knowledge: Knowledge) -> BallInformation:
    """What these balls, each of its block, add."""
    numbers = knowledge.numbers
    rows = [read_ball(s, b, knowledge.club[b.club], numbers) for s, b in balls]
    none = Reading(0.0, math.inf)
    flat = [number for row in rows for reading in row for number in reading or none]
    table = np.array(flat).reshape(len(rows), len(READINGS), 2)
    values, sds = table[:, :, 0], table[:, :, 1]
    made = np.isfinite(sds)
    designs = {club: design_of(knowledge.club[club]) for club in {b.club for _, b in balls}}
    design = np.where(made[:, :, None], np.array([designs[b.club] for _, b in balls]), 0.0)
    noise = np.where(made, sds, 1.0) ** 2
    scatter = (design * _ball_scatter(knowledge) ** 2) @ design.swapaxes(1, 2)
    weights = np.linalg.inv(scatter + noise[:, :, None] * np.eye(len(READINGS)))
    weighted = design.swapaxes(1, 2) @ weights
    z = values[:, :, None]
    own = float(np.trace(scatter, axis1=1, axis2=2).sum())
    total = own + float(noise[made].sum())
    return BallInformation(
        precision=weighted @ design,
        pull=(weighted @ z)[:, :, 0],
        size2=(z.swapaxes(1, 2) @ weights @ z)[:, 0, 0],
        readings=made.sum(axis=1),
        scatter_share=own / total if total > 0 else 0.0,
        start=[row[START] for row in rows],
        curve=[row[CURVE] for row in rows],
        hosel=np.array([s.contact == "hosel" for s, _ in balls], dtype=bool),
    )


def _ball_scatter(knowledge: Knowledge) -> FloatArray:
    """(quantities,) how one player's balls scatter, one standard deviation."""
    numbers = knowledge.numbers
    return np.array([*numbers.delivery.ball_sd.row()[:5], numbers.carry_loss.ball_sd_pct])
