"""How sure is a measure of a film? All that can be off, each as a move of its places.

Every cause of doubt moves the places that were touched by one standard deviation in its own way;
the causes are independent and small, so the measure's variance is the sum of the squares of what
each does to it.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from firm_footing.core.case.film import Film
from firm_footing.core.film.formulas import value_of
from firm_footing.core.film.plane import Plane, plane_of, touched_sd
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.film import FilmErrors, FilmEvent, FilmMeasure, FilmNumbers

STEP_CM: Final = 0.01
FRAME_SD: Final = 1 / math.sqrt(12)
"""Of where within a picture's time an event lies, in pictures."""
OWN_DEPTH: Final = 0.5
"""How much of a point's depth is another one at another event."""
A_QUARTER_TURN: Final = np.array([[0.0, 1.0], [-1.0, 0.0]])


@dataclass(frozen=True)
class FilmPlanes:
    """The plane of a film's player, and what it would be if the camera looked farther past square.

    turned : one standard deviation farther: ground and scale as touched, so level and size change
    """

    now: Plane
    turned: Plane


def planes_of(film: Film, numbers: FilmNumbers) -> FilmPlanes:
    """Both; FilmError as for `plane_of`."""
    now = plane_of(film, numbers)
    return FilmPlanes(now, plane_of(film, numbers, more_turned_rad=now.turned_sd))


@dataclass(frozen=True)
class PointsTouched:
    """What a measure is worked out of, in the order of its `wants`.

    pixels : (n, 2) where each was touched
    nearer_cm : (n,) how far each usually lies from the plane toward the camera
    sd_px : (n,) how far off each touch is, film pixels
    followed_px : (n,) how far off all of a picture is together: where the camera then looked
    """

    pixels: FloatArray
    nearer_cm: FloatArray
    sd_px: FloatArray
    followed_px: FloatArray


def points_touched(film: Film, measure: FilmMeasure, numbers: FilmNumbers) -> PointsTouched | None:
    """Of a measure; None where one of its points was not touched."""
    found = []
    for point, event in measure.wants:
        place = film.points.get(point, {}).get(event)
        if place is None:
            return None
        found.append(film.steadied(place, event))
    nearer = [numbers.point[p].nearer(film.view, e) for p, e in measure.wants]
    errors = numbers.errors
    sds = [
        touched_sd(film.zoom.get(p, {}).get(e), errors.point_px, errors) for p, e in measure.wants
    ]
    followed = [_followed_sd(film, event, errors) for _, event in measure.wants]
    return PointsTouched(
        np.array(found, dtype=np.float64), np.array(nearer), np.array(sds), np.array(followed)
    )


def _followed_sd(film: Film, event: FilmEvent, errors: FilmErrors) -> float:
    """How far off the whole picture may lie against that of address, pixels."""
    move = film.moves.get(event)
    if move is not None:
        return move.sd_px
    return errors.not_followed_px if film.held and event != "address" else 0.0


def sd_of(
    measure: FilmMeasure,
    points: PointsTouched,
    planes: FilmPlanes,
    fps: float,
    numbers: FilmNumbers,
) -> float:
    """One standard deviation of the measure, in its unit; `fps` of the swing itself."""
    places = planes.now.place(points.pixels, points.nearer_cm)

    def moved(way: FloatArray) -> float:
        """How the measure changes when the places move this way."""
        more, less = (value_of(measure, places + step * way) for step in (STEP_CM, -STEP_CM))
        gone = more - less
        if measure.unit == "deg":
            gone = (gone + 180) % 360 - 180
        return gone / (2 * STEP_CM)

    ways = [
        *_of_touches(places, points, planes.now),
        *_of_following(measure, points, planes.now),
        *_of_time(measure, fps, numbers),
        planes.now.scale_sd * places,
        planes.now.level_sd * places @ A_QUARTER_TURN,
        planes.turned.place(points.pixels, points.nearer_cm) - places,
        *_of_depth(measure, points, planes.now, numbers),
        _farther(points, planes.now, numbers.errors.distance_part) - places,
    ]
    return math.sqrt(sum(moved(way) ** 2 for way in ways))


def _of_touches(places: FloatArray, points: PointsTouched, plane: Plane) -> Iterator[FloatArray]:
    for coordinate in range(places.size):
        sd_cm = points.sd_px[coordinate // 2] * plane.cm_per_px
        yield sd_cm * np.eye(places.size)[coordinate].reshape(places.shape)


def _of_following(
    measure: FilmMeasure, points: PointsTouched, plane: Plane
) -> Iterator[FloatArray]:
    """All points of one picture lie aside, or up, together."""
    for moment in {event for _, event in measure.wants}:
        mine = np.array([event == moment for _, event in measure.wants])
        for way in np.eye(2):
            yield np.outer(mine * points.followed_px * plane.cm_per_px, way)


def _of_time(measure: FilmMeasure, fps: float, numbers: FilmNumbers) -> Iterator[FloatArray]:
    """All points of one picture are late together."""
    time_s = math.hypot(FRAME_SD, numbers.errors.event_frames) / fps
    for moment in {event for _, event in measure.wants}:
        yield time_s * np.array(
            [
                numbers.point[p].speed(measure.view, e) if e == moment else (0.0, 0.0)
                for p, e in measure.wants
            ]
        )


def _of_depth(
    measure: FilmMeasure, points: PointsTouched, plane: Plane, numbers: FilmNumbers
) -> Iterator[FloatArray]:
    """A point lies deeper than usual, at all its events alike and besides at each of its own."""
    for point in dict.fromkeys(measure.points):
        depth = numbers.point[point].depth_cm
        mine = np.array([p == point for p, _ in measure.wants])
        yield from _deeper(depth * mine, points, plane)
        if mine.sum() > 1:
            for i in np.flatnonzero(mine):
                yield from _deeper(OWN_DEPTH * depth * np.eye(len(mine))[i], points, plane)


def _deeper(by_cm: FloatArray, points: PointsTouched, plane: Plane) -> Iterator[FloatArray]:
    """What (n,) centimetres toward the camera do: as it stands, and as far as it may be turned."""
    places = plane.place(points.pixels, points.nearer_cm)
    yield plane.place(points.pixels, points.nearer_cm + by_cm) - places
    aside = np.zeros_like(places)
    aside[:, 0] = by_cm * math.tan(plane.turned_sd)
    yield aside


def _farther(points: PointsTouched, plane: Plane, part: float) -> FloatArray:
    """The places, were the camera farther away by this part of its distance."""
    farther = replace(plane, distance_cm=plane.distance_cm * (1 + part))
    return farther.place(points.pixels, points.nearer_cm)
