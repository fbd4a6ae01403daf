"""The ladder of a drill, and the days until the check-in."""

from datetime import date, timedelta
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firm_footing.core.coaching.ladder import STEPS, Result, climb
from firm_footing.core.coaching.practice import near_event, plan_practice
from firm_footing.core.knowledge import Knowledge

P, E, L = "pass", "early", "late"
TODAY = date(2026, 11, 26)


@pytest.mark.parametrize(
    ("results", "step", "row", "said"),
    [
        ([], "no_ball", 0, "begin"),
        ([P] * 4, "no_ball", 4, "stay"),
        ([P] * 5, "slow", 0, "up"),
        ([P] * 4 + [E] + [P] * 4, "no_ball", 4, "stay"),
        ([P] * 5 + [E, L], "no_ball", 0, "down"),
        ([E, E], "no_ball", 0, "reopen"),
        ([P] * 15, "full", 0, "up"),
        ([P] * 20, "full", 0, "done"),
        ([P] * 15 + [E, P, E, P], "full", 1, "stay"),
    ],
)
def test_runs_of_passes_and_fails_move_the_ladder(
    results: list[Result], step: str, row: int, said: str, knowledge: Knowledge
) -> None:
    found = climb(results, knowledge.numbers.coaching.ladder)
    assert (found.step, found.in_a_row, found.said) == (step, row, said)
    assert found.passes + found.fails == len(results)


def test_a_drill_without_balls_ends_at_slow_swings(knowledge: Knowledge) -> None:
    found = climb([P] * 10, knowledge.numbers.coaching.ladder, balls=False)
    assert (found.step, found.said) == ("slow", "done")


@given(results=st.lists(st.sampled_from([P, E, L]), max_size=60))
def test_one_repetition_moves_by_one_step_at_most(
    results: list[Result], knowledge: Knowledge
) -> None:
    numbers = knowledge.numbers.coaching.ladder
    steps = [STEPS.index(climb(results[:n], numbers).step) for n in range(len(results) + 1)]
    assert all(abs(b - a) <= 1 for a, b in pairwise(steps))


@given(ahead=st.one_of(st.none(), st.integers(-3, 40)), balls=st.booleans())
def test_every_day_has_something_until_the_check_in(
    ahead: int | None, balls: bool, knowledge: Knowledge
) -> None:
    numbers = knowledge.numbers.coaching.practice
    event = None if ahead is None else TODAY + timedelta(days=ahead)
    days = plan_practice(TODAY, event, balls, numbers)
    assert [d.on for d in days] == [TODAY + timedelta(days=i + 1) for i in range(len(days))]
    assert days[-1].what == "check_in"
    assert sum(d.what == "check_in" for d in days) == 1
    assert len(days) <= numbers.check_in_days + 1
    assert balls or all(d.balls == 0 for d in days)
    if event is not None and TODAY < event < days[-1].on:
        what = {d.on: d.what for d in days}
        assert what[event] == "event"
        before = [event - timedelta(days=i + 1) for i in range(numbers.setup_only_days)]
        assert all(what[day] == "setup_only" for day in before if day > TODAY)


def test_an_event_is_near_or_not(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers.coaching.practice
    near = [near_event(TODAY, TODAY + timedelta(days=d), numbers) for d in (-1, 0, 2, 3)]
    assert near == [False, True, True, False]
    assert not near_event(TODAY, None, numbers)
