"""Which numbers does the reasoning use that belong to no single cause, check or club?"""

import math
from typing import Literal

from pydantic import Field, field_validator

from firm_footing.core.knowledge.vocabulary import Delivery, Entry, Source, Strength

Probability = float


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


class DeliveryNumbers(Entry):
    """How people and balls vary around their delivery."""

    person_sd: Delivery
    ball_sd: Delivery
    person_tail_df: float = Field(gt=2)
    effect_spread: float = Field(ge=0)
    low_point_good_cm: float
    low_point_high_cm: float
    low_point_handicap: float = Field(gt=0)
    low_point_floor_cm: float
    strike_floor_mm: float
    scatter_spread: float = Field(gt=0)
    scatter_least_balls: int = Field(ge=2)
    ball_tail_df: float = Field(gt=2)

    def cause_free_low_point_cm(self, handicap: float) -> float:
        """Mean low point of a player without any cause, + ahead of the ball."""
        part = min(max(handicap, 0.0), self.low_point_handicap) / self.low_point_handicap
        return self.low_point_good_cm + part * (self.low_point_high_cm - self.low_point_good_cm)


class TwoWay(Entry):
    """When a block counts as a two-way miss, and how often that is, with the mechanism or not."""

    mechanism: str

    ordinary: float = Field(gt=0, lt=1)
    stuck: float = Field(gt=0, lt=1)
    least_each: int = Field(ge=1)
    push_from_deg: float = Field(gt=0)
    hook_from_deg: float = Field(gt=0)


class DependentGroup(Entry):
    """Looks that are one look at one thing."""

    id: str
    name: str
    checks: tuple[str, ...]
    sources: tuple[Source, ...] | None = None


class DependentLooks(Entry):
    """k answers of one group count 1 / (1 + discount (k - 1)) each."""

    discount: float = Field(ge=0)
    groups: tuple[DependentGroup, ...]


class Partly(Entry):
    """'Partly' as a mixture of the likelihoods of yes and no."""

    yes_share: float = Field(ge=0, le=1)
    no_share: float = Field(ge=0, le=1)


class Trial(Entry):
    """What a block of balls with a constraint in force is expected to show."""

    removed_when_done: float = Field(gt=0, lt=1)
    goes_with_it: float = Field(gt=0, lt=1)
    everyone_spread: float = Field(ge=0)
    balls: int = Field(ge=1)
    seconds_per_ball: int = Field(gt=0)
    worth_hitting: float = Field(ge=0.5, le=1)


class Reading(Entry):
    """How well each thing is noted: one standard deviation; words by their width and doubt."""

    word_far_ends_deg: float = Field(gt=0)
    word_doubt_deg: float = Field(gt=0)
    measured_direction_sd_deg: float = Field(gt=0)
    measured_path_sd_deg: float = Field(gt=0)
    measured_face_sd_deg: float = Field(gt=0)
    measured_loft_sd_deg: float = Field(gt=0)
    curve_model_sd_deg: float = Field(gt=0)
    divot_direction_sd_deg: float = Field(gt=0)
    divot_start_sd_cm: float = Field(gt=0)
    divot_half_length_cm: float = Field(gt=0)
    divot_length_sd_cm: float = Field(gt=0)
    strike_sd_mm: float = Field(gt=0)
    carry_sd_pct: float = Field(gt=0)


class CarryLoss(Entry):
    """A first, simple account of lost carry, in per cent."""

    per_strike_10mm_squared: float = Field(ge=0)
    strike_cap: float = Field(ge=0)
    per_face_to_path_deg_squared: float = Field(ge=0)
    per_low_point_cm_behind: float = Field(ge=0)
    model_sd_pct: float = Field(gt=0)
    per_club_speed_pct: float = Field(gt=0)
    ball_sd_pct: float = Field(gt=0)


class Shape(Entry):
    """From where on a start and a curve get a name, and where the words for directions end."""

    start_from_deg: float
    curve_from_deg: float
    strong_curve_from_deg: float
    word_inner_deg: float
    word_outer_deg: float


class Decision(Entry):
    """When the evidence carries a decision, and which looks are worth proposing."""

    least_balls: int
    least_answers: int
    first_root: float = Field(gt=0, lt=1)
    ahead_by: float = Field(ge=0, lt=1)
    close_to: float = Field(gt=0, le=1)
    setup_seconds: int = Field(ge=0)
    trace_of_gain_bits: float = Field(ge=0)
    turn_at_most: float = Field(gt=0, le=1)
    round_seconds: int = Field(gt=0)
    round_most: int = Field(ge=1)


class Numbers(Entry):
    """All of `numbers.yaml`."""

    source: str
    handicap_left_out: float
    prior: Prior
    stuck_mode: StuckMode
    delivery: DeliveryNumbers
    two_way: TwoWay
    pointer: dict[Strength, float]
    reading_error: dict[Source, float]
    partly: Partly
    dependent_looks: DependentLooks
    reading: Reading
    contact_says: dict[str, dict[str, tuple[float, float]]]
    carry_loss: CarryLoss
    trial: Trial
    shape: Shape
    decision: Decision
    words_for_probability: dict[str, float]

    @field_validator("pointer", "reading_error")
    @classmethod
    def _probabilities(cls, value: dict[str, float]) -> dict[str, float]:
        bad = [k for k, v in value.items() if not 0 < v < 1]
        if bad:
            raise ValueError(f"must lie between 0 and 1: {', '.join(bad)}")
        return value


class Club(Entry):
    """What the simple ball model knows of one club; units in the names, shares 0 to 1."""

    id: str
    name: str
    kind: Literal["driver", "wood", "hybrid", "iron", "wedge"]
    start_face_share: float = Field(gt=0, lt=1)
    curve_per_deg: float = Field(gt=0)
    dynamic_loft_deg: float = Field(gt=0)
    loss_per_loft_deg: float = Field(ge=0)
