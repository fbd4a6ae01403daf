"""How long is a yard, how fast a mile an hour? Everything inside the core is SI."""

from typing import Literal

DistanceUnit = Literal["m", "yd"]
SpeedUnit = Literal["m/s", "km/h", "mph"]

YARD_M = 0.9144  # exact: international yard and pound agreement, 1959
MILE_M = 1760 * YARD_M
HOUR_S = 3600.0

METRES: dict[DistanceUnit, float] = {"m": 1.0, "yd": YARD_M}
METRES_A_SECOND: dict[SpeedUnit, float] = {
    "m/s": 1.0,
    "km/h": 1000.0 / HOUR_S,
    "mph": MILE_M / HOUR_S,
}


def to_metres(value: float, unit: DistanceUnit) -> float:
    """A distance in `unit` as metres."""
    return value * METRES[unit]


def from_metres(value_m: float, unit: DistanceUnit) -> float:
    """A distance in metres as `unit`."""
    return value_m / METRES[unit]


def to_metres_a_second(value: float, unit: SpeedUnit) -> float:
    """A speed in `unit` as metres a second."""
    return value * METRES_A_SECOND[unit]


def from_metres_a_second(value_mps: float, unit: SpeedUnit) -> float:
    """A speed in metres a second as `unit`."""
    return value_mps / METRES_A_SECOND[unit]
