"""What does the ground show of the club's arc, and what does the arc do to the ball?

The club head goes round on a tilted circle. Near its lowest place, seen from two sides:

    side     ball o                          above          · · · ·   path at the ball: outward
       ╲      |                                          ·         · · ·
         ╲____v__ low point                        swing direction at the low point  ───────►
          ^ divot ^                                      (the divot's direction)

Both slopes are straight lines in the distance to the low point. A divot is deepest about its
middle. Every low point here is from the ball, whatever the club.
"""

import math
from typing import NamedTuple

import numpy as np

from firm_footing.core.case import Block, Shot
from firm_footing.core.frame.arrays import FloatArray, FloatOrArray
from firm_footing.core.knowledge.clubs import Club
from firm_footing.core.knowledge.numbers import Turf


class LowPoint(NamedTuple):
    """cm along the target line from the ball, + ahead, and its standard deviation."""

    cm: float
    sd_cm: float


def low_point(shot: Shot, turf: Turf) -> LowPoint | None:
    """Where the club was lowest: as measured, else from the divot, or the brush mark on a mat.

    The start plus half the length; a length that was not noted is guessed from the depth. None
    where nothing tells.
    """
    if shot.low_point_cm is not None:
        return LowPoint(shot.low_point_cm, turf.start_sd_cm)
    start = shot.divot_start_cm if shot.divot_start_cm is not None else shot.brush_start_cm
    if start is None:
        return None
    if shot.divot_length_cm is not None:
        doubt = math.hypot(turf.start_sd_cm, shot.divot_length_cm * turf.deepest_sd_share)
        return LowPoint(start + shot.divot_length_cm / 2, doubt)
    halves = turf.half_length_cm
    by_depth = {"shallow": halves.shallow, "deep": halves.deep}
    half = by_depth.get(shot.divot_depth or "", halves.normal)
    return LowPoint(start + half, math.hypot(turf.start_sd_cm, turf.half_length_sd_cm))


def is_teed(block: Block, club: Club) -> bool:
    """Whether the ground cannot come before the ball."""
    return block.teed if block.teed is not None else club.head.teed


def attack_deg(low_point_cm: FloatOrArray, turf: Turf) -> FloatOrArray:
    """Angle of attack, degrees, + up.

    low_point_cm : ahead of the ball (+), in the shape of the result
    """
    return -low_point_cm * cm_to_attack(turf)


def cm_to_attack(turf: Turf) -> float:
    """Degrees of attack for each cm that the low point lies behind."""
    return math.degrees(0.01 / turf.arc_radius_m) * math.sin(_plane(turf))


def divot_deg(path_deg: FloatOrArray, low_point_cm: FloatOrArray, turf: Turf) -> FloatOrArray:
    """Direction of the divot, degrees, + push side: by there the club has come round from the path.

    path_deg, low_point_cm : + push side, + ahead of the ball; in the shape of the result
    """
    return path_deg - low_point_cm * cm_to_turn(turf)


def cm_to_turn(turf: Turf) -> float:
    """Degrees by which the club's way turns to the pull side on each cm to the low point."""
    return math.degrees(0.01 / turf.arc_radius_m) * math.cos(_plane(turf))


def speed_lost_pct(low_point_cm: FloatArray, teed: bool, turf: Turf) -> FloatArray:
    """(n,) per cent of club speed that the ground takes before the ball is met.

    low_point_cm : (n,) + ahead of the ball
    """
    if teed:
        return np.zeros_like(low_point_cm)
    return turf.speed_lost_pct_per_cm * np.maximum(0.0, -low_point_cm)


def _plane(turf: Turf) -> float:
    return math.radians(turf.plane_deg)
