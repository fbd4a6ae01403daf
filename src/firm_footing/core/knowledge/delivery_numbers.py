"""How do people and their balls vary around a delivery?"""

from pydantic import Field

from firm_footing.core.knowledge.vocabulary import DeliveryEffect, Entry, Probability


class StrikeTail(Entry):
    """A share of players in whom the causes move the strike so many times as far."""

    share: Probability
    times: float = Field(gt=1)


class DeliveryNumbers(Entry):
    """How people and balls vary around their delivery.

    Degrees, cm (+ ahead of the ball), mm (+ toe), per cent of club speed; one standard deviation
    where not said otherwise.

    person_sd : between people without a cause, ball_sd : between the balls of one
    ball_height_sd_mm : up and down the face
    prior_sd : of a block's middle about the cause-free one, all students together
    person_tail_df, ball_tail_df : degrees of freedom of the t that people, and balls, follow
    severity_levels : how severe a cause can be, each as common; severity_within : about a level
    strike_tail : those in whom the causes move the strike more than all else
    low_point_good_cm, low_point_high_cm : cause-free, of a scratch player and at low_point_handicap
    low_point_floor_cm, strike_floor_mm : where they stop, however much adds up
    scatter_spread : of the size of a person's scatter, log; not judged under scatter_least_balls
    """

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
