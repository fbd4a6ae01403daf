"""How sure is a measure of a film? All that can be off, each as a move of its places.

Every cause of doubt moves the places that were touched by one standard deviation in its own way;
the causes are independent and small, so the measure's variance is the sum of the squares of what
each does to it.
"""

import math
from collections.abc import Iterator
from typing import Final

import numpy as np

from firm_footing.core.film.formulas import value_of
from firm_footing.core.film.plane import Plane
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.film import FilmMeasure, FilmNumbers

STEP_CM: Final = 0.01
FRAME_SD: Final = 1 / math.sqrt(12)
"""Of where within a picture's time an event lies, in pictures."""
OWN_DEPTH: Final = 0.5
"""How much of a point's depth is another one at another event."""
A_QUARTER_TURN: Final = np.array([[0.0, 1.0], [-1.0, 0.0]])


def sd_of(
    measure: FilmMeasure, places: FloatArray, plane: Plane, fps: float, numbers: FilmNumbers
) -> float:
    """One standard deviation of the measure, in its unit.

    Parameters
    ----------
    places : (n, 2) centimetres, right and up, in the order of `measure.wants`
    fps : pictures a second of the swing itself

    """

    def moved(way: FloatArray) -> float:
        """How the measure changes when the places move this way."""
        more, less = (value_of(measure, places + step * way) for step in (STEP_CM, -STEP_CM))
        gone = more - less
        if measure.unit == "deg":
            gone = (gone + 180) % 360 - 180
        return gone / (2 * STEP_CM)

    return math.sqrt(sum(moved(way) ** 2 for way in _ways(measure, places, plane, fps, numbers)))


def _ways(
    measure: FilmMeasure, places: FloatArray, plane: Plane, fps: float, numbers: FilmNumbers
) -> Iterator[FloatArray]:
    """(n, 2) each: how the places move by one standard deviation of what can be off."""
    errors, wants = numbers.errors, measure.wants
    point_cm = errors.point_px * plane.cm_per_px
    for coordinate in range(places.size):
        yield point_cm * np.eye(places.size)[coordinate].reshape(places.shape)
    time_s = math.hypot(FRAME_SD, errors.event_frames) / fps
    for moment in {event for _, event in wants}:  # all points of one picture are late together
        speeds = [numbers.point[p].speed(measure.view, e) for p, e in wants]
        yield time_s * np.array(
            [s if e == moment else (0.0, 0.0) for s, (_, e) in zip(speeds, wants, strict=True)]
        )
    yield plane.scale_sd * places
    yield plane.level_sd * places @ A_QUARTER_TURN
    for point in dict.fromkeys(measure.points):
        depth = numbers.point[point].depth_cm
        mine = np.array([p == point for p, _ in wants])
        yield from _deeper(depth * mine, places, plane)
        if mine.sum() > 1:
            for i in np.flatnonzero(mine):
                yield from _deeper(OWN_DEPTH * depth * np.eye(len(wants))[i], places, plane)
    nearer = np.array([numbers.point[p].nearer(measure.view, e) for p, e in wants])
    larger, aside = _deeper(nearer, places, plane)
    yield aside
    yield errors.distance_part * larger


def _deeper(by_cm: FloatArray, places: FloatArray, plane: Plane) -> tuple[FloatArray, FloatArray]:
    """What (n,) centimetres toward the camera do: larger, and aside where it looks past square."""
    aside = np.zeros_like(places)
    aside[:, 0] = by_cm * math.tan(plane.view_sd)
    return places * by_cm[:, None] / plane.distance_cm, aside
