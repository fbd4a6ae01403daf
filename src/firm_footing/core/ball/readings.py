"""What does one ball say about the delivery, and how sure is it?

Each ball is a row of linear readings of six quantities; one that was not made is None.

    reading            = what it reads
    start              = path + share × face to path
    curve              =        curve_per_deg × face to path
    measured path      = path
    measured face      = path + face to path
    divot direction    = path
    low point, strike, loft, carry lost   one quantity each
"""

import math
from typing import Final, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Block, Shot
from firm_footing.core.knowledge.numbers import Club, Numbers

FloatArray = NDArray[np.float64]

QUANTITIES: Final = (
    "path_deg",
    "face_to_path_deg",
    "low_point_cm",
    "heel_toe_mm",
    "dynamic_loft_deg",
    "carry_lost_pct",
)
READINGS: Final = (
    "start",
    "curve",
    "path",
    "face",
    "divot_direction",
    "low_point",
    "strike",
    "loft",
    "carry_lost",
)

_WORDS: Final[dict[str, tuple[int, Literal["straight", "side", "far"]]]] = {
    "far_pull": (-1, "far"),
    "pull": (-1, "side"),
    "straight": (0, "straight"),
    "push": (1, "side"),
    "far_push": (1, "far"),
}


class Reading(NamedTuple):
    """A value and its standard deviation, in the unit of the thing read."""

    value: float
    sd: float


def read_ball(shot: Shot, block: Block, club: Club, numbers: Numbers) -> tuple[Reading | None, ...]:
    """The readings of one ball in the order of `READINGS`."""
    r = numbers.reading
    if shot.contact == "hosel":
        directions: tuple[Reading | None, ...] = (None,) * 5
    else:
        start = start_deg(shot, numbers)
        curve = curve_deg(shot, numbers, start)
        directions = (
            start,
            curve and Reading(curve.value, math.hypot(curve.sd, r.curve_model_sd_deg)),
            _plain(shot.path_deg, r.measured_path_sd_deg),
            _plain(shot.face_deg, r.measured_face_sd_deg),
            _plain(shot.divot_direction_deg, r.divot_direction_sd_deg),
        )
    return (
        *directions,
        _low_point(shot, block, club, numbers),
        _plain(shot.heel_toe_mm, r.strike_sd_mm) or _contact_says(shot, "heel_toe_mm", numbers),
        _loft(shot, club, numbers),
        _carry_lost(shot, block, numbers),
    )


def start_deg(shot: Shot, numbers: Numbers) -> Reading | None:
    """The start bearing, + push side; measured wins over a word."""
    if shot.start_deg is not None:
        return Reading(shot.start_deg, numbers.reading.measured_direction_sd_deg)
    return _word(shot.start, numbers)


def curve_deg(shot: Shot, numbers: Numbers, start: Reading | None) -> Reading | None:
    """Landing bearing minus start bearing, + push side; measured wins over a word.

    A measured side and carry give the landing bearing, which needs a start to become a curve.
    """
    measured_sd = numbers.reading.measured_direction_sd_deg
    if shot.curve_deg is not None:
        return Reading(shot.curve_deg, measured_sd)
    if shot.side_m is not None and shot.carry_m and start is not None:
        landing = math.degrees(math.atan2(shot.side_m, shot.carry_m))
        return Reading(landing - start.value, math.hypot(measured_sd, start.sd))
    return _word(shot.curve, numbers)


def design_of(club: Club) -> FloatArray:
    """(readings, quantities) what each reading reads, with this club."""
    share, curve = club.start_face_share, club.curve_per_deg
    design = np.zeros((len(READINGS), len(QUANTITIES)))
    design[:5, :2] = np.array([[1, share], [0, curve], [1, 0], [1, 1], [1, 0]])
    design[5:, 2:] = np.eye(4)
    return design


def _word(word: str | None, numbers: Numbers) -> Reading | None:
    """A word is an interval: anything within it alike, and a floor of doubt about its limits."""
    if word is None:
        return None
    sign, size = _WORDS[word]
    inner, outer = numbers.shape.word_inner_deg, numbers.shape.word_outer_deg
    low, high = {
        "straight": (-inner, inner),
        "side": (inner, outer),
        "far": (outer, numbers.reading.word_far_ends_deg),
    }[size]
    width_sd = (high - low) / math.sqrt(12)
    return Reading(sign * (low + high) / 2, math.hypot(width_sd, numbers.reading.word_doubt_deg))


def _plain(value: float | None, sd: float) -> Reading | None:
    return None if value is None else Reading(value, sd)


def _low_point(shot: Shot, block: Block, club: Club, numbers: Numbers) -> Reading | None:
    """The divot's start plus half its length; else what the word of contact says."""
    r = numbers.reading
    start = shot.divot_start_cm if shot.divot_start_cm is not None else shot.brush_start_cm
    if start is not None and shot.divot_length_cm is not None:
        half = shot.divot_length_cm / 2
        return Reading(start + half, math.hypot(r.divot_start_sd_cm, r.divot_length_sd_cm / 2))
    if start is not None:
        sd = math.hypot(r.divot_start_sd_cm, r.divot_length_sd_cm)
        return Reading(start + r.divot_half_length_cm, sd)
    teed = block.teed if block.teed is not None else club.kind == "driver"
    return None if teed else _contact_says(shot, "low_point_cm", numbers)


def _contact_says(shot: Shot, what: str, numbers: Numbers) -> Reading | None:
    said = numbers.contact_says.get(shot.contact or "", {}).get(what)
    return None if said is None else Reading(*said)


def _loft(shot: Shot, club: Club, numbers: Numbers) -> Reading | None:
    if shot.dynamic_loft_deg is None:
        return None
    excess = shot.dynamic_loft_deg - club.dynamic_loft_deg
    return Reading(excess, numbers.reading.measured_loft_sd_deg)


def _carry_lost(shot: Shot, block: Block, numbers: Numbers) -> Reading | None:
    if shot.carry_m is None or block.expected_carry_m is None:
        return None
    lost = 100 * (1 - shot.carry_m / block.expected_carry_m)
    return Reading(lost, numbers.reading.carry_sd_pct)
