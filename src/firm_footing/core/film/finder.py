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

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FilmEvent
from firm_footing.core.knowledge.finder import EventDoubt, FinderNumbers
from firm_footing.core.knowledge.pressure import Timing


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
    knowledge: Knowledge,
    around: int | None = None,
) -> Mapping[FilmEvent, Proposed]:
    """All events of the one swing, at whichever rate it was filmed: it may play slower than life.

    Parameters
    ----------
    change : (frames,) how much of the picture is another than in the one before, any unit
    down : (frames,) how far down that lies, 0 at the top of the picture to 1
    file_fps : pictures a second as the file plays
    knowledge : for what is usual between the events, and what a swing is told by
    around : a picture near to impact, where that was said

    Raises
    ------
    MotionError
        The film is too short, nothing moves in it, nothing that moves is like a swing, it begins or
        ends within it, or two moves are as much like one.

    """
    numbers, timing = knowledge.film.finder, knowledge.traces.timing
    moved, lies = np.asarray(change, np.float64), np.asarray(down, np.float64)
    if len(moved) < numbers.least_frames or not moved.max() > 0:
        raise MotionError("Nothing moves in this film.")
    moved = np.where(moved > numbers.quiet_part * np.percentile(moved, 99), moved, 0.0)
    found: list[_Burst] = []
    for slower in numbers.slower:
        less = numbers.slower_nats if slower > 1 else 0.0
        bursts = _bursts(moved, lies, file_fps * slower, timing, numbers, around)
        found += [replace(burst, score=burst.score - less) for burst in bursts]
    if not found and around is not None:
        raise MotionError("Nothing near this picture moves like a swing.")
    if not found:
        raise MotionError("The film begins or ends within the swing, or holds none.")
    best = max(found, key=lambda b: b.score)
    if best.score < numbers.like_a_swing:
        raise MotionError("Nothing that moves in this film is enough like a swing.")
    rival = _rival(best, found, numbers)
    if rival is not None and around is None:
        first, second = sorted(b.impact / file_fps for b in (best, rival))
        raise MotionError(
            f"Two moves in this film could be the swing: the one at {first:.1f} s and the one at"
            f" {second:.1f} s."
        )
    return _events(best, timing, numbers)


def _rival(best: _Burst, found: Sequence[_Burst], numbers: FinderNumbers) -> _Burst | None:
    """Another move that is nearly as much like a swing."""
    before, after = (
        best.impact + way * s * best.fps for way, s in zip((-1, 1), numbers.same_s, strict=True)
    )
    others = [
        b
        for b in found
        if not before <= b.impact <= after
        and b.score > max(numbers.like_a_swing, best.score - numbers.clearly_nats)
    ]
    return max(others, key=lambda b: b.score, default=None)


def _bursts(
    moved: FloatArray,
    lies: FloatArray,
    fps: float,
    timing: Timing,
    numbers: FinderNumbers,
    around: int | None,
) -> Iterator[_Burst]:
    """Every burst of movement, read as a swing at this rate."""
    smooth = _smoothed(moved, max(1.0, numbers.smooth_s * fps))
    peaks = _smoothed(moved, max(1.0, numbers.peak_s * fps))
    rising = np.diff(peaks, prepend=-1.0, append=-1.0)
    summits = np.flatnonzero(
        (rising[:-1] > 0) & (rising[1:] <= 0) & (peaks > numbers.least_peak * peaks.max())
    )
    seen: set[int] = set()
    for summit in summits.tolist():
        if around is not None and abs(summit - around) > numbers.around_s * fps:
            continue
        impact = _lowest(moved, lies, summit, fps, numbers)
        if impact in seen:
            continue
        seen.add(impact)
        burst = _read(smooth, impact, fps, timing, numbers)
        if burst is not None:
            yield burst


def _read(
    smooth: FloatArray, impact: int, fps: float, timing: Timing, numbers: FinderNumbers
) -> _Burst | None:
    """The swing whose impact is here; None: the film begins or ends within it."""
    last, first = (round(impact - s * fps) for s in numbers.top_before_s)
    if first < 1 or impact + timing.finish_after_s * fps / 4 > len(smooth):
        return None
    top = first + int(np.argmin(smooth[first : last + 1]))
    most = float(smooth[top : impact + 1].max())
    address, calm = _address(smooth, top, most, fps, numbers)
    quiet_after = np.flatnonzero(smooth[impact:] <= numbers.quiet_part * most)
    usual = round(impact + timing.finish_after_s * fps)
    finish = impact + int(quiet_after[0]) if len(quiet_after) else usual
    finish = min(max(finish, impact + 2), len(smooth) - 1)
    still = 1.0 - float(smooth[top]) / max(most, 1e-9)
    back_s, down_s = max((top - address) / fps, 1e-3), max((impact - top) / fps, 1e-3)
    spread = numbers.spread
    off = np.array(  # standard deviations from what a swing is like
        [
            math.log(down_s / numbers.down_s) / spread.down,
            math.log(back_s / (timing.tempo * numbers.down_s)) / spread.back,
            math.log(back_s / down_s / timing.tempo) / spread.tempo,
            (1.0 - still) / spread.moving_at_top,
        ]
    )
    score = float(-0.5 * off @ off)
    score += numbers.largest_nats * math.log(most / max(float(smooth.max()), 1e-9))
    score -= 0.0 if calm else numbers.restless_nats
    return _Burst(address, top, impact, finish, fps, score, still, calm)


def _address(
    smooth: FloatArray, top: int, most: float, fps: float, numbers: FinderNumbers
) -> tuple[int, bool]:
    """Where the last calm stretch ends and the backswing begins, and whether there was one."""
    latest = top - round(numbers.least_back_s * fps)
    if latest < 1:
        return 0, False
    stretch = max(1, round(numbers.calm_s * fps))
    for part in (numbers.quiet_part, numbers.calm_part / 2, numbers.calm_part):
        calm = smooth[:latest] <= part * most
        runs = np.convolve(calm, np.ones(stretch), "valid") >= stretch
        ends = np.flatnonzero(runs) + stretch - 1
        if len(ends) and (top - ends.max()) / fps < numbers.calm_within_s:
            return int(ends.max()), True
    return max(0, top - round(numbers.usual_back_s * fps)), False


def _address_sd_s(burst: _Burst, long_back_s: float, doubt: EventDoubt) -> float:
    """Less sure where it never was calm, and where the backswing would be a long one."""
    if not burst.calm:
        return doubt.never_calm
    long_s = (burst.top - burst.address) / burst.fps - long_back_s
    return doubt.address + max(0.0, doubt.address_each_long_s * long_s)


def _events(burst: _Burst, timing: Timing, numbers: FinderNumbers) -> Mapping[FilmEvent, Proposed]:
    fps, top, impact, doubt = burst.fps, burst.top, burst.impact, numbers.doubt_s
    address_sd_s = _address_sd_s(burst, numbers.long_back_s, doubt)
    share = timing.between_sd_share
    back, through = top - burst.address, impact - top
    level = min(round(impact + timing.arms_level_through_s * fps), burst.finish - 1)
    return {
        "address": Proposed(burst.address, address_sd_s * fps),
        "shaft_level_back": _on_the_way(burst.address, back, timing.shaft_level_back, share),
        "lead_arm_level_back": _on_the_way(burst.address, back, timing.lead_arm_level_back, share),
        "top": Proposed(top, 1.0 + doubt.top_moving * fps * (1.0 - burst.still)),
        "lead_arm_level_down": _on_the_way(top, through, timing.lead_arm_level_down, share),
        "shaft_level_down": _on_the_way(top, through, timing.shaft_level_down, share),
        "impact": Proposed(impact, 1.0 + doubt.impact * fps),
        "arms_level_through": Proposed(level, doubt.arms_level_through * fps),
        "finish": Proposed(max(burst.finish, impact + 2), doubt.finish * fps),
    }


def _lowest(
    moved: FloatArray, lies: FloatArray, most: int, fps: float, numbers: FinderNumbers
) -> int:
    """Where what moves lies lowest, near to where most moves: the club passes the ball."""
    before, after = (max(2, round(s * fps)) for s in numbers.lowest_s)
    window = np.arange(max(0, most - before), min(len(moved), most + after + 1))
    width = max(1.0, numbers.smooth_s * fps)
    low = _smoothed(moved * lies, width) / np.maximum(_smoothed(moved, width), 1e-9)
    lowest = int(np.argmax(low[window]))
    higher = np.flatnonzero(low[window] < low[window].max() - numbers.as_low)
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


def rates_that_fit(downswing_frames: int, file_fps: float, knowledge: Knowledge) -> list[float]:
    """Pictures a second of the swing itself that make its downswing as long as one is.

    A file may play slower than life: at 30 what was filmed at 240. More than one may fit; none
    means that the events cannot be right.
    """
    least, most = knowledge.traces.timing.downswing_s
    return [
        file_fps * slower
        for slower in knowledge.film.finder.slower
        if least <= downswing_frames / (file_fps * slower) <= most
    ]
