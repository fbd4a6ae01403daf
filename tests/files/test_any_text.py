"""Whatever the text, a reader answers with a table, a case or a sentence, and soon."""

import json
from collections.abc import Callable
from typing import TypeVar

from hypothesis import given
from hypothesis import strategies as st

from firm_footing.core.knowledge import Knowledge
from firm_footing.files.case_files import BadCaseError, parse_case
from firm_footing.files.plain_json import BadJsonError, read_json
from firm_footing.files.text_tables import TableError, read_table
from firm_footing.files.trace_tables import read_trace_table

PARTS = [
    "Carry", "t", "lead_pct", "(", "[", "yds)", ",", ";", "\t", "\n", '"', "1,5", "12.4 R", "-",
    "\x00", "9 heel", "1e400", "[" * 300, "x" * 1500, "\ud800", "٣", " ",
]  # fmt: skip
TEXTS = st.lists(st.sampled_from(PARTS), max_size=60).map("".join) | st.text(max_size=300)
T = TypeVar("T")
WRONG = (TableError, BadCaseError, BadJsonError)


def read(reader: Callable[[], T]) -> tuple[T | None, str]:
    """What is read, or what is said instead."""
    try:
        return reader(), ""
    except WRONG as error:
        return None, str(error) or repr(error)


@given(TEXTS)
def test_a_table_of_balls_or_a_sentence(text: str) -> None:
    table, said = read(lambda: read_table(text))
    if table is None:
        assert said.endswith((".", "?"))
    else:
        assert len({len(cells) for _, cells in table.rows} | {len(table.headings)}) == 1


@given(TEXTS)
def test_a_trace_or_a_sentence(text: str) -> None:
    found, said = read(lambda: read_trace_table(text, "right"))
    if found is None:
        assert said.endswith((".", "?"))
    else:
        assert all(len(row) == len(found.trace.columns) for row in found.trace.samples)


@given(st.binary(max_size=200) | TEXTS.map(lambda t: t.encode("utf-8", "surrogatepass")))
def test_a_case_or_where_it_is_wrong(knowledge: Knowledge, data: bytes) -> None:
    case, said = read(lambda: parse_case(data, knowledge))
    assert case is None
    assert ": " in said
    assert "; " in said


@given(st.recursive(st.none() | st.booleans() | st.floats(allow_nan=False) | st.text(), st.lists))
def test_good_json_is_read_as_it_is(value: object) -> None:
    found, said = read(lambda: read_json(json.dumps(value).encode()))
    if said:
        assert "half a character" in said or "not a number" in said
    else:
        assert found == value
