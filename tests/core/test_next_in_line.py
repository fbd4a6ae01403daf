"""What comes after the first cause: weight, then hands, then path, then face (common practice)."""

import pytest

from firm_footing.core.coaching.next_in_line import next_in_line, place_in_line
from firm_footing.core.knowledge import Knowledge


@pytest.mark.parametrize(
    ("present", "wanted"),
    [
        ({}, None),
        ({"weak_grip": 0.1}, None),
        ({"weak_grip": 0.9}, "weak_grip"),
        ({"weak_grip": 0.9, "early_release": 0.4}, "early_release"),
        ({"weak_grip": 0.9, "early_release": 0.4, "sway_off_ball": 0.3}, "sway_off_ball"),
        ({"hang_back": 0.9, "weak_grip": 0.5}, "weak_grip"),  # it goes with the late shift
    ],
)
def test_weight_before_hands_before_face(
    present: dict[str, float], wanted: str | None, knowledge: Knowledge
) -> None:
    assert next_in_line("late_shift", {"late_shift": 0.9} | present, knowledge) == wanted


def test_every_cause_has_its_place(knowledge: Knowledge) -> None:
    place = {c.id: place_in_line(c) for c in knowledge.causes}
    assert place["strong_grip"] == 3
    assert place["trail_heel_pops"] == 0
    assert place["chest_rush"] == 1
    assert set(place.values()) == {0, 1, 2, 3}
