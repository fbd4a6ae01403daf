"""The work after the decision, as it goes over the wire."""

from datetime import date, datetime

from pydantic import BaseModel, Field

from firm_footing.api.balls.schemas import MovedOut
from firm_footing.api.wire import In, Out, Truth
from firm_footing.core.coaching.ladder import Result, Said
from firm_footing.core.coaching.practice import What
from firm_footing.core.coaching.retest import Direction, State
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge.coaching import Dose
from firm_footing.core.knowledge.pressure import SwingEvent
from firm_footing.core.knowledge.vocabulary import Stage
from firm_footing.store.tables import Outcome


class RepetitionIn(In):
    """One repetition of a drill."""

    drill: str = Field(examples=["club_under_heel"])
    result: Result
    real: Truth = Field(False, description="Judged in the real swing, not in a rehearsal")


class RepetitionOut(Out):
    """A kept repetition."""

    id: str
    drill: str
    result: Result
    real: bool
    done_at: datetime


class LadderOut(Out):
    """Where the ladder of the chosen drill stands."""

    steps: list[Dose]
    at: int = Field(description="The step it stands on, from 0")
    in_a_row: int = Field(description="Passes, or fails when negative, on this step")
    said: Said
    passes: int = Field(description="In this lesson")
    fails: int
    before: int = Field(0, description="Repetitions of the last lesson that it goes on from")


class CardOut(BaseModel):
    """A drill that serves the cause, or one that is kept back and why."""

    drill: str
    pros: list[str] = Field(description="What speaks for it here")
    cons: list[str] = Field(description="What speaks against it here")
    cautions: list[str] = Field(description="That go with it beyond the general ones")
    withheld: str | None
    instead: str | None = Field(description="A drill that replaces a withheld one")


class SetupChangeOut(Out):
    """A set-up that is off, the drill that changes it, and the balls hit with the change."""

    check: str
    drill: str | None
    balls: int
    wanted: int
    tried: bool


class CoachingOut(BaseModel):
    """What to drill and how to say it."""

    cause: str = Field(description="Decided on; else the one to start with")
    decided: bool
    cards: list[CardOut]
    without_a_drill: str = Field(description="What is left to do where no card serves; else empty")
    ladder: LadderOut | None = Field(description="Of the chosen drill")
    cues: list[str]
    next_in_line: str | None = Field(description="The cause that comes after this one is held")
    cautions: list[str]
    setup_changes: list[SetupChangeOut] = Field(
        description="Set-up looks that were answered yes: change that before any foot drill"
    )


class MovedMeasureOut(Out):
    """A mean, or a share, before and after."""

    before: float
    after: float
    by: float
    se: float
    p_value: float
    direction: Direction


class ComparedOut(BaseModel):
    """One measure of baseline and retest; of a share 1 for a ball that counts, 0 for another."""

    name: str = Field(description="Id of the measure")
    word: str = Field(description="What it is called")
    share: bool = Field(description="Whether balls are counted")
    before: tuple[float, ...]
    after: tuple[float, ...]
    first: tuple[float, ...] = Field(description="Balls of the first lesson; empty in it")
    change: MovedMeasureOut | None
    predicted: float | None
    sure: bool = Field(description="More than chance, all measures counted together")
    shown_before: float | None = Field(description="As it is read everywhere; null without balls")
    shown_after: float | None
    about: bool = Field(description="Worked out from words, so only about so much")


class RetestResultOut(Out):
    """Where the retest stands."""

    state: State
    real_at: int | None
    more: int | None


class LaidOut(BaseModel):
    """Swings of one time as one line, about impact."""

    t_s: list[float]
    lead_pct: list[float]
    sd_pct: list[float] = Field(description="Empty for a single swing")
    swings: int


class ShareOut(Out):
    """The lead share at one event."""

    event: SwingEvent
    before: float
    after: float
    sure: bool


class TracesComparedOut(BaseModel):
    """Swings on the mat before and after; signs by id."""

    before: LaidOut
    after: LaidOut
    events: dict[SwingEvent, float]
    shares: list[ShareOut]
    gone: list[str]
    still: list[str]
    new: list[str]


class TargetOut(Out):
    """Where one ball of a block with targets of its own goes; bearing + to the push side."""

    bearing_deg: float
    carry_pct: float


class RetestOut(BaseModel):
    """Baseline and retest of one club."""

    club: str
    measures: list[ComparedOut]
    primary: str
    fixed: bool
    result: RetestResultOut | None
    headline: str = Field(description="What there is to say first, in a sentence")
    more: list[str] = Field(description="The rest, a sentence each")
    since_first: str = Field(description="What changed since the first lesson; may be empty")
    chosen_late: str = Field(description="That the measure was chosen after the first ball, or ''")
    level: float = Field(description="How often an unchanged student would be called changed")
    power: float = Field(
        description="How often a half mended student would be called better by this measure"
    )
    balls: int = Field(description="Of the retest that `power` is told for")
    setup_only: bool = Field(description="An event is so near that only set-up is changed")
    traces: TracesComparedOut | None = Field(description="Null without swings on both sides")


class DayOut(BaseModel):
    """One day of the plan."""

    on: date
    what: What
    minutes: int
    balls: int


class SheetOut(BaseModel):
    """The page as it would be printed."""

    cause_id: str
    miss: str
    cause: str
    cue: str
    corrections: list[str]
    thought: str
    rescue: str = Field(description="For one ball, when the miss comes back; may be empty")
    rehearsal: str | None
    ball_drill: str | None
    days: list[DayOut]
    home_work: list[str] = Field(description="For what is stiff")
    cautions: list[str]
    minutes: int = Field(description="Of practice on a day")
    check_in: date


class FollowUpOut(Out):
    """What is asked after a lesson, and what came back."""

    due_on: date
    practised: int | None
    passes: int | None
    course: str
    verdict: Outcome | None
    answered_at: datetime | None


class DueOut(BaseModel):
    """A lesson whose student is due a word."""

    lesson_id: str
    student_id: str
    student_name: str
    handedness: Handedness
    cause: str | None
    due_on: date
    late: bool


class ClockIn(In):
    """Seconds spent in a stage since the last word."""

    stage: Stage
    seconds: float = Field(strict=True, gt=0, le=600)
    now_in: Stage | None = Field(None, description="Where the lesson is now; left out: the same")


class ClockOut(BaseModel):
    """Time of a lesson, by stage."""

    used_s: dict[str, float]
    planned_min: dict[str, int]
    minutes: int
    keep_for_retest: int


class StripOut(Out):
    """One matter in one lesson, for a drawing along time."""

    value: float
    se: float | None = Field(description="Standard error; null with one measurement")
    balls: list[float] = Field(description="As each was noted; empty where worked out")


class StepOut(BaseModel):
    """One lesson of a student, in short."""

    lesson_id: str
    started_at: datetime
    clubs: list[str] = Field(description="Of the baseline")
    values: dict[str, float] = Field(description="The baseline's pattern")
    moved: list[MovedOut] = Field(
        description="Against the newest earlier baselines with the same clubs"
    )
    strips: dict[str, StripOut] = Field(
        description="Low point, strike, face, dispersion, lead share at impact: what is known"
    )
    signs: list[str] = Field(description="Signs of the traces made without a drill")
    cause: str | None
    verdict: Outcome | None
    drill: str | None
    passes: int


class ProgressOut(BaseModel):
    """A student's lessons along time, the first one first."""

    steps: list[StepOut]
    overall: list[MovedOut] = Field(
        description="The newest baseline against the first ones with the same clubs"
    )
