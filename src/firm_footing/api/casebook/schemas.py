"""Decisions, what became of them and what they taught, as it goes over the wire."""

from datetime import datetime

from pydantic import BaseModel, Field

from firm_footing.api.wire import In, Out, Truth
from firm_footing.core.case.base import Word
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge.casebook import Fate, KnownBy
from firm_footing.core.knowledge.vocabulary import Stage


class ConfirmedOut(Out):
    """So many of so many; the truth lies between low and high four times in five."""

    came: int
    of: int
    low: float
    high: float


class CaseOut(BaseModel):
    """One decision of the casebook and what became of it."""

    lesson_id: str
    student_name: str
    handedness: Handedness
    decided_at: datetime
    club: str | None = Field(description="Of the baseline")
    shape: str | None = Field(description="What its balls did, in a word")
    cause: str
    ranked_first: str | None
    agreed: bool = Field(description="The instructor chose what the ranking had first")
    fate: Fate | None = Field(description="What became of it; null until it is known")
    known_by: list[KnownBy] = Field(description="Everything that says so")


class CasebookOut(BaseModel):
    """All decisions, the newest first, and how often they came true."""

    cases: list[CaseOut]
    more: bool = Field(description="Older ones are on the next page")
    decided: ConfirmedOut = Field(
        description="Of the decisions whose fate is known, those confirmed"
    )
    first: ConfirmedOut = Field(description="The same where the ranking's first was decided on")
    against: ConfirmedOut = Field(description="The same where another cause was")


class BandOut(Out):
    """Decisions of which about the same was said, and how many of them came true."""

    low: float = Field(description="From this probability on")
    high: float
    said: float = Field(description="The mean of what was said")
    share: ConfirmedOut


class PartOut(BaseModel):
    """One kind of decision, and how often those came true."""

    word: str = Field(description="A miss, the id of a club, or how the fate is known")
    share: ConfirmedOut


class RightOut(BaseModel):
    """How often the decisions came true, beside what was said of them."""

    bands: list[BandOut] = Field(description="The lowest first; those without a decision left out")
    by_miss: list[PartOut]
    by_club: list[PartOut]
    by_source: list[PartOut] = Field(description="By what says what became of them")


class LookPays(BaseModel):
    """What a look told in these lessons."""

    check: str
    lessons: int
    bits: float = Field(description="Told on average, in the lessons in which it was answered")
    seconds: int = Field(description="That it takes")


class DrillPays(BaseModel):
    """What became of the lessons in which a drill was worked with."""

    drill: str
    lessons: int
    share: ConfirmedOut


class PaysOut(BaseModel):
    """What the time of the lessons went into, and what it brought."""

    lessons: int
    looks: list[LookPays] = Field(description="The most told for a minute first")
    never: list[LookPays] = Field(description="The same of those never taken, as was expected")
    drills: list[DrillPays] = Field(description="Those used most first")
    minutes: dict[Stage, float] = Field(description="On average, of the lessons with a clock")


class MovedCause(BaseModel):
    """How common a cause is: by the knowledge files, and here."""

    cause: str
    shipped: float
    here: float
    expected: float = Field(description="Of the students, as far as their lessons tell")
    held: bool = Field(description="It stays as common as the files say")


class MovedRateOut(Out):
    """How often something is so, 0 to 1."""

    files: float
    here: float


class MovedLook(Out):
    """How often the eye is wrong at a look, by the files and here."""

    look: str = Field(description="Its id; `every_look`: what all have in common")
    answers: int
    false_yes: MovedRateOut | None = Field(description="null: much as the files have it")
    false_no: MovedRateOut | None
    held: bool = Field(False, description="Whether it stays as shipped")


class ColleagueOut(Out):
    """A colleague's casebook that was added."""

    id: str
    name: str
    outcomes: int
    students: int
    known: bool = Field(description="False: made with knowledge that is another by now; unused")


class LearnedOut(BaseModel):
    """What was learned, and what is done with it."""

    use: bool
    since: datetime | None = Field(description="Decisions before it teach nothing")
    waiting: int = Field(description="Lessons still to be studied")
    made_at: datetime | None
    outcomes: int = 0
    students: int = 0
    least: int = Field(description="Outcomes before anything moves")
    said: list[str] = Field(default=[], description="In sentences")
    moved: list[MovedCause] = []
    looks: list[MovedLook] = []
    pooled: bool = Field(description="Whether colleagues' casebooks teach as well")
    colleagues: list[ColleagueOut] = []
    decided: dict[str, int] = Field(
        default={}, description="Cause to decisions for it whose fate is known"
    )


class LearnedChange(In):
    """New choices; what is left out stays."""

    use: Truth | None = Field(None, description="Whether rankings use what was learned")
    held: list[Word] | None = Field(
        None,
        max_length=200,
        description="Causes that stay as common, and looks that stay as often wrong, as the "
        "files say; `every_look`: what all looks have in common",
    )
    pooled: Truth | None = Field(None, description="Whether colleagues' casebooks teach as well")
    anew: Truth | None = Field(
        None, description="True: decisions until now teach nothing. False: all of them teach"
    )
