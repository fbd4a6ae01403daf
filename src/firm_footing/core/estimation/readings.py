"""What was noted of one ball, and how sure is each note?

A note is either a value with its noise or an interval with the doubt about its limits (a word:
"pull" says that the ball started somewhere between two bearings, no more).
"""

import math
from typing import Final, NamedTuple, TypeGuard

from firm_footing.core.case import Block, Shot
from firm_footing.core.knowledge.clubs import Club
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.physics.turf import is_teed, low_point

READINGS: Final = (
    "start",
    "curve",
    "path",
    "face",
    "attack",
    "loft",
    "divot_direction",
    "low_point",
    "strike",
    "height",
    "contact_low_point",
    "contact_strike",
    "contact_elsewhere",
    "club_speed",
    "ball_speed",
    "launch",
    "spin",
    "axis",
    "carry",
)
"""Everything that can be noted; speeds, spin and carry as natural logarithms of m/s, rpm, m."""

_SIGN: Final = {"far_pull": -1, "pull": -1, "straight": 0, "push": 1, "far_push": 1}


class ValueRead(NamedTuple):
    """A value and its standard deviation, in the unit of the thing read."""

    value: float
    sd: float


class Within(NamedTuple):
    """Somewhere from `least` to `most`; `sd` is the standard deviation about the limits."""

    least: float
    most: float
    sd: float


NotedValue = ValueRead | Within


def notes_of(shot: Shot, block: Block, club: Club, numbers: Numbers) -> dict[str, NotedValue]:
    """What was noted of this ball, by the names of `READINGS`.

    A ball off the hosel says where it was struck and what the ground showed, nothing of path, face
    or speed; a topped one nothing of its flight.
    """
    made = {**_ground(shot, block, club, numbers), **_face(shot, numbers)}
    if shot.contact == "hosel":
        return made
    made |= _club(shot, numbers)
    return made if shot.contact == "top" else made | _flight(shot, block, numbers)


def start_deg(shot: Shot, numbers: Numbers) -> NotedValue | None:
    """The start bearing, + push side; measured wins over a word."""
    if shot.start_deg is not None:
        return ValueRead(shot.start_deg, numbers.reading.measured_direction_sd_deg)
    return _word(shot.start, numbers)


def curve_deg(shot: Shot, numbers: Numbers, start: NotedValue | None) -> NotedValue | None:
    """Landing bearing minus start bearing, + push side; measured wins over a word.

    A measured side and carry give the landing bearing, which needs a start to become a curve.
    """
    measured_sd = numbers.reading.measured_direction_sd_deg
    if shot.curve_deg is not None:
        return ValueRead(shot.curve_deg, measured_sd)
    if shot.side_m is not None and shot.carry_m and start is not None:
        landing = math.degrees(math.asin(max(-1.0, min(1.0, shot.side_m / shot.carry_m))))
        begun = as_reading(start, numbers)
        return ValueRead(landing - begun.value, math.hypot(measured_sd, begun.sd))
    return _word(shot.curve, numbers)


def as_reading(note: NotedValue, numbers: Numbers) -> ValueRead:
    """An interval by its middle and width; one without an end is taken to end somewhere."""
    if isinstance(note, ValueRead):
        return note
    end = numbers.reading.word_far_ends_deg
    least, most = max(note.least, -end), min(note.most, end)
    return ValueRead((least + most) / 2, math.hypot((most - least) / math.sqrt(12), note.sd))


def _word(word: str | None, numbers: Numbers) -> Within | None:
    """A word for a direction is an interval of it."""
    if word is None:
        return None
    inner, outer = numbers.shape.word_inner_deg, numbers.shape.word_outer_deg
    sd = numbers.reading.word_sd_deg
    sign = _SIGN[word]
    if sign == 0:
        return Within(-inner, inner, sd)
    low, high = (outer, math.inf) if word.startswith("far") else (inner, outer)
    return Within(low, high, sd) if sign > 0 else Within(-high, -low, sd)


def _ground(shot: Shot, block: Block, club: Club, numbers: Numbers) -> dict[str, NotedValue]:
    made: dict[str, NotedValue] = {}
    lowest = low_point(shot, numbers.turf)
    if lowest is not None:
        made["low_point"] = ValueRead(*lowest)
    elif not is_teed(block, club):
        made |= _contact_says(shot, "low_point_cm", "contact_low_point", numbers)
    if shot.divot_direction_deg is not None and shot.contact != "hosel":
        sd = numbers.reading.divot_direction_sd_deg
        made["divot_direction"] = ValueRead(shot.divot_direction_deg, sd)
    return made


def _face(shot: Shot, numbers: Numbers) -> dict[str, NotedValue]:
    sd = numbers.reading.strike_sd_mm
    made: dict[str, NotedValue] = {}
    if shot.low_high_mm is not None:
        made["height"] = ValueRead(shot.low_high_mm, sd)
    if shot.heel_toe_mm is not None:
        return made | {"strike": ValueRead(shot.heel_toe_mm, sd)}
    said = _contact_says(shot, "heel_toe_mm", "contact_strike", numbers)
    if said or (shot.contact is None and shot.start is None and shot.start_deg is None):
        return made | said
    on = numbers.not_off_the_face
    return made | {"contact_elsewhere": Within(on.least_mm, on.most_mm, on.sd_mm)}


def _contact_says(shot: Shot, quantity: str, name: str, numbers: Numbers) -> dict[str, NotedValue]:
    said = numbers.contact_says.get(shot.contact or "")
    if said is None or said.quantity != quantity:
        return {}
    least = -math.inf if said.least is None else said.least
    return {name: Within(least, math.inf if said.most is None else said.most, said.sd)}


def _club(shot: Shot, numbers: Numbers) -> dict[str, NotedValue]:
    """What was measured of the club, and where the ball started."""
    r = numbers.reading
    noted = {
        "path": (shot.path_deg, r.measured_path_sd_deg),
        "face": (shot.face_deg, r.measured_face_sd_deg),
        "attack": (shot.attack_deg, r.measured_attack_sd_deg),
        "loft": (shot.dynamic_loft_deg, r.measured_loft_sd_deg),
        "launch": (shot.launch_deg, r.measured_launch_sd_deg),
        "axis": (shot.spin_axis_deg, r.measured_axis_sd_deg),
        "club_speed": (_log(shot.club_speed_mps), r.measured_club_speed_sd_pct / 100),
        "ball_speed": (_log(shot.ball_speed_mps), r.measured_ball_speed_sd_pct / 100),
        "spin": (_log(shot.spin_rpm), r.measured_spin_sd_pct / 100),
    }
    made: dict[str, NotedValue] = {
        k: ValueRead(v, sd) for k, (v, sd) in noted.items() if v is not None
    }
    start = start_deg(shot, numbers)
    return made if start is None else made | {"start": _doubtful(start, r.start_model_sd_deg)}


def _flight(shot: Shot, block: Block, numbers: Numbers) -> dict[str, NotedValue]:
    made: dict[str, NotedValue] = {}
    curve = curve_deg(shot, numbers, start_deg(shot, numbers))
    if curve is not None:
        made["curve"] = _doubtful(curve, numbers.reading.curve_model_sd_deg)
    if was_seen(shot.carry_m) and (
        block.expected_carry_m is not None or was_seen(shot.club_speed_mps)
    ):
        made["carry"] = ValueRead(math.log(shot.carry_m), numbers.reading.carry_sd_pct / 100)
    return made


def _doubtful(note: NotedValue, more: float) -> NotedValue:
    """The same note with the model's own doubt added."""
    if isinstance(note, ValueRead):
        return ValueRead(note.value, math.hypot(note.sd, more))
    return Within(note.least, note.most, math.hypot(note.sd, more))


LEAST: Final = 1.0
"""Less of a speed in m/s, a spin in rpm or a carry in metres is a device that saw nothing."""


def was_seen(value: float | None) -> TypeGuard[float]:
    """Whether a device saw the club or the ball at all."""
    return value is not None and value >= LEAST


def _log(value: float | None) -> float | None:
    return math.log(value) if was_seen(value) else None
