"""Everything noted of many balls, as arrays."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.readings import READINGS, NotedValue, Within, as_reading, notes_of
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    HEIGHT,
    LOFT,
    LOW_POINT,
    PATH,
    SPEED,
    STRIKE,
)

SAID_BY: dict[int, tuple[tuple[str, ...], ...]] = {
    PATH: (("path",), ("divot_direction",)),
    FACE_TO_PATH: (("path", "face"),),
    LOW_POINT: (("low_point",), ("attack",)),
    STRIKE: (("strike",), ("contact_strike",)),
    LOFT: (("loft",),),
    SPEED: (("club_speed",),),
    HEIGHT: (("height",),),
}
"""Which notes, together, say directly what a part of the delivery was."""
UNOBSERVED_VARIANCE = 1e12
"""Variance of a note that was not made."""


@dataclass(frozen=True, eq=False)
class Observations:
    """Everything noted of n balls, as arrays (n, readings).

    value, variance : of values; an interval's middle and width
    least, most, doubt2 : of intervals
    made, interval : whether it was noted, and whether as an interval
    """

    value: FloatArray
    variance: FloatArray
    least: FloatArray
    most: FloatArray
    limit_variance: FloatArray
    made: NDArray[np.bool_]
    interval: NDArray[np.bool_]


def observations_of(balls: Sequence[tuple[Shot, Block]], knowledge: Knowledge) -> Observations:
    """All notes of all balls."""
    numbers = knowledge.numbers
    shape = (len(balls), len(READINGS))
    value, variance = np.zeros(shape), np.full(shape, UNOBSERVED_VARIANCE)
    least, most, limit_variance = np.full(shape, -np.inf), np.full(shape, np.inf), np.ones(shape)
    made, interval = np.zeros(shape, dtype=bool), np.zeros(shape, dtype=bool)
    column = {name: i for i, name in enumerate(READINGS)}
    for i, (shot, block) in enumerate(balls):
        notes: dict[str, NotedValue] = notes_of(shot, block, knowledge.club[block.club], numbers)
        for name, note in notes.items():
            at = i, column[name]
            made[at] = True
            if isinstance(note, Within):
                interval[at] = True
                least[at], most[at], limit_variance[at] = note.least, note.most, note.sd**2
            if not name.startswith("contact"):
                value[at], sd = as_reading(note, numbers)
                variance[at] = sd**2
    return Observations(value, variance, least, most, limit_variance, made, interval)


def is_observed(noted: Observations, part: int) -> NDArray[np.bool_]:
    """(n,) whether a part of each ball's delivery was noted directly."""
    ways = [
        noted.made[:, [READINGS.index(r) for r in together]].all(axis=1)
        for together in SAID_BY[part]
    ]
    out: NDArray[np.bool_] = np.any(ways, axis=0)
    return out
