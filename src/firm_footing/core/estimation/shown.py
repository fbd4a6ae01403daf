"""What does a delivery show, of all that can be noted? The forward physics, made linear."""

import math

import numpy as np

from firm_footing.core.case import Block
from firm_footing.core.estimation.expected import setting_of
from firm_footing.core.estimation.readings import READINGS
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    HEIGHT,
    LOFT,
    LOW_POINT,
    PATH,
    STRIKE,
    from_ball_cm,
)
from firm_footing.core.physics.surrogate import land
from firm_footing.core.physics.turf import divot_deg


class Physics:
    """The forward model of one block, for as many balls as it has."""

    def __init__(self, block: Block, knowledge: Knowledge, handicap: float | None) -> None:
        self.setting = setting_of(block, knowledge, handicap)
        self.count = len(block.shots)

    def shown(self, parts: FloatArray) -> FloatArray:
        """(n, readings) what deliveries (n, 7) show."""
        club, turf = self.setting.club, self.setting.turf
        landed = land(parts, self.setting)
        delivery, launch = landed.delivery, landed.launch
        path, low = parts[:, PATH], from_ball_cm(parts[:, LOW_POINT], club)
        columns = {
            "start": launch.direction_deg,
            "curve": landed.curve_deg,
            "path": path,
            "face": path + parts[:, FACE_TO_PATH],
            "attack": delivery.attack_deg,
            "loft": club.dynamic_loft_deg + parts[:, LOFT],
            "divot_direction": divot_deg(path, low, turf),
            "low_point": low,
            "strike": parts[:, STRIKE],
            "height": parts[:, HEIGHT],
            "contact_low_point": low,
            "contact_strike": parts[:, STRIKE],
            "contact_elsewhere": parts[:, STRIKE],
            "club_speed": np.log(delivery.club_speed_mps),
            "ball_speed": np.log(launch.ball_speed_mps),
            "launch": launch.launch_deg,
            "spin": np.log(launch.spin_rpm),
            "axis": launch.spin_axis_deg,
            "carry": landed.log_carry,
        }
        return np.stack([columns[name] for name in READINGS], axis=1)

    def linear(
        self, parts: FloatArray, root: FloatArray
    ) -> tuple[FloatArray, FloatArray, FloatArray]:
        """The straight line through what is shown about deliveries (n, 7) in doubt.

        Its middle (n, readings), its slopes (n, readings, 7), and the variance that bends leave
        over (n, readings): a loss that grows with the square of the strike, say, is charged for the
        doubt about the strike too, and pulls neither to heel nor to toe.

        Parameters
        ----------
        root : (n, 7, 7) lower triangle whose square is the covariance of the doubt

        """
        n, d = parts.shape
        ways = math.sqrt(3.0) * root.swapaxes(1, 2)
        points = np.concatenate([parts[:, None], parts[:, None] + ways, parts[:, None] - ways], 1)
        shown = self.shown(points.reshape(-1, d)).reshape(n, 2 * d + 1, -1)
        here, up, down = shown[:, :1], shown[:, 1 : d + 1], shown[:, d + 1 :]
        bend = (up + down - 2 * here) / 3
        slopes = np.linalg.solve(ways, (up - down) / 2).swapaxes(1, 2).astype(np.float64)
        middle: FloatArray = here[:, 0] + 0.5 * bend.sum(axis=1)
        return middle, slopes, 0.5 * (bend**2).sum(axis=1)
