"""What became of decisions, and how much of it is believed: `casebook.yaml`."""

from typing import Literal

from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import Entry

Fate = Literal["confirmed", "partly", "rejected"]
KnownBy = Literal["retest", "trace", "film", "follow_up", "later_lesson", "word"]
"""How the fate of a decision came to be known; `word`: the instructor's own, alone."""


class CasebookNumbers(Entry):
    """All of `casebook.yaml`.

    known_by : how often a fate known by this alone is right; most_right : by several at most
    partly : of the evidence of "confirmed", as a part of its logarithm
    enough_power : a retest that shows nothing rejects a cause where it would have shown a half
        mended student at least so often
    decided : factor of the odds of a cause between before the lesson and the decision on it
    stays : P(a confirmed cause is there at the next lesson); stays_again : of one that came back
    held : factor of how common a cause is, once it was treated and held
    half_life_days : after which a finding says half as much about today
    shipped_lessons : what the knowledge files count as; least_outcomes : before anything moves
    beyond_chance : standard deviations of a count from what the files expect; less moves nothing
    told_part : of the variance of a plain yes or no, what a lesson tells of a cause at least
    shipped_answers : what the files say of an eye counts as so many answers
    one_look : says so much, at most, of how often an eye is wrong at all of them
    most_factor : of how common a cause is, and of how often an eye is wrong, either way
    word_counts : fates by word move so much of what measured ones would
    """

    source: str
    known_by: dict[KnownBy, float]
    most_right: float = Field(gt=0.5, lt=1)
    partly: float = Field(gt=0, lt=1)
    enough_power: float = Field(gt=0, lt=1)
    decided: float = Field(ge=1)
    stays: float = Field(gt=0, lt=1)
    stays_again: float = Field(gt=0, lt=1)
    held: float = Field(gt=0, le=1)
    half_life_days: float = Field(gt=0)
    shipped_lessons: float = Field(gt=0)
    shipped_answers: float = Field(gt=0)
    one_look: float = Field(gt=0, le=1)
    beyond_chance: float = Field(gt=0)
    told_part: float = Field(gt=0, le=1)
    least_outcomes: int = Field(ge=1)
    most_factor: float = Field(gt=1)
    word_counts: float = Field(gt=0, le=1)

    @model_validator(mode="after")
    def _each_says_something(self) -> "CasebookNumbers":
        for name, right in self.known_by.items():
            if not 0.5 < right <= self.most_right:
                raise ValueError(f"known_by.{name}: above a half, and at most most_right")
        return self
