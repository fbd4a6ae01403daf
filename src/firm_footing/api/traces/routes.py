"""Which pressure traces are in a lesson, and what do they say?"""

from typing import Any

from fastapi import APIRouter

from firm_footing.api.context import Known, RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.tables.schemas import BadRowOut
from firm_footing.api.traces.schemas import (
    RemarkOut,
    SamplesIn,
    TraceOut,
    TracePreview,
    TracesOut,
    TraceText,
)
from firm_footing.api.traces.views import read_view, together_view
from firm_footing.core.case import Case
from firm_footing.core.inference.answers import counted_readings
from firm_footing.core.inference.trace_answers import counts, drill_in_force
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import read_pattern
from firm_footing.core.pressure.recorded import TraceError, recorded_of
from firm_footing.core.pressure.several import together
from firm_footing.core.pressure.trace import TraceRead, read_trace, with_contact
from firm_footing.files.text_tables import TableError
from firm_footing.files.trace_columns import FIELDS
from firm_footing.files.trace_tables import (
    ColumnsNeededError,
    TraceHeadings,
    read_trace_table,
    trace_headings,
)
from firm_footing.store import imports
from firm_footing.store.cases import case_of
from firm_footing.store.errors import refused
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.tables import PressureTrace

router = APIRouter(route_class=ParsedOnceRoute, tags=["traces"])
ERRORS = responses(404, 409, 422)
NOTHING = "Nothing was changed."


@router.get("/lessons/{lesson_id}/traces", summary="What the traces say", responses=ERRORS)
def read_traces(session: Store, known: Known, lesson_id: RowId) -> TracesOut:
    """Every trace, read by the corridor of the lesson's school or of the drill in force."""
    content = content_of(session, lesson_id)
    case = case_of(content)
    read = [_read(case, i, known) for i in range(len(case.traces))]
    shown = [
        _shown(row, case, i, r, known)
        for i, (row, r) in enumerate(zip(content.traces, read, strict=True))
    ]
    counted = [
        (row.id, r)
        for i, (row, r) in enumerate(zip(content.traces, read, strict=True))
        if isinstance(r, TraceRead) and counts(case, i) and not case.traces[i].typed_pct
    ]
    several = together([r for _, r in counted])
    ids = [name for name, _ in counted]
    return TracesOut(
        traces=shown, together=None if several is None else together_view(several, ids)
    )


@router.post(
    "/lessons/{lesson_id}/traces/preview", summary="What is in a table of samples", responses=ERRORS
)
def preview_trace(session: Store, known: Known, lesson_id: RowId, sent: TraceText) -> TracePreview:
    """Rows that cannot be read are said; no trace is kept, but what was chosen is remembered."""
    content = content_of(session, lesson_id)
    try:
        columns = trace_headings(sent.text, sent.columns)
        print_of = "trace " + "\n".join(columns.headings)
        kept = imports.remembered(session, print_of) if sent.columns is None else None
        if kept is not None:
            columns = trace_headings(sent.text, [c["field"] for c in kept])
        table = read_trace_table(sent.text, content.student.handedness, columns.fields)
    except ColumnsNeededError as error:
        return _preview(columns, problem=str(error))
    except TableError as error:
        hint = f"{NOTHING} A trace has a row of headings, a column of time and the feet's shares."
        raise refused(str(error), "text", hint) from error
    if sent.columns is not None:
        imports.remember(session, print_of, [{"field": f} for f in columns.fields])
    found: dict[str, Any] = {"problem": None, "remarks": []}
    try:
        recorded = recorded_of(table.trace, known.traces.recording)
        found["rate_hz"] = round(recorded.rate_hz, 1)
        found["seconds"] = round(float(recorded.t_s[-1] - recorded.t_s[0]), 2)
        found["remarks"] = [RemarkOut.model_validate(r) for r in recorded.remarks]
        school = content.lesson.school.pressure
        found["maybe_swapped"] = read_trace(table.trace, school, known).maybe_swapped
    except TraceError as error:
        found["problem"] = str(error)
    return _preview(
        columns,
        recorded=SamplesIn(
            columns=table.trace.columns,
            samples=table.trace.samples,
            events=dict(table.trace.events.items()),
        ),
        count=len(table.trace.samples),
        bad=[BadRowOut.model_validate(b) for b in table.bad],
        ignored=list(table.ignored),
        **found,
    )


def _preview(columns: TraceHeadings, **found: Any) -> TracePreview:
    usual: dict[str, Any] = {
        "recorded": None, "count": 0, "rate_hz": None, "seconds": None, "bad": [], "ignored": [],
        "remarks": [], "maybe_swapped": False,
    }  # fmt: skip
    return TracePreview(
        headings=list(columns.headings),
        columns=list(columns.fields),
        fields=FIELDS,
        rows=[list(row) for row in columns.rows],
        **usual | found,
    )


def _read(case: Case, index: int, known: Knowledge) -> TraceRead | str:
    """The trace, or why it cannot be read."""
    try:
        read = read_trace(
            case.traces[index], case.school.pressure, known, drill_in_force(case, index)
        )
    except TraceError as error:
        return str(error)
    return with_contact(read, read_pattern(case.baselines, known, case.handicap), known)


def _shown(
    row: PressureTrace, case: Case, index: int, read: TraceRead | str, known: Knowledge
) -> TraceOut:
    readable = isinstance(read, TraceRead)
    return TraceOut(
        id=row.id,
        block_id=row.block_id,
        name=row.name,
        counts=counts(case, index),
        typed=bool(case.traces[index].typed_pct),
        recorded_at=row.recorded_at,
        swapped=row.swapped,
        named=list(row.events),
        read=read_view(
            read, case.school.pressure, drill_in_force(case, index), counted_readings(case), known
        )
        if isinstance(read, TraceRead)
        else None,
        problem=None if readable else str(read),
    )
