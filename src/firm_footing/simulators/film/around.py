"""What else moves in a film? Movement of seven kinds of film, picture by picture.

What moves in a picture adds up: the swing's own movement, from its pictures, with that of whoever
walks in, waggles, swings beside it, and of trees behind. All sizes are estimates of ours.
"""

from collections.abc import Callable
from typing import Final

import numpy as np
from numpy.random import Generator
from PIL import Image

from firm_footing.core.frame import Handedness
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.simulators.film.drawing import Quality, pictures
from firm_footing.simulators.film.marking import Filmed

Moves = tuple[FloatArray, FloatArray]
"""(frames,) how much changed, and (frames,) how far down that lies, 0 to 1."""


SMALL: Final = (90, 160)
NOISE: Final = 6
"""Grey levels: less is the sensor's noise. Both as the browser counts (`motion.ts`)."""


def moves_of(filmed: Filmed, hand: Handedness, quality: Quality, rng: Generator) -> Moves:
    """Of a drawn swing, picture by picture."""
    change, down, before = [0.0], [0.5], None
    rows = np.arange(SMALL[1])[:, None] / SMALL[1]
    for picture in pictures(filmed, hand, quality, rng):
        grey = Image.fromarray(picture).convert("L").resize(SMALL, Image.Resampling.BOX)
        now = np.asarray(grey, dtype=float)
        if before is not None:
            moved = np.abs(now - before)
            moved[moved < NOISE] = 0
            change.append(float(moved.sum()))
            down.append(float((moved * rows).sum() / max(moved.sum(), 1e-9)))
        before = now
    return np.array(change), np.array(down)


def clean(swing: Moves, _fps: float, _rng: Generator) -> Moves:
    """The swing alone."""
    return swing


def walks_in(swing: Moves, fps: float, rng: Generator) -> Moves:
    """The player comes, stands, and swings."""
    seconds, pause = rng.uniform(0.8, 2.0), rng.uniform(0.4, 1.2)
    walk = rng.uniform(0.1, 0.35) * (1 + 0.4 * _wave(seconds, fps, 3.6, rng))
    return _after(_alike(walk, 0.6), _still(pause, fps), swing)


def practice_swing(swing: Moves, fps: float, rng: Generator) -> Moves:
    """The same move before it, a little slower, and a pause."""
    slower = rng.uniform(1.1, 1.4)
    return _after(_slowed(swing, slower), _still(rng.uniform(0.6, 1.5), fps), swing)


def waggles(swing: Moves, fps: float, rng: Generator) -> Moves:
    """The club goes to and fro over the ball, two to four times, and rests."""
    seconds = rng.uniform(0.8, 1.8)
    moves = rng.uniform(0.04, 0.12) * np.abs(_wave(seconds, fps, rng.uniform(1.2, 2.0), rng))
    return _after(_alike(moves, 0.8), _still(rng.uniform(0.2, 0.6), fps), swing)


def another_golfer(swing: Moves, fps: float, rng: Generator) -> Moves:
    """Somebody swings behind, smaller, at another time."""
    change, down = _after(_still(1.0, fps), swing, _still(1.0, fps))
    size = rng.uniform(0.15, 0.45)
    late = int(rng.uniform(-0.9, 0.9) * fps)
    other = np.roll(np.where(change > 0, size * change, 0.0), late)
    return _together((change, down), (other, 0.35 + 0.25 * np.roll(down, late)))


def trees(swing: Moves, fps: float, rng: Generator) -> Moves:
    """Leaves behind move all the time."""
    change, down = _after(_still(0.6, fps), swing)
    size = rng.uniform(0.02, 0.07)
    wind = size * _peak(swing) * (1 + 0.3 * _wave(len(change) / fps, fps, 0.7, rng)[: len(change)])
    wind = np.abs(np.resize(wind, len(change)) * rng.normal(1, 0.15, len(change)))
    return _together((change, down), (wind, np.full(len(change), 0.3)))


def slow_motion(swing: Moves, fps: float, rng: Generator) -> Moves:
    """As `waggles`; its file says 30 pictures a second whatever the camera took."""
    return waggles(swing, fps, rng)


KINDS: Final[dict[str, Callable[[Moves, float, Generator], Moves]]] = {
    "the swing alone": clean,
    "walks in": walks_in,
    "a practice swing before": practice_swing,
    "waggles": waggles,
    "another golfer behind": another_golfer,
    "trees that move": trees,
    "slow motion written at 30": slow_motion,
}


def _peak(moves: Moves) -> float:
    return float(np.percentile(moves[0], 99))


def _alike(part: FloatArray, down: float) -> Moves:
    """Movement in parts of the swing's peak; `_after` makes it the swing's own unit."""
    return part, np.full(len(part), down)


def _still(seconds: float, fps: float) -> Moves:
    return _alike(np.zeros(max(1, round(seconds * fps))), 0.5)


def _wave(seconds: float, fps: float, hz: float, rng: Generator) -> FloatArray:
    t = np.arange(max(1, round(seconds * fps))) / fps
    wave: FloatArray = np.sin(2 * np.pi * (hz * t + rng.random()))
    return wave


def _slowed(moves: Moves, times: float) -> Moves:
    change, down = moves
    at = np.arange(int(len(change) * times)) / times
    frames = np.arange(len(change))
    return np.interp(at, frames, change) / times / _peak(moves), np.interp(at, frames, down)


def _after(*parts: Moves) -> Moves:
    """One after the other; the largest part is the swing, and the others are parts of its peak."""
    swing = max(parts, key=_peak)
    unit = _peak(swing)
    change = [p[0] if p is swing else unit * p[0] for p in parts]
    return np.concatenate(change), np.concatenate([p[1] for p in parts])


def _together(one: Moves, other: Moves) -> Moves:
    change = one[0] + other[0]
    down = (one[0] * one[1] + other[0] * other[1]) / np.maximum(change, 1e-9)
    return change, np.clip(np.where(change > 0, down, 0.5), 0.0, 1.0)
