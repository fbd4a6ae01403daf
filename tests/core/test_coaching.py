"""Which drills serve, which stay away, and why. Limits and exclusions: common practice."""

from typing import Any

import numpy as np
import pytest

from firm_footing.core.case import School
from firm_footing.core.coaching import drills_for, withheld_for
from firm_footing.core.knowledge import Knowledge

# cause, limits, other likely causes, path -> drills kept back
TABLE = [
    ("toes_in_downswing", (), {}, 0.0, set()),
    ("toes_in_downswing", ("knee",), {}, 0.0, {"step_away", "lead_leg_straighten"}),
    ("toes_in_downswing", ("balance",), {}, 0.0, {"step_away", "toes_curled", "trail_toes_up"}),
    ("toes_in_downswing", (), {"jumps_early": 0.8}, 0.0, {"lead_leg_straighten"}),
    ("toes_in_downswing", (), {"jumps_early": 0.3}, 0.0, set()),
    ("chest_rush", (), {"static_hips": 0.6}, -4.0, {"feet_together_pause"}),
    ("chest_rush", (), {}, 3.0, {"trail_foot_back"}),
    ("chest_rush", (), {}, None, set()),
    ("static_hips", (), {"chest_rush": 0.9}, 0.0, {"belt_stick"}),
    ("deep_trail_heel", ("ankle",), {}, 0.0, {"cushions"}),
]


@pytest.mark.parametrize(("cause", "limits", "present", "path", "kept_back"), TABLE)
def test_drills_are_kept_back(
    knowledge: Knowledge,
    cause: str,
    limits: Any,
    present: dict[str, float],
    path: float | None,
    kept_back: set[str],
) -> None:
    withheld = withheld_for(cause, knowledge, limits, present, path)
    assert {w.drill for w in withheld} == kept_back
    offered = set(drills_for(cause, knowledge, limits, School(), present, path))
    serving = {d.id for d in knowledge.drills if cause in d.targets}
    assert offered == serving - kept_back
    for w in withheld:
        assert w.limits or w.worse_for or w.path_too_far_in_to_out


def test_opposite_remedies_are_never_both_offered(knowledge: Knowledge) -> None:
    """A drill for one of two opposite causes names the other as what it is not for."""
    for cause in knowledge.causes:
        if cause.opposite_of is None:
            continue
        assert knowledge.cause[cause.opposite_of].opposite_of == cause.id
        both = {cause.id: 0.9, cause.opposite_of: 0.9}
        one = drills_for(cause.id, knowledge, (), School(), both, None)
        other = drills_for(cause.opposite_of, knowledge, (), School(), both, None)
        assert not set(one) & set(other)


@pytest.mark.parametrize("seed", range(20))
def test_no_advice_holds_drills_of_two_opposite_remedies(knowledge: Knowledge, seed: int) -> None:
    """Whatever the cause to start with and however likely the others are."""
    rng = np.random.default_rng(seed)
    present = dict(zip(knowledge.cause, rng.uniform(0, 1, len(knowledge.causes)), strict=True))
    pairs = {(c.id, c.opposite_of) for c in knowledge.causes if c.opposite_of}
    assert pairs
    for cause in knowledge.causes:
        drills = drills_for(cause.id, knowledge, (), School(), present, None)
        served = {t for d in drills for t in knowledge.drill[d].targets}
        for one, other in pairs:
            assert not {one, other} <= served
            assert other not in served or cause.id != one
            if cause.id not in (one, other) and present[other] > max(present[one], 0.5):
                assert one not in served


def test_a_school_puts_its_own_drills_first(knowledge: Knowledge) -> None:
    def first(**school: str) -> str:
        chosen = School.model_validate(school)
        return drills_for("hang_back", knowledge, (), chosen, {}, None)[0]

    assert first(start="ground_up") == "mirror_press"
    assert first(start="upper_led") in ("start_trail_go_lead", "shoulder_through")
    assert first(pressure="stay_lead", start="arms_led") == "stay_lead"


def test_every_drill_names_limits_that_are_known(knowledge: Knowledge) -> None:
    known = {limit.id for limit in knowledge.cautions.limits}
    for drill in knowledge.drills:
        assert set(drill.limits) <= known
    for test in knowledge.cautions.force_tests:
        assert set(test.limits) <= known
