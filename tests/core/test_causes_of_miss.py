"""What makes a miss, before any student: held against what every instructor says."""

import pytest

from firm_footing.core.conclusions.causes_of_miss import makers_of
from firm_footing.core.knowledge import Knowledge


@pytest.mark.parametrize(
    ("miss", "among", "not_of"),
    [  # common practice, no source
        ("fat", {"hang_back", "late_shift", "reverse_pivot"}, {"club_fit", "strong_grip"}),
        ("heel", {"toes_in_downswing", "reach_to_ball", "trail_heel_pops"}, {"hang_back"}),
        ("slice", {"trail_heel_pops", "weak_grip", "chest_rush"}, {"strong_grip"}),
        ("hook", {"strong_grip"}, {"weak_grip"}),
        ("two_way", {"early_lead_rush"}, {"strong_grip", "weak_grip"}),
        ("short", {"hang_back", "early_release", "reverse_pivot"}, {"aim_off", "strong_grip"}),
        ("toe", {"club_fit"}, {"toes_in_downswing", "reach_to_ball"}),
    ],
)
def test_what_makes_a_miss(
    knowledge: Knowledge, miss: str, among: set[str], not_of: set[str]
) -> None:
    found = makers_of(miss, knowledge)
    assert among <= found.keys()
    assert not not_of & found.keys()
    assert max(found.values()) == 1.0
    assert min(found.values()) > 0


def test_a_miss_nobody_knows_is_an_error(knowledge: Knowledge) -> None:
    with pytest.raises(KeyError):
        makers_of("whiff", knowledge)
