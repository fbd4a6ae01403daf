"""Tables of samples: any delimiter, decimal sign, unit and name of a foot; bad cells are said."""

import numpy as np
import pytest

from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pressure.trace import read_trace
from firm_footing.files.text_tables import TableError
from firm_footing.files.trace_tables import read_trace_table
from tests.core.swings import MOMENTS, swing

TRACE = swing(rate_hz=100, toe=(60, 70), named=())
ROWS = np.array(TRACE.samples)


def table(headings: str, rows: np.ndarray, delimiter: str = ",", comma: bool = False) -> str:
    lines = [delimiter.join(f"{v:.3f}" for v in row) for row in rows]
    text = "\n".join([delimiter.join(headings.split(",")), *lines])
    return text.replace(".", ",") if comma else text


t, LEAD, LEAD_TOE, TRAIL_TOE = ROWS.T
DIALECTS: dict[str, tuple[str, Handedness]] = {
    "neutral": (table("t,lead_pct,lead_toe_pct,trail_toe_pct", ROWS), "right"),
    "semicolons, commas, a mark": (
        "\ufeff" + table("time_ms,lead_pct,lead_toe_pct,trail_toe_pct",
                         ROWS * (1000, 1, 1, 1), ";", True), "right"),
    "tabs and units": (
        table("Time [ms],Left [%],Left toe [%],Right toe [%]", ROWS * (1000, 1, 1, 1), "\t"),
        "right"),
    "the trail foot of a left-hander": (
        table("t,left_pct,right_toe_pct,left_toe_pct",
              np.stack([t, 100 - LEAD, LEAD_TOE, TRAIL_TOE], 1)), "left"),
    "both feet in kilograms, newest first": (
        table("t,right_kg,left_kg,left_toe_pct,right_toe_pct",
              np.stack([t, 81 - LEAD * 0.81, LEAD * 0.81, LEAD_TOE, TRAIL_TOE], 1)[::-1]),
        "right"),
    "both feet in per cent": (
        table("t,left_pct,right_pct,left_toe_pct,right_toe_pct",
              np.stack([t, LEAD, 100 - LEAD, LEAD_TOE, TRAIL_TOE], 1)), "right"),
}  # fmt: skip


@pytest.mark.parametrize("dialect", DIALECTS)
def test_every_dialect_gives_the_same_swing(dialect: str, knowledge: Knowledge) -> None:
    text, hand = DIALECTS[dialect]
    found = read_trace_table(text, hand)
    assert (found.bad, found.ignored) == ((), ())
    ours, theirs = (read_trace(x, "recentre", knowledge) for x in (TRACE, found.trace))
    assert theirs.measures.lead_pct == pytest.approx(ours.measures.lead_pct, abs=0.05)
    for most in ours.measures.toe_most:
        one, other = (r.measures.toe_most[most].value for r in (ours, theirs))
        assert other == pytest.approx(one, abs=0.05)
    assert theirs.signs == ours.signs


def test_events_stand_in_their_own_column() -> None:
    lines = table("t,lead_pct", ROWS[:, :2]).splitlines()
    lines = [lines[0] + ",event", *(line + "," for line in lines[1:])]
    lines[36] += "Address"
    lines[136] += "top"
    lines[140] += "tip"
    found = read_trace_table("\n".join(lines), "right")
    assert found.trace.events == {
        "address": pytest.approx(ROWS[35, 0]),
        "top": pytest.approx(ROWS[135, 0]),
    }
    assert MOMENTS["top"] == pytest.approx(found.trace.events["top"], abs=0.01)
    (bad,) = found.bad
    assert (bad.line, bad.heading, bad.cell) == (141, "event", "tip")
    assert "shaft_level_back" in bad.reason


def test_bad_cells_are_said_and_the_rest_is_kept(knowledge: Knowledge) -> None:
    lines = table("t,lead_pct,battery", ROWS[:, :3]).splitlines()
    lines[20] = "-1.41,slip,3"
    lines[21] = "-1.40,,3"
    lines[22] = "inf,50,3"
    found = read_trace_table("\n".join(lines), "right")
    assert [(b.line, b.heading, b.cell) for b in found.bad] == [
        (21, "lead_pct", "slip"),
        (23, "t", "inf"),
    ]
    assert found.ignored == ("battery",)
    assert len(found.trace.samples) == len(ROWS)
    assert read_trace(found.trace, "recentre", knowledge).signs == ()


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "The table is empty"),
        ("t,lead_pct\n", "No row of headings"),
        ("when,lead_pct\n1,2\n3,4\n", "no column of time"),
        ("t,club\n1,2\n3,4\n", "no column of the feet's shares"),
    ],
)
def test_what_is_no_trace_is_said(text: str, says: str) -> None:
    with pytest.raises(TableError, match=says):
        read_trace_table(text, "right")
