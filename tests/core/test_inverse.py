"""From noted balls back to the delivery: known truth, exact cases, the surrogate's error."""

from collections.abc import Callable

import numpy as np
import pytest
from numpy.random import Generator
from scipy.stats import norm

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.expected import expected_of, setting_of
from firm_footing.core.estimation.intervals import interval_slopes
from firm_footing.core.estimation.inverse import read_delivery
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.physics.flight import fly
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    LOW_POINT,
    PATH,
    BallOutcome,
    Setting,
    play,
)
from firm_footing.core.physics.surrogate import land
from firm_footing.simulators.noting import in_words, measured
from firm_footing.simulators.worlds import Flown
from tests import sizes

Noting = Callable[..., tuple[Shot, ...]]
HANDICAP = 18.0
WITHIN_80 = norm.ppf(0.9)
BLOCKS = sizes.of(180, 520)


def usual(knowledge: Knowledge) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Mean and deviations of a block's middle, and deviations of its balls: the stated prior."""
    numbers = knowledge.numbers.delivery
    mean = np.zeros(7)
    mean[LOW_POINT] = numbers.cause_free_low_point_cm(HANDICAP)
    height = numbers.ball_height_sd_mm
    return (
        mean,
        np.array([*numbers.prior_sd.row(), height]),
        np.array([*numbers.ball_sd.row(), height]),
    )


def simulated(
    knowledge: Knowledge, noting: Noting, club: str, rng: Generator
) -> tuple[FloatArray, Block]:
    """The hidden middle (7,) and ten balls, one in 25 of them wild."""
    mean, prior_sd, ball_sd = usual(knowledge)
    middle = rng.normal(mean, prior_sd)
    middle[3] = max(middle[3], -26.0)  # a whole block off the hosel is another matter
    wide = np.where(rng.random(10) < 0.04, 3.0, 1.0)
    parts = rng.normal(middle, ball_sd * wide[:, None])
    block = Block(club=club, expected_carry_m={"d": 200.0, "7i": 135.0, "pw": 100.0}[club])
    setting = setting_of(block, knowledge)
    shots = noting(parts, play(parts, setting), setting, knowledge, rng)
    return middle, block.model_copy(update={"shots": shots})


def words(parts: FloatArray, outcome: BallOutcome, *rest: object) -> tuple[Shot, ...]:
    """As an instructor notes them."""
    return in_words(parts, Flown.of(outcome), *rest)  # type: ignore[arg-type]


def with_gaps(*args: object) -> tuple[Shot, ...]:
    """In words, with a third of everything not noted."""
    rng: Generator = args[-1]  # type: ignore[assignment]
    kept = []
    for shot in words(*args):  # type: ignore[arg-type]
        seen = shot.model_dump(exclude_none=True)
        kept.append(Shot.model_validate({k: v for k, v in seen.items() if rng.random() > 0.33}))
    return tuple(kept)


@pytest.mark.parametrize("noting", [words, measured, with_gaps])
def test_the_intervals_hold_the_truth_as_often_as_they_say(
    knowledge: Knowledge, noting: Noting
) -> None:
    """80 % intervals, blocks of three clubs: 75 to 85 % over all quantities, none far off.

    One quantity's share is known to 1.8 points (one standard deviation) from 520 blocks.
    """
    rng = np.random.default_rng(20)
    inside = []
    for number in range(BLOCKS):
        truth, block = simulated(knowledge, noting, ("7i", "d", "pw")[number % 3], rng)
        found = read_delivery((block,), knowledge, HANDICAP)
        sd = np.sqrt(np.diag(found.covariance))
        inside.append((np.abs(found.mean - truth) < WITHIN_80 * sd)[: len(DIMENSIONS)])
    share = np.mean(inside, axis=0)
    assert 0.75 < share.mean() < 0.85
    far = 5.5 * (0.16 / BLOCKS) ** 0.5
    assert share.min() > 0.80 - far
    assert share.max() < 0.80 + far


def test_the_balls_own_deliveries_are_found(knowledge: Knowledge) -> None:
    """Measured balls one by one: nearer the truth than the block's middle is."""
    rng = np.random.default_rng(3)
    mean, _, ball_sd = usual(knowledge)
    parts = rng.normal(mean, ball_sd, (12, 7))
    block = Block(club="7i", expected_carry_m=135.0)
    setting = setting_of(block, knowledge)
    shots = measured(parts, play(parts, setting), setting, knowledge, rng)
    found = read_delivery((block.model_copy(update={"shots": shots}),), knowledge, HANDICAP)
    for part, most in ((PATH, 0.6), (FACE_TO_PATH, 0.6), (LOW_POINT, 0.8)):
        own = np.abs(found.balls[:, part] - parts[:, part]).mean()
        assert own < most * np.abs(found.mean[part] - parts[:, part]).mean()


def test_with_straight_notes_it_is_the_weighted_mean_of_prior_and_balls(
    knowledge: Knowledge,
) -> None:
    """Only strikes noted: everything is linear and normal, and the textbook gives the answer."""
    strikes = [-8.0, -2.0, -5.0, -11.0]
    block = Block(shots=tuple(Shot(heel_toe_mm=s) for s in strikes))
    found = read_delivery((block,), knowledge, HANDICAP)
    numbers = knowledge.numbers
    assert found.scatter2[0, 3] < numbers.delivery.ball_sd.heel_toe_mm**2  # they lie close together
    noise2 = found.scatter2[0, 3] + numbers.reading.strike_sd_mm**2
    prior2 = numbers.delivery.prior_sd.heel_toe_mm**2
    precision = 1 / prior2 + len(strikes) / noise2
    assert found.covariance[3, 3] == pytest.approx(1 / precision, rel=1e-6)
    assert found.mean[3] == pytest.approx(sum(strikes) / noise2 / precision, rel=1e-6)


def test_nothing_noted_leaves_what_is_usual(knowledge: Knowledge) -> None:
    found = read_delivery((Block(shots=(Shot(), Shot())),), knowledge, HANDICAP)
    mean, prior_sd, _ = usual(knowledge)
    assert found.mean == pytest.approx(mean, abs=1e-6)
    assert np.sqrt(np.diag(found.covariance)) == pytest.approx(prior_sd, rel=1e-4)
    with pytest.raises(ValueError, match="no ball"):
        read_delivery((Block(),), knowledge, HANDICAP)


@pytest.mark.parametrize("nothing", [0.0, 1e-300, 0.9])
@pytest.mark.parametrize("field", ["club_speed_mps", "ball_speed_mps", "spin_rpm", "carry_m"])
def test_a_device_that_saw_nothing_says_nothing(
    knowledge: Knowledge, field: str, nothing: float
) -> None:
    shots = tuple(Shot(start="pull", curve="push", heel_toe_mm=float(-i)) for i in range(6))
    zeros = tuple(shot.model_copy(update={field: nothing}) for shot in shots)
    plain, blind = (
        read_delivery((Block(expected_carry_m=130.0, shots=s),), knowledge) for s in (shots, zeros)
    )
    assert blind.mean == pytest.approx(plain.mean)


def test_a_word_is_an_interval_and_no_more(knowledge: Knowledge) -> None:
    """Ten balls that all started 'pull' may all have started anywhere from 2 to 6 degrees."""
    block = Block(shots=(Shot(start="pull", curve="straight"),) * 10)
    found = read_delivery((block,), knowledge, HANDICAP)
    start = found.mean[PATH] + 0.73 * found.mean[FACE_TO_PATH]
    assert -5.5 < start < -2.5


def test_interval_slopes_are_the_derivatives_of_the_log_probability() -> None:
    rng = np.random.default_rng(2)
    mean, sd = rng.normal(-1, 2, 40), rng.uniform(1.5, 4, 40)
    least = rng.normal(-3, 3, 40)
    most = least + rng.uniform(0.5, 6, 40)
    least[:8], most[8:16] = -np.inf, np.inf

    def log(m: FloatArray) -> FloatArray:
        return np.log(norm.cdf((most - m) / sd) - norm.cdf((least - m) / sd))

    step = 1e-4
    first, second = interval_slopes(mean, sd**2, least, most)
    assert first == pytest.approx(
        (log(mean + step) - log(mean - step)) / (2 * step), abs=1e-3, rel=2e-3
    )
    bend = (log(mean + step) + log(mean - step) - 2 * log(mean)) / step**2
    assert second == pytest.approx(bend, abs=2e-3, rel=2e-2)


@pytest.mark.parametrize(
    ("club", "curve_deg", "carry_pct"), [("d", 0.5, 5.5), ("7i", 0.1, 0.8), ("pw", 0.1, 0.8)]
)
def test_the_surrogate_lands_where_the_flight_does(
    knowledge: Knowledge, club: str, curve_deg: float, carry_pct: float
) -> None:
    """Root mean square over deliveries as students make them, away from the fitted sample."""
    rng = np.random.default_rng(77)
    mean, prior_sd, ball_sd = usual(knowledge)
    parts = rng.normal(mean, np.hypot(prior_sd, ball_sd), (1500, 7))
    parts[:, 3] = np.maximum(parts[:, 3], -26.5)
    entry = knowledge.club[club]
    setting = Setting(entry, 42.0 * entry.speed_share, club == "d", knowledge.numbers.turf)
    guess, truth = land(parts, setting), play(parts, setting)
    assert np.sqrt(np.mean((guess.curve_deg - truth.curve_deg) ** 2)) < curve_deg
    off = np.exp(guess.log_carry) / truth.flight.carry_m - 1
    assert 100 * np.sqrt(np.mean(off**2)) < carry_pct
    assert guess.launch.direction_deg == pytest.approx(truth.launch.direction_deg)


def test_what_to_expect_and_where_it_comes_from(knowledge: Knowledge) -> None:
    named = expected_of(Block(expected_carry_m=140.0), knowledge, 10)
    assert (named.source, named.carry_m) == ("named", 140.0)
    fast = expected_of(Block(shots=(Shot(club_speed_mps=36.0),)), knowledge, 10)
    assert (fast.source, fast.club_speed_mps) == ("club_speed", 36.0)
    carries = tuple(Shot(carry_m=c) for c in (100.0, 120.0, 130.0, 132.0, 80.0, 90.0))
    own = expected_of(Block(shots=carries), knowledge, 10)
    assert (own.source, own.carry_m) == ("own_best", pytest.approx(131.0))
    # the longest of seven fat balls says nothing of how far a square blow goes
    fat = tuple(s.model_copy(update={"contact": "fat"}) for s in (*carries, carries[0]))
    assert expected_of(Block(shots=fat), knowledge, 10).source == "handicap"
    clean = tuple(Shot(carry_m=c, contact="clean") for c in (140.0, 142.0))
    mixed = expected_of(Block(shots=(*fat[:4], *clean)), knowledge, 10)
    assert (mixed.source, mixed.carry_m) == ("own_best", pytest.approx(141.0))
    good, poor = (expected_of(Block(), knowledge, h) for h in (0.0, 24.0))
    assert good.source == poor.source == "handicap"
    assert good.carry_m > poor.carry_m + 20
    # the speed goes with the carry: a square blow at it flies so far
    setting = setting_of(Block(expected_carry_m=140.0), knowledge)
    square = np.zeros((1, 7))
    square[0, LOW_POINT] = 3.0
    assert play(square, setting).flight.carry_m[0] == pytest.approx(140.0, abs=0.3)
    assert fly(play(square, setting).launch).carry_m[0] == pytest.approx(140.0, abs=0.3)
