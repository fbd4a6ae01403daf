"""What is concluded from a lesson, as it goes over the wire."""

from typing import Literal

from pydantic import BaseModel, Field

from firm_footing.api.wire import Out
from firm_footing.core.conclusions.decision_status import Badge, DecisionKind
from firm_footing.core.diagnosis.ranking import EvidenceBits, Ranking
from firm_footing.core.knowledge.vocabulary import Answer, Source


class Spread(Out):
    """A number of the pattern and its standard error."""

    value: float
    se: float


class BallWay(BaseModel):
    """Where a cause alone sends a straight ball, degrees, + push side."""

    start_deg: float
    curve_deg: float


class DecisionFlipOut(Out):
    """What the look that could most easily change the first place would do."""

    check: str
    answer: Literal["yes", "no"] | None = Field(description="null: neither answer would turn it")
    chance: float
    then_first: str


class DecisionStatusOut(Out):
    """Where the decision stands."""

    kind: DecisionKind
    headline: str
    detail: str
    start_with: str | None = Field(description="null where nothing speaks for the first")
    badge: Badge | None = Field(description="On the first cause; null where it would be a guess")
    leading: list[str] = Field(description="The first two of the order")
    probabilities: list[float] = Field(description="Their root")
    spoken_to: bool = Field(description="Whether a look or a trial speaks for the first")
    no_miss: bool = Field(description="The balls hardly miss")
    ask_first: str | None = Field(description="The look to take before anything is decided")
    flip: DecisionFlipOut | None
    balls_missing: int
    answers_missing: int


class NextCheckOut(Out):
    """A look and what it would tell."""

    id: str
    gain_bits: float
    seconds: int
    source: Source


class BetweenOut(BaseModel):
    """Why one cause and not the other."""

    one: str
    other: str
    probability: float = Field(description="That it is the one, were it just one of the two")
    evidence: list[EvidenceBits] = Field(
        description="+ for the one, - for the other, largest first"
    )
    checks: list[NextCheckOut] = Field(description="Looks that would tell which")


class SeenOut(Out):
    """What an eye would see of a block, or of a change; + push side, + toe, + ahead."""

    start_deg: Spread | None
    curve_deg: Spread | None
    low_point_cm: Spread | None
    heel_toe_mm: Spread | None
    carry_pct: Spread | None


class WhatIfOut(Out):
    """The pattern as it is and as it would be without one cause."""

    cause: str
    now: SeenOut
    without: SeenOut
    moves: SeenOut | None = Field(
        None, description="The change alone; null of decisions made before it was kept"
    )


class WithoutOut(WhatIfOut):
    """The same with what to expect of the ball, in words."""

    sentence: str = Field(description="Empty where the balls say nothing of the delivery")
    worse: bool = Field(description="Whether the ball first looks worse than the miss it had")


class SeparatingOut(Out):
    """A short block that would tell two causes apart, and what each would show."""

    drill: str
    one: str
    other: str
    balls: int
    seconds: int
    tells: float = Field(description="How often it would point to the right one, 0.5 to 1")
    if_one: SeenOut
    if_other: SeenOut


class TrialResultOut(Out):
    """What a block hit with a constraint said about the two causes that led before it."""

    block: int
    drill: str
    one: str
    other: str
    balls: int
    bits: float = Field(description="+ for the one, - for the other")
    if_one: SeenOut
    if_other: SeenOut
    came: SeenOut


class RoundOut(Out):
    """Looks to take together, grouped by standing place."""

    checks: list[NextCheckOut]
    gain_bits: float
    seconds: int


class WithheldDrill(BaseModel):
    """A drill kept back, and why."""

    id: str
    reason: str


class MeasuredOut(Out):
    """A look that a number answers by itself; an answer given by hand replaces it."""

    check: str
    answer: Answer
    text: str
    after: bool = Field(description="Measured after a change")


class DiagnosisOut(BaseModel):
    """The diagnosis of a lesson, for a screen."""

    ranking: Ranking
    decision_status: DecisionStatusOut
    outside_word: str = Field(description="How likely it is that no cause lies in the feet")
    spreads: dict[str, Spread] = Field(description="Known numbers of the pattern")
    missed: list[str] = Field(description='Contact in words, the clean ones aside: "4 of 7 fat"')
    strike_in_words: bool = Field(description="Words of contact are all that tells of the strike")
    ball_ways: dict[str, BallWay] = Field(description="Cause id to what it does to the ball")
    schools_say: str = Field(description="Which schools would start elsewhere, and where; or empty")
    withheld: list[WithheldDrill]
    contradictions: list[str] = Field(description="Checks answered both yes and no")
    measured: list[MeasuredOut]
    trial_results: list[TrialResultOut]
    usual_carry_m: dict[str, float] = Field(description="Club to what is usual at this handicap")
    knowledge_version: str
