"""A target for every ball, and swings on the mat laid over each other."""

from itertools import pairwise

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from firm_footing.core.coaching.compare_traces import EVENTS, lay_over
from firm_footing.core.coaching.transfer import targets_for
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pressure.trace import read_trace
from tests.core.swings import SEEN, swing


@given(seed=st.text(max_size=40), balls=st.integers(1, 60))
def test_no_target_comes_twice_running_and_more_balls_leave_the_first_alone(
    seed: str, balls: int, knowledge: Knowledge
) -> None:
    numbers = knowledge.numbers.coaching.transfer
    found = targets_for(seed, balls, numbers)
    assert len(found) == balls
    assert all(a.bearing_deg != b.bearing_deg for a, b in pairwise(found))
    assert targets_for(seed, balls + 5, numbers)[:balls] == found


def test_every_target_is_drawn_about_equally_often(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers.coaching.transfer
    found = [t for i in range(60) for t in targets_for(f"block {i}", 30, numbers)]
    for bearing in numbers.bearings_deg:
        assert abs(sum(t.bearing_deg == bearing for t in found) / len(found) - 1 / 3) < 0.03


def test_a_cured_sign_is_gone_and_the_shares_moved(knowledge: Knowledge) -> None:
    before = [read_trace(swing(changed=SEEN["late"]), "recentre", knowledge)] * 2
    after = [read_trace(swing(), "recentre", knowledge)] * 3
    found = lay_over(before, after, knowledge.numbers)
    assert found is not None
    assert (found.gone, found.still, found.new) == (("late",), (), ())
    assert (found.before.swings, found.after.swings) == (2, 3)
    at_impact = np.interp(0.0, found.after.t_s, found.after.lead_pct)
    shown = {s.event: s for s in found.shares}
    assert abs(shown["impact"].after - at_impact) < 0.5
    assert set(shown) == set(EVENTS)
    assert any(s.sure for s in found.shares)
    back = lay_over(after, before, knowledge.numbers)
    assert back is not None
    assert (back.gone, back.new) == ((), ("late",))


def test_one_swing_a_side_is_laid_over_but_nothing_is_called_sure(knowledge: Knowledge) -> None:
    one = read_trace(swing(), "recentre", knowledge)
    found = lay_over([one], [one], knowledge.numbers)
    assert found is not None
    assert np.isfinite(found.before.lead_pct).sum() > 100
    assert not any(s.sure for s in found.shares)
    assert lay_over([], [one], knowledge.numbers) is None
    assert lay_over([one], [], knowledge.numbers) is None
