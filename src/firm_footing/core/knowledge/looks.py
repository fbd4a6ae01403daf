"""What can an instructor look at, measure or ask?"""

from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import (
    Entry,
    Mode,
    Source,
    StandingPlace,
    Strength,
    View,
)


class BaseBySkill(Entry):
    """A base rate that depends on handicap: a straight line from 0 to 25."""

    good_player: float = Field(gt=0, lt=1)
    handicap_25: float = Field(gt=0, lt=1)


class Check(Entry):
    """One yes/no fact, how long it takes, how common it is and what it points to."""

    id: str
    label: str = Field(description="The fact in a few words")
    question: str
    look_for: str
    view: View
    seen_from: StandingPlace
    sources: tuple[Source, ...] = Field(min_length=1)
    seconds: int = Field(gt=0)
    base: float | BaseBySkill
    points: dict[str, Strength] = Field(min_length=1)
    points_thrown: dict[str, Strength] = Field(default_factory=dict)
    points_stuck: dict[str, Strength] = Field(default_factory=dict)
    source: str

    @model_validator(mode="after")
    def _base_is_a_probability(self) -> "Check":
        if isinstance(self.base, float) and not 0 < self.base < 1:
            raise ValueError("base must lie between 0 and 1")
        return self

    def base_rate(self, handicap: float) -> float:
        """P(yes | none of the causes pointed to) for a player of this handicap."""
        if isinstance(self.base, float):
            return self.base
        part = min(max(handicap, 0.0), 25.0) / 25.0
        return self.base.good_player + part * (self.base.handicap_25 - self.base.good_player)

    def pointers(self, mode: Mode | None) -> dict[str, Strength]:
        """Causes pointed to in this mode (None counts as thrown)."""
        extra = self.points_stuck if mode == "stuck" else self.points_thrown
        return {**self.points, **extra}

    def all_pointers(self) -> dict[str, Strength]:
        """Causes pointed to in any mode."""
        return {**self.points, **self.points_thrown, **self.points_stuck}
