"""What did the mat record?

Samples come as they are: unsorted, repeated, with holes, in shares or in kilograms. Here they
become even steps of time, each the mean of what was recorded within a short window around it. The
mean is taken of the broken line through the samples, so that more samples on that line change
nothing.
"""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Trace
from firm_footing.core.case.limits import TRACE_SECONDS
from firm_footing.core.case.samples import as_array
from firm_footing.core.frame.arrays import FloatArray, IntArray
from firm_footing.core.knowledge.pressure import RecordingNumbers

STEP_S: Final = 0.005
"""Distance of the even steps."""

TIME_COLUMNS: Final = {"t": 1.0, "time_ms": 0.001}
"""Column of time to its unit in seconds."""
TOE_COLUMNS: Final = ("lead_toe_pct", "trail_toe_pct")
SHARES: Final = ("lead_pct", "trail_pct")
LOADS: Final = ("lead_kg", "trail_kg")
FORCES: Final = ("vertical_pct_bw", "lateral_pct_bw", "torque_nm")
"""Of both feet together: up; toward the target; turning toward the target."""
COLUMNS: Final = (*TIME_COLUMNS, *SHARES, *LOADS, *TOE_COLUMNS, *FORCES)
"""Every column that is read; left and right feet have become lead and trail before."""

TOTAL_PCT: Final = (97.0, 103.0)
"""Shares of both feet that add up to something outside of this are said to have been scaled."""
LEAST_LOAD_KG: Final = 5.0
"""Below it, both feet together, nobody stands on the mat."""


class TraceError(ValueError):
    """The samples are no trace of a swing; says why."""


@dataclass(frozen=True)
class Remark:
    """Something about the samples that the reader should know; the rest was kept.

    row : of the samples, from 0, the first it is about; None for the whole trace
    """

    row: int | None
    text: str


@dataclass(frozen=True, eq=False)
class Recorded:
    """One swing in even steps.

    t_s : (n,) seconds, as recorded, impact usually at 0
    lead_pct : (n,) share of both feet, 0 to 100
    lead_toe_pct, trail_toe_pct : (n,) within each foot, 0 heel to 100 toe; None when not recorded
    vertical_pct_bw : (n,) per cent of body weight; None when not recorded
    lateral_pct_bw : (n,) sideways force on the body, + toward the target; None when not recorded
    torque_nm : (n,) turning moment of the ground, + toward the target; None when not recorded
    noise_pct : standard deviation of the lead share's noise that is left in a step
    rate_hz : samples a second, their median
    gaps : (start, end) in seconds, where nothing was recorded for long
    """

    t_s: FloatArray
    lead_pct: FloatArray
    lead_toe_pct: FloatArray | None
    trail_toe_pct: FloatArray | None
    vertical_pct_bw: FloatArray | None
    lateral_pct_bw: FloatArray | None
    torque_nm: FloatArray | None
    noise_pct: float
    rate_hz: float
    gaps: tuple[tuple[float, float], ...]
    remarks: tuple[Remark, ...]

    def lead_at(self, t_s: float) -> float:
        """Lead share at a moment, per cent; the ends go on."""
        return float(np.interp(t_s, self.t_s, self.lead_pct))

    def between(self, start_s: float, end_s: float) -> slice:
        """The steps from one moment to another, at least one."""
        first = int(np.searchsorted(self.t_s, start_s - 1e-9))
        last = int(np.searchsorted(self.t_s, end_s + 1e-9))
        first = min(first, len(self.t_s) - 1)
        return slice(first, max(last, first + 1))


def _in_order(t: FloatArray, usable: NDArray[np.bool_], remarks: list[Remark]) -> IntArray:
    """(n,) usable rows in the order of time; TraceError where they are longer than one swing."""
    order = np.flatnonzero(usable)[np.argsort(t[usable], kind="stable")]
    if np.any(np.diff(order) < 0):
        remarks.append(Remark(int(np.argmax(np.diff(t) < 0)) + 1, "rows were not in order of time"))
    lasts = t[order[-1]] - t[order[0]] if len(order) else 0.0
    if lasts > TRACE_SECONDS:
        raise TraceError(
            f"The trace lasts {lasts:.0f} s; one swing is kept, of at most "
            f"{TRACE_SECONDS:.0f} s. Is the time in milliseconds?"
        )
    return order


def recorded_of(trace: Trace, numbers: RecordingNumbers) -> Recorded:
    """The trace in even steps.

    Raises
    ------
    TraceError
        No column of time or of the lead share, too few samples, or too slow or fast a rate.

    """
    remarks: list[Remark] = []
    table = as_array(trace.samples, len(trace.columns))
    columns = {name: table[:, i] for i, name in enumerate(trace.columns) if name in COLUMNS}
    t = _time(columns)
    lead = _lead(columns, remarks)
    usable = np.isfinite(t) & np.isfinite(lead)
    _say_unusable(usable, remarks)
    order = _in_order(t, usable, remarks)
    t = t[order]
    rate, gaps = _rate(t, numbers)
    remarks += [Remark(None, f"nothing recorded from {a:.2f} to {b:.2f} s") for a, b in gaps]
    even = _steps(t)

    def mean(name: str) -> FloatArray | None:
        values = columns.get(name)
        return None if values is None else _window_mean(t, values[order], even, numbers.window_s)

    share = _window_mean(t, lead[order], even, numbers.window_s)
    if share is None:
        raise TraceError("The lead share was never recorded.")
    rough = np.interp(even, t, lead[order]) - share
    noise = 1.4826 * float(np.median(np.abs(rough - np.median(rough))))
    left = max(1.0, rate * numbers.window_s) ** 0.5
    return Recorded(
        t_s=even,
        lead_pct=np.clip(share, 0.0, 100.0),
        lead_toe_pct=mean("lead_toe_pct"),
        trail_toe_pct=mean("trail_toe_pct"),
        vertical_pct_bw=mean("vertical_pct_bw"),
        lateral_pct_bw=mean("lateral_pct_bw"),
        torque_nm=mean("torque_nm"),
        noise_pct=max(numbers.least_noise_pct, noise / left),
        rate_hz=rate,
        gaps=gaps,
        remarks=tuple(remarks),
    )


def _time(columns: dict[str, FloatArray]) -> FloatArray:
    for name, seconds in TIME_COLUMNS.items():
        if name in columns:
            return columns[name] * seconds
    raise TraceError("There is no column of time: 't' in seconds or 'time_ms'.")


def _lead(columns: dict[str, FloatArray], remarks: list[Remark]) -> FloatArray:
    """(n,) lead share, per cent, from whichever columns hold it."""
    for names, least in ((SHARES, 0.0), (LOADS, LEAST_LOAD_KG)):
        if not all(name in columns for name in names):
            continue
        lead, trail = columns[names[0]], columns[names[1]]
        total = lead + trail
        with np.errstate(invalid="ignore", divide="ignore"):
            share = np.where(total > least, 100.0 * lead / total, np.nan)
        usual = float(np.nanmedian(total)) if np.isfinite(total).any() else 100.0
        if names is SHARES and not TOTAL_PCT[0] <= usual <= TOTAL_PCT[1]:
            remarks.append(
                Remark(None, f"the two feet add up to {usual:.0f}; shares were scaled to 100")
            )
        return _within(share, remarks)
    if "lead_pct" in columns:
        return _within(columns["lead_pct"], remarks)
    if "trail_pct" in columns:
        return _within(100.0 - columns["trail_pct"], remarks)
    raise TraceError("There is no column of the lead foot's share, nor both feet in kilograms.")


def _within(share: FloatArray, remarks: list[Remark]) -> FloatArray:
    """Shares outside 0 to 100 are left out."""
    with np.errstate(invalid="ignore"):
        outside = (share < -1.0) | (share > 101.0)
    if outside.any():
        text = f"{int(outside.sum())} shares lie outside 0 to 100 and were left out"
        remarks.append(Remark(int(np.argmax(outside)), text))
    return np.where(outside, np.nan, share)


def _say_unusable(usable: NDArray[np.bool_], remarks: list[Remark]) -> None:
    missing = int((~usable).sum())
    if missing:
        rows = "1 row" if missing == 1 else f"{missing} rows"
        remarks.append(Remark(int(np.argmin(usable)), f"{rows} without time or share left out"))


def _rate(
    t: FloatArray, numbers: RecordingNumbers
) -> tuple[float, tuple[tuple[float, float], ...]]:
    """Samples a second, and the gaps."""
    if len(t) < numbers.least_samples:
        raise TraceError(f"Only {len(t)} samples can be used; a swing needs more.")
    apart = np.diff(t)
    moved = apart > 1e-6
    if t[-1] - t[0] < numbers.least_seconds:
        raise TraceError(f"The samples span {t[-1] - t[0]:.2f} s; a swing takes longer.")
    rate = float(1.0 / np.median(apart[moved]))
    if not numbers.slowest_hz <= rate <= numbers.fastest_hz:
        raise TraceError(
            f"{rate:.0f} samples a second; from {numbers.slowest_hz:.0f} to "
            f"{numbers.fastest_hz:.0f} can be read."
        )
    wide = np.flatnonzero(apart > max(numbers.gap_s, 4.0 / rate))
    return rate, tuple((float(t[i]), float(t[i + 1])) for i in wide)


def _steps(t: FloatArray) -> FloatArray:
    first = np.ceil(t[0] / STEP_S - 1e-6)
    last = np.floor(t[-1] / STEP_S + 1e-6)
    out: FloatArray = np.arange(first, last + 1) * STEP_S
    return out


def _window_mean(
    t: FloatArray, values: FloatArray, at: FloatArray, window_s: float
) -> FloatArray | None:
    """(len(at),) mean of the broken line through the samples, within a window about each moment.

    From its integral, which is exact between samples; several samples of one moment are averaged.
    """
    there = np.isfinite(values)
    if there.sum() < 2:
        return None
    moment, which = np.unique(t[there], return_inverse=True)
    line = np.bincount(which, values[there]) / np.bincount(which)
    integral = _integral(moment, line)
    start = np.maximum(at - window_s / 2, moment[0])
    end = np.minimum(at + window_s / 2, moment[-1])
    wide = end - start
    with np.errstate(invalid="ignore", divide="ignore"):
        mean = (integral(end) - integral(start)) / wide
    return np.where(wide > 1e-9, mean, np.interp(at, moment, line))


def _integral(moment: FloatArray, line: FloatArray) -> Callable[[FloatArray], FloatArray]:
    """Integral of the broken line from its start, at any moments within it."""
    pieces = np.diff(moment) * (line[1:] + line[:-1]) / 2
    total = np.concatenate([[0.0], np.cumsum(pieces)])

    def at(t: FloatArray) -> FloatArray:
        i = np.clip(np.searchsorted(moment, t, side="right") - 1, 0, len(moment) - 2)
        into = t - moment[i]
        slope = (line[i + 1] - line[i]) / (moment[i + 1] - moment[i])
        out: FloatArray = total[i] + into * (line[i] + slope * into / 2)
        return out

    return at


def with_feet_swapped(trace: Trace) -> Trace:
    """The same samples with the names of the feet exchanged."""
    other = {"lead": "trail", "trail": "lead"}
    renamed = []
    for name in trace.columns:
        foot, _, rest = name.partition("_")
        renamed.append(f"{other[foot]}_{rest}" if foot in other else name)
    typed = {event: 100.0 - share for event, share in trace.typed_pct.items()}
    return trace.model_copy(update={"columns": tuple(renamed), "typed_pct": typed})
