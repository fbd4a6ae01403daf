"""The stance as measured answers its own looks; limits are common practice or estimates."""

import pytest

from firm_footing.core.case import Block, Case, Reading
from firm_footing.core.case.evidence import Stance
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.reasoning import diagnose
from firm_footing.core.reasoning.stance import stance_answers


def stood(club: str = "7i", kind: str = "baseline", **numbers: float) -> Block:
    return Block(club=club, kind=kind, stance=Stance(**numbers))  # type: ignore[arg-type]


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
    ((answered, share),) = stance_answers(stood(**numbers), knowledge)
    assert answered == check
    assert (share > 0.75) == fault
    assert (share < 0.25) == (not fault)


def test_the_ball_s_place_goes_by_the_club(knowledge: Knowledge) -> None:
    for club, share in (("7i", 0.75), ("d", 0.25)):
        ((_, found),) = stance_answers(stood(club, ball_from_lead_heel_cm=4.0), knowledge)
        assert (found > share) == (club == "7i")


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
