"""Words for how much of a deviation a cause accounts for."""

import pytest

from firm_footing.core.reasoning.explained import words_of


@pytest.mark.parametrize(
    ("part", "word"), [(-12.0, "strongly"), (-4.0, "partly"), (-1.0, "hardly"), (6.0, "hardly")]
)
def test_the_word_is_of_the_share_and_never_of_a_part_against_the_miss(
    part: float, word: str
) -> None:
    assert words_of({"heel_toe_mm": part}, {"heel_toe_mm": -14.0}) == {"heel_toe_mm": word}


def test_what_is_no_miss_needs_no_word() -> None:
    parts = {"path_deg": 0.9, "heel_toe_mm": 2.0, "low_point_cm": -3.0}
    deviation = {"path_deg": 0.9, "heel_toe_mm": 2.9, "low_point_cm": -6.0}
    assert words_of(parts, deviation) == {"low_point_cm": "strongly"}
    assert words_of({"path_deg": 0.0}, {"path_deg": 0.0}) == {}
