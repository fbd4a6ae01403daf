"""What a lesson needs next, in the order in which a lesson goes (common practice, no source)."""

from dataclasses import replace

import pytest

from firm_footing.core.text.next_stage import Reached, next_stage

EMPTY = Reached(
    told=False, balls=0, looks=0, decided=False, drill=False, tried=0, retest=0, sent=False,
    back=False,
)  # fmt: skip
STEPS = [
    ({}, "listen"),
    ({"told": True}, "shots"),
    ({"balls": 4}, "shots"),
    ({"balls": 6}, "look"),
    ({"looks": 3}, "decide"),
    ({"decided": True}, "drill"),
    ({"drill": True}, "drill"),
    ({"tried": 9}, "retest"),
    ({"retest": 6}, "send"),
]


def test_a_lesson_goes_from_stage_to_stage() -> None:
    reached = EMPTY
    said = set()
    for more, stage in STEPS:
        reached = replace(reached, **more)
        found = next_stage(reached, least_balls=5)
        assert (found.stage, found.done) == (stage, False)
        said.add(found.words)
    assert len(said) == len(STEPS)  # every step has its own words


@pytest.mark.parametrize("back", [False, True])
def test_what_was_sent_home_is_done(back: bool) -> None:
    found = next_stage(replace(EMPTY, sent=True, back=back), least_balls=5)
    assert found.done
    assert ("came back" in found.words) == back


def test_balls_alone_are_not_listened_for() -> None:
    assert next_stage(replace(EMPTY, balls=1), least_balls=5).stage == "shots"
