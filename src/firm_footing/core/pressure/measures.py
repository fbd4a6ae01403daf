"""How much, how far and when? What is measured on a trace, once its events are known.

Shares in per cent of both feet, toe shares in per cent within a foot (0 heel, 100 toe), vertical
force in per cent of body weight, times in seconds on the trace's own clock.
"""

from dataclasses import dataclass
from typing import Final, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.pressure import FeetPlane, MeasureLimits, SwingEvent, TraceNumbers
from firm_footing.core.pressure.events import Events
from firm_footing.core.pressure.recorded import Recorded

Style = Literal["front_foot", "reverse"]
MatForce = Literal["sideways", "turning", "up"]
"""Of both feet together, in the order in which a sound swing has their peaks."""

PHASES: Final[dict[str, tuple[SwingEvent, SwingEvent]]] = {
    "going_back": ("address", "lead_arm_level_back"),
    "backswing": ("address", "top"),
    "transition": ("top", "shaft_level_down"),
    "strike": ("shaft_level_down", "impact"),
    "through": ("impact", "finish"),
}


class MeasureAt(NamedTuple):
    """A value and when it was reached."""

    t_s: float
    value: float


class Loop(NamedTuple):
    """Where the trace crosses itself.

    first_s, again_s : the two moments it is at the same place
    lead_pct, toe_pct : the place
    """

    first_s: float
    again_s: float
    lead_pct: float
    toe_pct: float


@dataclass(frozen=True, eq=False)
class Measures:
    """One swing, measured.

    lead_pct : lead share at every event
    press_before_start_pct : highest lead share shortly before the first move, above the quiet one
        before it; None where the trace does not reach back so far
    trail_peak : least lead share between address and impact
    shift_start_s : the last moment the share was still at its least, before it rose to its peak
    risen_pct : from its least to its highest after that, before impact
    recentred_pct : how far the share had risen from its least by the top
    lead_peak : highest lead share between the top and impact
    retreat_pct : fall from that peak to impact
    lead_peak_early : highest lead share between the top and the lead arm level coming down
    toe_most : (foot, phase) to the highest toe share in it while the foot carried its load
    toe_least : the same, the lowest
    toe_at_address : foot to its toe share as the club starts; feet that were not recorded left out
    heel_up_s : foot to the seconds all its load was on the toes, address to impact
    peaks : force ('sideways', 'turning', 'up') to its highest between the lead arm level going back
        and impact; those that were not recorded left out
    path_ratio : way of the centre of pressure from the top to impact over its straight distance
    loop : the first crossing of that way with itself, address to impact
    style : 'reverse' where the share falls back before impact to less than half way between styles
    """

    lead_pct: dict[SwingEvent, float]
    press_before_start_pct: float | None
    trail_peak: MeasureAt
    shift_start_s: float
    risen_pct: float
    recentred_pct: float
    lead_peak: MeasureAt
    retreat_pct: float
    lead_peak_early: MeasureAt
    toe_most: dict[tuple[str, str], MeasureAt]
    toe_least: dict[tuple[str, str], MeasureAt]
    toe_at_address: dict[str, float]
    heel_up_s: dict[str, float]
    peaks: dict[MatForce, MeasureAt]
    path_ratio: float | None
    loop: Loop | None
    style: Style


def measures_of(recorded: Recorded, events: Events, numbers: TraceNumbers) -> Measures:
    """Everything that is measured on a swing."""
    at = {name: event.t_s for name, event in events.items()}
    lead = {name: recorded.lead_at(t) for name, t in at.items()}
    trail_peak = _extreme(recorded, at["address"], at["impact"], recorded.lead_pct, least=True)
    assert trail_peak is not None
    lead_peak = _extreme(recorded, at["top"], at["impact"], recorded.lead_pct)
    assert lead_peak is not None
    retreat = max(0.0, lead_peak.value - lead["impact"])
    signs, limits = numbers.signs, numbers.measured
    falls_back = retreat > signs.retreat_pct.at and lead["impact"] < signs.reverse_style_below_pct
    return Measures(
        lead_pct=lead,
        press_before_start_pct=_press(recorded, at["address"], numbers.timing.press_s),
        trail_peak=trail_peak,
        shift_start_s=_shift_start(recorded, at, trail_peak, limits.started_pct),
        risen_pct=_risen(recorded, at["impact"], trail_peak),
        recentred_pct=max(0.0, lead["top"] - trail_peak.value),
        lead_peak=lead_peak,
        retreat_pct=retreat,
        lead_peak_early=_peak_early(recorded, at),
        toe_most=_toes(recorded, at, signs.toe_load_pct),
        toe_least=_toes(recorded, at, signs.toe_load_pct, least=True),
        toe_at_address=_at_address(recorded, at["address"]),
        heel_up_s=_heels_up(recorded, at, limits),
        peaks=_peaks(recorded, at),
        path_ratio=_path_ratio(recorded, at["top"], at["impact"], numbers.plane),
        loop=_loop(recorded, at["address"], at["impact"], limits),
        style="reverse" if falls_back else "front_foot",
    )


def _extreme(
    recorded: Recorded,
    start_s: float,
    end_s: float,
    values: FloatArray | None,
    least: bool = False,
) -> MeasureAt | None:
    if values is None:
        return None
    there = recorded.between(start_s, end_s)
    part = values[there]
    if not np.isfinite(part).any():
        return None
    i = int(np.nanargmin(part) if least else np.nanargmax(part))
    return MeasureAt(float(recorded.t_s[there][i]), float(part[i]))


def _press(recorded: Recorded, address_s: float, reach_s: float) -> float | None:
    """How far the share went forward before the first move, above the quiet place before that."""
    if recorded.t_s[0] > address_s - reach_s / 2:
        return None
    share = recorded.lead_pct[recorded.between(address_s - reach_s, address_s)]
    quiet = share[: max(1, len(share) // 4)]
    return max(0.0, float(share.max() - np.median(quiet)))


def _risen(recorded: Recorded, impact_s: float, trough: MeasureAt) -> float:
    after = recorded.lead_pct[recorded.between(trough.t_s, impact_s)]
    return float(after.max() - trough.value)


def _shift_start(
    recorded: Recorded, at: dict[SwingEvent, float], trough: MeasureAt, started_pct: float
) -> float:
    """The last moment at the least share, before the rise to the peak that follows it."""
    after = recorded.between(trough.t_s, at["impact"])
    share = recorded.lead_pct[after]
    rise = share[: int(np.argmax(share)) + 1]
    still = np.flatnonzero(rise <= trough.value + started_pct + 2 * recorded.noise_pct)
    return float(recorded.t_s[after][still[-1]]) if len(still) else trough.t_s


def foot_load(recorded: Recorded, foot: str) -> FloatArray:
    """(n,) share of a foot, per cent of both."""
    return recorded.lead_pct if foot == "lead" else 100.0 - recorded.lead_pct


def _toe_share(recorded: Recorded, foot: str) -> FloatArray | None:
    return recorded.lead_toe_pct if foot == "lead" else recorded.trail_toe_pct


def _peaks(recorded: Recorded, at: dict[SwingEvent, float]) -> dict[MatForce, MeasureAt]:
    forces: dict[MatForce, FloatArray | None] = {
        "sideways": recorded.lateral_pct_bw,
        "turning": recorded.torque_nm,
        "up": recorded.vertical_pct_bw,
    }
    found: dict[MatForce, MeasureAt] = {}
    for name, force in forces.items():
        peak = _extreme(recorded, at["lead_arm_level_back"], at["impact"], force)
        if peak is not None:
            found[name] = peak
    return found


def _peak_early(recorded: Recorded, at: dict[SwingEvent, float]) -> MeasureAt:
    found = _extreme(recorded, at["top"], at["lead_arm_level_down"], recorded.lead_pct)
    assert found is not None
    return found


def _at_address(recorded: Recorded, address_s: float) -> dict[str, float]:
    found = {}
    for foot in ("lead", "trail"):
        toe = _toe_share(recorded, foot)
        share = None if toe is None else float(np.interp(address_s, recorded.t_s, toe))
        if share is not None and np.isfinite(share):
            found[foot] = share
    return found


def _toes(
    recorded: Recorded, at: dict[SwingEvent, float], load_pct: float, least: bool = False
) -> dict[tuple[str, str], MeasureAt]:
    found = {}
    for foot in ("lead", "trail"):
        toe = _toe_share(recorded, foot)
        if toe is None:
            continue
        loaded = np.where(foot_load(recorded, foot) >= load_pct, toe, np.nan)
        for phase, (start, end) in PHASES.items():
            extreme = _extreme(recorded, at[start], at[end], loaded, least)
            if extreme is not None:
                found[foot, phase] = extreme
    return found


def _heels_up(
    recorded: Recorded, at: dict[SwingEvent, float], limits: MeasureLimits
) -> dict[str, float]:
    swing = recorded.between(at["address"], at["impact"])
    step = float(recorded.t_s[1] - recorded.t_s[0])
    found = {}
    for foot in ("lead", "trail"):
        toe = _toe_share(recorded, foot)
        if toe is not None:
            stands = foot_load(recorded, foot)[swing] >= limits.foot_on_ground_pct
            found[foot] = float((stands & (toe[swing] >= limits.heel_up_pct)).sum()) * step
    return found


def centre_of_pressure(recorded: Recorded) -> FloatArray | None:
    """(n, 2) of the whole stance, per cent: toward the lead foot, toward the toes."""
    if recorded.lead_toe_pct is None or recorded.trail_toe_pct is None:
        return None
    lead = recorded.lead_pct / 100
    toe = lead * recorded.lead_toe_pct + (1 - lead) * recorded.trail_toe_pct
    return np.stack([recorded.lead_pct, toe], axis=1)


def _path_ratio(recorded: Recorded, start_s: float, end_s: float, plane: FeetPlane) -> float | None:
    centre = centre_of_pressure(recorded)
    if centre is None:
        return None
    cm = centre[recorded.between(start_s, end_s)] / 100
    cm = cm * (plane.between_feet_cm, plane.heel_to_toe_cm)
    straight = float(np.linalg.norm(cm[-1] - cm[0]))
    if not straight >= plane.least_distance_cm:
        return None
    return float(np.linalg.norm(np.diff(cm, axis=0), axis=1).sum()) / straight


def _loop(recorded: Recorded, start_s: float, end_s: float, limits: MeasureLimits) -> Loop | None:
    """The first place the broken line of the centre crosses itself; touching ends are none."""
    centre = centre_of_pressure(recorded)
    if centre is None:
        return None
    swing = recorded.between(start_s, end_s)
    points, t = centre[swing][::2], recorded.t_s[swing][::2]
    if len(points) < 4 or not np.isfinite(points).all():
        return None
    p, d = points[:-1], np.diff(points, axis=0)
    apart = p[None, :] - p[:, None]
    cross = d[:, None, 0] * d[None, :, 1] - d[:, None, 1] * d[None, :, 0]
    with np.errstate(divide="ignore", invalid="ignore"):
        u = (apart[..., 0] * d[None, :, 1] - apart[..., 1] * d[None, :, 0]) / cross
        v = (apart[..., 0] * d[:, None, 1] - apart[..., 1] * d[:, None, 0]) / cross
    meets: NDArray[np.bool_] = (np.abs(cross) > 1e-9) & (u > 0) & (u < 1) & (v > 0) & (v < 1)
    first, again = np.nonzero(np.triu(meets, k=2))
    found = next(
        (
            (i, j)
            for i, j in zip(first.tolist(), again.tolist(), strict=True)
            if t[j] - t[i] > limits.loop_least_s
            and np.ptp(points[i : j + 1], axis=0).min() > limits.loop_least_pct
        ),
        None,
    )
    if found is None:
        return None
    i, j = found
    place = p[i] + u[i, j] * d[i]
    step = float(t[1] - t[0])
    return Loop(
        float(t[i]) + float(u[i, j]) * step,
        float(t[j]) + float(v[i, j]) * step,
        float(place[0]),
        float(place[1]),
    )
