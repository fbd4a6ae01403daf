"""When do the events of a swing happen, by how much moves from picture to picture?

The browser compares each picture with the one before and sends two numbers a picture: how much
changed, and how far down it changed. The film itself never leaves the device. A finder only
proposes: what is marked by hand stands.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.pressure import SwingEvent, Timing

LEAST_FRAMES: Final = 12
QUIET_PART: Final = 0.02
"""Of the largest change: less is no move of the player."""
PEAK_S: Final = 0.06
NEAR_S: Final = (0.11, 0.22)
"""The club is lowest so near before and after most moves, which may be early on the way down."""
AS_LOW: Final = 0.02
"""Of the picture's height: what lies no higher than this above the lowest is as low."""
SMOOTH_S: Final = 0.022
TOP_BEFORE_S: Final = (0.15, 0.45)
RATES: Final = (1, 2, 4, 8, 16)
"""How many times slower than life a file may play."""


class MotionError(ValueError):
    """Nothing that looks like a swing; the message says why."""


@dataclass(frozen=True)
class Proposed:
    """An event as the finder has it.

    frame : number of its picture; sd_frames : how far off that may be, one standard deviation
    """

    frame: int
    sd_frames: float


def find_swing(
    change: Sequence[float], down: Sequence[float], file_fps: float, timing: Timing
) -> Mapping[SwingEvent, Proposed]:
    """All events, at whichever rate the file was filmed with: it may play slower than life.

    Its own rate is taken where a swing can last so long; else the slower one at which it lasts as
    long as swings usually do. Arguments and errors are those of `find_events`.
    """
    plausible: list[tuple[float, Mapping[SwingEvent, Proposed]]] = []
    for slower in RATES:
        fps = file_fps * slower
        try:
            found = find_events(change, down, fps, timing)
        except MotionError:
            continue
        swing_s = (found["impact"].frame - found["address"].frame) / fps
        down_s = (found["impact"].frame - found["top"].frame) / fps
        whole, downward = timing.swing_s, timing.downswing_s
        if whole[0] <= swing_s <= whole[1] and downward[0] <= down_s <= downward[1]:
            if slower == 1:
                return found
            plausible.append((abs(math.log(swing_s / timing.usual_s)), found))
    if plausible:
        return min(plausible, key=lambda p: p[0])[1]
    return find_events(change, down, file_fps, timing)


def find_events(
    change: Sequence[float], down: Sequence[float], fps: float, timing: Timing
) -> Mapping[SwingEvent, Proposed]:
    """All events of the one swing in a film.

    Parameters
    ----------
    change : (frames,) how much of the picture is another than in the one before, any unit
    down : (frames,) how far down that lies, 0 at the top of the picture to 1
    fps : pictures a second of the swing itself
    timing : what is usual between the events

    Raises
    ------
    MotionError
        The film is too short, nothing moves in it, or it begins or ends within the swing.

    """
    moved, lies = np.asarray(change, np.float64), np.asarray(down, np.float64)
    if len(moved) < LEAST_FRAMES or not moved.max() > 0:
        raise MotionError("Nothing moves in this film.")
    moved = np.where(moved > QUIET_PART * np.percentile(moved, 99), moved, 0.0)
    smooth = _smoothed(moved, max(1.0, SMOOTH_S * fps))
    most = int(np.argmax(_smoothed(moved, max(1.0, PEAK_S * fps))))
    impact = _lowest(moved, lies, most, fps)
    first, last = (round(impact - s * fps) for s in (TOP_BEFORE_S[1], TOP_BEFORE_S[0]))
    if first < 1 or impact + timing.finish_after_s * fps / 4 > len(moved):
        raise MotionError("The film begins or ends within the swing.")
    top = first + int(np.argmin(smooth[first : last + 1]))
    before = np.flatnonzero(smooth[:top] <= QUIET_PART * smooth.max())
    start = int(before[before < top - 0.3 * fps].max(initial=0))
    after = np.flatnonzero(smooth[impact:] <= QUIET_PART * smooth.max())
    usual = round(impact + timing.finish_after_s * fps)
    finish = min(impact + int(after[0]) if len(after) else usual, len(moved) - 1)
    share = timing.between_sd_share
    back, through = top - start, impact - top
    clear = 1.0 - smooth[top] / max(smooth[first:impact].max(), 1e-9)
    return {
        "address": Proposed(start, 0.03 * fps),
        "shaft_level_back": _on_the_way(start, back, timing.shaft_level_back, share),
        "lead_arm_level_back": _on_the_way(start, back, timing.lead_arm_level_back, share),
        "top": Proposed(top, 1.0 + 0.03 * fps * (1.0 - clear)),
        "lead_arm_level_down": _on_the_way(top, through, timing.lead_arm_level_down, share),
        "shaft_level_down": _on_the_way(top, through, timing.shaft_level_down, share),
        "impact": Proposed(impact, 1.0 + 0.006 * fps),
        "finish": Proposed(max(finish, impact + 1), 0.1 * fps),
    }


def _lowest(moved: FloatArray, lies: FloatArray, most: int, fps: float) -> int:
    """Where what moves lies lowest, near to where most moves: the club passes the ball."""
    before, after = (max(2, round(s * fps)) for s in NEAR_S)
    window = np.arange(max(0, most - before), min(len(moved), most + after + 1))
    width = max(1.0, SMOOTH_S * fps)
    low = _smoothed(moved * lies, width) / np.maximum(_smoothed(moved, width), 1e-9)
    lowest = int(np.argmax(low[window]))
    higher = np.flatnonzero(low[window] < low[window].max() - AS_LOW)
    first = int(higher[higher < lowest].max(initial=-1)) + 1
    end = int(higher[higher > lowest].min(initial=len(window)))
    among = window[first:end]  # in one piece around the lowest
    return round(float(np.average(among, weights=np.maximum(low[among], 1e-9))))


def _on_the_way(start: int, length: int, part: float, share: float) -> Proposed:
    return Proposed(round(start + part * length), max(1.0, share * length))


def _smoothed(values: FloatArray, width: float) -> FloatArray:
    """Gaussian moving mean; `width` is its standard deviation in pictures, doubled."""
    sd = width / 2
    reach = int(np.ceil(3 * sd))
    at = np.arange(-reach, reach + 1)
    kernel = np.exp(-0.5 * (at / max(sd, 1e-9)) ** 2)
    padded = np.pad(values, reach, mode="edge")
    return np.convolve(padded, kernel / kernel.sum(), mode="valid")


def rates_that_fit(downswing_frames: int, file_fps: float, timing: Timing) -> list[float]:
    """Pictures a second of the swing itself that make its downswing as long as one is.

    A file may play slower than life: at 30 what was filmed at 240. More than one may fit; none
    means that the events cannot be right.
    """
    least, most = timing.downswing_s
    return [
        file_fps * slower
        for slower in RATES
        if least <= downswing_frames / (file_fps * slower) <= most
    ]
