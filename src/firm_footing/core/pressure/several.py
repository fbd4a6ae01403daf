"""What do several swings show together, and which one is the odd one out?"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.pressure.recorded import STEP_S
from firm_footing.core.pressure.signs import SIGNS
from firm_footing.core.pressure.trace import TraceRead

ODD_TIMES, ODD_LEAST_PCT, ODD_LEAST_SWINGS = 2.5, 8.0, 3
"""A swing this many times farther from the middle one than the usual swing, and at least so far."""
BEFORE_S: Final = 1.5
AFTER_S: Final = 0.4


@dataclass(frozen=True, eq=False)
class Several:
    """Swings laid over each other at impact.

    t_s : (n,) seconds from impact
    mean_pct, sd_pct : (n,) lead share; NaN where fewer than two swings reach
    odd : which swing differs most from the others, from 0; None where none does
    away_pct : (swings,) root mean square distance from the middle swing
    """

    t_s: FloatArray
    mean_pct: FloatArray
    sd_pct: FloatArray
    odd: int | None
    away_pct: FloatArray


@dataclass(frozen=True, eq=False)
class MeanTrace:
    """The middle line of some swings.

    t_s : (n,) seconds from impact
    mean_pct : (n,) lead share; NaN where fewer swings reach than are wanted
    sd_pct : (n,) spread between swings; NaN where fewer than two reach
    shares : (swings, n) each one's lead share; NaN where it does not reach
    """

    t_s: FloatArray
    mean_pct: FloatArray
    sd_pct: FloatArray
    shares: FloatArray


def together(swings: Sequence[TraceRead]) -> Several | None:
    """Mean trace with spread; None for fewer than two swings."""
    if len(swings) < 2:
        return None
    mean = mean_trace(swings)
    shares = mean.shares
    all_reach = np.isfinite(shares).all(axis=0)
    middle = np.median(shares[:, all_reach], axis=0)
    away = np.sqrt(((shares[:, all_reach] - middle) ** 2).mean(axis=1))
    return Several(mean.t_s, mean.mean_pct, mean.sd_pct, _odd(away), away)


def mean_trace(swings: Sequence[TraceRead]) -> MeanTrace:
    """Swings laid over each other at impact; where at least two reach, or the only one."""
    least = min(2, len(swings))
    steps = np.arange(-round(BEFORE_S / STEP_S), round(AFTER_S / STEP_S) + 1)
    t: FloatArray = steps.astype(np.float64) * STEP_S
    shares = np.array([_about_impact(s, t) for s in swings])
    count = np.isfinite(shares).sum(axis=0)
    with np.errstate(invalid="ignore", divide="ignore"):
        mean = np.where(count >= least, np.nansum(shares, axis=0) / count, np.nan)
        left = np.where(np.isfinite(shares), shares - mean, 0.0)
        sd = np.where(count >= 2, np.sqrt((left**2).sum(axis=0) / (count - 1)), np.nan)
    return MeanTrace(t, mean, sd, shares)


def usual_signs(swings: Sequence[TraceRead]) -> tuple[str, ...]:
    """Ids of the signs that at least half of the swings show."""
    shown = [s for swing in swings for s in swing.signs]
    return tuple(s for s in SIGNS if 2 * shown.count(s) >= max(1, len(swings)))


def _about_impact(swing: TraceRead, t: FloatArray) -> FloatArray:
    own = swing.recorded.t_s - swing.events["impact"].t_s
    out: FloatArray = np.interp(t, own, swing.recorded.lead_pct, left=np.nan, right=np.nan)
    return out


def _odd(away: FloatArray) -> int | None:
    if len(away) < ODD_LEAST_SWINGS:
        return None
    far = int(np.argmax(away))
    usual = float(np.median(np.delete(away, far)))
    return far if away[far] > max(ODD_LEAST_PCT, ODD_TIMES * usual) else None
