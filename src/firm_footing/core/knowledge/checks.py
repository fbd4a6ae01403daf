"""What can an instructor look at, measure or ask?"""

from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import (
    Answer,
    Entry,
    Mode,
    PointStrength,
    Probability,
    ReadAs,
    Source,
    View,
)


class BaseBySkill(Entry):
    """A base rate that depends on handicap: a straight line from 0 to 25."""

    good_player: Probability
    handicap_25: Probability


class Finer(Entry):
    """An answer that tells more than yes or no: when, and how.

    share : how clearly it says that the fact is so, 0 to 1
    """

    say: str
    answer: Answer
    share: float = Field(ge=0, le=1)


class Check(Entry):
    """One yes/no fact, how long it takes, how common it is and what it points to."""

    id: str
    label: str = Field(description="The fact in a few words")
    question: str
    look_for: str
    view: View
    sources: tuple[Source, ...] = Field(min_length=1)
    seconds: int = Field(gt=0)
    base: Probability | BaseBySkill | None = None
    shows: str | None = Field(default=None, description="The cause that this look is a sight of")
    harmless: Probability | BaseBySkill | None = Field(
        default=None,
        description="Share of students in whom the cause shown is there but not behind their miss",
    )
    read_as: ReadAs = "moving"
    points: dict[str, PointStrength]
    points_thrown: dict[str, PointStrength] = Field(default_factory=dict)
    points_stuck: dict[str, PointStrength] = Field(default_factory=dict)
    finer: tuple[Finer, ...] = ()
    correction: str | None = Field(default=None, description="What puts a belief right")
    source: str

    @model_validator(mode="after")
    def _says_how_common_it_is(self) -> "Check":
        if (self.correction is None) != (self.view != "belief"):
            raise ValueError("a belief, and nothing else, has a correction")
        if (self.base is None) == (self.harmless is None):
            raise ValueError("give base, or harmless where the look shows a cause; not both")
        if (self.shows is None) != (self.harmless is None):
            raise ValueError("shows and harmless go together")
        if self.shows is not None and self.points.get(self.shows) != "strong":
            raise ValueError("a look must point strongly to the cause that it shows")
        pointers = self.all_pointers()
        if not pointers:
            raise ValueError("a look must point to some cause")
        if self.shows is None and "by_nature" in pointers.values():
            raise ValueError("by_nature: only beside a cause that the look shows")
        return self

    def base_rate(self, handicap: float) -> float:
        """P(yes | none of the causes pointed to is at work) for a player of this handicap."""
        common = self.base if self.harmless is None else self.harmless
        if isinstance(common, BaseBySkill):
            part = min(max(handicap, 0.0), 25.0) / 25.0
            return common.good_player + part * (common.handicap_25 - common.good_player)
        return float(common or 0.0)

    def pointers(self, mode: Mode | None) -> dict[str, PointStrength]:
        """Causes pointed to in this mode (None counts as thrown)."""
        extra = self.points_stuck if mode == "stuck" else self.points_thrown
        return {**self.points, **extra}

    def all_pointers(self) -> dict[str, PointStrength]:
        """Causes pointed to in any mode."""
        return {**self.points, **self.points_thrown, **self.points_stuck}
