"""How do people and their balls vary around a delivery?"""

from pydantic import Field

from firm_footing.core.knowledge.vocabulary import DeliveryEffect, Entry, Probability


class StrikeTail(Entry):
    """A share of players in whom the causes move the strike so many times as far."""

    share: Probability
    times: float = Field(gt=1)


class DeliveryNumbers(Entry):
    """How people and balls vary around their delivery."""

    person_sd: DeliveryEffect
    ball_sd: DeliveryEffect
    ball_height_sd_mm: float = Field(gt=0)
    prior_sd: DeliveryEffect
    person_tail_df: float = Field(gt=2)
    severity_levels: tuple[float, ...] = Field(min_length=1)
    severity_within: float = Field(ge=0)
    strike_tail: StrikeTail
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
