"""How is a ball that was hit noted: in words by an instructor, in numbers by a launch monitor?"""

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.random import Generator

from firm_footing.core.case import Shot
from firm_footing.core.frame import NeutralDirection
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.numbers import Shape
from firm_footing.core.physics.forward import (
    HEIGHT,
    LOW_POINT,
    PATH,
    STRIKE,
    BallOutcome,
    Setting,
    deliver,
    from_ball_cm,
)
from firm_footing.core.physics.impact import HOSEL_FROM_MM
from firm_footing.core.physics.turf import divot_deg
from firm_footing.simulators.worlds import Flown

TOE_FROM_MM = 24.0
THIN_SHARE = 0.4
"""Of those who bottom out behind the ball: they lift and strike it thin."""
CONTACT_SD_CM = 2.5
STRIKE_SD_MM, DIVOT_SD_DEG, DIVOT_LENGTH_CM = 2.0, 3.0, (12.0, 2.0)
LANDING_SPREAD_PCT = 4.0
"""What wind and ground do to a carry that the physics leaves out, and the eye's error."""


def in_words(
    parts: FloatArray, flown: Flown, setting: Setting, knowledge: Knowledge, rng: Generator
) -> tuple[Shot, ...]:
    """The balls as they are noted on the tee: words, a divot, a mark on the face, a carry."""
    rows = np.stack(flown, axis=1).tolist()
    return tuple(
        Shot.model_validate(_seen(ball, row, setting, knowledge, rng))
        for ball, row in zip(parts, rows, strict=True)
    )


def measured(
    parts: FloatArray, outcome: BallOutcome, setting: Setting, knowledge: Knowledge, rng: Generator
) -> tuple[Shot, ...]:
    """The balls as a launch monitor with the stated noise gives them; no turf.

    A ball off the hosel is marked as such: whoever stands by hears it.
    """
    r = knowledge.numbers.reading
    delivery = deliver(parts, setting)
    launch, flight = outcome.launch, outcome.flight

    def noisy(values: FloatArray, sd: float) -> FloatArray:
        return values + rng.normal(0.0, sd, len(values))

    def about(values: FloatArray, pct: float) -> FloatArray:
        return values * (1 + rng.normal(0.0, pct / 100, len(values)))

    columns = {
        "club_speed_mps": about(delivery.club_speed_mps, r.measured_club_speed_sd_pct),
        "path_deg": noisy(delivery.path_deg, r.measured_path_sd_deg),
        "face_deg": noisy(delivery.face_deg, r.measured_face_sd_deg),
        "attack_deg": noisy(delivery.attack_deg, r.measured_attack_sd_deg),
        "dynamic_loft_deg": noisy(delivery.dynamic_loft_deg, r.measured_loft_sd_deg),
        "ball_speed_mps": about(launch.ball_speed_mps, r.measured_ball_speed_sd_pct),
        "launch_deg": noisy(launch.launch_deg, r.measured_launch_sd_deg),
        "start_deg": noisy(launch.direction_deg, r.measured_direction_sd_deg),
        "spin_rpm": about(launch.spin_rpm, r.measured_spin_sd_pct),
        "spin_axis_deg": np.clip(noisy(launch.spin_axis_deg, r.measured_axis_sd_deg), -90, 90),
        "carry_m": about(flight.carry_m, 1.0),
        "side_m": noisy(flight.side_m, 1.0),
        "apex_m": about(flight.apex_m, 2.0),
    }
    rows = zip(*columns.values(), strict=True)
    named = [
        {name: round(float(v), 2) for name, v in zip(columns, row, strict=True)} for row in rows
    ]
    hosel = [{"contact": "hosel"} if off_hosel(p, setting) else {} for p in parts]
    return tuple(Shot.model_validate(row | h) for row, h in zip(named, hosel, strict=True))


def off_hosel(ball: FloatArray, setting: Setting) -> bool:
    """Whether this delivery (7,) meets the ball with the hosel."""
    has_one = setting.club.kind not in ("driver", "wood")
    return has_one and bool(ball[STRIKE] <= HOSEL_FROM_MM)


def direction_word(degrees: float, shape: Shape) -> NeutralDirection:
    """The word for a start or a curve."""
    size = abs(degrees)
    if size <= shape.word_inner_deg:
        return "straight"
    if size <= shape.word_outer_deg:
        return "pull" if degrees < 0 else "push"
    return "far_pull" if degrees < 0 else "far_push"


def _seen(
    ball: FloatArray,
    flown: Sequence[float],
    setting: Setting,
    knowledge: Knowledge,
    rng: Generator,
) -> dict[str, Any]:
    start, curve, carry = flown
    numbers = knowledge.numbers
    contact = _contact(ball, setting, rng)
    sd = numbers.reading.word_sd_deg
    seen: dict[str, Any] = {
        "start": direction_word(start + rng.normal(0, sd), numbers.shape),
        "curve": direction_word(curve + rng.normal(0, sd), numbers.shape),
        "contact": contact,
        "heel_toe_mm": round(float(np.clip(rng.normal(ball[STRIKE], STRIKE_SD_MM), -34, 34))),
        "low_high_mm": round(float(np.clip(ball[HEIGHT], -20, 20))),
        "carry_m": round(max(3.0, carry * (1 + rng.normal(0.0, LANDING_SPREAD_PCT) / 100))),
    }
    if not setting.teed and contact not in ("top", "thin", "hosel"):
        length = float(np.clip(rng.normal(*DIVOT_LENGTH_CM), 6, 20))
        low_point_cm = from_ball_cm(float(ball[LOW_POINT]), setting.club)
        seen["divot_start_cm"] = round(float(np.clip(low_point_cm - length / 2, -60, 60)))
        turned = divot_deg(float(ball[PATH]), low_point_cm, numbers.turf)
        seen["divot_direction_deg"] = round(
            float(np.clip(turned + rng.normal(0, DIVOT_SD_DEG), -90, 90))
        )
    return seen


def _contact(ball: FloatArray, setting: Setting, rng: Generator) -> str:
    """Hosel and toe by the strike; behind the ball fat, or thin when the player lifts."""
    if off_hosel(ball, setting):
        return "hosel"
    if ball[STRIKE] >= TOE_FROM_MM:
        return "toe"
    low_point_cm = from_ball_cm(float(ball[LOW_POINT]), setting.club)
    if not setting.teed and low_point_cm < -2 + rng.normal(0, CONTACT_SD_CM):
        return "thin" if rng.random() < THIN_SHARE else "fat"
    return "clean"
