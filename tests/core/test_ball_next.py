"""What the ball should do next: words follow the sign, and name only what the cause moves."""

from functools import cache

import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.conclusions.attribution import attribution_of
from firm_footing.core.conclusions.what_if import without
from firm_footing.core.inference.inference import Inference, infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.text.ball_next import ball_next
from firm_footing.files.knowledge_files import load_knowledge

PATTERNS = {
    "pull-slice": Shot(start="pull", curve="push", contact="clean", heel_toe_mm=-12, carry_m=120),
    "push-hook": Shot(start="push", curve="far_pull", contact="clean", heel_toe_mm=10, carry_m=120),
    "straight heel": Shot(start="straight", curve="straight", contact="clean", heel_toe_mm=-18),
    "fat block": Shot(start="push", curve="straight", contact="fat", divot_start_cm=-9),
}


@cache
def weighed(pattern: str, stuck: bool) -> Inference:
    """Eight such balls of a player of either mode."""
    reading = Reading(check="club_stuck_behind", answer="yes" if stuck else "no")
    blocks = (Block(shots=(PATTERNS[pattern],) * 8, expected_carry_m=140),)
    case = Case(handedness="right", handicap=0 if stuck else 20, blocks=blocks, readings=(reading,))
    return infer(case, load_knowledge())


@pytest.mark.parametrize("stuck", [False, True])
@pytest.mark.parametrize("pattern", PATTERNS)
@pytest.mark.parametrize("cause", [c.id for c in load_knowledge().causes])
def test_words_follow_the_sign(cause: str, pattern: str, stuck: bool) -> None:
    inference, spoken = weighed(pattern, stuck), load_knowledge().numbers.spoken
    found = ball_next(inference, cause, attribution_of(inference))
    assert found is not None
    own = without(inference, cause, alone=True)
    said = found.sentence.lower()
    for moved, part, better in (
        (own.path_deg, "path", "straightens"),
        (own.face_to_path_deg, "face", "squares"),
    ):
        if moved is None:
            assert f"the {part} " not in said.partition(";")[0]
            continue
        if f"the {part} {better}" in said:
            assert abs(moved.then) < abs(moved.now)
            assert moved.now * moved.then > 0 or abs(moved.then) < spoken.straight_deg
        if f"the {part} moves further off" in said:
            assert abs(moved.then) > max(abs(moved.now), spoken.straight_deg)
        if f"the {part} moves over" in said:
            assert moved.now * moved.then < 0
            assert abs(moved.then) <= abs(moved.now)
    strike_moves = own.moves.heel_toe_mm is not None and abs(own.moves.heel_toe_mm.value)
    if "struck" in said:
        assert strike_moves >= spoken.least["heel_toe_mm"]
    if "further forward" in said:
        assert own.moves.low_point_cm is not None
        assert own.moves.low_point_cm.value > 0
    assert said.count("the face") + said.count("what is left of the curve") <= 2
    assert ";." not in said
    assert "  " not in said


def test_fat_in_words_alone_changes_without_a_number(knowledge: Knowledge) -> None:
    """The retest foretells fewer fat balls: the ball's own sentence says the same, without cm."""
    met = [Shot(contact="fat")] * 8 + [Shot(contact="clean")] * 2
    inference = infer(Case(handedness="right", blocks=(Block(shots=tuple(met)),)), knowledge)
    found = ball_next(inference, "late_shift", attribution_of(inference))
    assert found is not None
    assert found.sentence.startswith("The low point moves forward.")
    nothing = infer(
        Case(handedness="right", blocks=(Block(shots=(Shot(start="pull"),) * 8),)), knowledge
    )
    unmet = ball_next(nothing, "late_shift", attribution_of(nothing))
    assert unmet is not None
    assert "low point" not in unmet.sentence
    assert "divot" not in unmet.sentence


def test_a_path_that_goes_further_off_is_not_said_to_straighten(knowledge: Knowledge) -> None:
    """The ball may start nearer the target for the face alone; what is said is of the path."""
    start_nearer_path_further = 0
    for pattern in PATTERNS:
        for stuck in (False, True):
            inference = weighed(pattern, stuck)
            for cause in knowledge.causes:
                own = without(inference, cause.id, alone=True)
                now, then, path = own.now.start_deg, own.without.start_deg, own.path_deg
                if now is None or then is None or path is None:
                    continue
                if abs(then.value) < abs(now.value) and abs(path.then) > abs(path.now):
                    start_nearer_path_further += 1
                    found = ball_next(inference, cause.id, attribution_of(inference))
                    assert found is not None
                    assert "path straightens" not in found.sentence.lower()
    assert start_nearer_path_further > 0  # such cases were met


def test_what_a_cause_does_not_move_is_told_of_what_it_brings_about(knowledge: Knowledge) -> None:
    """A pelvis that does not move toward the target strikes no heel; what it brings about does."""
    seen = [
        Reading(check=c, answer="yes")
        for c in ("trail_heel_up_early", "trail_knee_at_ball", "hips_back_away")
    ]
    heel = Block(shots=(Shot(heel_toe_mm=-20, start="straight", curve="straight"),) * 8)
    inference = infer(Case(handedness="right", blocks=(heel,), readings=tuple(seen)), knowledge)
    found = ball_next(inference, "no_lateral_shift", attribution_of(inference))
    assert found is not None
    assert "struck" not in found.sentence
    assert "the strike should change with them." in found.sentence
