"""When do the events of a swing happen, by how much moves from picture to picture?

The browser compares each picture with the one before and sends two numbers a picture: how much
changed, and how far down it changed. The film itself never leaves the device.

Every burst of movement could be the swing. Each is read as one (impact where it lies lowest, the
top where it is stillest before, address where it began) and scored by how much that is like a
swing: how long it lasts, how still its top is, how quiet it was before. A finder only proposes, and
where two bursts are as good as each other it says so instead.
"""

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.film import FilmEvent
from firm_footing.core.knowledge.pressure import Timing

LEAST_FRAMES: Final = 12
QUIET_PART: Final = 0.02
"""Of the largest change: less is no move of the player."""
PEAK_S: Final = 0.06
LEAST_PEAK: Final = 0.15
"""A burst has at least this part of the largest change in the film."""
NEAR_S: Final = (0.11, 0.22)
"""The club is lowest so near before and after most moves, which may be early on the way down."""
AS_LOW: Final = 0.02
"""Of the picture's height: what lies no higher than this above the lowest is as low."""
SMOOTH_S: Final = 0.022
TOP_BEFORE_S: Final = (0.15, 0.45)
LEAST_BACK_S: Final = 0.3
LONG_BACK_S: Final = 0.95
"""A longer backswing may begin with what somebody else did."""
CALM_PART: Final = 0.12
"""Of the swing's own peak: less, for a while, is an address even where trees move."""
CALM_S: Final = 0.1
DOWN_S: Final = 0.25
"""From top to impact, usually; common practice, no source."""
DOWN_SD, BACK_SD, TEMPO_SD = 0.2, 0.35, 0.4
"""Of the logarithms of downswing, backswing and tempo among swings; estimates."""
MOVING_AT_TOP_SD: Final = 0.2
"""How much still moves at the top, as a part of the swing's peak; estimate."""
LARGEST_NATS: Final = 2.0
"""How much the largest movement is likelier the swing, for each factor of e."""
RESTLESS_NATS: Final = 2.0
"""How much less likely one swings who was not calm before."""
RATES: Final = (1, 2, 4, 8, 16)
"""How many times slower than life a file may play."""
SLOWER_NATS: Final = 1.0
"""How much less likely a file is to play slower than life."""
LIKE_A_SWING: Final = -9.0
"""A burst with a lower score is no swing; estimate, from simulated films."""
CLEARLY_NATS: Final = 2.5
"""How much better the best burst has to be than another one."""
SAME_S: Final = (0.25, 0.5)
"""Bursts so near before and after are the same swing: its downswing, its follow-through."""
AROUND_S: Final = 0.35
"""How far from the picture that was shown impact is looked for."""


class MotionError(ValueError):
    """Nothing that looks like one swing; the message says why."""


@dataclass(frozen=True)
class Proposed:
    """An event as the finder has it.

    frame : number of its picture; sd_frames : how far off that may be, one standard deviation
    """

    frame: int
    sd_frames: float


@dataclass(frozen=True)
class _Burst:
    """A burst of movement read as a swing; frames, but for the rate and the score.

    score : log of how much it is like one; still : of the top, 1 where nothing moves
    calm : whether it was quiet before it began
    """

    address: int
    top: int
    impact: int
    finish: int
    fps: float
    score: float
    still: float
    calm: bool


def find_swing(
    change: Sequence[float],
    down: Sequence[float],
    file_fps: float,
    timing: Timing,
    around: int | None = None,
) -> Mapping[FilmEvent, Proposed]:
    """All events of the one swing, at whichever rate it was filmed: it may play slower than life.

    Parameters
    ----------
    change : (frames,) how much of the picture is another than in the one before, any unit
    down : (frames,) how far down that lies, 0 at the top of the picture to 1
    file_fps : pictures a second as the file plays
    timing : what is usual between the events
    around : a picture near to impact, where that was said

    Raises
    ------
    MotionError
        The film is too short, nothing moves in it, nothing that moves is like a swing, it begins or
        ends within it, or two moves are as much like one.

    """
    moved, lies = np.asarray(change, np.float64), np.asarray(down, np.float64)
    if len(moved) < LEAST_FRAMES or not moved.max() > 0:
        raise MotionError("Nothing moves in this film.")
    moved = np.where(moved > QUIET_PART * np.percentile(moved, 99), moved, 0.0)
    found: list[_Burst] = []
    for slower in RATES:
        less = SLOWER_NATS if slower > 1 else 0.0
        bursts = _bursts(moved, lies, file_fps * slower, timing, around)
        found += [replace(burst, score=burst.score - less) for burst in bursts]
    if not found and around is not None:
        raise MotionError("Nothing near this picture moves like a swing.")
    if not found:
        raise MotionError("The film begins or ends within the swing, or holds none.")
    best = max(found, key=lambda b: b.score)
    if best.score < LIKE_A_SWING:
        raise MotionError("Nothing that moves in this film is enough like a swing.")
    rival = _rival(best, found)
    if rival is not None and around is None:
        first, second = sorted(b.impact / file_fps for b in (best, rival))
        raise MotionError(
            f"Two moves in this film could be the swing: the one at {first:.1f} s and the one at"
            f" {second:.1f} s."
        )
    return _events(best, timing)


def _rival(best: _Burst, found: Sequence[_Burst]) -> _Burst | None:
    """Another move that is nearly as much like a swing."""
    before, after = (
        best.impact + way * s * best.fps for way, s in zip((-1, 1), SAME_S, strict=True)
    )
    others = [
        b
        for b in found
        if not before <= b.impact <= after
        and b.score > max(LIKE_A_SWING, best.score - CLEARLY_NATS)
    ]
    return max(others, key=lambda b: b.score, default=None)


def _bursts(
    moved: FloatArray, lies: FloatArray, fps: float, timing: Timing, around: int | None
) -> Iterator[_Burst]:
    """Every burst of movement, read as a swing at this rate."""
    smooth = _smoothed(moved, max(1.0, SMOOTH_S * fps))
    peaks = _smoothed(moved, max(1.0, PEAK_S * fps))
    rising = np.diff(peaks, prepend=-1.0, append=-1.0)
    summits = np.flatnonzero(
        (rising[:-1] > 0) & (rising[1:] <= 0) & (peaks > LEAST_PEAK * peaks.max())
    )
    seen: set[int] = set()
    for summit in summits.tolist():
        if around is not None and abs(summit - around) > AROUND_S * fps:
            continue
        impact = _lowest(moved, lies, summit, fps)
        if impact in seen:
            continue
        seen.add(impact)
        burst = _read(smooth, impact, fps, timing)
        if burst is not None:
            yield burst


def _read(smooth: FloatArray, impact: int, fps: float, timing: Timing) -> _Burst | None:
    """The swing whose impact is here; None: the film begins or ends within it."""
    first, last = (round(impact - s * fps) for s in (TOP_BEFORE_S[1], TOP_BEFORE_S[0]))
    if first < 1 or impact + timing.finish_after_s * fps / 4 > len(smooth):
        return None
    top = first + int(np.argmin(smooth[first : last + 1]))
    most = float(smooth[top : impact + 1].max())
    address, calm = _address(smooth, top, most, fps)
    quiet_after = np.flatnonzero(smooth[impact:] <= QUIET_PART * most)
    usual = round(impact + timing.finish_after_s * fps)
    finish = impact + int(quiet_after[0]) if len(quiet_after) else usual
    finish = min(max(finish, impact + 2), len(smooth) - 1)
    still = 1.0 - float(smooth[top]) / max(most, 1e-9)
    back_s, down_s = max((top - address) / fps, 1e-3), max((impact - top) / fps, 1e-3)
    off = np.array(  # standard deviations from what a swing is like
        [
            math.log(down_s / DOWN_S) / DOWN_SD,
            math.log(back_s / (timing.tempo * DOWN_S)) / BACK_SD,
            math.log(back_s / down_s / timing.tempo) / TEMPO_SD,
            (1.0 - still) / MOVING_AT_TOP_SD,
        ]
    )
    score = float(-0.5 * off @ off)
    score += LARGEST_NATS * math.log(most / max(float(smooth.max()), 1e-9))
    score -= 0.0 if calm else RESTLESS_NATS
    return _Burst(address, top, impact, finish, fps, score, still, calm)


def _address(smooth: FloatArray, top: int, most: float, fps: float) -> tuple[int, bool]:
    """Where the last calm stretch ends and the backswing begins, and whether there was one."""
    latest = top - round(LEAST_BACK_S * fps)
    if latest < 1:
        return 0, False
    stretch = max(1, round(CALM_S * fps))
    for part in (QUIET_PART, CALM_PART / 2, CALM_PART):
        calm = smooth[:latest] <= part * most
        runs = np.convolve(calm, np.ones(stretch), "valid") >= stretch
        ends = np.flatnonzero(runs) + stretch - 1
        if len(ends) and (top - ends.max()) / fps < 2.0:
            return int(ends.max()), True
    return max(0, top - round(0.75 * fps)), False


def _address_sd_s(burst: _Burst) -> float:
    """Less sure where it never was calm, and where the backswing would be a long one."""
    if not burst.calm:
        return 0.2
    long_s = (burst.top - burst.address) / burst.fps - LONG_BACK_S
    return 0.03 + max(0.0, 0.8 * long_s)


def _events(burst: _Burst, timing: Timing) -> Mapping[FilmEvent, Proposed]:
    fps, top, impact = burst.fps, burst.top, burst.impact
    share = timing.between_sd_share
    back, through = top - burst.address, impact - top
    level = min(round(impact + timing.arms_level_through_s * fps), burst.finish - 1)
    return {
        "address": Proposed(burst.address, _address_sd_s(burst) * fps),
        "shaft_level_back": _on_the_way(burst.address, back, timing.shaft_level_back, share),
        "lead_arm_level_back": _on_the_way(burst.address, back, timing.lead_arm_level_back, share),
        "top": Proposed(top, 1.0 + 0.03 * fps * (1.0 - burst.still)),
        "lead_arm_level_down": _on_the_way(top, through, timing.lead_arm_level_down, share),
        "shaft_level_down": _on_the_way(top, through, timing.shaft_level_down, share),
        "impact": Proposed(impact, 1.0 + 0.006 * fps),
        "arms_level_through": Proposed(level, 0.025 * fps),
        "finish": Proposed(max(burst.finish, impact + 2), 0.1 * fps),
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
