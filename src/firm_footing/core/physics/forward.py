"""What does a delivery make the ball do?

    delivery ── turf ──► attack, speed left ── impact ──► launch ── flight ──► start, curve, carry

A delivery is a row of numbers in the order of `PARTS`: the six of `DIMENSIONS`, and how high on the
face the ball was met. Loft is against what is usual with the club, speed against a reference. The
low point is from the place where an iron's ball lies, so that one swing has one low point with
every club; from the ball it is `from_ball_cm`.
"""

from typing import Final, NamedTuple

import numpy as np

from firm_footing.core.frame.arrays import FloatArray, FloatOrArray
from firm_footing.core.knowledge import DIMENSIONS
from firm_footing.core.knowledge.clubs import Club
from firm_footing.core.knowledge.numbers import Turf
from firm_footing.core.physics.flight import Air, Flight, Launch, fly
from firm_footing.core.physics.impact import Delivery, strike
from firm_footing.core.physics.turf import attack_deg, speed_lost_pct

GROUND_COVER_CM: Final = 3.0
PARTS: Final = (*DIMENSIONS, "low_high_mm")
PATH, FACE_TO_PATH, LOW_POINT, STRIKE, LOFT, SPEED, HEIGHT = range(len(PARTS))


class Setting(NamedTuple):
    """What balls are hit with, and from.

    club_speed_mps : to which the speed of a delivery, in per cent, refers
    teed : the ground cannot come before the ball
    """

    club: Club
    club_speed_mps: float
    teed: bool
    turf: Turf


def from_ball_cm(low_point_cm: FloatOrArray, club: Club) -> FloatOrArray:
    """Low point of a delivery as it is seen on the ground: cm from this club's ball, + ahead.

    low_point_cm : from the place of an iron's ball, + ahead
    """
    return low_point_cm - club.ball_forward_cm


def clear_of_ground_cm(setting: Setting) -> float:
    """Low point of a square blow: enough that no ground comes before the ball."""
    return GROUND_COVER_CM if setting.teed else max(GROUND_COVER_CM, setting.club.ball_forward_cm)


class BallOutcome(NamedTuple):
    """What each ball does; directions in degrees, + push side."""

    launch: Launch
    flight: Flight
    curve_deg: FloatArray


def deliver(parts: FloatArray, setting: Setting) -> Delivery:
    """The club at the ball of deliveries (n, 7), after what the ground took."""
    club, turf = setting.club, setting.turf
    low_point_cm = from_ball_cm(parts[:, LOW_POINT], club)
    lost = speed_lost_pct(low_point_cm, setting.teed, turf)
    speed = setting.club_speed_mps * np.maximum(0.2, 1 + (parts[:, SPEED] - lost) / 100)
    return Delivery(
        club_speed_mps=speed,
        path_deg=parts[:, PATH],
        face_deg=parts[:, PATH] + parts[:, FACE_TO_PATH],
        attack_deg=attack_deg(low_point_cm, turf),
        dynamic_loft_deg=np.maximum(2.0, club.dynamic_loft_deg + parts[:, LOFT]),
        heel_toe_mm=parts[:, STRIKE],
        low_high_mm=parts[:, HEIGHT],
    )


def play(parts: FloatArray, setting: Setting, air: Air | None = None) -> BallOutcome:
    """Strike and fly deliveries (n, 7)."""
    launch = strike(deliver(parts, setting), setting.club)
    flight = fly(launch, air)
    return BallOutcome(launch, flight, curve_deg(launch, flight))


def curve_deg(launch: Launch, flight: Flight) -> FloatArray:
    """Bearing of the landing place minus the start bearing, (n,)."""
    share = np.clip(flight.side_m / np.maximum(flight.carry_m, 1e-9), -1.0, 1.0)
    out: FloatArray = np.degrees(np.arcsin(share)) - launch.direction_deg
    return out
