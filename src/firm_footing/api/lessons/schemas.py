"""Which shapes go out?

Everything is golfer-neutral and SI: `pull`/`push`, degrees + to the push side, metres. Screens
mirror and convert.
"""

from datetime import datetime
from typing import Any, Literal

from pydantic import BaseModel, Field

from firm_footing.api.coaching.schemas import FollowUpOut, RepetitionOut
from firm_footing.api.conclusions.schemas import WhatIfOut
from firm_footing.api.wire import Out
from firm_footing.core.case import School, Shot, Stance
from firm_footing.core.case.evidence import BlockKind, Surface
from firm_footing.core.case.still import Consent
from firm_footing.core.coaching.lesson import Cue, LimitDetail, Listen, SheetWords
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge.film import FilmEvent
from firm_footing.core.knowledge.vocabulary import Answer, Limit, Source, Stage
from firm_footing.store.tables import AgeGroup


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
    given_by: str
    finished: bool
    stage: str | None = Field(description="Where it was left; null when it was not timed")
    balls: int
    answers: int
    decided: str | None = Field(description="The cause decided on last")
    next: NextOut = Field(description="What it needs next")


class BookedOut(BaseModel):
    """A student who comes again, and what the lesson needs."""

    lesson_id: str = Field(description="The lesson in which it was agreed")
    student_id: str
    student_name: str
    handedness: Handedness
    at: datetime
    cause: str | None = Field(description="What was decided on last")
    asked: bool = Field(description="Whether somebody asked how it went since")
    drill: str | None


class TodayOut(BaseModel):
    """The day page: those seen lately, the newest lessons, and who comes."""

    students: list[StudentOut]
    of: int = Field(description="How many students there are in all")
    lessons: list[LessonBrief]
    booked: list[BookedOut] = Field(description="Who comes, the soonest first")


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
    """Whether a lesson, or what rankings use beside it, has changed since it was read."""

    revision: int
    taught: int = Field(description="Another one once lessons that are over were studied")


class DecidedBefore(BaseModel):
    """What an earlier lesson of the student decided, and what came of it."""

    lesson_id: str
    started_at: datetime
    cause: str
    drill: str | None
    follow_up: FollowUpOut | None


class StillOut(Out):
    """A picture out of a film that is kept; the picture itself is asked for."""

    id: str
    film_id: str | None
    event: FilmEvent | None
    measure: str = Field(description="What stands beside it; empty for nothing")
    consent: Consent
    on_sheet: bool
    taken_at: datetime


class LessonOut(BaseModel):
    """A lesson with everything in it."""

    id: str
    student: StudentOut
    complaint: str
    given_by: str = Field(description="The instructor's name; empty where nobody said")
    school: School
    at_hand: tuple[Source, ...] | None
    finished: bool
    started_at: datetime
    blocks: list[BlockOut]
    answers: list[AnswerOut]
    traces: int
    stills: list[StillOut]
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
    next_at: datetime | None = Field(description="When the student comes again")
    sheet: SheetWords
    repetitions: list[RepetitionOut]
    follow_up: FollowUpOut | None
    revision: int = Field(description="Another one after every change")
    undo: str | None = Field(description="What undo would take back")
    redo: str | None = Field(description="What redo would do again")
    unreadable: list[str] = Field(
        description="What older data holds in it that could not be read, and is left out"
    )
    undo_step: int | None = Field(description="The step that undo would take back")
    redo_step: int | None = Field(description="The step that redo would do again")
