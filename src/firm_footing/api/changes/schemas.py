"""Which changes may be asked for, in which shapes?

Golfer-neutral and SI, as all that goes out; how much of anything is in `core/case/limits.py`.
"""

from typing import Annotated, Any, Literal
from zoneinfo import available_timezones

from pydantic import AfterValidator, AwareDatetime, Field, StringConstraints

from firm_footing.api.wire import In, Truth
from firm_footing.core.case import School, Shot, Stance
from firm_footing.core.case.base import Number, Whole, Word
from firm_footing.core.case.days import Day
from firm_footing.core.case.evidence import BlockKind, Effort, ExpectedCarry, Handicap, Surface
from firm_footing.core.case.limits import LIST, NAME, NOTE, WORDS
from firm_footing.core.coaching.lesson import Cue, Ids, LimitDetail, Listen, SheetWords
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge.vocabulary import Answer, Limit, Source
from firm_footing.store.tables import AgeGroup, Outcome

PersonName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=NAME)]
Text = Annotated[str, StringConstraints(strip_whitespace=True, max_length=WORDS)]
Limits = Annotated[tuple[Limit, ...], Field(max_length=LIST)]
Details = Annotated[dict[Limit, LimitDetail], Field(max_length=LIST)]
Means = Annotated[tuple[Source, ...], Field(max_length=LIST)]
ClubId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{1,3}$")]
OwnId = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,64}$")]


def _zone(name: str) -> str:
    """A time zone that this machine knows; a lesson is not refused for another one."""
    return name if name in available_timezones() else ""


Zone = Annotated[
    str,
    StringConstraints(max_length=64),
    AfterValidator(_zone),
    Field(description="IANA name of the time zone the lesson is given in; left out: the server's"),
]
WasFields = Annotated[
    dict[str, Any],
    Field(
        max_length=40,
        description="Of each field sent, what it was when it was changed; a field of a part is "
        "named `listen.goal`. Where it is another by now, nothing is changed and both are told.",
        examples=[{"complaint": "Slices", "listen.health": ""}],
    ),
]


WasWhole = Annotated[
    dict[str, Any] | None,
    Field(
        max_length=40,
        description="Of each field, what the sender had of it before; left out where it is new. "
        "What the sender did not change stays as it is kept by now.",
        examples=[{"observed": {"start": "pull"}}],
    ),
]


class NewStudent(In):
    """Someone who takes lessons."""

    id: OwnId | None = Field(None, description="Made by the client, so that it is added once")
    name: PersonName = Field(examples=["Oda Brack"])
    handedness: Handedness
    handicap: Handicap | None = Field(None, description="Plus handicaps are negative")
    dominant_leg: Literal["lead", "trail"] | None = None
    age_group: AgeGroup = "adult"
    limits: Limits = ()
    limit_details: Details = Field(default_factory=dict)
    about: Text = ""
    guardian_agreed: Truth = False


class StudentChange(In):
    """New values; what is left out stays."""

    name: PersonName | None = None
    handedness: Handedness | None = None
    handicap: Handicap | None = None
    dominant_leg: Literal["lead", "trail"] | None = None
    age_group: AgeGroup | None = None
    limits: Limits | None = None
    limit_details: Details | None = None
    about: Text | None = None
    guardian_agreed: Truth | None = None
    archived: Truth | None = None
    was: WasFields = Field(default_factory=dict)

    def values(self) -> dict[str, Any]:
        """What was sent; only handicap and dominant leg can be emptied with null."""
        sent = {name: getattr(self, name) for name in self.model_fields_set - {"was"}}
        may_be_null = ("handicap", "dominant_leg")
        return {k: v for k, v in sent.items() if v is not None or k in may_be_null}


class NewLesson(In):
    """A new lesson, which starts with an empty baseline block."""

    id: OwnId | None = Field(None, description="Made by the client, so that it is started once")
    block_id: OwnId | None = Field(None, description="Of its first block, made by the client")
    complaint: Text = ""
    zone: Zone = ""
    club: ClubId | None = Field(
        None, examples=["7i"], description="Left out: the club of the last baseline, else a 7 iron"
    )
    school: School = School()


class Reopening(In):
    """A lesson that takes another one up again."""

    id: OwnId | None = Field(None, description="Made by the client, so that it is started once")
    zone: Zone = ""


class LessonChange(In):
    """New values; what is left out stays, within school, listen, cue and sheet too."""

    complaint: Text | None = None
    given_by: Text | None = Field(None, description="The instructor's name")
    school: School | None = None
    at_hand: Means | None = Field(None, description="Means at hand for looks")
    finished: Truth | None = None
    listen: Listen | None = None
    cue: Cue | None = None
    drill: Word | None = Field(None, description="The drill on the bench; null puts it away")
    aid: Word | None = Field(None, description="A second drill's aid on the bench; null for none")
    lacking: Ids | None = Field(None, description="Equipment that is not here")
    primary: Word | None = Field(None, description="The measure that decides the retest")
    next_at: AwareDatetime | None = Field(None, description="When the student comes again")
    sheet: SheetWords | None = None
    was: WasFields = Field(default_factory=dict)


class BlockIn(In):
    """What is the same for all balls of a block; what is left out stays."""

    kind: BlockKind | None = None
    club: ClubId | None = None
    drill: Word | None = None
    expected_carry_m: ExpectedCarry | None = None
    effort_pct: Effort | None = None
    surface: Surface | None = None
    teed: bool | None = None
    stance: Stance | None = None
    own_targets: Truth | None = Field(None, description="Every ball has a target of its own")
    was: WasWhole = None


class ShotIn(In):
    """One ball as far as it is known; of one that is there, what is another than it was changes."""

    block_id: OwnId
    observed: Shot
    touched: Annotated[dict[Word, Number], Field(max_length=LIST)] = Field(
        default_factory=dict, description="Where the drawing was touched, for its mark only"
    )
    was: WasWhole = None


class AnswerIn(In):
    """An answer to a check."""

    check_id: Word = Field(examples=["trail_heel_up_early"])
    answer: Answer
    source: Source | None = Field(None, description="Left out: the first source of the check")
    share: Annotated[float, Field(ge=0, le=1)] | None = Field(
        None, description="How clearly the fact shows, where it was told finer than by the word"
    )
    block_id: OwnId | None = None
    was: WasWhole = None


class FollowUpIn(In):
    """When to ask, and what came back; what is left out stays."""

    due_on: Day | None = None
    practised: Annotated[int, Field(ge=0, le=100, description="Times"), Whole] | None = None
    passes: Annotated[int, Field(ge=0, le=10000), Whole] | None = None
    course: str | None = Field(None, max_length=WORDS)
    verdict: Outcome | None = None
    was: WasWhole = None


class NoteIn(In):
    """A note."""

    text: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=NOTE)]
    was: WasWhole = None


class DecisionIn(In):
    """The cause to start with."""

    cause: Word = Field(examples=["trail_heel_pops"])
    reason: Text = ""
    id: OwnId | None = Field(None, description="Made by the client, so that it is made once")


class StepIn(In):
    """Which step is taken back or done again."""

    step: Annotated[int, Field(ge=1, le=1_000_000), Whole] | None = Field(
        None, description="Its number; both left out: the last one of this page"
    )
    write: OwnId | None = Field(
        None,
        description="The `Idempotency-Key` it was sent with, where its number is not known yet",
    )
