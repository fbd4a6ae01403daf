"""What carry can be expected of this student with this club, and what club speed goes with it?

A carry that the instructor named comes first; then measured club speed; then the student's own good
balls; then what is usual at the handicap. A speed and a carry go together: a square blow in the
middle of the face, at the usual loft.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np

from firm_footing.core.case import Block
from firm_footing.core.estimation.readings import was_seen
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.clubs import Club
from firm_footing.core.knowledge.numbers import Numbers, Turf
from firm_footing.core.physics.forward import (
    GROUND_COVER_CM,
    LOW_POINT,
    PARTS,
    SPEED,
    Setting,
    play,
)
from firm_footing.core.physics.turf import is_teed

CarrySource = Literal["named", "club_speed", "own_best", "handicap"]
SLOWEST_MPS, FASTEST_MPS = 8.0, 75.0
GOOD = ("clean", None)
"""Contacts that tell a full carry: where no word was noted, nothing spoke against it."""


@dataclass(frozen=True)
class Expected:
    """A carry in metres, the club speed in m/s that makes it, and where it comes from."""

    carry_m: float
    club_speed_mps: float
    source: CarrySource


def expected_of(block: Block, knowledge: Knowledge, handicap: float | None = None) -> Expected:
    """What to expect of a block's balls."""
    numbers, club = knowledge.numbers, knowledge.club[block.club]
    if block.expected_carry_m is not None:
        return _of_carry(block.expected_carry_m, club, numbers.turf, "named")
    speeds = [s.club_speed_mps for s in block.shots if was_seen(s.club_speed_mps)]
    if speeds:
        return _of_speed(float(np.median(speeds)), club, numbers.turf, "club_speed")
    own = _own_best(block, numbers)
    if own is not None:
        return _of_carry(own, club, numbers.turf, "own_best")
    stroke = numbers.handicap_left_out if handicap is None else handicap
    usual = numbers.expected.driver_mps - numbers.expected.lost_per_stroke_mps * stroke
    return _of_speed(usual * club.speed_share, club, numbers.turf, "handicap")


def setting_of(block: Block, knowledge: Knowledge, handicap: float | None = None) -> Setting:
    """What a block's balls were hit with and from, at the club speed to expect."""
    club = knowledge.club[block.club]
    speed = expected_of(block, knowledge, handicap).club_speed_mps
    return Setting(club, speed, is_teed(block, club), knowledge.numbers.turf)


def _own_best(block: Block, numbers: Numbers) -> float | None:
    """Mean carry of a block's longer good balls; None where there are too few to tell.

    A fat or thin ball says nothing of how far a square blow goes, however long it is for one.
    """
    flown = [s for s in block.shots if s.carry_m]
    if len(flown) < numbers.expected.own_least_balls:
        return None
    best = max(2, round(numbers.expected.own_best_share * len(flown)))
    good = sorted((s.carry_m for s in flown if s.contact in GOOD and s.carry_m), reverse=True)
    return float(np.mean(good[:best])) if len(good) >= best else None


def _of_carry(carry_m: float, club: Club, turf: Turf, source: CarrySource) -> Expected:
    speeds, carries = _speeds_and_carries(club, turf)
    return Expected(carry_m, float(np.interp(carry_m, carries, speeds)), source)


def _of_speed(speed_mps: float, club: Club, turf: Turf, source: CarrySource) -> Expected:
    speeds, carries = _speeds_and_carries(club, turf)
    return Expected(float(np.interp(speed_mps, speeds, carries)), speed_mps, source)


@lru_cache(maxsize=32)
def _speeds_and_carries(club: Club, turf: Turf) -> tuple[FloatArray, FloatArray]:
    """Square blows from slow to fast, flown."""
    speeds = np.linspace(SLOWEST_MPS, FASTEST_MPS, 48)
    parts = np.zeros((len(speeds), len(PARTS)))
    parts[:, LOW_POINT] = GROUND_COVER_CM
    parts[:, SPEED] = 100 * (speeds / FASTEST_MPS - 1)
    carries = play(parts, Setting(club, FASTEST_MPS, True, turf)).flight.carry_m
    return speeds, np.maximum.accumulate(carries)
