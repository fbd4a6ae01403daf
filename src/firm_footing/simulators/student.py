"""How would a student with known causes hit balls and look?

A mechanical stand-in. It shares with the ranking the sizes of the effects, how common causes are
and which bring about which, how strongly causes point to looks, and the physics of the ball unless
its world has its own (`worlds.py`). Everything else differs: one gamma severity for each cause
drives everything it does; people differ with heavy tails and with path and face hanging together;
balls scatter with a tail, tire and go wild now and then; what a look shows is a threshold on what
the causes add up to, seen by an instructor who has a bias of their own. All random from one seed.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from statistics import NormalDist

import numpy as np
from numpy.random import Generator
from scipy.special import ndtr

from firm_footing.core.case import Block, Reading
from firm_footing.core.estimation.expected import setting_of
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.core.physics.forward import FACE_TO_PATH, LOW_POINT, PATH, STRIKE
from firm_footing.simulators.noting import in_words
from firm_footing.simulators.worlds import STAND_IN, World

NORMAL = NormalDist()

# Estimates of ours, all different in kind from what the ranking assumes.
SEVERITY_SHAPE = 4.0  # gamma: mean 1, standard deviation one half, never negative
PERSON_TAIL_DF = 5.0
PATH_FACE_CORRELATION = -0.3  # who swings out to in holds the face open
SCATTER_SPREAD = 0.2  # log: some people are steadier than others
WILD_BALL = 0.04
TIRING = 0.015  # wider scatter with every ball
PARTLY_BAND = 0.22  # latent distance from the threshold that looks like 'partly'
CANNOT_TELL = 0.04
OBSERVER_SPREAD = 0.35  # log: some instructors see more than others


@dataclass(frozen=True)
class SimulatedStudent:
    """A student whose causes are known.

    severity : cause id to how strongly it is there, 1 on average
    delivery : (6,) what their balls scatter around, order of DIMENSIONS
    scatter : (6,) how they scatter
    eye : how often, against the stated error, the instructor errs
    world : they live in
    """

    causes: tuple[str, ...]
    severity: dict[str, float]
    mode: Mode
    handicap: float
    delivery: FloatArray
    scatter: FloatArray
    eye: float
    world: World = STAND_IN


def draw_causes(knowledge: Knowledge, rng: Generator, most: int = 3) -> tuple[str, ...]:
    """Causes that come by themselves, then what the links add to them; at most `most`.

    Where practitioners differ over a link, one of their views is drawn for each student.
    """
    prior = knowledge.numbers.prior
    views = knowledge.schools.link_views(knowledge.schools.usual)
    dropped = views[int(rng.choice(len(views), p=[v.share for v in views]))].dropped
    weights = np.array([c.base_weight for c in knowledge.causes])
    count = int(rng.choice(len(prior.causes_present), p=prior.causes_present))
    picked = rng.choice(len(weights), size=count, replace=False, p=weights / weights.sum())
    present = [knowledge.causes[i].id for i in picked]
    for name in present:  # grows while it is walked: what was added can add again
        for other in knowledge.cause[name].upstream_of:
            linked = (name, other) not in dropped
            if linked and other not in present and rng.random() < prior.link_strength:
                present.append(other)
    return tuple(present[:most])


def draw_mode(handicap: float, knowledge: Knowledge, rng: Generator) -> Mode:
    """Thrown or stuck, by skill."""
    stuck = knowledge.numbers.stuck_mode.probability(handicap)
    return "stuck" if rng.random() < stuck else "thrown"


def make_student(
    causes: Sequence[str],
    handicap: float,
    mode: Mode,
    knowledge: Knowledge,
    rng: Generator,
    world: World = STAND_IN,
) -> SimulatedStudent:
    """Draw one person with these causes; two-sided causes take a side at random."""
    numbers = knowledge.numbers.delivery
    person = rng.standard_t(PERSON_TAIL_DF, size=len(DIMENSIONS))
    person *= math.sqrt((PERSON_TAIL_DF - 2) / PERSON_TAIL_DF)
    together = PATH_FACE_CORRELATION
    person[FACE_TO_PATH] = (
        together * person[PATH] + math.sqrt(1 - together**2) * person[FACE_TO_PATH]
    )
    delivery = person * np.array(numbers.person_sd.row())
    delivery[LOW_POINT] += numbers.cause_free_low_point_cm(handicap)
    severity = {}
    for name in causes:
        cause = knowledge.cause[name]
        side = cause.sides[int(rng.integers(2))].id if cause.sides else None
        severity[name] = float(rng.gamma(SEVERITY_SHAPE, 1 / SEVERITY_SHAPE))
        row = np.array(knowledge.effects[name, mode if cause.skill else None, side])
        size: float | FloatArray = severity[name]
        if world.effects_one_by_one:
            size = rng.gamma(SEVERITY_SHAPE, 1 / SEVERITY_SHAPE, size=len(DIMENSIONS))
        delivery += size * row
    delivery[LOW_POINT] = max(delivery[LOW_POINT], numbers.low_point_floor_cm)
    delivery[STRIKE] = max(delivery[STRIKE], numbers.strike_floor_mm)
    factor = max((knowledge.cause[c].scatter_factor for c in causes), default=1.0)
    return SimulatedStudent(
        causes=tuple(causes),
        severity=severity,
        mode=mode,
        handicap=handicap,
        delivery=delivery,
        scatter=np.array(numbers.ball_sd.row()) * factor * rng.lognormal(0.0, SCATTER_SPREAD),
        eye=float(rng.lognormal(0.0, OBSERVER_SPREAD)),
        world=world,
    )


def hit_block(
    student: SimulatedStudent,
    balls: int,
    club_id: str,
    expected_carry_m: float,
    knowledge: Knowledge,
    rng: Generator,
) -> Block:
    """A baseline block of this many balls, noted in words as an instructor would."""
    block = Block(club=club_id, expected_carry_m=expected_carry_m, surface="turf")
    if balls == 0:
        return block
    setting = setting_of(block, knowledge)
    parts = swing(student, balls, knowledge, rng)
    flown = student.world.fly(parts, setting, expected_carry_m)
    told = student.world.told_carry_m(expected_carry_m, rng)
    shots = in_words(parts, flown, setting, knowledge, rng)
    return block.model_copy(update={"shots": shots, "expected_carry_m": told})


def swing(
    student: SimulatedStudent, balls: int, knowledge: Knowledge, rng: Generator, hit: int = 0
) -> FloatArray:
    """(balls, 7) deliveries one after the other, in the order of `PARTS`.

    hit : balls already hit, for the student tires
    """
    height = knowledge.numbers.delivery.ball_height_sd_mm
    wild = np.where(rng.random(balls) < WILD_BALL, 3.0, 1.0)
    wide = wild * (1 + TIRING * (hit + np.arange(balls)))
    middle = np.append(student.delivery, 0.0)
    scatter = np.append(student.scatter, height)
    parts: FloatArray = rng.normal(middle, scatter * wide[:, None])
    return parts


def answer(
    student: SimulatedStudent, check_id: str, knowledge: Knowledge, rng: Generator
) -> Reading:
    """What an instructor would answer to this look.

    The causes push a latent amount past the threshold that makes the sign seen; near it the
    answer is 'partly'. The source errs as often as it is said to, times the instructor's eye.
    """
    check, numbers = knowledge.check[check_id], knowledge.numbers
    base = NORMAL.inv_cdf(check.base_rate(student.handicap))
    latent = base + rng.normal()
    for cause, stated in knowledge.points(check, student.mode).items():
        if cause in student.severity:
            latent += push_of(stated, base) * student.severity[cause]
    source = check.sources[0]
    if rng.random() < CANNOT_TELL:
        return Reading(check=check_id, answer="unknown", source=source)
    if abs(latent) < PARTLY_BAND:
        return Reading(check=check_id, answer="partly", source=source)
    world = student.world
    error = world.error(numbers.reading_error.of(source, check.read_as), check.read_as)
    said = (latent > 0) != (rng.random() < min(0.45, error * student.eye))
    if world.falsely_yes and not said:
        said = rng.random() < world.falsely_yes
    return Reading(check=check_id, answer="yes" if said else "no", source=source)


SEVERITY_GRID = np.linspace(0.0, 5.0, 401)[1:]
_density = SEVERITY_GRID ** (SEVERITY_SHAPE - 1) * np.exp(-SEVERITY_SHAPE * SEVERITY_GRID)
SEVERITY_SHARE = _density / _density.sum()


@lru_cache(maxsize=512)
def push_of(stated: float, base: float) -> float:
    """How far a cause of severity 1 pushes past the threshold at `base` (standard deviations).

    Over people of every severity the sign is then seen as often as the trade says (`stated`):
    less often in a mild case, more often in a grave one.
    """

    def seen(push: float) -> float:
        return float(SEVERITY_SHARE @ ndtr(base + push * SEVERITY_GRID))

    low, high = 0.0, 20.0
    for _ in range(40):
        middle = (low + high) / 2
        low, high = (middle, high) if seen(middle) < stated else (low, middle)
    return low
