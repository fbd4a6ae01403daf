"""Where does a place lie in the picture? A pinhole camera at hand height, as instructors put it.

Down the line it stands behind the player over the toe line, face on opposite the middle of the
stance. Pictures are golfer-neutral here: the ball, or the target, is to the right; a left-hander's
are mirrored when they are drawn.
"""

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.film import FilmView

WAVES_HZ = (0.4, 0.9, 1.7, 3.1, 6.0)
"""How fast a hand moves a camera: the slower, the farther."""
TOE_LINE_CM = 28.0
AIMED_AT = np.array([0.0, TOE_LINE_CM, 92.0])


@dataclass(frozen=True)
class Camera:
    """A camera on its stand.

    distance_cm : from the middle of the stance (down the line) or the toe line (face on)
    off_line_cm : beside its place; it still aims at the player
    tilt_deg : its own roll, + clockwise
    lens : how much too far out places lie at half the picture's height from its middle, as a part
        of that; less than 0: too far in, as wide lenses draw
    readout_s : how much later the lowest row is taken than the uppermost
    """

    view: FilmView
    fps: float = 120.0
    width: int = 1080
    height: int = 1920
    distance_cm: float = 400.0
    off_line_cm: float = 0.0
    tilt_deg: float = 0.0
    lens: float = 0.0
    readout_s: float = 0.0

    @property
    def focal_px(self) -> float:
        """Such that the club stays in an upright picture all the way round at 4 m."""
        return self.height * 0.8

    @cached_property
    def axes(self) -> tuple[FloatArray, FloatArray, FloatArray, FloatArray]:
        """Place, then right, up and forward, (3,) each."""
        if self.view == "down_the_line":
            away, beside = np.array([-1.0, 0, 0]), np.array([0.0, 1, 0])
        else:
            away, beside = np.array([0.0, 1, 0]), np.array([1.0, 0, 0])
        place = AIMED_AT + self.distance_cm * away + self.off_line_cm * beside
        forward = (AIMED_AT - place) / np.linalg.norm(AIMED_AT - place)
        right = np.array([-forward[1], forward[0], 0.0])
        return place, right / np.linalg.norm(right), np.array([0.0, 0, 1]), forward

    def picture(self, places: FloatArray) -> FloatArray:
        """(..., 3) centimetres to (..., 2) pixels from the upper left corner."""
        place, right, up, forward = self.axes
        seen = places - place
        depth = seen @ forward
        across, down = self.focal_px * (seen @ right) / depth, -self.focal_px * (seen @ up) / depth
        cos, sin = math.cos(math.radians(self.tilt_deg)), math.sin(math.radians(self.tilt_deg))
        out = 1 + self.lens * (across**2 + down**2) / (self.height / 2) ** 2
        across, down = across * cos + down * sin, down * cos - across * sin
        return np.stack([self.width / 2 + across * out, self.height / 2 + down * out], axis=-1)

    def plane(self, places: FloatArray) -> FloatArray:
        """(..., 3) to (..., 2) what a ruler would say: right and up, without perspective."""
        right = places[..., 1] if self.view == "down_the_line" else places[..., 0]
        return np.stack([right, places[..., 2]], axis=-1)

    def stick(self) -> FloatArray:
        """(2, 3) the ends of a stick of 1 m on the ground, in the plane of the player."""
        if self.view == "down_the_line":
            return np.array([[0.0, 0, 0], [0, 100, 0]])
        return np.array([[-50.0, TOE_LINE_CM, 0], [50, TOE_LINE_CM, 0]])


@dataclass(frozen=True)
class Shake:
    """A hand that holds the camera; estimates.

    px, deg : how far the picture goes to and fro, and turns about its middle, standard deviations
    """

    px: float
    deg: float
    seed: int = 0

    def pose(self, seconds: float) -> tuple[FloatArray, float]:
        """(2,) pixels right and down, and radians clockwise."""
        rng = np.random.default_rng([self.seed, 7])
        sizes = 1 / np.array(WAVES_HZ)
        sizes *= np.sqrt(2) / np.linalg.norm(sizes)
        phases = rng.uniform(0, 2 * np.pi, (3, len(WAVES_HZ)))
        wave = np.sin(2 * np.pi * np.array(WAVES_HZ) * seconds + phases) @ sizes
        return self.px * wave[:2], math.radians(self.deg * float(wave[2]))

    def moved(self, places: FloatArray, middle: FloatArray, seconds: float) -> FloatArray:
        """(..., 2) pixels of a camera on its stand, as this hand holds it."""
        shift, turned = self.pose(seconds)
        return middle + shift + (places - middle) @ clockwise(turned).T

    def since(self, first: float, seconds: float) -> tuple[FloatArray, float]:
        """The same between two moments: (2,) pixels, and radians clockwise."""
        (before, was), (now, turned) = self.pose(first), self.pose(seconds)
        return now - clockwise(turned - was) @ before, turned - was


def clockwise(rad: float) -> FloatArray:
    """(2, 2) turns (right, down) clockwise, as a picture is seen."""
    return np.array([[math.cos(rad), -math.sin(rad)], [math.sin(rad), math.cos(rad)]])
