"""Does the evidence carry a decision, and if not, what is missing?

One rule over `root`, the probability of each cause that one starts with it:

    settled     the first is likely and well ahead, and a look or a trial speaks to it
    nearly      the first is well ahead: the most likely so far
    open        there is a first, but others are close, or it is not likely itself
    not_enough  too few balls and answers, or nothing stands out

The verdict rises with the first root and with its lead and falls with nothing else, so that more
evidence for the leader never lowers it. Verdict, badge and the word beside each number are one
scale: "Start here" stands beside what is likely, never beside an open verdict.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from firm_footing.core.conclusions.attribution import Attribution, explains_nothing
from firm_footing.core.conclusions.next_check import DecisionFlip, NextCheck
from firm_footing.core.conclusions.single_cause import LEAST_BITS
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.inference import Inference
from firm_footing.core.knowledge.numbers import DecisionNumbers

DecisionKind = Literal["not_enough", "open", "nearly", "settled"]
LEVELS: tuple[DecisionKind, ...] = ("not_enough", "open", "nearly", "settled")
"""From the weakest to the strongest."""

Badge = Literal["start", "first"]
"""On the first cause: start here, or the first so far."""


@dataclass(frozen=True)
class DecisionStatus:
    """Where the decision stands.

    kind : see the module
    headline, detail : the same in whole sentences, by `text/decision.py`; `reason` is both, with
        what was counted and the look to take first
    start_with : the cause to start with; None where nothing speaks for the first of the order
    leading : ids of the first two of the order
    probabilities : their `root`
    badge : of the first cause; None where it would be a guess, or another is as close
    unexplaining : whether the first was seen and accounts for next to nothing of these balls
    spoken_to : whether a look or a trial speaks to the first cause
    no_miss : whether the balls hardly miss, so that there is nothing to be behind
    ask_first : the look to take before anything is decided; None when there is no look left
    turn : what the look that could most easily change the first place would do; None when there
        is no look left
    balls, answers : how many were counted
    balls_missing, answers_missing : either number more would do, zero when there are enough
    """

    kind: DecisionKind
    start_with: str | None
    leading: tuple[str, str]
    probabilities: tuple[float, float]
    badge: Badge | None
    unexplaining: bool
    spoken_to: bool
    no_miss: bool
    ask_first: str | None
    flip: DecisionFlip | None
    balls: int
    answers: int
    balls_missing: int
    answers_missing: int
    reason: str = ""
    headline: str = ""
    detail: str = ""

    @property
    def enough(self) -> bool:
        """Whether the evidence carries a decision."""
        return self.kind == "settled"


def decision_status_of(
    inference: Inference,
    single_cause: FloatArray,
    flips: Sequence[DecisionFlip],
    checks: Sequence[NextCheck],
    attribution: Attribution,
) -> DecisionStatus:
    """Judge the evidence: how much there is, how far the first leads, what speaks to it.

    Parameters
    ----------
    single_cause : (pieces, causes) bits of each cause alone; see `single_cause_log2_lr`
    flips : what the best looks left could change
    checks : the looks left, best first

    """
    knowledge, root = inference.knowledge, inference.root
    d = knowledge.numbers.decision
    order = np.argsort(-root, kind="stable")[:2]
    first, second = (knowledge.causes[i].id for i in order)
    lead, next_lead = (float(p) for p in root[order])
    balls, answers = inference.pattern.balls, inference.answers
    few = balls < d.least_balls and answers < d.least_answers
    no_miss = (inference.pattern.no_miss or 0.0) > d.no_miss_from
    unexplaining = first in inference.seen and explains_nothing(
        first, attribution, knowledge.numbers.spoken
    )
    spoken = is_spoken_to(inference, single_cause, first)
    supported = inference.start_with is not None
    kind = kind_of(lead, lead - next_lead, spoken, d)
    if few or not supported or no_miss:
        kind = "not_enough"
    return DecisionStatus(
        kind=kind,
        start_with=inference.start_with,
        leading=(first, second),
        probabilities=(lead, next_lead),
        badge=badge_of(kind),
        unexplaining=unexplaining,
        spoken_to=spoken,
        no_miss=no_miss,
        ask_first=checks[0].id if checks else None,
        flip=max(flips, key=lambda t: t.chance, default=None),
        balls=balls,
        answers=answers,
        balls_missing=max(0, d.least_balls - balls) if few else 0,
        answers_missing=max(0, d.least_answers - answers) if few else 0,
    )


def badge_of(kind: DecisionKind) -> Badge | None:
    """What stands on the first cause under this verdict."""
    return {"settled": "start", "nearly": "first"}.get(kind)  # type: ignore[return-value]


def kind_of(lead: float, ahead: float, spoken: bool, d: DecisionNumbers) -> DecisionKind:
    """The verdict on a first root and its lead over the second; rises with each of the three."""
    if lead >= d.first_root and ahead >= d.ahead_by:
        return "settled" if spoken else "nearly"
    if lead >= d.nearly_root and ahead >= d.nearly_ahead_by:
        return "nearly"
    return "open" if lead >= d.open_root else "not_enough"


def is_spoken_to(inference: Inference, single_cause: FloatArray, cause: str) -> bool:
    """Whether a look or a trial speaks for a cause by itself."""
    column = inference.knowledge.cause_index[cause]
    return any(
        bits > LEAST_BITS and not piece.id.startswith("pattern.")
        for piece, bits in zip(inference.pieces, single_cause[:, column].tolist(), strict=True)
    )
