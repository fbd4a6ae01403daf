"""What is kept of a lesson besides balls, looks and traces?"""

from typing import Annotated, Literal

from pydantic import Field

from firm_footing.core.case.base import Strict, Whole, Word
from firm_footing.core.case.days import Day
from firm_footing.core.case.limits import LIST, WORDS
from firm_footing.core.case.past import PastDecision
from firm_footing.core.knowledge.cues import Way

ShortWords = Annotated[str, Field(max_length=WORDS)]
Ids = Annotated[tuple[Word, ...], Field(max_length=LIST)]


class LimitDetail(Strict):
    """Of a bodily limit: on which side it is, and since when."""

    side: Literal["left", "right", "both"] | None = None
    since: Day | None = None


class Listen(Strict):
    """What the student said before the first ball.

    misses : ids of misses they named
    event_on : of the next round that matters
    background : other sports, and what they leave behind
    health : pain, injury, balance, pregnancy; private, never on the sheet
    health_asked : whether it was asked at all
    corrected : ids of beliefs that were put right in the lesson
    minutes : of this lesson
    past : decisions of lessons that are kept elsewhere, as a case file brought them
    past_left_out : what earlier lessons found is left out of the ranking
    """

    feels: ShortWords = ""
    misses: Ids = ()
    goal: ShortWords = ""
    event: ShortWords = ""
    event_on: Day | None = None
    background: ShortWords = ""
    health: ShortWords = ""
    health_asked: Annotated[bool, Field(strict=True)] = False
    corrected: Ids = ()
    minutes: Annotated[int, Field(ge=10, le=180), Whole] = 45
    past: Annotated[tuple[PastDecision, ...], Field(max_length=LIST)] = ()
    past_left_out: Annotated[bool, Field(strict=True)] = False


class Cue(Strict):
    """The cue kept, and what the student felt in the force tests.

    felt : force test to what they said
    """

    text: ShortWords = ""
    felt: Annotated[dict[Word, Way], Field(max_length=LIST)] = Field(default_factory=dict)


class SheetWords(Strict):
    """What the instructor changed on the sheet; None: as proposed, a drill '': none goes home.

    minutes : of practice on a day
    """

    miss: ShortWords | None = None
    cause: ShortWords | None = None
    cue: ShortWords | None = None
    thought: ShortWords | None = None
    rescue: ShortWords | None = None
    rehearsal: Word | None = None
    ball_drill: Word | None = None
    minutes: Annotated[int, Field(ge=1, le=120), Whole] | None = None
