"""Which pressure trace is in a table of samples? Any mat's or plate's, as long as it says so.

Feet may be called lead and trail, or left and right; shares in per cent, or both feet in kilograms.
Cells that hold no number are said with row and reason; the others are kept.
"""

import math
import re
from collections.abc import Sequence
from typing import Final, NamedTuple

from firm_footing.core.case import Trace
from firm_footing.core.case.limits import SAMPLES
from firm_footing.core.frame import Handedness, neutral_feet
from firm_footing.core.knowledge.pressure import SWING_EVENTS
from firm_footing.core.pressure.recorded import COLUMNS
from firm_footing.files.text_tables import TableError, read_table
from firm_footing.files.text_tables.cells import is_empty
from firm_footing.files.trace_columns import guess

SHOWN_ROWS: Final = 3

_EVENT: Final = "event"


class BadSample(NamedTuple):
    """Why a cell or a row was not taken; line in the text, from 1."""

    line: int
    heading: str
    cell: str
    reason: str


class TraceTable(NamedTuple):
    """A trace and what could not be read of it.

    ignored : headings of columns that were not read
    """

    trace: Trace
    bad: tuple[BadSample, ...]
    ignored: tuple[str, ...]


class ColumnsNeededError(TableError):
    """The table has samples, but nobody has said what its columns hold."""


class TraceHeadings(NamedTuple):
    """The columns of a table: what they are called, what they hold (None: not read), some rows."""

    headings: tuple[str, ...]
    fields: tuple[str | None, ...]
    rows: tuple[tuple[str, ...], ...]


def trace_headings(text: str, fields: Sequence[str | None] | None = None) -> TraceHeadings:
    """The columns as they are understood, or as they were said to be; TableError without any."""
    table = read_table(text, "samples", SAMPLES)
    rows = tuple(tuple(cells) for _, cells in table.rows[:SHOWN_ROWS])
    return TraceHeadings(table.headings, _fields(table.headings, table.units, fields), rows)


def read_trace_table(
    text: str, hand: Handedness, fields: Sequence[str | None] | None = None
) -> TraceTable:
    """The trace in a text; left and right become lead and trail by the student's hand.

    fields : what each column holds, where that was said; see `trace_columns.FIELDS`

    Raises
    ------
    ColumnsNeededError
        There is no column of time or of the feet's shares.
    TableError
        There are no headings or no samples.

    """
    table = read_table(text, "samples", SAMPLES)
    said = _fields(table.headings, table.units, fields)
    plain = [field or f"column {i}" for i, field in enumerate(said)]  # not read
    feet = neutral_feet(plain, hand)
    names = tuple(n if n not in feet[:i] else f"{n} again" for i, n in enumerate(feet))
    kept = [i for i, name in enumerate(names) if name in COLUMNS]
    if not {names[i] for i in kept} & {"t", "time_ms"}:
        raise ColumnsNeededError("There is no column of time: 't' in seconds or 'time_ms'.")
    if not any(names[i].endswith(("_pct", "_kg")) and "toe" not in names[i] for i in kept):
        raise ColumnsNeededError(
            "There is no column of the feet's shares: 'lead_pct', 'left_pct' or 'right_pct', "
            "or both 'left_kg' and 'right_kg'."
        )
    event = names.index(_EVENT) if _EVENT in names else None
    samples: list[tuple[float | None, ...]] = []
    events: dict[str, float] = {}
    bad: list[BadSample] = []
    for line, cells in table.rows:
        row = _plain_numbers([cells[i] for i in kept])
        if row is None:
            row = tuple(_number(cells[i]) for i in kept)
            for i, value in zip(kept, row, strict=True):
                if value is None and not is_empty(cells[i]):
                    bad.append(BadSample(line, table.headings[i], cells[i], "not a number"))
        samples.append(row)
        if event is not None and cells[event]:
            bad += _event(line, cells[event], row, [names[i] for i in kept], events)
    columns = tuple(names[i] for i in kept)
    ignored = tuple(
        table.headings[i] for i, name in enumerate(names) if i not in kept and i != event
    )
    trace = Trace(columns=columns, samples=tuple(samples), events=events)
    return TraceTable(trace, tuple(bad), ignored)


def _fields(
    headings: tuple[str, ...], units: tuple[str, ...], said: Sequence[str | None] | None
) -> tuple[str | None, ...]:
    if said is not None and len(said) == len(headings):
        return tuple(said)
    return tuple(guess(h, u) for h, u in zip(headings, units, strict=True))


def _event(
    line: int,
    cell: str,
    row: tuple[float | None, ...],
    columns: list[str],
    events: dict[str, float],
) -> list[BadSample]:
    """Keep the moment of an event; the first row of several counts."""
    name = re.sub(r"[\s-]+", "_", cell.strip().casefold())
    if name not in SWING_EVENTS:
        known = ", ".join(SWING_EVENTS)
        return [BadSample(line, _EVENT, cell, f"no event is called this; there are {known}")]
    moment = dict(zip(columns, row, strict=True))
    t, ms = moment.get("t"), moment.get("time_ms")
    if t is None and ms is not None:
        t = ms / 1000
    if t is None:
        return [BadSample(line, _EVENT, cell, "the row has no time")]
    events.setdefault(name, t)
    return []


def _plain_numbers(cells: list[str]) -> tuple[float | None, ...] | None:
    """The usual row, read at once: nothing but numbers with decimal points; else None."""
    try:
        row = tuple(map(float, cells))
    except ValueError:
        return None
    return row if math.isfinite(sum(row)) else None


def _number(cell: str) -> float | None:
    """A number with a decimal point or comma; samples have no thousands."""
    try:
        value = float(cell)
    except ValueError:
        try:
            value = float(cell.replace(",", ".").replace("\u2212", "-"))
        except ValueError:
            return None
    return value if math.isfinite(value) else None
