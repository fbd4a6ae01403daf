"""The one test behind "more than chance": SciPy where it does the same, its level by simulation."""

from collections.abc import Callable

import numpy as np
import pytest
from scipy import stats

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns.chance import (
    NOTED,
    change_of,
    change_of_estimates,
    floor_of,
    is_significant,
    two_sided,
)

PAIRS = 1500


@pytest.mark.parametrize(
    ("freedom", "t"), [(1, 12.706), (3, 3.182), (10, 2.228), (20, 2.086), (60, 2.000)]
)
def test_the_tail_of_t_is_the_handbooks(freedom: float, t: float) -> None:
    """NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.2: 5 % beyond, both sides."""
    assert two_sided(t, freedom) == pytest.approx(0.05, abs=1e-4)
    assert two_sided(-t, freedom) == two_sided(t, freedom)


def test_a_change_is_welch_s_as_scipy_has_it() -> None:
    rng = np.random.default_rng(3)
    for _ in range(30):
        before, after = rng.normal(0, 3, 10), rng.normal(1.5, 1.5, int(rng.integers(3, 11)))
        found = change_of(before.tolist(), after.tolist(), 1e-6)
        wanted = stats.ttest_ind(after, before, equal_var=False)
        assert found is not None
        assert found.by / found.se == pytest.approx(wanted.statistic)
        assert found.p_value == pytest.approx(wanted.pvalue, rel=0.05, abs=1e-4)


def words(rng: np.random.Generator, size: tuple[int, int]) -> np.ndarray:
    """Starts as one says them: straight, to a side, far to a side, by their middles."""
    deg = rng.normal(1.5, 3, size)
    return np.select(
        [np.abs(deg) <= 2, np.abs(deg) <= 6], [0.0, 4 * np.sign(deg)], 9 * np.sign(deg)
    )


DATA: dict[str, Callable[[np.random.Generator, tuple[int, int]], np.ndarray]] = {
    "normal": lambda rng, size: rng.normal(0, 3, size),
    "heavy tails": lambda rng, size: rng.standard_t(4, size) * 2.2,
    "words": words,
}


@pytest.mark.parametrize("balls", [3, 5, 8, 12])
@pytest.mark.parametrize("kind", DATA)
def test_unchanged_pairs_are_seldom_more_than_chance(
    kind: str, balls: int, knowledge: Knowledge
) -> None:
    rng = np.random.default_rng(balls)
    floor = floor_of("start_deg", knowledge.numbers)
    found = [
        change_of(row[:balls].tolist(), row[balls:].tolist(), floor)
        for row in DATA[kind](rng, (PAIRS, 2 * balls))
    ]
    false = np.mean([is_significant(change, knowledge.numbers) for change in found])
    assert 0.02 <= false <= 0.12


def test_the_floor_is_each_measures_own_and_what_agrees_is_no_certainty(
    knowledge: Knowledge,
) -> None:
    floors = {name: floor_of(name, knowledge.numbers) for name in NOTED}
    assert len(set(floors.values())) > 3
    alike = change_of([-4.0] * 3, [0.0] * 3, floors["start_deg"])
    assert alike is not None
    assert alike.se == pytest.approx(floors["start_deg"] * (2 / 3) ** 0.5)
    assert is_significant(alike, knowledge.numbers)
    nearer = change_of([-2.0] * 3, [-0.9] * 3, floors["start_deg"])
    assert not is_significant(nearer, knowledge.numbers)
    assert change_of([1.0], [2.0, 3.0], 1.0) is None


def test_numbers_worked_out_bring_their_own_doubt(knowledge: Knowledge) -> None:
    found = change_of_estimates((-4.0, 1.0), (-1.0, 1.0), (10, 10))
    assert found.se == pytest.approx(2**0.5)
    wanted = stats.ttest_ind_from_stats(-1.0, 10**0.5, 10, -4.0, 10**0.5, 10, equal_var=False)
    assert found.p_value == pytest.approx(wanted.pvalue, rel=0.05)
    assert is_significant(found, knowledge.numbers)
