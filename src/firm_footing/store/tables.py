"""Which tables are there?

Everything is kept golfer-neutral and in SI. A ball's readings are one JSON column validated as the
core's `Shot`: what can be seen of a ball is said once, in the core.
"""

from datetime import date, datetime
from typing import Any, Literal
from uuid import uuid4

from sqlalchemy import CheckConstraint, Column, ForeignKey, Index, String
from sqlmodel import Field, SQLModel

from firm_footing.core.case import Film, School, Shot, Stance, Trace
from firm_footing.core.case.evidence import BlockKind, Surface
from firm_footing.core.case.past import Eye, HowCommon
from firm_footing.core.case.still import Consent
from firm_footing.core.coaching.ladder import Result
from firm_footing.core.coaching.lesson import Cue, LimitDetail, Listen, SheetWords
from firm_footing.core.frame import Handedness, SideWords
from firm_footing.core.knowledge.cues import Leg
from firm_footing.core.knowledge.film import FilmEvent
from firm_footing.core.knowledge.pressure import SwingEvent
from firm_footing.core.knowledge.vocabulary import Answer, Limit, Source
from firm_footing.store.columns import AsJson, Instant, PackedTrace, now, one_of, zone_of

USUALLY_AT_HAND: tuple[Source, ...] = ("look", "feel")  # film and mat once there is one of each
Outcome = Literal["confirmed", "partly", "rejected"]
AgeGroup = Literal["junior", "adult", "senior"]


def new_id() -> str:
    """A new id for a row nobody outside has named."""
    return str(uuid4())


def belongs_to(table: str, nullable: bool = False) -> Any:
    """A column with the id of the row this one goes with when that is deleted."""
    return Column(
        String, ForeignKey(f"{table}.id", ondelete="CASCADE"), nullable=nullable, index=True
    )


class Instructor(SQLModel, table=True):
    """Someone who gives lessons: name, school and words follow them to each of their devices."""

    id: str = Field(default_factory=new_id, primary_key=True)
    name: str = ""
    place: str = ""
    school: School = Field(default=School(), sa_column=Column(AsJson(School), nullable=False))
    sides: SideWords = one_of(SideWords, "lead_trail")
    created_at: datetime = Field(default_factory=now, sa_type=Instant)


class Student(SQLModel, table=True):
    """Someone who takes lessons.

    limit_details : of limits, the side it is on and since when
    archived : comes no more, and is kept
    """

    id: str = Field(default_factory=new_id, primary_key=True)
    name: str
    handedness: Handedness = one_of(Handedness, "right", needed=True)
    handicap: float | None = None
    dominant_leg: Leg | None = one_of(Leg)
    age_group: AgeGroup = one_of(AgeGroup, "adult")
    limits: tuple[Limit, ...] = Field(
        default=(), sa_column=Column(AsJson(tuple[Limit, ...]), nullable=False)
    )
    limit_details: dict[Limit, LimitDetail] = Field(
        default_factory=dict,
        sa_column=Column(AsJson(dict[Limit, LimitDetail]), nullable=False),
    )
    about: str = ""
    guardian_agreed: bool = False
    archived: bool = False
    created_at: datetime = Field(default_factory=now, sa_type=Instant)


class Lesson(SQLModel, table=True):
    """One lesson of one student.

    aid : drill whose aid stands there too while `drill` is worked on
    lacking : ids of equipment that is not here
    reopens : id of the lesson whose cause is taken up again; it may be gone since
    zone : IANA name of the time zone it was given in; '' where nobody said: this machine's
    given_by : the instructor's name as it was then; '' where nobody said
    primary : id of the measure that decides the retest; None where none was fixed
    primary_before : the measure fixed before the first ball of the retest, where another one was
        chosen after it; '' where none was fixed
    next_at : when the student comes again, where that was agreed
    """

    id: str = Field(default_factory=new_id, primary_key=True)
    student_id: str = Field(sa_column=belongs_to("student"))
    complaint: str = ""
    school: School = Field(default=School(), sa_column=Column(AsJson(School), nullable=False))
    at_hand: tuple[Source, ...] | None = Field(
        default=USUALLY_AT_HAND, sa_column=Column(AsJson(tuple[Source, ...] | None))
    )
    finished: bool = False
    started_at: datetime = Field(default_factory=now, sa_type=Instant, index=True)
    zone: str = ""
    given_by: str = ""
    listen: Listen = Field(default=Listen(), sa_column=Column(AsJson(Listen), nullable=False))
    cue: Cue = Field(default=Cue(), sa_column=Column(AsJson(Cue), nullable=False))
    drill: str | None = None
    aid: str | None = None
    lacking: tuple[str, ...] = Field(
        default=(), sa_column=Column(AsJson(tuple[str, ...]), nullable=False)
    )
    reopens: str | None = None
    primary: str | None = None
    primary_before: str | None = None
    next_at: datetime | None = Field(default=None, sa_type=Instant, index=True)
    sheet: SheetWords = Field(
        default=SheetWords(), sa_column=Column(AsJson(SheetWords), nullable=False)
    )

    @property
    def day(self) -> date:
        """The day it was given on, where it was given."""
        return self.started_at.astimezone(zone_of(self.zone)).date()

    def today(self) -> date:
        """What day it is now, there."""
        return now().astimezone(zone_of(self.zone)).date()


class LoggedBlock(SQLModel, table=True):
    """Balls hit one after the other with one club.

    own_targets : every ball has a target of its own
    """

    __tablename__ = "block"

    id: str = Field(default_factory=new_id, primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    position: int
    kind: BlockKind = one_of(BlockKind, "baseline")
    club: str = "7i"
    drill: str | None = None
    expected_carry_m: float | None = None
    effort_pct: float | None = None
    surface: Surface | None = one_of(Surface)
    teed: bool | None = None
    stance: Stance | None = Field(default=None, sa_column=Column(AsJson(Stance)))
    own_targets: bool = False


class LoggedShot(SQLModel, table=True):
    """One ball; its id is made by the client, so that a repeated request stores it once."""

    __tablename__ = "shot"

    id: str = Field(primary_key=True)
    block_id: str = Field(sa_column=belongs_to("block"))
    position: int
    observed: Shot = Field(sa_column=Column(AsJson(Shot), nullable=False))
    touched: dict[str, float] = Field(
        default_factory=dict,
        sa_column=Column(AsJson(dict[str, float]), nullable=False),
        description="Where the drawing was touched, for its mark only: never evidence",
    )
    hit_at: datetime = Field(default_factory=now, sa_type=Instant)


class CheckAnswer(SQLModel, table=True):
    """One answer to one check from one source; its id is made by the client.

    share : how clearly the fact shows, where that was told more finely than by the word
    """

    __tablename__ = "check_answer"
    __table_args__ = (
        CheckConstraint("answer IN ('yes', 'partly', 'no', 'unknown')", name="answer_is_a_word"),
        Index("ix_check_answer_lesson_check", "lesson_id", "check_id"),
    )

    id: str = Field(primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    check_id: str
    answer: Answer = one_of(Answer, "unknown", needed=True)
    source: Source = one_of(Source, "look", needed=True)
    share: float | None = None
    block_id: str | None = Field(default=None, sa_column=belongs_to("block", nullable=True))
    answered_at: datetime = Field(default_factory=now, sa_type=Instant)


class Recording(SQLModel, table=True):
    """The samples of one swing, never changed: what is said of them stands in `PressureTrace`."""

    id: str = Field(default_factory=new_id, primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    samples: Trace = Field(sa_column=Column(PackedTrace(), nullable=False))


class PressureTrace(SQLModel, table=True):
    """One swing's pressure trace.

    events : moments that were named, seconds on the trace's clock
    swapped : the feet were recorded the wrong way round
    """

    __tablename__ = "pressure_trace"

    id: str = Field(default_factory=new_id, primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    block_id: str | None = Field(default=None, sa_column=belongs_to("block", nullable=True))
    recording_id: str = Field(sa_column=belongs_to("recording"))
    position: int
    name: str = ""
    events: dict[SwingEvent, float] = Field(
        default_factory=dict, sa_column=Column(AsJson(dict[SwingEvent, float]), nullable=False)
    )
    swapped: bool = False
    recorded_at: datetime = Field(default_factory=now, sa_type=Instant)


class FilmMarks(SQLModel, table=True):
    """What was marked in one film, golfer-neutral, its block beside it; the film itself is not."""

    __tablename__ = "film_marks"

    id: str = Field(default_factory=new_id, primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    block_id: str | None = Field(default=None, sa_column=belongs_to("block", nullable=True))
    position: int
    name: str = ""
    marks: Film = Field(sa_column=Column(AsJson(Film), nullable=False))
    marked_at: datetime = Field(default_factory=now, sa_type=Instant)


class Repetition(SQLModel, table=True):
    """One repetition of a drill, judged by its pass sign; its id is made by the client.

    real : judged in the real swing, not in a rehearsal that may be exaggerated
    """

    id: str = Field(primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    drill: str
    result: Result = one_of(Result, "late", needed=True)
    real: bool = False
    done_at: datetime = Field(default_factory=now, sa_type=Instant)


class FollowUp(SQLModel, table=True):
    """What is asked after a lesson, and what came back; its id is the lesson's.

    verdict : of the cause decided on; None until it is known
    """

    __tablename__ = "follow_up"

    id: str = Field(primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    due_on: date = Field(index=True)
    practised: int | None = None
    passes: int | None = None
    course: str = ""
    verdict: Outcome | None = one_of(Outcome)
    answered_at: datetime | None = Field(default=None, sa_type=Instant)


class Clock(SQLModel, table=True):
    """Seconds spent in each stage of a lesson, and the stage it is in. Time cannot be undone."""

    lesson_id: str = Field(
        sa_column=Column(String, ForeignKey("lesson.id", ondelete="CASCADE"), primary_key=True)
    )
    used_s: dict[str, float] = Field(
        default_factory=dict, sa_column=Column(AsJson(dict[str, float]), nullable=False)
    )
    stage: str | None = None


class Note(SQLModel, table=True):
    """A note of the instructor's."""

    id: str = Field(default_factory=new_id, primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    text: str
    written_at: datetime = Field(default_factory=now, sa_type=Instant)


class Decision(SQLModel, table=True):
    """The cause the instructor chose, and what the ranking said at that moment.

    ranked_first, shape : out of the ranking, to find decisions by; no first where nothing spoke yet
    how_common, eye : what a casebook had taught that it was made with
    """

    id: str = Field(default_factory=new_id, primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    cause: str
    reason: str = ""
    ranking: dict[str, Any] = Field(sa_column=Column(AsJson(dict[str, Any]), nullable=False))
    knowledge_version: str
    how_common: HowCommon = Field(default=(), sa_column=Column(AsJson(HowCommon), nullable=False))
    eye: Eye = Field(default=(), sa_column=Column(AsJson(Eye), nullable=False))
    prediction: dict[str, Any] | None = Field(
        default=None, sa_column=Column(AsJson(dict[str, Any]), nullable=True)
    )
    ranked_first: str | None = None
    shape: str | None = None
    decided_at: datetime = Field(default_factory=now, sa_type=Instant, index=True)


class Still(SQLModel, table=True):
    """One picture out of a film, kept with consent; deleted, it is gone for good.

    film_id : of the marks it belongs to; they may be gone since
    event : which moment it shows; measure : what stands beside it, '' for nothing
    consent : who agreed to its being kept
    on_sheet : goes home with the student
    jpeg_base64 : the picture, without anything that a camera writes beside it
    """

    id: str = Field(primary_key=True)
    lesson_id: str = Field(sa_column=belongs_to("lesson"))
    film_id: str | None = None
    event: FilmEvent | None = one_of(FilmEvent)
    measure: str = ""
    consent: Consent = one_of(Consent, "student", needed=True)
    on_sheet: bool = False
    jpeg_base64: str
    taken_at: datetime = Field(default_factory=now, sa_type=Instant)
