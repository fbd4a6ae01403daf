"""How would a student with known causes hit balls and look?

A simulated student: causes shift a personal delivery, balls scatter around it, and the balls and
looks are noted as an instructor would note them. All of it is random from one seed.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.random import Generator
from numpy.typing import NDArray

from firm_footing.core.case import Block, Reading, Shot
from firm_footing.core.frame import NeutralDirection
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.knowledge.vocabulary import Mode

FloatArray = NDArray[np.float64]
PATH, FACE_TO_PATH, LOW_POINT, STRIKE, LOFT, SPEED = range(len(DIMENSIONS))
LANDING_SPREAD_PCT = 3.0
"""Carry differs from ball to ball by this much for no reason that is modelled."""


@dataclass(frozen=True)
class SimulatedStudent:
    """A student whose causes are known.

    delivery : (6,) what their balls scatter around, order of DIMENSIONS
    """

    causes: tuple[str, ...]
    mode: Mode
    handicap: float
    delivery: FloatArray
    scatter_factor: float


def make_student(
    causes: Sequence[str], handicap: float, mode: Mode, knowledge: Knowledge, rng: Generator
) -> SimulatedStudent:
    """Draw one person with these causes; two-sided causes take a side at random."""
    numbers = knowledge.numbers.delivery
    delivery = rng.normal(0.0, numbers.person_sd.row())
    delivery[LOW_POINT] += numbers.cause_free_low_point_cm(handicap)
    for name in causes:
        cause = knowledge.cause[name]
        side = cause.sides[int(rng.integers(2))].id if cause.sides else None
        row = np.array(knowledge.effects[name, mode if cause.skill else None, side])
        delivery += row * rng.normal(1.0, numbers.effect_spread, size=len(row))
    delivery[LOW_POINT] = max(delivery[LOW_POINT], numbers.low_point_floor_cm)
    delivery[STRIKE] = max(delivery[STRIKE], numbers.strike_floor_mm)
    factor = max((knowledge.cause[c].scatter_factor for c in causes), default=1.0)
    return SimulatedStudent(tuple(causes), mode, handicap, delivery, factor)


def hit_block(
    student: SimulatedStudent,
    balls: int,
    club_id: str,
    expected_carry_m: float,
    knowledge: Knowledge,
    rng: Generator,
) -> Block:
    """A baseline block of this many balls, noted in words as an instructor would."""
    spread = np.array(knowledge.numbers.delivery.ball_sd.row()) * student.scatter_factor
    shots = tuple(
        _note(rng.normal(student.delivery, spread), club_id, expected_carry_m, knowledge, rng)
        for _ in range(balls)
    )
    return Block(club=club_id, expected_carry_m=expected_carry_m, surface="turf", shots=shots)


def answer(
    student: SimulatedStudent, check_id: str, knowledge: Knowledge, rng: Generator
) -> Reading:
    """What an instructor would answer to this look, right as often as the source is."""
    check, numbers = knowledge.check[check_id], knowledge.numbers
    absent = 1.0 - check.base_rate(student.handicap)
    for cause, strength in check.pointers(student.mode).items():
        if cause in student.causes:
            absent *= (1.0 - numbers.pointer[strength]) / (1.0 - check.base_rate(student.handicap))
    source = check.sources[0]
    fact = rng.random() > absent
    wrong = rng.random() < numbers.reading_error[source]
    return Reading(check=check_id, answer="yes" if fact != wrong else "no", source=source)


def _note(
    ball: FloatArray, club_id: str, expected_m: float, knowledge: Knowledge, rng: Generator
) -> Shot:
    """One ball as it is noted on the tee."""
    club, numbers = knowledge.club[club_id], knowledge.numbers
    loss = numbers.carry_loss
    start = ball[PATH] + club.start_face_share * ball[FACE_TO_PATH]
    curve = club.curve_per_deg * ball[FACE_TO_PATH]
    lost = (
        min(loss.per_strike_10mm_squared * (ball[STRIKE] / 10) ** 2, loss.strike_cap)
        + loss.per_face_to_path_deg_squared * ball[FACE_TO_PATH] ** 2
        + loss.per_low_point_cm_behind * max(0.0, -ball[LOW_POINT])
        + club.loss_per_loft_deg * max(0.0, ball[LOFT])
        - loss.per_club_speed_pct * ball[SPEED]
        + rng.normal(0.0, LANDING_SPREAD_PCT)
    )
    contact = _contact(ball, rng)
    carry = expected_m * max(0.15, 1 - lost / 100) * (0.5 if contact == "hosel" else 1.0)
    took_turf = club.kind not in ("driver", "wood") and contact not in ("top", "thin", "hosel")
    return Shot.model_validate(
        {
            "start": "far_push" if contact == "hosel" else _word(start, knowledge),
            "curve": _word(curve, knowledge),
            "contact": contact,
            "heel_toe_mm": round(float(np.clip(ball[STRIKE], -34, 34))),
            "low_high_mm": round(float(np.clip(-1.2 * ball[LOW_POINT], -12, 12))),
            "divot_start_cm": round(float(ball[LOW_POINT] - 6)) if took_turf else None,
            "divot_direction_deg": round(float(ball[PATH])) if took_turf else None,
            "carry_m": round(float(carry)),
        }
    )


def _contact(ball: FloatArray, rng: Generator) -> str:
    """Hosel and toe by the strike; behind the ball fat, or thin when the player lifts."""
    if ball[STRIKE] <= -27:
        return "hosel"
    if ball[STRIKE] >= 24:
        return "toe"
    if ball[LOW_POINT] < -2:
        return "fat" if rng.random() < 0.6 else "thin"
    return "clean"


def _word(degrees: float, knowledge: Knowledge) -> NeutralDirection:
    """The word for a start or a curve."""
    shape = knowledge.numbers.shape
    size = abs(degrees)
    if size <= shape.word_inner_deg:
        return "straight"
    if size <= shape.word_outer_deg:
        return "pull" if degrees < 0 else "push"
    return "far_pull" if degrees < 0 else "far_push"
