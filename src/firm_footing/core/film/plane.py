"""How large is a pixel, and which way is up? The plane of the player, from what the picture holds.

A measure from one picture is a projection onto this plane. What lies nearer or farther than it
looks larger or smaller, and moves sideways when the camera stands beside its place; both are part
of the doubt.
"""

import math
from dataclasses import dataclass

import numpy as np

from firm_footing.core.case.film import Film
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.film import FilmNumbers

LEAST_PX = 4.0
"""A scale or a ground line shorter than this says nothing."""


class FilmError(ValueError):
    """A film cannot be measured; the message says what is missing."""


@dataclass(frozen=True)
class Plane:
    """From pixels to centimetres.

    cm_per_px : scale; scale_sd : its doubt, as a part of it
    level_rad : how far the ground line rises to the right in the picture; level_sd : its doubt
    distance_cm : of the camera from the plane
    view_sd : how far the camera looks past the plane's square, radians, one standard deviation
    centre : (2,) where the camera looks, in pixels
    """

    cm_per_px: float
    scale_sd: float
    level_rad: float
    level_sd: float
    distance_cm: float
    view_sd: float
    centre: tuple[float, float]

    def place(self, pixels: FloatArray, nearer_cm: FloatArray | float = 0.0) -> FloatArray:
        """(n, 2) pixels to (n, 2) centimetres: right and up from where the camera looks.

        nearer_cm : (n,) how far each lies from the plane toward the camera
        """
        right, down = np.moveaxis(pixels - np.array(self.centre), -1, 0)
        cos, sin = math.cos(self.level_rad), math.sin(self.level_rad)
        up = -down
        level = np.stack([right * cos + up * sin, up * cos - right * sin], axis=-1)
        smaller = 1.0 - np.asarray(nearer_cm) / self.distance_cm
        out: FloatArray = level * self.cm_per_px * smaller[..., None]
        return out


def plane_of(film: Film, numbers: FilmNumbers) -> Plane:
    """The plane of the player.

    Raises
    ------
    FilmError
        Nothing gives a scale, or what does is too short in the picture.

    """
    seen, errors = film.scale, numbers.errors
    if seen is None:
        raise FilmError("Nothing in the picture gives a scale yet: touch both ends of one thing.")
    kind = numbers.scale.get(seen.by)
    if kind is None:
        raise FilmError(f"There is no scale called '{seen.by}'.")
    cm = seen.cm if seen.cm is not None else kind.cm
    if cm is None:
        raise FilmError(f"Say how long {kind.name} is.")
    length_px = math.dist(seen.start, seen.end)
    if length_px < LEAST_PX:
        raise FilmError("The two ends of the scale lie on one another.")
    distance = film.distance_cm if film.distance_cm is not None else errors.distance_cm
    off_line = film.off_line_cm if film.off_line_cm is not None else errors.off_line_cm
    level, level_sd = _level(film, numbers)
    return Plane(
        cm_per_px=cm / length_px,
        scale_sd=math.hypot(
            math.sqrt(2) * errors.point_px / length_px, kind.sd_cm / cm, kind.depth_cm / distance
        ),
        level_rad=level,
        level_sd=level_sd,
        distance_cm=distance,
        view_sd=math.atan(off_line / distance),
        centre=(film.width / 2, film.height / 2),
    )


def _level(film: Film, numbers: FilmNumbers) -> tuple[float, float]:
    """How far the ground rises to the right, and its doubt; a camera is held nearly upright."""
    if film.ground is None:
        return 0.0, math.radians(numbers.errors.held_deg)
    (x0, y0), (x1, y1) = sorted(film.ground)
    length = math.hypot(x1 - x0, y1 - y0)
    if length < LEAST_PX:
        raise FilmError("The two ends of the ground line lie on one another.")
    return math.atan2(y0 - y1, x1 - x0), math.sqrt(2) * numbers.errors.ground_px / length
