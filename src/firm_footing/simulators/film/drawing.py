"""What does the camera see? A faceless figure in a plain bay, drawn picture by picture."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.random import Generator
from numpy.typing import NDArray
from PIL import Image, ImageDraw

from firm_footing.core.frame import Handedness
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.simulators.film.camera import TOE_LINE_CM, clockwise
from firm_footing.simulators.film.marking import Filmed

Picture = NDArray[np.uint8]
Colour = tuple[int, int, int]
Spot = tuple[float, float]
WALL, FLOOR, MAT, STICK = (196, 198, 192), (120, 128, 116), (92, 116, 88), (214, 120, 52)
SHIRT, LEGS, SKIN, SHOES, CLUB, BALL = (
    (64, 84, 112), (58, 60, 66), (172, 134, 108), (34, 34, 38), (38, 40, 44), (246, 246, 242),
)  # fmt: skip
KNOTS: Final = 220
LIMBS: Final = (
    ("trail_hip", "trail_knee", 15, LEGS),
    ("trail_knee", "trail_heel", 11, LEGS),
    ("trail_heel", "trail_toe", 8, SHOES),
    ("lead_hip", "lead_knee", 15, LEGS),
    ("lead_knee", "lead_heel", 11, LEGS),
    ("lead_heel", "lead_toe", 8, SHOES),
    ("trail_shoulder", "trail_elbow", 9, SHIRT),
    ("trail_elbow", "hands", 7, SKIN),
    ("hips", "chest", 27, SHIRT),
    ("seat", "hips", 20, LEGS),
    ("trail_shoulder", "lead_shoulder", 12, SHIRT),
    ("chest", "head", 10, SKIN),
    ("lead_shoulder", "lead_elbow", 9, SHIRT),
    ("lead_elbow", "hands", 7, SKIN),
)
"""From, to, how thick in cm, and the colour, the farthest first."""


@dataclass(frozen=True)
class Quality:
    """How the film differs from a clean drawing.

    noise : of the sensor, grey levels; blur_s : how long the shutter is open
    """

    noise: float = 4.0
    blur_s: float = 1 / 1000


def pictures(
    filmed: Filmed, hand: Handedness, quality: Quality, rng: Generator
) -> Iterator[Picture]:
    """(height, width, 3) every picture of the film, a left-hander's mirrored."""
    behind = _bay(filmed)
    t = np.array([filmed.seconds(frame) for frame in range(filmed.frames)])
    half = quality.blur_s / 2
    now, opened, closed = (_seen(filmed, t, by) for by in (0.0, -half, half))
    before_impact = t < filmed.swing.seconds["impact"]
    for i, ball in enumerate(before_impact):
        image = _held(filmed, behind, t[i])
        swept = [opened["hands"][i], opened["club_head"][i], closed["club_head"][i]]
        _smear(image, np.array(swept))
        _draw(filmed, image, {joint: tuple(at[i].tolist()) for joint, at in now.items()}, ball)
        picture = np.asarray(image)
        if quality.noise > 0:
            grain = rng.integers(-3, 4, picture.shape[:2], dtype=np.int16)
            grainy = picture + (grain * (quality.noise / 2)).astype(np.int16)[..., None]
            picture = np.clip(grainy, 0, 255, out=grainy).astype(np.uint8)
        yield picture[:, ::-1] if hand == "left" else picture


def _seen(filmed: Filmed, moments: FloatArray, later_s: float) -> dict[str, FloatArray]:
    """Joint to (moments, 2) where the camera sees it, so much later than each picture is taken."""
    return {
        joint: np.array([filmed.picture(p, t) for p, t in zip(at, moments, strict=True)])
        for joint, at in filmed.swing.at(moments + later_s).items()
    }


def _held(filmed: Filmed, behind: Image.Image, seconds: float) -> Image.Image:
    """What stands still, as a hand that holds the camera shows it."""
    if filmed.shake is None:
        return behind.copy()
    shift, turned = filmed.shake.pose(seconds)
    middle = np.array(behind.size) / 2
    back = clockwise(-turned)
    start = middle - back @ (middle + shift)
    corners = (*back[0], start[0], *back[1], start[1])
    return behind.transform(
        behind.size, Image.Transform.AFFINE, corners, Image.Resampling.BICUBIC, fillcolor=WALL
    )


def _bay(filmed: Filmed) -> Image.Image:
    camera = filmed.camera
    image = Image.new("RGB", (camera.width, camera.height), WALL)
    draw = ImageDraw.Draw(image)
    far = (0.0, -900.0, 0.0) if camera.view == "face_on" else (900.0, TOE_LINE_CM, 0.0)
    draw.rectangle(
        (0, float(camera.picture(np.array(far))[1]), camera.width, camera.height), fill=FLOOR
    )
    _knots(draw, camera.width, camera.height)
    mat = np.array([[-75.0, -60, 0], [75, -60, 0], [75, 110, 0], [-75, 110, 0]])
    draw.polygon([tuple(p) for p in camera.picture(mat)], fill=MAT)
    start, end = camera.picture(camera.stick())
    draw.line([tuple(start), tuple(end)], fill=STICK, width=max(2, camera.height // 240))
    return image


def _knots(draw: ImageDraw.ImageDraw, width: int, height: int) -> None:
    """Spots on wall and floor: something that stands still and can be followed."""
    rng = np.random.default_rng(4)
    size = height / 160
    for x, y, long, shade in rng.random((KNOTS, 4)) * [width, height, 3, 40]:
        grey = round(174 - shade / 3)
        box = (x, y, x + size * (1 + long), y + size)
        draw.rectangle(box, fill=(grey, grey, grey - 10))


def _draw(filmed: Filmed, image: Image.Image, spot: Mapping[str, Spot], ball: bool) -> None:
    draw = ImageDraw.Draw(image)
    px_per_cm = filmed.camera.focal_px / filmed.camera.distance_cm
    if ball:
        _disc(draw, spot["ball"], 2.13 * px_per_cm, BALL)
    club = max(2, round(1.6 * px_per_cm))
    draw.line([spot["hands"], spot["club_head"]], fill=CLUB, width=club)
    _disc(draw, spot["club_head"], 4 * px_per_cm, CLUB)
    for start, end, thick, colour in LIMBS:
        draw.line([spot[start], spot[end]], fill=colour, width=round(thick * px_per_cm))
        for place in (spot[start], spot[end]):
            _disc(draw, place, thick * px_per_cm / 2, colour)
    _disc(draw, spot["head"], 11 * px_per_cm, SKIN)


def _smear(image: Image.Image, swept: FloatArray) -> None:
    """What the club sweeps while the shutter is open, (3, 2) corners in the picture."""
    left, top = np.floor(swept.min(axis=0)).astype(int).tolist()
    width, height = (np.ceil(np.ptp(swept, axis=0)).astype(int) + 2).tolist()
    mask = Image.new("L", (width, height), 0)
    ImageDraw.Draw(mask).polygon([(float(x), float(y)) for x, y in swept - [left, top]], fill=120)
    image.paste(CLUB, (left, top), mask)


def _disc(draw: ImageDraw.ImageDraw, place: Spot, radius: float, colour: Colour) -> None:
    x, y = place
    draw.ellipse((x - radius, y - radius, x + radius, y + radius), fill=colour)
