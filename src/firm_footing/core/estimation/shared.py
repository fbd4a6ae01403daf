"""What can be off for a whole block, so that more balls do not average it out?

The mat that is not square to the target, the divots of a slope, a sticker set off centre, a carry
or a speed held against a doubtful mark: each is one unknown number for all balls of a block, beside
their scatter. How large it usually is stands in `numbers.yaml`.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.expected import expected_of
from firm_footing.core.estimation.readings import READINGS
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge

CHANNELS: Final[dict[str, tuple[str, ...]]] = {
    "aim_deg": ("start", "path", "face"),
    "divot_direction_deg": ("divot_direction",),
    "ground_cm": ("low_point",),
    "strike_mm": ("strike",),
    "carry_pct": ("carry",),
}
"""Each error by its name among the numbers, and the notes that it moves alike."""


@dataclass(frozen=True, eq=False)
class SharedErrors:
    """The errors that blocks share.

    sd : (errors,) standard deviation of each
    slopes : (balls, readings, errors) what one unit of each does to a note
    mark_pct : (blocks,) standard deviation of the club speed that each block's mark stands for, per
        cent: another speed would have shown in all that hangs on it
    carry : (balls,) log of a carry that is held against no mark that anybody named or measured, so
        that only a reader who weighs the doubt of the mark may use it; NaN of others
    """

    sd: FloatArray
    slopes: FloatArray
    mark_pct: FloatArray
    carry: FloatArray


def shared_errors(
    blocks: Sequence[Block], knowledge: Knowledge, handicap: float | None
) -> SharedErrors:
    """All shared errors of these blocks; balls in the order of the blocks."""
    numbers = knowledge.numbers
    hit = [b for b in blocks if b.shots]
    count = sum(len(b.shots) for b in hit)
    sd = np.zeros(len(hit) * len(CHANNELS))
    slopes = np.zeros((count, len(READINGS), len(sd)))
    carry = np.full(count, np.nan)
    mark_pct = np.zeros(len(hit))
    ball = 0
    for row, block in enumerate(hit):
        here = slice(ball, ball + len(block.shots))
        ball = here.stop
        source = expected_of(block, knowledge, handicap).source
        for column, (name, moved) in enumerate(CHANNELS.items(), start=row * len(CHANNELS)):
            error = numbers.shared_error.of(name, source)
            sd[column] = error
            for reading in moved:
                slopes[here, READINGS.index(reading), column] = 1.0
        mark_pct[row] = 100 * numbers.shared_error.of("speed_pct", source)
        if source in ("own_best", "handicap"):
            carry[here] = [_log_carry(shot) for shot in block.shots]
    return SharedErrors(sd, slopes, mark_pct, carry)


def _log_carry(shot: Shot) -> float:
    """NaN without a carry, and of shanks and topped balls: they say nothing of the delivery."""
    if not shot.carry_m or shot.contact in ("hosel", "top"):
        return math.nan
    return math.log(shot.carry_m)
