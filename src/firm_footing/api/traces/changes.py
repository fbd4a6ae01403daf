"""Which changes of traces are there? The samples never change; what is said of them can."""

from typing import Literal

from sqlmodel import Session

from firm_footing.api.changes.change import RowChange
from firm_footing.api.traces.schemas import TraceChange, TraceIn
from firm_footing.core.case import Trace
from firm_footing.core.case.samples import PackedSamples
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pressure.recorded import TraceError
from firm_footing.core.pressure.trace import read_trace
from firm_footing.store import traces
from firm_footing.store.errors import refused
from firm_footing.store.lesson_reading import content_of

NOTHING = "Nothing was changed."


class PutTrace(RowChange):
    """Keep a trace; what is no swing is refused."""

    kind: Literal["trace"]
    body: TraceIn

    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """Under the client's id, so that a repeated request keeps it once."""
        said = self.body.recorded
        if any(len(row) != len(said.columns) for row in said.samples):
            what = "A sample has not as many values as there are columns."
            raise refused(what, "samples", NOTHING)
        trace = Trace(
            columns=said.columns,
            samples=PackedSamples.of(said.samples, len(said.columns)),
            events=dict(said.events),
            typed_pct=dict(said.typed_pct),
        )
        _readable(trace, known)
        sent = self.body
        traces.put_trace(session, lesson_id, self.id, trace, sent.block_id, sent.name)


class ChangeTrace(RowChange):
    """Change a trace's events, block, name or feet; everything is computed anew."""

    kind: Literal["trace-change"]
    body: TraceChange

    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """What is left out stays."""
        values = self.body.model_dump(exclude_unset=True, exclude={"was"})
        values = {k: v for k, v in values.items() if v is not None or k == "block_id"}
        row = traces.get_trace(session, lesson_id, self.id)
        if "events" in values:
            samples = content_of(session, lesson_id).recordings[row.recording_id]
            _readable(samples.model_copy(update={"events": values["events"]}), known)
        traces.change_trace(session, lesson_id, self.id, values, self.body.was)


class DeleteTrace(RowChange):
    """Delete a trace; one already gone is no error."""

    kind: Literal["trace-gone"]

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """It can be undone."""
        traces.delete_trace(session, lesson_id, self.id)


def _readable(trace: Trace, known: Knowledge) -> None:
    """Refuse what is no swing, or events that contradict each other."""
    try:
        read_trace(trace, known.schools.pressure.default, known)
    except TraceError as error:
        raise refused(str(error), "recorded", NOTHING) from error
