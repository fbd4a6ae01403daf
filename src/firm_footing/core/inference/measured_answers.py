"""What do measured numbers answer by themselves?

Feet, ball and hands as measured at address, and the lean of the shaft where a monitor gives the
loft at the ball. An answer given by hand replaces what they say of it. The lean says what the loft
of the balls says: it answers its look, and is no evidence beside them.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from firm_footing.core.case import Block, Case, Reading
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.soft_threshold import in_a_word, probability_beyond
from firm_footing.core.knowledge.vocabulary import Answer
from firm_footing.core.patterns.targets import wanted_of

FLIP: Final = "hands_flip"


@dataclass(frozen=True)
class Measured:
    """A look that a number answers.

    share : how clearly its fact shows, 0 to 1
    text : the number in words
    after : whether it was measured after a change, and so is no evidence of what was there before
    counts : whether it is evidence of its own
    """

    check: str
    share: float
    text: str
    after: bool = False
    counts: bool = True

    @property
    def answer(self) -> Answer:
        """In a word."""
        return in_a_word(self.share) or "partly"


def measured_of(case: Case, knowledge: Knowledge) -> tuple[Measured, ...]:
    """What the numbers of a lesson answer; of several of one kind, the last before and after."""
    found: dict[tuple[str, bool], Measured] = {}
    for block in case.blocks:
        after = block.kind != "baseline"
        for check, share, text in _of_stance(block, knowledge):
            found[check, after] = Measured(check, share, text, after)
        for share, text in _of_lean(block, knowledge):
            found[FLIP, after] = Measured(FLIP, share, text, after, counts=False)
    return tuple(found.values())


def answers_measured(measured: tuple[Measured, ...]) -> dict[str, list[Reading]]:
    """Check to the answer that a number gives, of those that are evidence."""
    return {
        m.check: [
            Reading(check=m.check, answer=m.answer, source="look", share=m.share, measured=True)
        ]
        for m in measured
        if m.counts and not m.after
    }


def _of_stance(block: Block, knowledge: Knowledge) -> Iterator[tuple[str, float, str]]:
    """Check, how clearly its fact shows, and the number in words, of every number taken."""
    stance, limits = block.stance, knowledge.numbers.stance
    if stance is None:
        return
    hands, flare, ball = (
        stance.hands_to_body_cm,
        stance.lead_flare_deg,
        stance.ball_from_lead_heel_cm,
    )
    if hands is not None:
        words = f"hands {hands:.0f} cm from the thigh"
        yield "hands_far_from_body", probability_beyond(hands, limits.hands_cm), words
    if flare is not None:
        words = f"lead foot turned out {flare:.0f}°"
        yield "lead_foot_square", 1 - probability_beyond(flare, limits.flare_deg), words
    if ball is not None:
        wanted = limits.ball_from_lead_heel_cm - knowledge.club[block.club].ball_forward_cm
        words = f"ball {ball:.0f} cm inside the lead heel, {wanted:.0f} cm is usual for this club"
        yield "ball_out_of_place", probability_beyond(abs(ball - wanted), limits.ball_off_cm), words


def _of_lean(block: Block, knowledge: Knowledge) -> Iterator[tuple[float, str]]:
    """How clearly the hands flip by the measured lean of the shaft, and the lean in words."""
    target = knowledge.club[block.club].target
    for wanted in wanted_of(block, knowledge):
        if target is not None and wanted.name == "lean_deg":
            ends = f"{wanted.least:.0f} to {wanted.most:.0f}° is wanted"
            words = f"the shaft leans {wanted.value:.0f}° at the ball, {ends}"
            yield 1 - probability_beyond(wanted.value, target.flip_below_deg), words
