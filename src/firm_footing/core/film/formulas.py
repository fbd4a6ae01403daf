"""How is a measure worked out of its points? Plane geometry, by the names of `film.yaml`.

Every formula takes (n, 2) places in centimetres, right and up, in the order in which the measure
wants them.
"""

import math
from collections.abc import Callable
from typing import Final

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.film import FilmMeasure, Formula

SHOE_CM: Final = 30.0
"""Heel to toe of a shoe; estimate."""


def _rise(p: FloatArray) -> float:
    return float(p[1, 1] - p[0, 1])


def _shift(p: FloatArray) -> float:
    return float(p[1, 0] - p[0, 0])


def _apart(p: FloatArray) -> float:
    return float(p[0, 0] - p[1, 0])


def _slope(p: FloatArray) -> float:
    """From level, -90 to 270: a club that points up and back is more than 90."""
    right, up = p[1] - p[0]
    angle = math.degrees(math.atan2(up, right))
    return angle + 360 if angle < -90 else angle


def _tilt(p: FloatArray) -> float:
    """From upright, + to the right."""
    right, up = p[1] - p[0]
    return math.degrees(math.atan2(right, up))


def _corner(p: FloatArray) -> float:
    """At the second point, 0 to 180."""
    one, other = p[0] - p[1], p[2] - p[1]
    return math.degrees(math.atan2(abs(one[0] * other[1] - one[1] * other[0]), float(one @ other)))


def _turned_out(p: FloatArray) -> float:
    """Of a foot seen from its front: how much of its length lies across, as an angle."""
    return math.degrees(math.asin(max(-1.0, min(1.0, float(p[1, 0] - p[0, 0]) / SHOE_CM))))


def value_of(measure: FilmMeasure, places: FloatArray) -> float:
    """The measure of (n, 2) places in the order of its `wants`, in its unit."""
    formula = FORMULAS[measure.formula]
    if not measure.middle:
        return formula(places)
    pictures = places.reshape(-1, len(measure.points), 2)
    middles = pictures[:, :2].mean(axis=1, keepdims=True)
    return formula(np.concatenate([middles, pictures[:, 2:]], axis=1).reshape(-1, 2))


FORMULAS: Final[dict[Formula, Callable[[FloatArray], float]]] = {
    "rise": _rise,
    "shift": _shift,
    "apart": _apart,
    "slope": _slope,
    "tilt": _tilt,
    "corner": _corner,
    "turned_out": _turned_out,
}
