"""What does one block show, ball by ball?"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from scipy.special import chdtri

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.expected import Expected, expected_of, setting_of
from firm_footing.core.estimation.inverse import Delivered
from firm_footing.core.estimation.readings import NotedValue, as_reading
from firm_footing.core.estimation.readings import curve_deg as noted_curve
from firm_footing.core.estimation.readings import start_deg as noted_start
from firm_footing.core.estimation.shown import Physics
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.patterns.drift import Drift, drifts_of
from firm_footing.core.patterns.groups import BallGroup, groups_of
from firm_footing.core.patterns.lost import Lost, lost_of, together, would_be
from firm_footing.core.patterns.pattern import Estimate, Pattern, read_pattern
from firm_footing.core.patterns.targets import Wanted, wanted_of
from firm_footing.core.patterns.tracks import TRACK_POINTS, drawn_tracks
from firm_footing.core.physics.flight import Flight, Launch, fly_drawn
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    LOW_POINT,
    PATH,
    STRIKE,
    Setting,
    deliver,
    from_ball_cm,
)
from firm_footing.core.physics.impact import Delivery, strike
from firm_footing.core.physics.turf import attack_deg, cm_to_attack


@dataclass(frozen=True, eq=False)
class BallRead:
    """One ball.

    delivery, sd : (7,) most likely delivery and its standard deviations, order of `PARTS`; the
        low point from the ball
    attack_deg, face_deg : + up; to the target line, + push side; each with its deviation
    start_deg, curve_deg, carry_m, apex_m : as noted, else as computed
    track : (points, 3) of its flight: along the target line, up, to the push side; metres
    wild : farther out than an ordinary ball
    lost : its account of lost distance
    """

    delivery: FloatArray
    sd: FloatArray
    attack_deg: float
    attack_sd: float
    face_deg: float
    face_sd: float
    start_deg: float
    curve_deg: float
    carry_m: float
    apex_m: float
    track: FloatArray
    wild: bool
    lost: Lost


@dataclass(frozen=True, eq=False)
class BlockRead:
    """A block of balls.

    pattern : what its balls show together
    attack_deg, face_deg : of its middle, None where the balls do not fix it
    scatter : (7,) how its balls lie about the middle, standard deviations, order of `PARTS`
    groups : two, where one swing does not explain the balls
    drifts : what changed while it was hit
    lost : the mean account
    wanted : measured numbers that the club has a target for
    """

    expected: Expected
    pattern: Pattern
    attack_deg: Estimate | None
    face_deg: Estimate | None
    scatter: FloatArray
    balls: tuple[BallRead, ...]
    groups: tuple[BallGroup, ...]
    drifts: tuple[Drift, ...]
    lost: Lost
    wanted: tuple[Wanted, ...]


@lru_cache(maxsize=40)  # the other blocks of a lesson stay as they are when a ball is added
def read_block(block: Block, knowledge: Knowledge, handicap: float | None = None) -> BlockRead:
    """Everything the balls of one block show.

    Raises
    ------
    ValueError
        The block has no ball.

    """
    numbers = knowledge.numbers
    expected = expected_of(block, knowledge, handicap)
    setting = setting_of(block, knowledge, handicap)
    pattern = read_pattern((block,), knowledge, handicap)
    delivered = pattern.delivered
    if delivered is None:
        raise ValueError("there is no ball to read")
    flown = _noted(block, numbers)
    parts = delivered.balls
    delivery = deliver(parts, setting)
    launch = strike(delivery, setting.club)
    # one integration for the balls as they flew and as they would have flown
    would = would_be(parts, setting)
    whole = Launch(*(np.concatenate(pair) for pair in zip(launch, would, strict=True)))
    both, computed = fly_drawn(whole, len(parts), TRACK_POINTS)
    flight = Flight(*(column[: len(parts)] for column in both))
    flown_m = both.carry_m[len(parts) :].reshape(-1, len(parts))
    carries, limits = [s.carry_m for s in block.shots], numbers.lost_distance
    accounts = lost_of(flown_m, carries, expected.carry_m, limits)
    mean = together(accounts, limits)
    assert mean is not None  # there are balls
    shown = _from_the_ball(parts, setting)
    drawn = drawn_tracks(block, flown, launch, flight, computed)
    return BlockRead(
        expected=expected,
        pattern=pattern,
        attack_deg=_attack(pattern, setting),
        face_deg=_face(pattern, delivered),
        scatter=np.sqrt(((parts - delivered.mean) ** 2).mean(axis=0)),
        balls=_balls(delivered, setting, delivery, drawn, accounts, numbers),
        groups=groups_of(
            flown, _one_swing(block, delivered, knowledge, handicap), numbers.block, numbers.shape
        ),
        drifts=drifts_of(_series(block, flown, shown, delivered), numbers.block),
        lost=mean,
        wanted=wanted_of(block, knowledge),
    )


def _balls(
    delivered: Delivered,
    setting: Setting,
    delivery: Delivery,
    drawn: tuple[FloatArray, FloatArray],
    accounts: Sequence[Lost],
    numbers: Numbers,
) -> tuple[BallRead, ...]:
    """Every ball by itself.

    drawn : the balls' tracks, and (n, 3) how they start, curve and carry; see `tracks.py`
    """
    wild, (tracks, ends) = _wild(delivered, numbers), drawn
    shown = _from_the_ball(delivered.balls, setting)
    sds = np.sqrt(np.diagonal(delivered.ball_covariance, axis1=1, axis2=2))
    return tuple(
        BallRead(
            delivery=shown[i],
            sd=sds[i],
            attack_deg=float(delivery.attack_deg[i]),
            attack_sd=float(sds[i, LOW_POINT]) * cm_to_attack(setting.turf),
            face_deg=float(delivery.face_deg[i]),
            face_sd=_sum_sd(delivered.ball_covariance[i]),
            start_deg=float(ends[i, 0]),
            curve_deg=float(ends[i, 1]),
            carry_m=float(ends[i, 2]),
            apex_m=float(tracks[i, :, 1].max()),
            track=tracks[i],
            wild=bool(wild[i]),
            lost=accounts[i],
        )
        for i in range(len(shown))
    )


def _from_the_ball(parts: FloatArray, setting: Setting) -> FloatArray:
    """(n, 7) deliveries with the low point as it is seen."""
    out = parts.copy()
    out[:, LOW_POINT] = from_ball_cm(parts[:, LOW_POINT], setting.club)
    return out


def _noted(block: Block, numbers: Numbers) -> FloatArray:
    """(n, 2) start and curve as noted, words by their middle; NaN where not, or off the hosel."""
    return np.array([_start_and_curve(shot, numbers) for shot in block.shots])


def _start_and_curve(shot: Shot, numbers: Numbers) -> tuple[float, float]:
    if shot.contact == "hosel":
        return math.nan, math.nan
    start = noted_start(shot, numbers)
    return _value(start, numbers), _value(noted_curve(shot, numbers, start), numbers)


def _value(note: NotedValue | None, numbers: Numbers) -> float:
    return math.nan if note is None else as_reading(note, numbers).value


def _one_swing(
    block: Block, delivered: Delivered, knowledge: Knowledge, handicap: float | None
) -> FloatArray:
    """(2, 2) how start and curve of one swing's balls scatter, the doubt of the words included."""
    usual = knowledge.numbers.delivery
    sd = np.array([*usual.ball_sd.row(), usual.ball_height_sd_mm])
    physics = Physics(block.model_copy(update={"shots": block.shots[:1]}), knowledge, handicap)
    _, slopes, left = physics.linear(delivered.mean[None], np.diag(sd)[None])
    rows = slopes[0, :2]
    noise = np.square(
        [knowledge.numbers.reading.word_sd_deg, knowledge.numbers.reading.curve_model_sd_deg]
    )
    out: FloatArray = (rows * sd**2) @ rows.T + np.diag(left[0, :2] + noise)
    return out


def _wild(delivered: Delivered, numbers: Numbers) -> NDArray[np.bool_]:
    """(n,) balls farther out than ordinary ones, for a player who scatters like this."""
    freedom = np.maximum(delivered.counted, 1)
    wide = max(1.0, float(np.median(delivered.distances2 / freedom)))
    limit: FloatArray = chdtri(freedom, numbers.block.wild_share)
    return (delivered.distances2 / wide > limit) & (delivered.counted > 0)


def _attack(pattern: Pattern, setting: Setting) -> Estimate | None:
    """Angle of attack that goes with the low point."""
    low = pattern.low_point_cm
    if low is None:
        return None
    value = attack_deg(low.value, setting.turf)
    return Estimate(value, low.se * cm_to_attack(setting.turf))


def _face(pattern: Pattern, delivered: Delivered) -> Estimate | None:
    """To the target line: path and face to path together."""
    if pattern.path_deg is None or pattern.face_to_path_deg is None:
        return None
    face = float(delivered.mean[PATH] + delivered.mean[FACE_TO_PATH])
    return Estimate(face, _sum_sd(delivered.covariance))


def _sum_sd(covariance: FloatArray) -> float:
    """Standard deviation of path and face to path together."""
    pair = covariance[np.ix_((PATH, FACE_TO_PATH), (PATH, FACE_TO_PATH))]
    return math.sqrt(float(pair.sum()))


def _series(
    block: Block, flown: FloatArray, shown: FloatArray, delivered: Delivered
) -> dict[str, list[float | None]]:
    """What may change while a block is hit, ball by ball; `shown` are its deliveries."""
    shots = block.shots

    def marks(part: int, made: list[bool]) -> list[float | None]:
        values = shown[:, part].tolist()
        return [v if m else None for v, m in zip(values, made, strict=True)]

    turf = [s.divot_start_cm is not None or s.brush_start_cm is not None for s in shots]
    return {
        "start_deg": [None if math.isnan(v) else v for v in flown[:, 0].tolist()],
        "curve_deg": [None if math.isnan(v) else v for v in flown[:, 1].tolist()],
        "heel_toe_mm": marks(STRIKE, [s.heel_toe_mm is not None for s in shots]),
        "low_point_cm": marks(LOW_POINT, turf),
        "carry_m": [s.carry_m for s in shots],
        "scatter": [
            d if n else None
            for d, n in zip(delivered.distances2.tolist(), delivered.counted.tolist(), strict=True)
        ],
    }
