"""The stance as measured answers its own looks; limits are common practice or estimates."""

import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.case.evidence import Stance
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.inference import infer
from firm_footing.core.inference.measured_answers import FLIP, Measured, measured_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns.targets import wanted_of


def stood(club: str = "7i", kind: str = "baseline", **numbers: float) -> Block:
    return Block(club=club, kind=kind, stance=Stance(**numbers))  # type: ignore[arg-type]


def measured(*blocks: Block, knowledge: Knowledge) -> tuple[Measured, ...]:
    return measured_of(Case(handedness="right", blocks=blocks), knowledge)


@pytest.mark.parametrize(
    ("numbers", "check", "fault"),
    [
        ({"hands_to_body_cm": 11.0}, "hands_far_from_body", False),
        ({"hands_to_body_cm": 18.0}, "hands_far_from_body", True),
        ({"lead_flare_deg": 25.0}, "lead_foot_square", False),
        ({"lead_flare_deg": 4.0}, "lead_foot_square", True),
        ({"ball_from_lead_heel_cm": 12.0}, "ball_out_of_place", False),
        ({"ball_from_lead_heel_cm": 2.0}, "ball_out_of_place", True),
    ],
)
def test_a_number_answers_its_look(
    numbers: dict[str, float], check: str, fault: bool, knowledge: Knowledge
) -> None:
    (found,) = measured(stood(**numbers), knowledge=knowledge)
    assert found.check == check
    assert found.answer == ("yes" if fault else "no")
    assert f"{next(iter(numbers.values())):.0f}" in found.text


def test_the_ball_s_place_goes_by_the_club(knowledge: Knowledge) -> None:
    for club, share in (("7i", 0.75), ("d", 0.25)):
        (found,) = measured(stood(club, ball_from_lead_heel_cm=4.0), knowledge=knowledge)
        assert (found.share > share) == (club == "7i")


def test_it_counts_as_seen_unless_it_was_answered_by_hand_or_belongs_to_a_trial(
    knowledge: Knowledge,
) -> None:
    def root(*readings: Reading, kind: str = "baseline") -> float:
        block = stood(kind=kind, hands_to_body_cm=20.0)
        case = Case(handedness="right", blocks=(block,), readings=readings)
        return next(c.root for c in diagnose(case, knowledge).causes if c.id == "reach_to_ball")

    assert root() > 0.3
    assert root(Reading(check="hands_far_from_body", answer="no")) < 0.1
    assert root(kind="trial") < 0.2


def test_a_changed_stance_is_a_before_and_after(knowledge: Knowledge) -> None:
    before, after = stood(hands_to_body_cm=19.0), stood(kind="trial", hands_to_body_cm=11.0)
    found = measured(before, after, knowledge=knowledge)
    assert [(m.answer, m.after) for m in found] == [("yes", False), ("no", True)]
    case = Case(handedness="right", blocks=(before, after))
    assert {r.answer for r in infer(case, knowledge).counted["hands_far_from_body"]} == {"yes"}


@pytest.mark.parametrize(("loft", "answer"), [(20.0, "no"), (30.0, "partly"), (36.0, "yes")])
def test_measured_lean_of_a_seven_iron_answers_its_look_and_counts_once(
    loft: float, answer: str, knowledge: Knowledge
) -> None:
    """12 to 15 degrees of lean and a launch under 15 are wanted: common practice, no source."""
    shots = tuple(Shot(dynamic_loft_deg=loft, launch_deg=14.0) for _ in range(6))
    block = Block(club="7i", shots=shots)
    (found,) = measured(block, knowledge=knowledge)
    assert (found.check, found.answer) == (FLIP, answer)
    inference = infer(Case(handedness="right", blocks=(block,)), knowledge)
    assert FLIP in inference.answered
    assert FLIP not in inference.ratios  # the loft of the balls says it already
    wanted = {w.name: w for w in wanted_of(block, knowledge)}
    assert (wanted["launch_deg"].value, wanted["launch_deg"].most) == (14.0, 15.0)
    assert wanted["lean_deg"].value == pytest.approx(33.0 - loft)
    assert (wanted["lean_deg"].least, wanted["lean_deg"].most) == (12.0, 15.0)
    assert wanted_of(Block(club="d", shots=shots), knowledge) == ()
    assert f"leans {33 - loft:.0f}°" in found.text
    # of two baselines the last is said, and it is the one that answers
    other = Block(club="7i", shots=(Shot(dynamic_loft_deg=20.0),))
    (last,) = measured(block, other, knowledge=knowledge)
    assert (last.answer, "leans 13°" in last.text) == ("no", True)
