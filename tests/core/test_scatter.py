"""A block's own scatter: against the whole likelihood, and in intervals that hold."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.stats import multivariate_normal, norm

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.inverse import read_delivery
from firm_footing.core.estimation.scatter import FACTORS
from firm_footing.core.inference.delivery_likelihood import scatter_says
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.patterns.pattern import Scatter
from firm_footing.simulators.student import hit_block, make_student

STRIKE = DIMENSIONS.index("heel_toe_mm")


def factor(found_variance: float, knowledge: Knowledge) -> float:
    """How much wider than usual the strikes scatter."""
    return (found_variance / knowledge.numbers.delivery.ball_sd.heel_toe_mm**2) ** 0.5


@pytest.mark.parametrize("wide", [0.4, 1.0, 1.8])
@pytest.mark.parametrize("balls", [4, 10, 25])
def test_the_factor_is_the_posterior_mean_of_the_whole_likelihood(
    knowledge: Knowledge, wide: float, balls: int
) -> None:
    """Strikes alone: SciPy's normal density of all balls together, the middle integrated out."""
    rng = np.random.default_rng([balls, int(10 * wide)])
    strikes = np.clip(np.round(rng.normal(-3, 8 * wide, balls)), -26, 26)
    found = read_delivery(
        (Block(shots=tuple(Shot(heel_toe_mm=s) for s in strikes)),), knowledge, 18
    )
    numbers = knowledge.numbers
    own, read, prior = (
        numbers.delivery.ball_sd.heel_toe_mm,
        numbers.reading.strike_sd_mm,
        numbers.delivery.prior_sd.heel_toe_mm,
    )
    log = np.array(
        [
            multivariate_normal.logpdf(
                strikes,
                np.zeros(balls),
                np.eye(balls) * ((s * own) ** 2 + read**2) + prior**2,
            )
            - 0.5 * (np.log(s) / numbers.delivery.scatter_spread) ** 2
            for s in FACTORS
        ]
    )
    weight = np.exp(log - log.max())
    wanted = (weight @ FACTORS**2 / weight.sum()) ** 0.5
    assert factor(found.scatter2[0, STRIKE], knowledge) == pytest.approx(wanted, rel=0.035)


def test_two_blocks_have_a_scatter_each(knowledge: Knowledge) -> None:
    rng = np.random.default_rng(1)
    narrow, wide = (
        Block(shots=tuple(Shot(heel_toe_mm=float(s)) for s in rng.normal(0, sd, 20)))
        for sd in (5, 14)
    )
    found = read_delivery((narrow, wide), knowledge, 18)
    of_narrow, of_wide = (factor(found.scatter2[ball, STRIKE], knowledge) for ball in (0, 39))
    assert of_narrow < 0.8
    assert of_wide > 1.3
    alone = read_delivery((narrow,), knowledge, 18)
    assert of_narrow == pytest.approx(factor(alone.scatter2[0, STRIKE], knowledge), rel=0.035)


@pytest.mark.parametrize("wide", [0.5, 1.0, 2.0])
def test_intervals_hold_however_widely_the_balls_scatter(knowledge: Knowledge, wide: float) -> None:
    """Half and double the usual scatter, noted on the tee; `bench/blocks.py` has it in full."""
    off = []
    for seed in range(50):
        rng = np.random.default_rng([seed, 78])
        student = make_student(
            ["trail_heel_pops"] if seed % 2 else [], 15, "thrown", knowledge, rng
        )
        usual = np.array(knowledge.numbers.delivery.ball_sd.row())
        student = replace(student, scatter=usual * wide)
        found = read_delivery((hit_block(student, 12, "7i", 135, knowledge, rng),), knowledge, 15)
        sd = np.sqrt(np.diag(found.covariance))[:4]
        off.append((found.mean[:4] - student.delivery[:4]) / sd)
    assert 0.92 <= (np.abs(off) < 1.96).mean() <= 0.995


def test_words_tell_a_wide_scatter_too(knowledge: Knowledge) -> None:
    """ "Far" is everything beyond a limit: read by its middle, a wide block would look narrower.

    Students who scatter twice as widely as usual, forty balls in words.
    """
    factors = []
    usual = np.array(knowledge.numbers.delivery.ball_sd.row())
    for seed in range(16):
        rng = np.random.default_rng([seed, 77])
        student = make_student([], 18, "thrown", knowledge, rng)
        student = replace(student, scatter=2 * usual)
        block = hit_block(student, 40, "7i", 135, knowledge, rng)
        words = tuple(Shot(start=s.start, curve=s.curve, contact=s.contact) for s in block.shots)
        found = read_delivery((block.model_copy(update={"shots": words}),), knowledge, 18)
        factors.append((found.scatter2[0, 0] / usual[0] ** 2) ** 0.5)
    assert 2.12 < np.mean(factors) < 2.7  # they tire, and a few balls are wild


@pytest.mark.parametrize("freedom", [20, 240])
def test_scatter_is_weighed_by_the_whole_integral_however_many_balls(freedom: int) -> None:
    """Forty balls know a scatter to a few per cent: SciPy's quadrature over how people differ."""
    factors, share, spread = np.array([1.0, 1.3]), 0.7, 0.3
    for wide in (0.8, 1.15, 1.5):
        sum2 = freedom * (share * wide**2 + 1 - share)

        def density(z: float, factor: float, sum2: float = sum2) -> float:
            size2 = share * (factor * np.exp(spread * z)) ** 2 + 1 - share
            log = -0.5 * (freedom * np.log(size2) + sum2 / size2) + 0.5 * (
                freedom * np.log(sum2 / freedom) + freedom
            )
            return float(norm.pdf(z) * np.exp(log))

        wanted = [quad(density, -6, 6, args=(f,), limit=400, points=[0])[0] for f in factors]
        found = scatter_says(Scatter(sum2, freedom, share), factors, spread)
        assert found[1] - found[0] == pytest.approx(np.log(wanted[1] / wanted[0]), abs=0.01)
