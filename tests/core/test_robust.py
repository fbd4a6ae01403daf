"""The robust middle against what it must be in the limits: least squares when tails are Gaussian,
the untouched majority when one ball is absurd."""

import numpy as np
import pytest

from firm_footing.core.ball.robust import Location, locate

D = 2


def balls(n: int, seed: int) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """Each ball reads both quantities through its own mixing, with noise of known size."""
    rng = np.random.default_rng(seed)
    design = rng.normal(size=(n, D, D)) + 2 * np.eye(D)
    noise_sd = rng.uniform(0.5, 2.0, size=n)
    truth = np.array([-3.0, 2.0])
    values = design @ truth + rng.normal(size=(n, D)) * noise_sd[:, None]
    return design, noise_sd, values, truth


def located(
    design: np.ndarray, noise_sd: np.ndarray, values: np.ndarray, tail_df: float, certain: int = -1
) -> Location:
    weight = 1 / noise_sd**2
    transposed = design.swapaxes(1, 2)
    precision = (transposed @ design) * weight[:, None, None]
    pull = (transposed @ values[:, :, None])[:, :, 0] * weight[:, None]
    size2 = (values**2).sum(axis=1) * weight
    pinned = np.arange(len(values)) == certain
    return locate(precision, pull, size2, np.full(len(values), D), pinned, tail_df)


@pytest.mark.parametrize("seed", range(5))
def test_with_gaussian_tails_it_is_weighted_least_squares(seed: int) -> None:
    design, noise_sd, values, _ = balls(12, seed)
    found = located(design, noise_sd, values, tail_df=1e12)
    scale = np.repeat(1 / noise_sd, D)
    a, b = design.reshape(-1, D) * scale[:, None], values.ravel() * scale
    expected, *_ = np.linalg.lstsq(a, b, rcond=None)
    np.testing.assert_allclose(found.mean, expected, atol=1e-6)
    np.testing.assert_allclose(found.precision, a.T @ a, rtol=1e-6)
    residuals2 = ((a @ expected - b) ** 2).reshape(-1, D).sum(axis=1)
    np.testing.assert_allclose(found.distances2, residuals2, atol=1e-6)


@pytest.mark.parametrize("far", [50.0, 500.0, 5000.0])
def test_an_absurd_ball_weighs_next_to_nothing(far: float) -> None:
    design, noise_sd, values, truth = balls(12, 1)
    without = located(design[1:], noise_sd[1:], values[1:], tail_df=4).mean
    values[0] = far
    found = located(design, noise_sd, values, tail_df=4)
    assert found.weights[0] < 0.02
    assert np.abs(found.mean - without).max() < 0.2
    assert np.abs(found.mean - truth).max() < 2.0


def test_a_ball_that_is_certain_keeps_its_weight() -> None:
    design, noise_sd, values, _ = balls(12, 2)
    values[0] = 60.0
    free = located(design, noise_sd, values, tail_df=4)
    pinned = located(design, noise_sd, values, tail_df=4, certain=0)
    assert pinned.weights[0] == 1.0
    assert np.abs(pinned.mean).sum() > np.abs(free.mean).sum()


def test_a_quantity_nobody_read_stays_without_precision() -> None:
    precision = np.zeros((3, D, D))
    precision[:, 0, 0] = 1.0
    pull = np.array([[2.0, 0.0]] * 3)
    size2, readings = np.full(3, 4.0), np.ones(3, dtype=int)
    found = locate(precision, pull, size2, readings, np.zeros(3, bool), 4)
    assert found.mean[0] == pytest.approx(2.0)
    assert found.precision[1, 1] == 0.0
    assert np.isfinite(found.mean).all()
