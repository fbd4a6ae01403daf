"""The retest's test: SciPy where it does the same, and its level of false alarms by simulation."""

import numpy as np
import pytest
from scipy import stats

from firm_footing.core.coaching.retest import FIRST_LOOK, change_of, judge, two_sided
from firm_footing.core.knowledge import Knowledge

RETESTS = 2000


@pytest.mark.parametrize("freedom", [3.0, 4.5, 9.0, 18.0, 60.0])
def test_the_tail_of_t_is_scipys(freedom: float) -> None:
    """Wallace 1959 is an approximation: within 8 % of the probability from 3 degrees on."""
    for t in (0.3, 1.0, 2.0, 3.0, 5.0):
        assert two_sided(t, freedom) == pytest.approx(2 * stats.t.sf(t, freedom), rel=0.08)
        assert two_sided(-t, freedom) == two_sided(t, freedom)


def test_a_change_is_welch_s_as_scipy_has_it() -> None:
    rng = np.random.default_rng(3)
    for _ in range(30):
        before, after = rng.normal(0, 3, 10), rng.normal(1.5, 1.5, int(rng.integers(3, 11)))
        found = change_of(before.tolist(), after.tolist())
        wanted = stats.ttest_ind(after, before, equal_var=False)
        assert found is not None
        assert found.by / found.se == pytest.approx(wanted.statistic)
        assert found.surprise == pytest.approx(wanted.pvalue, rel=0.05, abs=1e-4)


@pytest.mark.parametrize("kind", ["normal", "heavy tails", "words"])
def test_false_alarms_hold_their_level(kind: str, knowledge: Knowledge) -> None:
    """Of unchanged students, with a look after every ball, at most one retest in ten is 'real'."""
    numbers = knowledge.numbers.coaching.retest
    rng = np.random.default_rng(4)
    size = (RETESTS, 10 + numbers.balls)
    balls = {
        "normal": lambda: rng.normal(0, 2.5, size),
        "heavy tails": lambda: rng.standard_t(4, size) * 2.5,
        "words": lambda: np.round(rng.normal(0, 3, size) / 4) * 4,
    }[kind]()
    noise = 1.2 if kind == "words" else 0.5
    wrong = sum(
        judge(row[:10].tolist(), row[10:].tolist(), numbers, noise).state == "real" for row in balls
    )
    three_sd = 3 * (numbers.level * (1 - numbers.level) / RETESTS) ** 0.5
    assert wrong / RETESTS <= numbers.level + three_sd
    assert wrong / RETESTS >= 0.03  # not so careful that it says nothing


def test_a_change_as_large_as_the_scatter_twice_is_mostly_seen(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers.coaching.retest
    rng = np.random.default_rng(5)
    seen = sum(
        judge(rng.normal(-5, 2.5, 10).tolist(), rng.normal(0, 2.5, 10).tolist(), numbers).state
        == "real"
        for _ in range(300)
    )
    assert seen / 300 > 0.85


def test_it_says_how_many_more_would_tell(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers.coaching.retest
    before = [-5.0, -3, -6, -2, -5, -4, -7, -3, -4, -5]
    few = judge(before, [-1.0, 0.5], numbers)
    assert (few.state, few.more) == ("too_few", FIRST_LOOK - 2)
    some = judge(before, [-2.0, -5.0, -1.0], numbers)
    assert some.state == "not_yet"
    assert some.more is not None
    mean = some.change.after if some.change else 0.0
    longer = judge(before, [-2.0, -5.0, -1.0] + [mean + d for d in (2, -2)] * 6, numbers)
    assert longer.state == "real"
    same = judge(before, [-4.0, -5.0, -4.4], numbers)
    assert (same.state, same.more) == ("not_yet", None)
    alike = judge([-4.0] * 8, [-4.0, -4.0, 0.0], numbers, noise=1.2)
    assert alike.state == "not_yet"  # words that happen to agree are no certainty
