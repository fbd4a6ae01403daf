"""How much of a deviation a cause accounts for, in words, and what is said of the rest."""

import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.conclusions.attribution import attribution_of, unexplained, words_of
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.measure import draw_student

FRAME = Block(club="7i", expected_carry_m=135.0, surface="turf")
SOUND = {
    "start": "straight",
    "curve": "straight",
    "contact": "clean",
    "heel_toe_mm": 0,
    "divot_start_cm": -4,
    "carry_m": 134,
}


def eight(**noted: object) -> Case:
    """Eight balls alike: sound ones but for what is noted."""
    shot = Shot.model_validate({**SOUND, **noted})
    block = FRAME.model_copy(update={"shots": (shot,) * 8})
    return Case(handedness="right", blocks=(block,))


@pytest.mark.parametrize(
    ("part", "word"), [(-12.0, "strongly"), (-4.0, "partly"), (-1.0, "hardly"), (6.0, "hardly")]
)
def test_the_word_is_of_the_share_and_never_of_a_part_against_the_miss(
    knowledge: Knowledge, part: float, word: str
) -> None:
    spoken = knowledge.numbers.spoken
    assert words_of({"heel_toe_mm": part}, {"heel_toe_mm": -14.0}, spoken) == {"heel_toe_mm": word}


def test_what_is_no_miss_needs_no_word(knowledge: Knowledge) -> None:
    spoken = knowledge.numbers.spoken
    parts = {"path_deg": 0.9, "heel_toe_mm": 2.0, "low_point_cm": -3.0}
    deviation = {"path_deg": 0.9, "heel_toe_mm": 2.9, "low_point_cm": -6.0}
    assert words_of(parts, deviation, spoken) == {"low_point_cm": "strongly"}
    assert words_of({"path_deg": 0.0}, {"path_deg": 0.0}, spoken) == {}
    assert words_of({"club_speed_pct": 3.0}, {"club_speed_pct": 6.0}, spoken) == {}


@pytest.mark.parametrize(
    ("noted", "name"),
    [
        ({"carry_m": 95}, "club_speed_pct"),
        ({"start": "far_pull"}, "path_deg"),
        ({"curve": "push"}, "face_to_path_deg"),
        ({"heel_toe_mm": -24}, "heel_toe_mm"),
    ],
)
def test_what_nothing_explains_is_said_and_names_no_look_of_its_own(
    knowledge: Knowledge, noted: dict[str, object], name: str
) -> None:
    """There is one next look; this sentence does not propose another."""
    inference = infer(eight(**noted), knowledge)
    found = unexplained(inference, attribution_of(inference))
    assert found is not None
    assert found.name == name
    sentence = diagnose(inference.case, knowledge).unexplained
    assert sentence is not None
    assert sentence.startswith("No cause seen so far explains ")
    assert "Look" not in sentence


def test_a_deviation_is_the_pattern_s_own_number(knowledge: Knowledge) -> None:
    """What stands on the plan and what is accounted for are one number."""
    found = diagnose(eight(start="far_pull", heel_toe_mm=-24), knowledge)
    assert found.pattern.path_deg is not None
    assert found.attribution.deviation["path_deg"] == found.pattern.path_deg.value
    assert found.pattern.low_point_cm is not None
    usual = knowledge.numbers.delivery.cause_free_low_point_cm(18)
    low = found.attribution.deviation["low_point_cm"]
    assert low == pytest.approx(found.pattern.low_point_cm.value - usual)


def test_sound_balls_leave_nothing_to_explain(knowledge: Knowledge) -> None:
    assert diagnose(eight(), knowledge).unexplained is None


def test_a_strike_that_no_cause_makes_is_left_over(knowledge: Knowledge) -> None:
    """The table's farthest strike to the toe is 4 mm: a sixth of these 24."""
    case = eight(heel_toe_mm=24)
    found = unexplained(infer(case, knowledge), attribution_of(infer(case, knowledge)))
    assert found is not None
    assert found.name == "heel_toe_mm"
    said = diagnose(case, knowledge).unexplained or ""
    assert said.startswith("No cause seen so far explains 2")
    assert said.endswith(" mm of strike toward the toe.")


def test_what_nothing_explains_is_never_more_than_what_is_seen(knowledge: Knowledge) -> None:
    """Where a cause pulls the other way: of 2° of shut face not 3° are unexplained."""
    lines = 0
    for seed in range(120):
        _, drawn, _ = draw_student(seed, knowledge)
        looks = ("grip_weak", "lead_rush_early", "trail_foot_slid_back")
        said = [Reading(check=name, answer="yes") for name in looks]
        inference = infer(drawn.model_copy(update={"readings": tuple(said)}), knowledge)
        attribution = attribution_of(inference)
        found = unexplained(inference, attribution)
        if found is not None:
            whole = attribution.deviation[found.name]
            assert 0 < found.left / whole <= 1
            lines += found.left == whole
    assert lines > 3


def test_where_balls_hardly_miss_nothing_is_left_unexplained(knowledge: Knowledge) -> None:
    """One shank among sound balls: two sentences beside each other do not contradict."""
    contacts = ["hosel", *["clean"] * 5]
    shots = [{"start": "straight", "curve": "straight", "contact": c} for c in contacts]
    case = Case.model_validate({"handedness": "left", "blocks": [{"club": "7i", "shots": shots}]})
    inference = infer(case, knowledge)
    assert unexplained(inference, attribution_of(inference)) is not None
    found = diagnose(case, knowledge)
    assert found.decision_status.no_miss
    assert found.unexplained is None
