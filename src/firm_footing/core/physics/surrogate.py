"""Where does a ball land, without flying it? A polynomial fitted to flights, club by club.

For reading many balls backwards in a few milliseconds. Of degree `DEGREE` in the logarithm of ball
speed, launch, the logarithm of spin and the tilt of its axis, fitted once to `SAMPLES` flights that
the club can make. Its root mean square error against `flight.fly`, over deliveries as students
make them, is under 0.1 degrees of curve and 0.8 % of carry with irons and wedges, 0.5 degrees and
5.5 % with a driver, whose heel and toe blows reach far; `tests/core/test_inverse.py` measures it.
"""

import itertools
from dataclasses import dataclass
from functools import lru_cache
from typing import Final, NamedTuple

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.clubs import Club
from firm_footing.core.knowledge.numbers import Turf
from firm_footing.core.physics.flight import Launch, fly
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    HEIGHT,
    LOFT,
    LOW_POINT,
    PARTS,
    STRIKE,
    Setting,
    curve_deg,
    deliver,
)
from firm_footing.core.physics.impact import HOSEL_FROM_MM, Delivery, strike

DEGREE: Final = 4
SAMPLES: Final = 700
DRIVER_MPS: Final = 44.0
"""Club speed of a driver about which flights are sampled."""
WIDEST: Final = {FACE_TO_PATH: 14.0, STRIKE: 26.0, HEIGHT: 14.0, LOFT: 8.0, LOW_POINT: 14.0}
"""The sample reaches this far either way."""
WIDEST_LOG_SPEED: Final = 0.45

POWERS: Final = np.array(
    [p for p in itertools.product(range(DEGREE + 1), repeat=4) if sum(p) <= DEGREE]
)
"""(terms, 4) exponents of every term."""


@dataclass(frozen=True, eq=False)
class Surrogate:
    """Curve and carry of one club's balls.

    middle, spread : (4,) to standardise the launch
    least, most : (4,) beyond which a launch is taken to be at the edge
    coefficients : (terms, 2) of curve in degrees and log carry in metres
    """

    middle: FloatArray
    spread: FloatArray
    least: FloatArray
    most: FloatArray
    coefficients: FloatArray

    def curve_and_log_carry(self, launch: Launch) -> tuple[FloatArray, FloatArray]:
        """Degrees, + push side, and log metres: (n,) each."""
        inside = np.clip(_numbers(launch), self.least, self.most)
        curve, log_carry = (_terms((inside - self.middle) / self.spread) @ self.coefficients).T
        return curve, log_carry


class Landed(NamedTuple):
    """What n deliveries make the ball do; arrays (n,), directions + push side."""

    delivery: Delivery
    launch: Launch
    curve_deg: FloatArray
    log_carry: FloatArray


def land(parts: FloatArray, setting: Setting) -> Landed:
    """Strike deliveries (n, 7) and look up where they land; none meets the hosel."""
    delivery = deliver(parts, setting)
    on_face = np.maximum(delivery.heel_toe_mm, HOSEL_FROM_MM + 0.1)
    launch = strike(delivery._replace(heel_toe_mm=on_face), setting.club)
    surrogate = surrogate_of(setting.club, setting.turf)
    return Landed(delivery, launch, *surrogate.curve_and_log_carry(launch))


@lru_cache(maxsize=32)
def surrogate_of(club: Club, turf: Turf) -> Surrogate:
    """Fitted to flights of this club."""
    rng = np.random.default_rng(1)
    parts = np.zeros((SAMPLES, len(PARTS)))
    for part, widest in WIDEST.items():
        parts[:, part] = widest * np.clip(rng.normal(0, 0.42, SAMPLES), -1, 1)
    parts[:, STRIKE] = np.maximum(parts[:, STRIKE], HOSEL_FROM_MM + 0.1)
    speed = club.speed_share * DRIVER_MPS
    delivery = deliver(parts, Setting(club, speed, True, turf))
    factor = np.exp(WIDEST_LOG_SPEED * np.clip(rng.normal(0, 0.5, SAMPLES), -1, 1))
    launch = strike(delivery._replace(club_speed_mps=speed * factor), club)
    flight = fly(launch)
    numbers = _numbers(launch)
    middle, spread = numbers.mean(axis=0), 1.5 * numbers.std(axis=0)
    told = np.stack([curve_deg(launch, flight), np.log(flight.carry_m)], axis=1)
    coefficients = np.linalg.lstsq(_terms((numbers - middle) / spread), told, rcond=None)[0]
    return Surrogate(middle, spread, numbers.min(axis=0), numbers.max(axis=0), coefficients)


def _numbers(launch: Launch) -> FloatArray:
    """(n, 4) what the polynomial is in."""
    return np.stack(
        [
            np.log(launch.ball_speed_mps),
            launch.launch_deg,
            np.log(launch.spin_rpm),
            launch.spin_axis_deg,
        ],
        axis=1,
    )


def _terms(z: FloatArray) -> FloatArray:
    """(n, terms) every product of powers."""
    powers = np.ones((DEGREE + 1, *z.shape))
    for degree in range(DEGREE):
        powers[degree + 1] = powers[degree] * z
    a, b, c, d = (powers[POWERS[:, i], :, i] for i in range(4))
    out: FloatArray = (a * b * c * d).T
    return out
