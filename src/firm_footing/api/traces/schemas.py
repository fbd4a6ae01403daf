"""Pressure traces, as they go over the wire. Shares in per cent, times in seconds."""

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field, StringConstraints

from firm_footing.api.changes.schemas import WasWhole
from firm_footing.api.tables.schemas import BadRowOut, TableText
from firm_footing.api.wire import In, Out, Truth
from firm_footing.core.case.base import Number
from firm_footing.core.case.limits import SAMPLES
from firm_footing.core.knowledge.pressure import SwingEvent
from firm_footing.core.knowledge.vocabulary import Answer, Source
from firm_footing.core.pressure.events import How
from firm_footing.core.pressure.measures import MatForce, Style

TraceName = Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)]
ColumnName = Annotated[str, StringConstraints(min_length=1, max_length=40)]


class SamplesIn(In):
    """A trace as a device records it; feet are lead and trail, impact at zero if not named."""

    columns: Annotated[
        tuple[ColumnName, ...],
        Field(min_length=2, max_length=12, examples=[("t", "lead_pct")]),
    ] = ("t", "lead_pct")
    samples: Annotated[
        tuple[tuple[Number | None, ...], ...],
        Field(max_length=SAMPLES, examples=[((-1.1, 52.0), (-1.09, 52.5))]),
    ] = ()
    events: dict[SwingEvent, Number] = Field(default_factory=dict)
    typed_pct: dict[SwingEvent, Annotated[float, Field(ge=0, le=100)]] = Field(
        default_factory=dict,
        description="In place of samples: lead shares read off a mat's own screen, at events",
    )


class TraceIn(In):
    """A trace to keep."""

    recorded: SamplesIn
    block_id: str | None = Field(None, description="Left out: a swing without a drill")
    name: TraceName = ""


class TraceChange(In):
    """New values; what is left out stays."""

    events: dict[SwingEvent, Number] | None = Field(
        None, description="All events that are named; the others are estimated"
    )
    swapped: Truth | None = Field(None, description="The feet were recorded the wrong way round")
    block_id: str | None = None
    name: TraceName | None = None
    was: WasWhole = None


class TraceText(In):
    """A table of samples as text; `columns`: what each holds, where that was chosen."""

    text: TableText
    columns: Annotated[tuple[str | None, ...], Field(max_length=200)] | None = None


class RemarkOut(Out):
    """Something about the samples; row from 0, null for all of them."""

    row: int | None
    text: str


class TracePreview(BaseModel):
    """What is in a table of samples; nothing is kept yet."""

    recorded: SamplesIn | None = Field(description="Null while it is not said what columns hold")
    headings: list[str]
    columns: list[str | None] = Field(description="What each column holds; null: not read")
    fields: dict[str, str] = Field(description="All that a column may hold, in words")
    rows: list[list[str]] = Field(description="The first rows, as they are written")
    count: int
    rate_hz: float | None
    seconds: float | None
    problem: str | None = Field(description="Why it cannot be read as a swing; null when it can")
    bad: list[BadRowOut]
    ignored: list[str] = Field(description="Columns that are not read")
    remarks: list[RemarkOut]
    maybe_swapped: bool


class EventOut(Out):
    """A moment of the swing."""

    t_s: float
    how: How
    sd_s: float = Field(description="Standard deviation")


class EventsOut(Out):
    """Every moment of the swing."""

    address: EventOut
    shaft_level_back: EventOut
    lead_arm_level_back: EventOut
    top: EventOut
    lead_arm_level_down: EventOut
    shaft_level_down: EventOut
    impact: EventOut
    finish: EventOut


class RangeOut(BaseModel):
    """What a school calls sound."""

    low: float
    high: float


class SignOut(Out):
    """A sign, and where it happens."""

    id: str
    clear: float = Field(description="Probability that it is there")
    there: bool
    t_s: float
    words: str


class AnswerOfTrace(BaseModel):
    """What a trace says of a check."""

    check_id: str
    share: float = Field(description="Probability that the fact is so, the device apart")
    answer: Answer | None = Field(description="As a word; null when it says nothing clear")
    otherwise: list[Source] = Field(description="Sources by hand that clearly say the opposite")


class MomentOut(Out):
    """A value and when it was reached."""

    t_s: float
    value: float


class PeakOut(BaseModel):
    """The peak of a force: sideways and up in per cent of body weight, turning in N m."""

    force: MatForce
    t_s: float
    value: float


class ToeOut(BaseModel):
    """The highest toe share of a foot in a phase, while it carried its load."""

    foot: str
    phase: str
    value: float


class LoopOut(Out):
    """Where the trace crosses itself."""

    first_s: float
    again_s: float
    lead_pct: float
    toe_pct: float


class MeasuresOut(BaseModel):
    """One swing, measured."""

    lead_pct: dict[SwingEvent, float]
    deviation_pct: dict[SwingEvent, float] = Field(description="From the corridor, 0 within")
    press_before_start_pct: float | None
    trail_peak: MomentOut
    shift_start_s: float
    shift_from_top_s: float = Field(description="+ after the top")
    recentred_pct: float
    lead_peak: MomentOut
    retreat_pct: float
    toes: list[ToeOut]
    heel_up_s: dict[str, float]
    peaks: list[PeakOut] = Field(description="Of the forces that were recorded, as they came")
    path_ratio: float | None
    loop: LoopOut | None
    style: Style


class CurveOut(BaseModel):
    """The trace in even steps; null where not recorded."""

    t_s: list[float]
    lead_pct: list[float]
    lead_toe_pct: list[float | None] | None
    trail_toe_pct: list[float | None] | None
    vertical_pct_bw: list[float | None] | None
    lateral_pct_bw: list[float | None] | None
    torque_nm: list[float | None] | None


class TraceReadOut(BaseModel):
    """A trace, read and judged by the corridor in force."""

    curve: CurveOut
    rate_hz: float
    events: EventsOut
    corridor: dict[SwingEvent, RangeOut]
    corridor_of: str = Field(description="The pressure school")
    corridor_drill: str | None = Field(description="The drill in force, when it has its own")
    measures: MeasuresOut
    signs: list[SignOut]
    answers: list[AnswerOfTrace]
    a_style: bool = Field(description="Falls back with sound contact: a style, not a fault")
    remarks: list[RemarkOut]
    maybe_swapped: bool


class TraceOut(BaseModel):
    """A kept trace."""

    id: str
    block_id: str | None
    name: str
    counts: bool = Field(description="Made without a drill: counts toward the diagnosis")
    typed: bool = Field(description="A few shares read off a mat's screen, no samples")
    recorded_at: datetime
    swapped: bool
    named: list[SwingEvent] = Field(description="Events that were named, not estimated")
    read: TraceReadOut | None
    problem: str | None = Field(description="Why it cannot be read")


class TogetherOut(BaseModel):
    """Several swings without a drill, laid over each other at impact."""

    t_s: list[float]
    mean_pct: list[float]
    sd_pct: list[float]
    odd: str | None = Field(description="Id of the swing that differs most; null where none does")


class TracesOut(BaseModel):
    """All traces of a lesson."""

    traces: list[TraceOut]
    together: TogetherOut | None
