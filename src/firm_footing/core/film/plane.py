"""How large is a pixel, and which way is up? The plane of the player, from what the picture holds.

A measure from one picture is a projection onto this plane. What lies nearer or farther than it
looks larger or smaller, and moves sideways when the camera stands beside its place: what is known
of both is put right, and the rest is part of the doubt.
"""

import math
from dataclasses import dataclass, replace

import numpy as np

from firm_footing.core.case.film import Film
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.film import FilmErrors, FilmNumbers

LEAST_PX = 4.0
"""A scale or a ground line shorter than this says nothing."""
TURNS = 3
"""How often level and scale are put right by what the plane makes of them: each is a small step."""


class FilmError(ValueError):
    """A film cannot be measured; the message says what is missing."""


@dataclass(frozen=True)
class Plane:
    """From pixels to centimetres.

    cm_per_px : scale; scale_sd : its doubt, as a part of it
    level_rad : how far level ground rises to the right in the picture; level_sd : its doubt
    distance_cm : of the camera from the plane
    turned_rad : how far the camera looks past the plane's square, + from the right of it
    turned_sd : the doubt of that
    centre : (2,) where the camera looks, in pixels
    """

    cm_per_px: float
    scale_sd: float
    level_rad: float
    level_sd: float
    distance_cm: float
    turned_rad: float
    turned_sd: float
    centre: tuple[float, float]

    def place(self, pixels: FloatArray, nearer_cm: FloatArray | float = 0.0) -> FloatArray:
        """(n, 2) pixels to (n, 2) centimetres: right and up from where the camera looks.

        A pinhole camera that looks at the plane's middle from `turned_rad` beside square; its
        picture is turned back into the plane.

        nearer_cm : (n,) how far each lies from the plane toward the camera
        """
        across, down = np.moveaxis(pixels - np.array(self.centre), -1, 0) * self.cm_per_px
        cos, sin = math.cos(self.level_rad), math.sin(self.level_rad)
        seen_right, seen_up = across * cos - down * sin, -down * cos - across * sin
        nearer, far = np.asarray(nearer_cm), self.distance_cm
        square, beside = math.cos(self.turned_rad), math.sin(self.turned_rad)
        right = (seen_right * (far - nearer * square) + far * nearer * beside) / (
            far * square + seen_right * beside
        )
        depth = far - right * beside - nearer * square
        return np.stack([right, seen_up * depth / far], axis=-1)


def plane_of(film: Film, numbers: FilmNumbers, *, more_turned_rad: float = 0.0) -> Plane:
    """The plane of the player.

    more_turned_rad : as if the camera looked past square by so much more than is known

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
    if film.view not in kind.views:
        raise FilmError(f"From here {kind.name} is seen end-on: touch another scale.")
    cm = seen.cm if seen.cm is not None else kind.cm
    if cm is None:
        raise FilmError(f"Say how long {kind.name} is.")
    length_px = math.dist(seen.start, seen.end)
    if length_px < LEAST_PX:
        raise FilmError("The two ends of the scale lie on one another.")
    distance = film.distance_cm if film.distance_cm is not None else errors.distance_cm
    told = film.off_line_cm
    off_line_sd = errors.off_line_cm if told is None else errors.off_line_told_cm
    plane = Plane(
        cm_per_px=cm / length_px,
        scale_sd=math.hypot(
            math.sqrt(2) * touched_sd(seen.zoom, errors.point_px, errors) / length_px,
            kind.sd_cm / cm,
            kind.depth_cm / distance,
        ),
        level_rad=0.0,
        level_sd=_level_sd(film, errors),
        distance_cm=distance,
        turned_rad=math.atan((told or 0.0) / distance) + more_turned_rad,
        turned_sd=math.atan(off_line_sd / distance),
        centre=(film.width / 2, film.height / 2),
    )
    for _ in range(TURNS):
        plane = _levelled(plane, film)
        ends = plane.place(np.array([seen.start, seen.end]))
        long = float(np.linalg.norm(ends[1] - ends[0]))
        plane = replace(plane, cm_per_px=plane.cm_per_px * cm / long)
    return plane


def touched_sd(zoom: float | None, own_px: float, errors: FilmErrors) -> float:
    """How far off a touch is, film pixels: by what was touched, and by how large it was shown.

    zoom : pixels of the page for one of the film; None: as large as the film itself, or larger
    own_px : of what is touched, in pixels of the film
    """
    return own_px if zoom is None else math.hypot(own_px, errors.touch_px / zoom)


def _levelled(plane: Plane, film: Film) -> Plane:
    """With what was touched as ground lying level in it."""
    if film.ground is None:
        return plane
    right, up = np.diff(plane.place(np.array(sorted(film.ground))), axis=0)[0]
    return replace(plane, level_rad=plane.level_rad + math.atan2(up, right))


def _level_sd(film: Film, errors: FilmErrors) -> float:
    """The doubt of the level, radians: of the ground's ends, or of how upright cameras are held."""
    if film.ground is None:
        return math.radians(errors.held_deg)
    length = math.dist(*film.ground)
    if length < LEAST_PX:
        raise FilmError("The two ends of the ground line lie on one another.")
    return math.sqrt(2) * touched_sd(film.ground_zoom, errors.ground_px, errors) / length
