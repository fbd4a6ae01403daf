"""Which shapes go in and out?

Everything is golfer-neutral and SI: `pull`/`push`, degrees + to the push side, metres. Screens
mirror and convert.
"""

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, StringConstraints

from firm_footing.api.coaching_shapes import FollowUpOut, RepetitionOut
from firm_footing.api.conclusion_shapes import WhatIfOut
from firm_footing.api.wire import In, Out, Truth
from firm_footing.core.case import School, Shot, Stance
from firm_footing.core.case.evidence import BlockKind, Handicap, Number, Surface
from firm_footing.core.coaching.lesson import Cue, LimitDetail, Listen, SheetWords
from firm_footing.core.coaching.next_stage import Stage
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge.vocabulary import Answer, Limit, Source
from firm_footing.store.tables import AgeGroup

Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
Text = Annotated[str, StringConstraints(strip_whitespace=True, max_length=2000)]
Primary = Literal["start_deg", "curve_deg", "heel_toe_mm", "low_point_cm", "carry_m"]
ClubId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{1,3}$")]
OwnId = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,64}$")]
Was = Annotated[
    dict[str, Any],
    Field(
        max_length=40,
        description="Of each field sent, what it was when it was changed; a field of a part is "
        "named `listen.goal`. Where it is another by now, nothing is changed and both are told.",
        examples=[{"complaint": "Slices", "listen.health": ""}],
    ),
]


class NewStudent(In):
    """Someone who takes lessons."""

    id: OwnId | None = Field(None, description="Made by the client, so that it is added once")
    name: Name = Field(examples=["Oda Brack"])
    handedness: Handedness
    handicap: Handicap | None = Field(None, description="Plus handicaps are negative")
    dominant_leg: Literal["lead", "trail"] | None = None
    age_group: AgeGroup = "adult"
    limits: tuple[Limit, ...] = ()
    limit_details: dict[Limit, LimitDetail] = Field(default_factory=dict)
    about: Text = ""
    guardian_agreed: Truth = False


class StudentChange(In):
    """New values; what is left out stays."""

    name: Name | None = None
    handedness: Handedness | None = None
    handicap: Handicap | None = None
    dominant_leg: Literal["lead", "trail"] | None = None
    age_group: AgeGroup | None = None
    limits: tuple[Limit, ...] | None = None
    limit_details: dict[Limit, LimitDetail] | None = None
    about: Text | None = None
    guardian_agreed: Truth | None = None
    archived: Truth | None = None
    was: Was = Field(default_factory=dict)

    def values(self) -> dict[str, Any]:
        """What was sent; only handicap and dominant leg can be emptied with null."""
        sent = {name: getattr(self, name) for name in self.model_fields_set - {"was"}}
        may_be_null = ("handicap", "dominant_leg")
        return {k: v for k, v in sent.items() if v is not None or k in may_be_null}


class StudentOut(Out):
    """Someone who takes lessons."""

    id: str
    name: str
    handedness: Handedness
    handicap: float | None
    dominant_leg: Literal["lead", "trail"] | None
    age_group: AgeGroup
    limits: tuple[Limit, ...]
    limit_details: dict[Limit, LimitDetail] = Field(description="Side and day of each limit")
    about: str
    guardian_agreed: bool
    archived: bool = Field(description="Comes no more, and is kept")
    created_at: datetime


class NextOut(Out):
    """What a lesson needs next: the stage to open, and why in a few words."""

    stage: Stage
    words: str
    done: bool


class LessonBrief(BaseModel):
    """A lesson in a list."""

    id: str
    student_id: str
    student_name: str
    handedness: Handedness
    started_at: datetime
    complaint: str
    finished: bool
    stage: str | None = Field(description="Where it was left; null when it was not timed")
    balls: int
    answers: int
    decided: str | None = Field(description="The cause decided on last")
    next: NextOut = Field(description="What it needs next")


class Day(BaseModel):
    """The day page: everyone, and the newest lessons."""

    students: list[StudentOut]
    lessons: list[LessonBrief]


class NewLesson(In):
    """A new lesson, which starts with an empty baseline block."""

    id: OwnId | None = Field(None, description="Made by the client, so that it is started once")
    complaint: Text = ""
    club: ClubId | None = Field(
        None, examples=["7i"], description="Left out: the club of the last baseline, else a 7 iron"
    )
    school: School = School()


class Reopening(In):
    """A lesson that takes another one up again."""

    id: OwnId | None = Field(None, description="Made by the client, so that it is started once")


class LessonChange(In):
    """New values; what is left out stays, within school, listen, cue and sheet too."""

    complaint: Text | None = None
    school: School | None = None
    at_hand: tuple[Source, ...] | None = Field(None, description="Means at hand for looks")
    finished: Truth | None = None
    listen: Listen | None = None
    cue: Cue | None = None
    drill: str | None = Field(None, description="The drill on the bench; null puts it away")
    aid: str | None = Field(None, description="A second drill's aid on the bench; null for none")
    lacking: tuple[str, ...] | None = Field(None, description="Equipment that is not here")
    primary: Primary | None = Field(None, description="The retest's measure, fixed beforehand")
    sheet: SheetWords | None = None
    was: Was = Field(default_factory=dict)


class BlockIn(In):
    """What is the same for all balls of a block; what is left out stays."""

    kind: BlockKind | None = None
    club: ClubId | None = None
    drill: str | None = None
    expected_carry_m: Annotated[float, Field(strict=True, gt=0, le=400)] | None = None
    effort_pct: Annotated[float, Field(strict=True, gt=0, le=120)] | None = None
    surface: Surface | None = None
    teed: bool | None = None
    stance: Stance | None = None
    own_targets: Truth | None = Field(None, description="Every ball has a target of its own")


class ShotIn(In):
    """One ball as far as it is known; sending it again with more replaces it."""

    block_id: str
    observed: Shot
    touched: dict[str, Number] = Field(
        default_factory=dict, description="Where the drawing was touched, for its mark only"
    )


class AnswerIn(In):
    """An answer to a check."""

    check_id: str = Field(examples=["trail_heel_up_early"])
    answer: Answer
    source: Source | None = Field(None, description="Left out: the first source of the check")
    share: Annotated[float, Field(ge=0, le=1)] | None = Field(
        None, description="How clearly the fact shows, where it was told finer than by the word"
    )
    block_id: str | None = None


class NoteIn(In):
    """A note."""

    text: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=2000)]


class DecisionIn(In):
    """The cause to start with."""

    cause: str = Field(examples=["trail_heel_pops"])
    reason: Text = ""
    id: OwnId | None = Field(None, description="Made by the client, so that it is made once")


class StepIn(In):
    """Which step is taken back or done again."""

    step: Annotated[int, Field(strict=True, ge=1)] | None = Field(
        None, description="Left out: the last one of this page"
    )


class ShotOut(Out):
    """One logged ball."""

    id: str
    block_id: str
    observed: Shot
    touched: dict[str, float]
    hit_at: datetime


class BlockOut(Out):
    """A block with its balls."""

    id: str
    position: int
    kind: BlockKind
    club: str
    drill: str | None
    expected_carry_m: float | None
    effort_pct: float | None
    surface: Surface | None
    teed: bool | None
    stance: Stance | None
    own_targets: bool
    shots: list[ShotOut]


class AnswerOut(Out):
    """A kept answer."""

    id: str
    check_id: str
    answer: Answer
    source: Source
    share: float | None
    block_id: str | None
    answered_at: datetime


class NoteOut(Out):
    """A kept note."""

    id: str
    text: str
    written_at: datetime


class DecisionOut(Out):
    """A decision with what the ranking said then."""

    id: str
    cause: str
    reason: str
    ranking: dict[str, Any]
    knowledge_version: str
    decided_at: datetime
    prediction: WhatIfOut | None = Field(
        description="What the pattern would be without the cause, as predicted then"
    )


class Revision(BaseModel):
    """Whether a lesson has changed since it was read."""

    revision: str


class DecidedBefore(BaseModel):
    """What an earlier lesson of the student decided, and what came of it."""

    lesson_id: str
    started_at: datetime
    cause: str
    drill: str | None
    follow_up: FollowUpOut | None


class LessonOut(BaseModel):
    """A lesson with everything in it."""

    id: str
    student: StudentOut
    complaint: str
    school: School
    at_hand: tuple[Source, ...] | None
    finished: bool
    started_at: datetime
    blocks: list[BlockOut]
    answers: list[AnswerOut]
    traces: int
    notes: list[NoteOut]
    decisions: list[DecisionOut]
    listen: Listen
    cue: Cue
    drill: str | None
    aid: str | None
    lacking: tuple[str, ...]
    reopens: str | None
    earlier: list[DecidedBefore] = Field(description="Earlier decisions, the newest first")
    primary: str | None
    sheet: SheetWords
    repetitions: list[RepetitionOut]
    follow_up: FollowUpOut | None
    revision: str = Field(description="Another one after every change")
    undo: str | None = Field(description="What undo would take back")
    redo: str | None = Field(description="What redo would do again")
    undo_step: int | None = Field(description="The step that undo would take back")
    redo_step: int | None = Field(description="The step that redo would do again")
