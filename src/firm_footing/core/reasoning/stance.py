"""What do the numbers of the stance answer by themselves?

Feet, ball and hands as measured at address. An answer given by hand replaces what they say of it.
"""

from collections.abc import Iterator, Mapping
from math import erf, sqrt

from firm_footing.core.case import Block, Case, Reading
from firm_footing.core.ground.trace import in_a_word
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.pressure import Limen


def with_answers_of_stance(
    counted: Mapping[str, list[Reading]], case: Case, knowledge: Knowledge
) -> dict[str, list[Reading]]:
    """The answers that count, those of the baselines' stance added; of several, the last."""
    found = {name: list(readings) for name, readings in counted.items()}
    measured = {
        check: share
        for block in case.baselines
        for check, share in stance_answers(block, knowledge)
    }
    for check, share in measured.items():
        if check not in counted:
            word = in_a_word(share) or "partly"
            found[check] = [Reading(check=check, answer=word, source="look", share=share)]
    return found


def stance_answers(block: Block, knowledge: Knowledge) -> Iterator[tuple[str, float]]:
    """Check and how clearly its fact shows, 0 to 1, of every number that was taken."""
    stance, limits = block.stance, knowledge.numbers.stance
    if stance is None:
        return
    if stance.hands_to_body_cm is not None:
        yield "hands_far_from_body", _above(stance.hands_to_body_cm, limits.hands_cm)
    if stance.lead_flare_deg is not None:
        yield "lead_foot_square", 1 - _above(stance.lead_flare_deg, limits.flare_deg)
    if stance.ball_from_lead_heel_cm is not None:
        wanted = limits.ball_from_lead_heel_cm - knowledge.club[block.club].ball_forward_cm
        off = abs(stance.ball_from_lead_heel_cm - wanted)
        yield "ball_out_of_place", _above(off, limits.ball_off_cm)


def _above(value: float, limit: Limen) -> float:
    return 0.5 * (1 + erf((value - limit.at) / (sqrt(2) * limit.doubt)))
