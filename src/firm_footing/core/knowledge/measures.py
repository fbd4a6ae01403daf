"""What can a retest be decided by?"""

from typing import Literal

from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import Contact, Entry

Noted = Literal[
    "start_deg", "curve_deg", "heel_toe_mm", "low_point_cm", "carry_m", "divot_start_cm"
]
"""Numbers that a ball may show; degrees + push side, mm + toe, cm + ahead of the ball, metres."""


class NumberMeasure(Entry):
    """A number that every ball may show, compared by its mean.

    ideal : where it should be, in its unit; None where more is simply better
    least_miss : from how far off the ideal a block's mean counts as a miss
    usual_scatter : standard deviation of one player's balls
    more_is_sound : whether beyond the ideal nothing is amiss
    """

    ideal: float | None
    least_miss: float = Field(ge=0)
    usual_scatter: float = Field(gt=0)
    more_is_sound: bool = False


class ShareMeasure(Entry):
    """A share of balls, each counted or not.

    contact : words of contact that count
    never : words of contact with which a ball does not count, whatever its number says; where words
        were noted on both sides
    of : a number that counts `at_most`, `at_least` or, on either side, `beyond` its limit, or
        below `part_of_best` of the largest of all balls compared
    any_of : other shares; a ball counts when it does for any of them
    """

    contact: tuple[Contact, ...] = ()
    never: tuple[Contact, ...] = ()
    of: Noted | None = None
    at_most: float | None = None
    at_least: float | None = None
    beyond: float | None = None
    part_of_best: float | None = Field(None, gt=0, le=1)
    any_of: tuple[str, ...] = ()

    @model_validator(mode="after")
    def _counts_by_something(self) -> "ShareMeasure":
        limits = (self.at_most, self.at_least, self.beyond, self.part_of_best)
        named = sum(limit is not None for limit in limits)
        if named != (self.of is not None):
            raise ValueError("a number counts by one limit")
        if not (self.contact or self.of or self.any_of):
            raise ValueError("nothing counts")
        if set(self.never) & set(self.contact):
            raise ValueError("a word counts or it never does")
        return self


class Tail(Entry):
    """Which end of a number's spread the balls of a share lie in, by one limit."""

    of: Noted
    at_most: float | None = None
    at_least: float | None = None
    beyond: float | None = None

    @model_validator(mode="after")
    def _one_limit(self) -> "Tail":
        if sum(v is not None for v in (self.at_most, self.at_least, self.beyond)) != 1:
            raise ValueError("a tail has one limit")
        return self


class Measure(Entry):
    """One measure of a retest: a number or a share.

    name, said : in a list; of balls that count, after "4 of 5"
    tails : of a share, by which a predicted change of a number says how many balls are left in it
    """

    id: str
    name: str
    said: str = ""
    number: NumberMeasure | None = None
    share: ShareMeasure | None = None
    tails: tuple[Tail, ...] = ()

    @model_validator(mode="after")
    def _one_kind(self) -> "Measure":
        if (self.number is None) == (self.share is None):
            raise ValueError("a measure is either a number or a share")
        if self.share is not None and not self.said:
            raise ValueError("a share is said in words")
        return self


class MeasuresFile(Entry):
    """All of `measures.yaml`."""

    source: str
    measures: tuple[Measure, ...] = Field(min_length=1)
