"""Does the evidence carry a decision, and if not, what is missing?"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.reasoning.next_check import Turn

FloatArray = NDArray[np.float64]

StandingKind = Literal["too_little", "open", "unclear", "settled"]


@dataclass(frozen=True)
class Standing:
    """Where the decision stands.

    kind : too_little, fewer balls and answers than any decision wants; open, two causes close
        together or one look away from changing places; unclear, no cause likely enough; settled,
        the first cause well ahead and no look left that would easily turn it
    reason : the same in a sentence, with the numbers it rests on
    leading : ids of the first two roots
    margin : P(root) of the first minus that of the second
    bits : log2 odds of the first root now, minus the same before anything was seen
    turn : what the look that could most easily change the first place would do; None when there
        is no look left
    balls_missing, answers_missing : either number more would do, zero when there are enough
    """

    kind: StandingKind
    reason: str
    leading: tuple[str, str]
    margin: float
    bits: float
    turn: Turn | None
    balls_missing: int
    answers_missing: int

    @property
    def enough(self) -> bool:
        """Whether the evidence carries a decision."""
        return self.kind == "settled"


@dataclass(frozen=True, eq=False)
class Roots:
    """P(root) of every cause, before anything was seen and now; both (causes,)."""

    before: FloatArray
    now: FloatArray


def where_it_stands(
    roots: Roots, balls: int, answers: int, turns: Sequence[Turn], knowledge: Knowledge
) -> Standing:
    """Judge the evidence: how much there is, how far the first root leads, what could turn it.

    Parameters
    ----------
    roots : of every cause
    balls, answers : how many count toward the diagnosis
    turns : what the best looks left could change

    """
    order = np.argsort(-roots.now, kind="stable")[:2]
    first, second = (knowledge.causes[i] for i in order)
    lead, next_lead = (float(p) for p in roots.now[order])
    d = knowledge.numbers.decision
    few = balls < d.least_balls and answers < d.least_answers
    turn = max(turns, key=lambda t: t.chance, default=None)
    turns_easily = turn is not None and turn.chance > d.turn_at_most
    kind: StandingKind
    if few:
        kind = "too_little"
    elif lead >= d.first_root and lead - next_lead >= d.ahead_by:
        kind = "open" if turns_easily else "settled"
    elif next_lead >= d.close_to * lead and lead + next_lead >= d.first_root:
        kind = "open"
    else:
        kind = "unclear"
    standing = Standing(
        kind=kind,
        reason="",
        leading=(first.id, second.id),
        margin=lead - next_lead,
        bits=_log2_odds(lead) - _log2_odds(float(roots.before[order[0]])),
        turn=turn,
        balls_missing=max(0, d.least_balls - balls) if few else 0,
        answers_missing=max(0, d.least_answers - answers) if few else 0,
    )
    have = f"{_count(balls, 'ball')}, {_count(answers, 'answer')}"
    numbers = f"{lead:.2f} against {next_lead:.2f}, {standing.bits:.1f} bits gathered"
    return replace(standing, reason=f"{have}{_why(standing, knowledge)} ({numbers})")


def _why(standing: Standing, knowledge: Knowledge) -> str:
    """What is missing or what makes it enough, after the counts."""
    first, second = (knowledge.cause[c].name.lower() for c in standing.leading)
    if standing.kind == "too_little":
        balls = _count(standing.balls_missing, "more ball")
        return f": wants {balls} or {_count(standing.answers_missing, 'more answer')}"
    if standing.kind == "unclear":
        return f", no cause likely enough yet; first {first}"
    turn = standing.turn
    if standing.kind == "open" and turn and turn.chance > knowledge.numbers.decision.turn_at_most:
        other = knowledge.cause[turn.then_first].name.lower()
        look = knowledge.check[turn.check].label
        return f", one look away from turning: {turn.answer} to “{look}” would put {other} first"
    if standing.kind == "open":
        return f", open between two: {first}, or {second}"
    if turn is None or turn.answer is None:
        return f", first cause well ahead and no single look would turn it: {first}"
    return f", first cause well ahead: {first}; the next look would turn it {turn.chance:.0%}"


def _log2_odds(p: float) -> float:
    return float(np.log2(p / (1 - p)))


def _count(n: int, noun: str) -> str:
    return f"{n} {noun}" if n == 1 else f"{n} {noun}s"
