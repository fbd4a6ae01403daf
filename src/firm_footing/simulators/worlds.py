"""In which simulated worlds is the ranking measured?

A figure reached in one world is not yet a figure. Each world says what its people, balls and
instructors are like; what all of them share with the ranking is named in `student.py`.
"""

from dataclasses import dataclass
from typing import Final, NamedTuple

import numpy as np
from numpy.random import Generator

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.clubs import Club
from firm_footing.core.knowledge.vocabulary import ReadAs
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    LOFT,
    LOW_POINT,
    PATH,
    SPEED,
    STRIKE,
    BallOutcome,
    Setting,
    from_ball_cm,
    play,
)


class Flown(NamedTuple):
    """What each ball did: start and curve in degrees, + push side; carry in metres; all (n,)."""

    start_deg: FloatArray
    curve_deg: FloatArray
    carry_m: FloatArray

    @classmethod
    def of(cls, outcome: BallOutcome) -> "Flown":
        """What the ranking's own physics makes of balls."""
        return cls(outcome.launch.direction_deg, outcome.curve_deg, outcome.flight.carry_m)


@dataclass(frozen=True)
class PlainBalls:
    """Balls by rules of thumb, with other constants than the ranking's physics.

    start_face : share of the face in the start direction
    curve_deg_per_deg : curve for each degree of face to path; 1.05 in the ranking's for a 7 iron
    lost_pct_per_mm2 : carry lost with the square of the distance from the middle of the face
    lost_pct_per_deg2 : and of the face to path
    lost_pct_per_cm : for each cm the low point lies behind the ball
    lost_pct_per_deg_loft : for each degree of loft added
    heel_costs : whether a strike on the heel costs distance at all
    """

    start_face: float = 0.75
    curve_deg_per_deg: float = 0.95
    lost_pct_per_mm2: float = 0.035
    lost_pct_per_deg2: float = 0.06
    lost_pct_per_cm: float = 1.3
    lost_pct_per_deg_loft: float = 1.3
    heel_costs: bool = True

    def fly(self, parts: FloatArray, club: Club, carry_m: float) -> Flown:
        """Deliveries (n, 7), against the carry of a square blow."""
        path, face, strike = parts[:, PATH], parts[:, FACE_TO_PATH], parts[:, STRIKE]
        off_middle = strike if self.heel_costs else np.maximum(strike, 0.0)
        lost = self.lost_pct_per_mm2 * off_middle**2 + self.lost_pct_per_deg2 * face**2
        lost += self.lost_pct_per_cm * np.maximum(0.0, -from_ball_cm(parts[:, LOW_POINT], club))
        lost += self.lost_pct_per_deg_loft * parts[:, LOFT] - 1.3 * parts[:, SPEED]
        return Flown(
            start_deg=path + self.start_face * face,
            curve_deg=self.curve_deg_per_deg * face,
            carry_m=carry_m * np.maximum(0.1, 1 - lost / 100),
        )


@dataclass(frozen=True)
class World:
    """What differs between worlds.

    causes_at_work : how many causes a student may have
    plain : how balls fly; None for the ranking's own physics
    carry_off_pct : how far off the carry told is, one standard deviation between students
    effects_one_by_one : whether each effect of a cause has a size of its own, instead of one
        severity for all that the cause does
    falsely_yes : how often an instructor says yes where nothing is
    wrong_at_rest, wrong_moving : how often an eye errs by how it meets the matter, besides what
        the knowledge says; None for the knowledge's figures
    """

    name: str
    causes_at_work: tuple[int, ...] = (1, 2)
    plain: PlainBalls | None = None
    carry_off_pct: float = 0.0
    effects_one_by_one: bool = False
    falsely_yes: float = 0.0
    wrong_at_rest: float | None = None
    wrong_moving: float | None = None

    def fly(self, parts: FloatArray, setting: Setting, carry_m: float) -> Flown:
        """What balls do in this world."""
        if self.plain is not None:
            return self.plain.fly(parts, setting.club, carry_m)
        return Flown.of(play(parts, setting))

    def error(self, stated: float, read_as: ReadAs) -> float:
        """How often an answer is wrong, where the knowledge states so much."""
        own = self.wrong_at_rest if read_as == "at_rest" else self.wrong_moving
        return stated if own is None else own

    def told_carry_m(self, carry_m: float, rng: Generator) -> float:
        """The carry a student tells of."""
        if self.carry_off_pct == 0:
            return carry_m
        return float(carry_m * np.exp(rng.normal(0.0, self.carry_off_pct / 100)))


STAND_IN: Final = World("stand-in")
WORLDS: Final = {
    "a": STAND_IN,
    "b": World("plain balls", plain=PlainBalls(), carry_off_pct=5.0, effects_one_by_one=True),
    "b heel": World(
        "plain balls, heel strikes cost nothing",
        plain=PlainBalls(heel_costs=False),
        carry_off_pct=5.0,
        effects_one_by_one=True,
    ),
    "c": World("three or four causes", causes_at_work=(3, 4)),
    "d": World("an eye that says yes too often", falsely_yes=0.15),
    "e": World("sees set-up well, motion badly", wrong_at_rest=0.02, wrong_moving=0.2),
}
"""The worlds of `make measure`."""
