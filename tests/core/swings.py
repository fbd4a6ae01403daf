"""Traces built by hand, with known events and signs: what the tests of pressure stand on."""

from collections.abc import Mapping, Sequence

import numpy as np

from firm_footing.core.case import Trace
from firm_footing.core.frame.arrays import FloatArray

MOMENTS = {
    "address": -1.05, "shaft_level_back": -0.65, "lead_arm_level_back": -0.49, "top": -0.25,
    "lead_arm_level_down": -0.10, "shaft_level_down": -0.05, "impact": 0.0, "finish": 0.4,
}  # fmt: skip
"""Tempo 3.2 : 1, the events between where the format puts them."""

SOUND = {
    "recentre": (50, 22, 20, 46, 70, 82, 88, 92),
    "steady": (52, 25, 20, 20, 50, 70, 86, 90),
    "stay_lead": (66, 62, 64, 68, 76, 86, 92, 95),
}
"""Lead share at the eight events, inside each school's corridor."""

SEEN = {
    "late": {"lead_arm_level_back": 20, "top": 19, "lead_arm_level_down": 45,
             "shaft_level_down": 58, "impact": 80},
    "never_left": {"top": 30, "lead_arm_level_down": 45, "shaft_level_down": 47, "impact": 48},
    "rush": {"top": 60, "lead_arm_level_down": 99, "shaft_level_down": 99, "impact": 96},
    "retreat": {"lead_arm_level_down": 74, "shaft_level_down": 77, "impact": 61},
    "reversed": {"shaft_level_back": 62, "lead_arm_level_back": 70, "top": 76,
                 "lead_arm_level_down": 55, "shaft_level_down": 40, "impact": 34},
}  # fmt: skip
"""What a sign changes of a sound early re-centring swing."""


def curve(shares: Sequence[float], t: FloatArray) -> FloatArray:
    """Straight from event to event, quiet before the first and after the last."""
    out: FloatArray = np.interp(t, list(MOMENTS.values()), shares)
    return out


def swing(
    school: str = "recentre",
    changed: Mapping[str, float] | None = None,
    rate_hz: float = 200.0,
    toe: tuple[float, float] | None = None,
    feet: Mapping[str, Sequence[float]] | None = None,
    jump_s: float | None = None,
    sideways_s: float | None = None,
    turning_s: float | None = None,
    noise: float = 0.0,
    named: Sequence[str] = ("address", "top", "impact"),
    seed: int = 1,
) -> Trace:
    """A trace with these shares at its events.

    toe : highest toe shares of the lead and the trail foot, reached between top and delivery
    feet : "lead" and "trail" to the toe share at the eight events
    jump_s, sideways_s, turning_s : when each force peaks
    """
    t = np.arange(-1.6, 0.8, 1 / rate_hz)
    shares = dict(zip(MOMENTS, SOUND[school], strict=True)) | dict(changed or {})
    rng = np.random.default_rng(seed)
    columns = {"t": t, "lead_pct": curve(list(shares.values()), t)}
    if toe is not None:
        hill = np.exp(-0.5 * ((t + 0.18) / 0.05) ** 2)
        columns["lead_toe_pct"] = 50 + (toe[0] - 50) * hill
        columns["trail_toe_pct"] = 50 + (toe[1] - 50) * hill
    if jump_s is not None:
        columns["vertical_pct_bw"] = 100 + 45 * np.exp(-0.5 * ((t - jump_s) / 0.05) ** 2)
    for foot, toes in (feet or {}).items():
        columns[f"{foot}_toe_pct"] = curve(toes, t)
    for name, peak_s, size in (
        ("lateral_pct_bw", sideways_s, 16),
        ("torque_nm", turning_s, 55),
    ):
        if peak_s is not None:
            columns[name] = size * np.exp(-0.5 * ((t - peak_s) / 0.05) ** 2)
    for name in columns:
        if name != "t" and noise:
            columns[name] = np.clip(columns[name] + rng.normal(0, noise, len(t)), 0, None)
    table = np.stack(list(columns.values()), axis=1)
    if noise:
        table[:, 1] = np.clip(table[:, 1], 0, 100)
    return Trace(
        columns=tuple(columns),
        samples=tuple(tuple(row) for row in table.tolist()),
        events={name: MOMENTS[name] for name in named},
    )
