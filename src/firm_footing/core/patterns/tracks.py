"""Which way is each ball drawn? The computed flight, bent to what was noted."""

import math
from typing import Final

import numpy as np

from firm_footing.core.case import Block
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.physics.flight import Flight, Launch
from firm_footing.core.physics.forward import curve_deg

TRACK_POINTS: Final = 25


def drawn_tracks(
    block: Block, flown: FloatArray, launch: Launch, flight: Flight, tracks: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Tracks (n, points, 3), and start, curve, carry (n, 3) of them.

    Each leaves at the noted bearing and lands at the noted carry and curve; along the target line,
    up, to the push side, in metres.

    Parameters
    ----------
    flown : (n, 2) start and curve as noted, degrees, NaN where not
    launch, flight, tracks : as computed from the deliveries

    """
    computed = np.stack([launch.direction_deg, curve_deg(launch, flight), flight.carry_m], axis=1)
    carries = [s.carry_m for s in block.shots]
    noted = np.column_stack([flown, [math.nan if c is None else c for c in carries]])
    ends = np.where(np.isfinite(noted), noted, computed)
    along = np.hypot(tracks[:, :, 0], tracks[:, :, 2])
    bearing = np.arctan2(tracks[:, :, 2], np.maximum(tracks[:, :, 0], 1e-9))
    share = along / np.maximum(along[:, -1:], 1e-9)
    turned = np.radians(ends[:, :2] - computed[:, :2])
    bearing = bearing + turned[:, :1] + turned[:, 1:] * share
    scale = (ends[:, 2] / np.maximum(flight.carry_m, 1e-9))[:, None]
    apex = [s.apex_m for s in block.shots]
    up = np.array([scale[i, 0] if a is None else a / flight.apex_m[i] for i, a in enumerate(apex)])
    reach = along * scale
    drawn = [reach * np.cos(bearing), tracks[:, :, 1] * up[:, None], reach * np.sin(bearing)]
    return np.stack(drawn, axis=2), ends
