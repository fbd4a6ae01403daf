"""Does the evidence carry a decision, and if not, what is missing?"""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.knowledge import Knowledge

FloatArray = NDArray[np.float64]

StandingKind = Literal["too_little", "open", "unclear", "settled"]


@dataclass(frozen=True)
class Standing:
    """Where the decision stands.

    kind : too_little, fewer balls and answers than any decision wants; open, two causes close
        together; unclear, no cause likely enough; settled, the first cause well ahead
    reason : the same in a sentence, with the numbers it rests on
    leading : ids of the first two roots
    balls_missing, answers_missing : either number more would do, zero when there are enough
    """

    kind: StandingKind
    reason: str
    leading: tuple[str, str]
    balls_missing: int
    answers_missing: int

    @property
    def enough(self) -> bool:
        """Whether the evidence carries a decision."""
        return self.kind == "settled"


def where_it_stands(root: FloatArray, balls: int, answers: int, knowledge: Knowledge) -> Standing:
    """Judge the evidence by how much there is and how far the first root is ahead.

    Parameters
    ----------
    root : (causes,) P(root) of each cause
    balls, answers : how many count toward the diagnosis

    """
    d = knowledge.numbers.decision
    order = np.argsort(-root, kind="stable")[:2]
    first, second = (knowledge.causes[i] for i in order)
    lead, next_lead = (float(p) for p in root[order])
    have = f"{_count(balls, 'ball')}, {_count(answers, 'answer')}"
    few = balls < d.least_balls and answers < d.least_answers
    balls_missing = d.least_balls - balls if few else 0
    answers_missing = d.least_answers - answers if few else 0
    ahead = lead - next_lead >= d.ahead_by
    kind: StandingKind
    if few:
        more_balls = _count(balls_missing, "more ball")
        more_answers = _count(answers_missing, "more answer")
        kind, reason = "too_little", f"{have}: wants {more_balls} or {more_answers}"
    elif lead >= d.first_root and ahead:
        kind, reason = "settled", f"{have}, first cause well ahead: {first.name.lower()}"
    elif next_lead >= d.close_to * lead and lead + next_lead >= d.first_root:
        names = f"{first.name.lower()}, or {second.name.lower()}"
        kind, reason = "open", f"{have}, open between two: {names}"
    else:
        kind, reason = "unclear", f"{have}, no cause likely enough yet; first {first.name.lower()}"
    return Standing(kind, reason, (first.id, second.id), balls_missing, answers_missing)


def _count(n: int, noun: str) -> str:
    return f"{n} {noun}" if n == 1 else f"{n} {noun}s"
