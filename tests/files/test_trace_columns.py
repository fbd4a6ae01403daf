"""Headings of made-up mats, read as words; what is not understood can be said."""

import pytest

from firm_footing.core.frame import Handedness
from firm_footing.files.trace_columns import FIELDS, guess
from firm_footing.files.trace_tables import ColumnsNeededError, read_trace_table, trace_headings

HEADINGS = [
    ("t", "", "t"), ("Time (s)", "", "t"), ("Time", "ms", "time_ms"), ("msec", "", "time_ms"),
    ("Left %", "", "left_pct"), ("L %", "", "left_pct"), ("R pct", "", "right_pct"),
    ("Front", "", "lead_pct"), ("Rear", "%", "trail_pct"), ("FzL", "N", "left_kg"),
    ("FzR", "", "right_kg"), ("Left load", "kg", "left_kg"), ("Lead toe", "%", "lead_toe_pct"),
    ("Right forefoot %", "", "right_toe_pct"), ("Vertical GRF", "%", "vertical_pct_bw"),
    ("Lateral force", "", "lateral_pct_bw"), ("Mz", "Nm", "torque_nm"), ("Event", "", "event"),
    ("Battery", "", None), ("Left right", "", None),
]  # fmt: skip


@pytest.mark.parametrize(("heading", "unit", "field"), HEADINGS)
def test_a_heading_is_read_as_words(heading: str, unit: str, field: str | None) -> None:
    assert guess(heading, unit) == field
    assert field is None or field in FIELDS


def table(*headings: str) -> str:
    rows = [f"{-1 + i / 50:.2f},{50 + i % 3},{50 - i % 3}" for i in range(70)]
    return "\n".join([",".join(headings), *rows])


@pytest.mark.parametrize("hand", ["right", "left"])
def test_a_table_that_was_not_understood_is_read_once_it_is_said(hand: Handedness) -> None:
    text = table("Clock", "Plate A", "Plate B")
    assert trace_headings(text).fields == (None, None, None)
    with pytest.raises(ColumnsNeededError):
        read_trace_table(text, hand)
    read = read_trace_table(text, hand, ("t", "left_pct", "right_pct"))
    feet = ("lead_pct", "trail_pct") if hand == "right" else ("trail_pct", "lead_pct")
    assert read.trace.columns == ("t", *feet)
    assert len(read.trace.samples) == 70
    part = read_trace_table(text, hand, ("t", "lead_pct", None))
    assert part.ignored == ("Plate B",)


def test_the_loads_of_two_plates_are_understood() -> None:
    read = read_trace_table(table("Time", "FzL", "FzR"), "right")
    assert read.trace.columns == ("t", "lead_kg", "trail_kg")
