"""Which numbers does the reasoning use that belong to no single cause, check or club?"""

import math

from pydantic import Field, field_validator

from firm_footing.core.knowledge.coaching import CoachingNumbers
from firm_footing.core.knowledge.delivery_numbers import DeliveryNumbers
from firm_footing.core.knowledge.reading_numbers import (
    Chance,
    NotingNumbers,
    OnTheFace,
    ReadingErrors,
    Says,
    SharedError,
)
from firm_footing.core.knowledge.soft_threshold import SoftThreshold
from firm_footing.core.knowledge.vocabulary import (
    Entry,
    Probability,
    Source,
    Strength,
)


class Prior(Entry):
    """How many causes come by themselves, and how strongly an upstream one adds another.

    As many causes at once as `causes_present` has entries after the first are considered.
    """

    causes_present: tuple[float, ...] = Field(min_length=2)
    link_strength: float = Field(ge=0, lt=1)

    @field_validator("causes_present")
    @classmethod
    def _sums_to_one(cls, value: tuple[float, ...]) -> tuple[float, ...]:
        if min(value) < 0 or not math.isclose(sum(value), 1.0, abs_tol=1e-9):
            raise ValueError("must be probabilities that sum to 1")
        return value


class StuckMode(Entry):
    """P(stuck) as a straight line in handicap, level beyond both ends."""

    handicap_high: float
    probability_high: float = Field(ge=0, le=1)
    handicap_low: float
    probability_low: float = Field(ge=0, le=1)

    def probability(self, handicap: float) -> float:
        """P(the club is stuck behind rather than thrown out) at this handicap."""
        part = (self.handicap_high - handicap) / (self.handicap_high - self.handicap_low)
        part = min(max(part, 0.0), 1.0)
        return self.probability_high + part * (self.probability_low - self.probability_high)


class TwoWay(Entry):
    """When a block is called a two-way miss.

    least_each, least_share : so many balls of each kind, and such a share of all
    push_from_deg : a push starts and stays at least this far out
    hook_from_deg : a hook curves at least this much and ends on the pull side
    """

    least_each: int = Field(ge=1)
    least_share: float = Field(gt=0, le=0.5)
    push_from_deg: float = Field(gt=0)
    hook_from_deg: float = Field(gt=0)


class NoMiss(Entry):
    """When a ball is sound, and when there is no miss for a cause to be behind.

    most : of a player's balls have to be sound for that
    although_at_work : how often there is no miss although a cause is at work
    """

    start_deg: float = Field(gt=0)
    curve_deg: float = Field(gt=0)
    heel_toe_mm: float = Field(gt=0)
    carry_lost_pct: float = Field(gt=0)
    divot_behind_cm: float = Field(gt=0)
    most: Probability
    although_at_work: Probability


class DependentGroup(Entry):
    """Looks that are one look at one thing.

    absent_counts_whole : whether what is not there is said of each check by itself
    measured : only what was measured on film belongs to it
    discount : its own, where its answers hang together otherwise than usual
    """

    id: str
    name: str
    checks: tuple[str, ...]
    sources: tuple[Source, ...] | None = None
    absent_counts_whole: bool = False
    measured: bool = False
    discount: float | None = Field(default=None, ge=0)


class DependentChecks(Entry):
    """k answers of one group count 1 / (1 + discount (k - 1)) each."""

    discount: float = Field(ge=0)
    groups: tuple[DependentGroup, ...]


class Partly(Entry):
    """'Partly' as a mixture of the likelihoods of yes and no."""

    yes_share: float = Field(ge=0, le=1)


class TrialNumbers(Entry):
    """What a block of balls with a constraint in force is expected to show."""

    removed_when_done: float = Field(gt=0, lt=1)
    goes_with_it: float = Field(gt=0, lt=1)
    everyone_spread: float = Field(ge=0)
    balls: int = Field(ge=1)
    seconds_per_ball: int = Field(gt=0)
    worth_hitting: float = Field(ge=0.5, le=1)


class HalfLength(Entry):
    """Half a divot's length, cm, by its depth."""

    shallow: float = Field(gt=0)
    normal: float = Field(gt=0)
    deep: float = Field(gt=0)


class Turf(Entry):
    """How the ground is marked, how well the marks are read, and what the ground takes.

    half_length_cm : of a divot whose length was not noted, by its depth
    deepest_sd_share : of its length, how far a divot's deepest place lies from its middle
    arc_radius_m, plane_deg : of the circle the club head goes round on
    speed_lost_pct_per_cm : of club speed, for each cm the low point lies behind the ball
    """

    start_sd_cm: float = Field(gt=0)
    half_length_cm: HalfLength
    half_length_sd_cm: float = Field(gt=0)
    deepest_sd_share: float = Field(gt=0)
    arc_radius_m: float = Field(gt=0)
    plane_deg: float = Field(gt=0, lt=90)
    speed_lost_pct_per_cm: float = Field(ge=0)


class ExpectedNumbers(Entry):
    """What carry a player can expect where none was named.

    driver_mps : club speed of a driver at handicap 0, and what each stroke of handicap takes
    own_best_share : of a student's own balls that make their own expectation
    own_least_balls : so many are needed for it
    """

    driver_mps: float = Field(gt=0)
    lost_per_stroke_mps: float = Field(ge=0)
    own_best_share: float = Field(gt=0, le=1)
    own_least_balls: int = Field(ge=1)


class BlockNumbers(Entry):
    """When a block of balls is more than scatter around one middle.

    wild_share : a ball farther out than all but this share of ordinary ones is called wild
    groups_gain : log-likelihood that a second group must gain
    groups_least : balls a group must have
    drift_share : a trend is named when pure chance would show one this seldom
    drift_least : balls a trend needs
    """

    wild_share: float = Field(gt=0, lt=1)
    groups_gain: float = Field(gt=0)
    groups_least: int = Field(ge=1)
    drift_share: float = Field(gt=0, lt=1)
    drift_least: int = Field(ge=3)


class Shape(Entry):
    """From where on a start and a curve get a name, and where the words for directions end."""

    start_from_deg: float
    curve_from_deg: float
    strong_curve_from_deg: float
    word_inner_deg: float
    word_outer_deg: float


class DecisionNumbers(Entry):
    """When the evidence carries a decision, and which looks are worth proposing."""

    least_balls: int
    least_answers: int
    first_root: float = Field(gt=0, lt=1)
    ahead_by: float = Field(ge=0, lt=1)
    nearly_root: float = Field(gt=0, lt=1)
    nearly_ahead_by: float = Field(ge=0, lt=1)
    open_root: float = Field(gt=0, lt=1)
    no_miss_from: float = Field(gt=0, lt=1)
    setup_seconds: int = Field(ge=0)
    min_gain_bits: float = Field(ge=0)
    round_seconds: int = Field(gt=0)
    round_most: int = Field(ge=1)


class LostDistance(Entry):
    """When an account of lost distance adds up: not when it leaves over more than both of these.

    left_over_pct : of the expected carry
    left_over_part : of all that its items took or won
    """

    left_over_pct: float = Field(gt=0)
    left_over_part: float = Field(gt=0)


class StanceNumbers(Entry):
    """From where on a number of the stance is a fault.

    hands_cm : from the thigh to the hands, above
    flare_deg : the lead foot turned out, below
    ball_from_lead_heel_cm : inside the lead heel, of an iron; a club's `ball_forward_cm` is off it
    ball_off_cm : away from that place, above
    """

    hands_cm: SoftThreshold
    flare_deg: SoftThreshold
    ball_from_lead_heel_cm: float
    ball_off_cm: SoftThreshold


class SpokenNumbers(Entry):
    """What is spoken of, and what is too little to be.

    straight_deg : a start or curve below this is straight
    worse_deg : so much farther off than the miss looks worse than it
    least : number of a pattern or delivery to the least change, or deviation, that is spoken of
    least_part : of what is left, that a cause has to account for to be named
    strongly_from, partly_from : parts of a deviation that a cause explains
    """

    straight_deg: float = Field(gt=0)
    worse_deg: float = Field(gt=0)
    least: dict[str, float]
    least_part: Probability
    strongly_from: Probability
    partly_from: Probability


class Numbers(Entry):
    """All of `numbers.yaml`."""

    source: str
    handicap_left_out: float
    prior: Prior
    stuck_mode: StuckMode
    delivery: DeliveryNumbers
    two_way: TwoWay
    lost_distance: LostDistance
    no_miss: NoMiss
    pointer: dict[Strength, float]
    pointer_shown: float = Field(gt=0, lt=1)
    pointer_beside: dict[Strength, float]
    reading_error: ReadingErrors
    answers_saturate: Probability
    partly: Partly
    dependent_checks: DependentChecks
    reading: NotingNumbers
    shared_error: SharedError
    contact_says: dict[str, Says]
    not_off_the_face: OnTheFace
    turf: Turf
    expected: ExpectedNumbers
    block: BlockNumbers
    chance: Chance
    trial: TrialNumbers
    shape: Shape
    decision: DecisionNumbers
    stance: StanceNumbers
    coaching: CoachingNumbers
    words_for_probability: dict[str, float]
    spoken: SpokenNumbers

    @property
    def possible_from(self) -> float:
        """A cause this probable is called possible, and is not to be made worse."""
        return self.words_for_probability["possible"]

    @property
    def likely_from(self) -> float:
        """A cause this probable is called likely."""
        return self.words_for_probability["likely"]

    @field_validator("pointer", "pointer_beside")
    @classmethod
    def _probabilities(cls, value: dict[str, float]) -> dict[str, float]:
        bad = [k for k, v in value.items() if not 0 < v < 1]
        if bad:
            raise ValueError(f"must lie between 0 and 1: {', '.join(bad)}")
        return value
