"""Which balls are in a table, once it is agreed what its columns hold?

Rows that hold none are said, with the reason; the others are kept.
"""

import re
from collections.abc import Sequence
from typing import Any, NamedTuple

from pydantic import ValidationError

from firm_footing.core.case import FileShot, Shot, neutral_shot
from firm_footing.core.case.file_format import FileUnits
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.shot_tables.columns import FIELDS, OWN_UNIT, UNITS, Column, Field
from firm_footing.files.text_tables.cells import is_empty, number_of
from firm_footing.files.text_tables.table import Table

_SUMMARY = re.compile(r"^(average|avg|mean|median|std|stdev|standard|min|max|total|consistency)\b")


class BadCell(NamedTuple):
    """Why a row was not taken.

    line : in the text, from 1
    heading, cell : where and what; '' where it is the whole row
    """

    line: int
    heading: str
    cell: str
    reason: str


class Ball(NamedTuple):
    """One ball.

    key : the row as it stands, to know the same ball again
    club : None where the table names none
    """

    line: int
    key: str
    club: str | None
    shot: Shot


class Read(NamedTuple):
    """What was read of a table."""

    balls: tuple[Ball, ...]
    bad: tuple[BadCell, ...]


class _CellError(ValueError):
    def __init__(self, heading: str, cell: str, reason: str) -> None:
        super().__init__(reason)
        self.heading, self.cell, self.reason = heading, cell, reason


def balls_of(
    table: Table, columns: Sequence[Column], hand: Handedness, knowledge: Knowledge
) -> Read:
    """Every row as a ball, or why it is none.

    columns : one for every heading, in its order; `ValueError` otherwise
    """
    if [c.heading for c in columns] != list(table.headings):
        raise ValueError("the columns do not fit the headings of the table")
    balls, bad = [], []
    for line, cells in table.rows:
        if _SUMMARY.match(cells[0].casefold()):
            bad.append(BadCell(line, "", cells[0], "a summary, not a ball"))
            continue
        try:
            balls.append(_ball(line, cells, columns, table.decimal_comma, hand, knowledge))
        except _CellError as error:
            bad.append(BadCell(line, error.heading, error.cell, error.reason))
    return Read(tuple(balls), tuple(bad))


def _ball(
    line: int,
    cells: Sequence[str],
    columns: Sequence[Column],
    decimal_comma: bool,
    hand: Handedness,
    knowledge: Knowledge,
) -> Ball:
    values: dict[str, Any] = {}
    said: dict[str, tuple[str, str]] = {}
    for column, cell in zip(columns, cells, strict=True):
        if column.field is None or is_empty(cell):
            continue
        values[column.field] = _value(column, cell, decimal_comma, knowledge)
        said[column.field] = column.heading, cell
    club = values.pop("club", None)
    if not values:
        raise _CellError("", "", "nothing in it that can be used")
    try:
        shot = FileShot.model_validate(values)
    except ValidationError as error:
        first = error.errors()[0]
        heading, cell = said[str(first["loc"][0])]
        raise _CellError(heading, cell, _plain(first["msg"])) from error
    return Ball(line, "\t".join(cells), club, neutral_shot(shot, hand, FileUnits()))


def _value(column: Column, cell: str, decimal_comma: bool, knowledge: Knowledge) -> Any:
    field = FIELDS[column.field or ""]
    if field.id == "club":
        club = club_of(cell, knowledge)
        if club is None:
            raise _CellError(column.heading, cell, "no club is called this")
        return club
    if field.kind == "word":
        return re.sub(r"[\s-]+", "_", cell.casefold())
    if field.kind == "yes_no":
        answer = {"true": True, "yes": True, "1": True, "false": False, "no": False, "0": False}
        if cell.casefold() not in answer:
            raise _CellError(column.heading, cell, "neither yes nor no")
        return answer[cell.casefold()]
    return _measured(field, column, cell, decimal_comma)


def _measured(field: Field, column: Column, cell: str, decimal_comma: bool) -> float:
    number = number_of(cell, decimal_comma)
    if number is None:
        raise _CellError(column.heading, cell, "not a number")
    units = UNITS[field.kind]
    scale = units[column.unit or OWN_UNIT[field.id]]
    own = OWN_UNIT[field.id] if field.kind == "small_length" else next(iter(units))
    value = round(number * scale / units[own], 4) if scale != units[own] else number
    return -value if column.positive in ("left", "heel") else value


def club_of(text: str, knowledge: Knowledge) -> str | None:
    """The club that is meant: an id, its name, '7 Iron', 'Iron 7', 'Pitching Wedge'."""
    plain = re.sub(r"[^a-z0-9]", "", text.casefold())
    names = {re.sub(r"[^a-z0-9]", "", c.name.casefold()): c.id for c in knowledge.clubs}
    by_id = {c.id: c.id for c in knowledge.clubs}
    turned = re.sub(r"^([a-z]+)(\d)$", r"\2\1", plain)
    for way in (plain, turned):
        if way in by_id or way in names:
            return by_id.get(way) or names[way]
    return None


def _plain(message: str) -> str:
    return message[:1].lower() + message[1:].replace("Input should be ", "should be ")
