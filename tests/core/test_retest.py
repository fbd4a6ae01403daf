"""The retest's test: SciPy where it does the same, and its level of false alarms by simulation."""

import numpy as np
import pytest

from firm_footing.core.coaching.retest import FIRST_LOOK, judge
from firm_footing.core.knowledge import Knowledge

RETESTS = 2000


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
    floor = 1.2 if kind == "words" else 0.5
    wrong = sum(
        judge(row[:10].tolist(), row[10:].tolist(), numbers, floor).state == "real" for row in balls
    )
    three_sd = 3 * (numbers.level * (1 - numbers.level) / RETESTS) ** 0.5
    assert wrong / RETESTS <= numbers.level + three_sd
    assert wrong / RETESTS >= 0.03  # not so careful that it says nothing


def test_a_change_as_large_as_the_scatter_twice_is_mostly_seen(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers.coaching.retest
    rng = np.random.default_rng(5)
    seen = sum(
        judge(rng.normal(-5, 2.5, 10).tolist(), rng.normal(0, 2.5, 10).tolist(), numbers, 0.1).state
        == "real"
        for _ in range(300)
    )
    assert seen / 300 > 0.85


def test_it_says_how_many_more_would_tell(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers.coaching.retest
    before = [-5.0, -3, -6, -2, -5, -4, -7, -3, -4, -5]
    few = judge(before, [-1.0, 0.5], numbers, 0.1)
    assert (few.state, few.more) == ("too_few", FIRST_LOOK - 2)
    some = judge(before, [-2.0, -5.0, -1.0], numbers, 0.1)
    assert some.state == "not_yet"
    assert some.more is not None
    mean = some.change.after if some.change else 0.0
    longer = judge(before, [-2.0, -5.0, -1.0] + [mean + d for d in (2, -2)] * 6, numbers, 0.1)
    assert longer.state == "real"
    same = judge(before, [-4.0, -5.0, -4.4], numbers, 0.1)
    assert (same.state, same.more) == ("not_yet", None)
    alike = judge([-4.0] * 8, [-4.0, -4.0, 0.0], numbers, 1.2)
    assert alike.state == "not_yet"  # words that happen to agree are no certainty
