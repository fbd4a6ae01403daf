"""Which balls are in a table, once it is agreed what its columns hold?

A bad cell costs that cell and is said, with the reason; what can hardly be is named apart. A row is
lost whole only where nothing is left of it, or where nobody knows its club.
"""

import re
from collections.abc import Sequence
from typing import Any, NamedTuple

from pydantic import ValidationError

from firm_footing.core.case import FileShot, Shot, neutral_shot
from firm_footing.core.case.file_format import FileUnits
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.shot_tables.columns import OWN_UNIT, Column
from firm_footing.files.shot_tables.headings import FIELDS, UNITS, Field, named_unit
from firm_footing.files.text_tables.cells import is_empty, read_cell
from firm_footing.files.text_tables.table import Table

_SUMMARY = re.compile(r"^(average|avg|mean|median|std|stdev|standard|min|max|total|consistency)\b")


class BadCell(NamedTuple):
    """Why a cell or a row was not taken.

    line : in the text, from 1
    heading, cell : where and what; '' where it is the whole row
    """

    line: int
    heading: str
    cell: str
    reason: str


class TableBall(NamedTuple):
    """One ball.

    key : the row as it stands, to know the same ball again
    club : None where the table names none
    """

    line: int
    key: str
    club: str | None
    shot: Shot


class Read(NamedTuple):
    """What was read of a table.

    doubtful : cells that can be read and can hardly be true, with what is usual
    """

    balls: tuple[TableBall, ...]
    bad: tuple[BadCell, ...]
    doubtful: tuple[BadCell, ...]


class _CellError(ValueError):
    """What is wrong with one cell."""


class _RowError(ValueError):
    def __init__(self, heading: str, cell: str, reason: str) -> None:
        super().__init__(reason)
        self.heading, self.cell, self.reason = heading, cell, reason


def balls_of(
    table: Table,
    columns: Sequence[Column],
    hand: Handedness,
    knowledge: Knowledge,
    keep_doubtful: bool = False,
    club: str = "7i",
) -> Read:
    """Every row as a ball, and what of it could not be taken.

    Parameters
    ----------
    columns : one for every heading, in its order; `ValueError` otherwise
    keep_doubtful : whether cells that can hardly be true are taken in all the same
    club : of rows that name none, for what their values can be

    """
    if [c.heading for c in columns] != list(table.headings):
        raise ValueError("the columns do not fit the headings of the table")
    reader = _TableRows(columns, table.decimal_comma, hand, knowledge, keep_doubtful, club)
    balls = []
    for line, cells in table.rows:
        if _SUMMARY.match(cells[0].casefold()):
            reader.bad.append(BadCell(line, "", cells[0], "a summary, not a ball"))
            continue
        try:
            balls.append(reader.ball(line, cells))
        except _RowError as error:
            reader.bad.append(BadCell(line, error.heading, error.cell, error.reason))
    return Read(tuple(balls), tuple(reader.bad), tuple(reader.doubtful))


class _TableRows:
    """Reads row by row; gathers what could not be taken."""

    def __init__(
        self,
        columns: Sequence[Column],
        decimal_comma: bool,
        hand: Handedness,
        knowledge: Knowledge,
        keep_doubtful: bool,
        club: str,
    ) -> None:
        self.columns, self.decimal_comma, self.hand = columns, decimal_comma, hand
        self.knowledge, self.keep_doubtful, self.club = knowledge, keep_doubtful, club
        self.bad: list[BadCell] = []
        self.doubtful: list[BadCell] = []

    def ball(self, line: int, cells: Sequence[str]) -> TableBall:
        """One row; `_RowError` where it holds no ball."""
        given = [
            (column, cell)
            for column, cell in zip(self.columns, cells, strict=True)
            if column.field is not None and not is_empty(cell)
        ]
        club = self._club(given)
        values: dict[str, Any] = {}
        for column, cell in given:
            if column.field is None or column.field == "club":
                continue
            try:
                value = _value(column, cell, self.decimal_comma)
                FileShot.model_validate({column.field: value})
            except ValidationError as error:
                said = _limit_said(error, column)
                self.bad.append(BadCell(line, column.heading, cell, said))
            except _CellError as error:
                self.bad.append(BadCell(line, column.heading, cell, str(error)))
            else:
                usual = self._hardly(column, value, club or self.club)
                if usual is not None:
                    self.doubtful.append(BadCell(line, column.heading, cell, usual))
                if usual is None or self.keep_doubtful:
                    values[column.field] = value
        if not values:
            raise _RowError("", "", "nothing in it that can be used")
        try:
            shot = neutral_shot(FileShot.model_validate(values), self.hand, FileUnits())
        except ValidationError as error:
            raise _RowError("", "", _plain(error.errors()[0]["msg"])) from error
        return TableBall(line, "\t".join(cells), club, shot)

    def _club(self, given: Sequence[tuple[Column, str]]) -> str | None:
        """The row's club; a row whose club nobody knows would go to another one's balls."""
        named = next(((c, cell) for c, cell in given if c.field == "club"), None)
        if named is None:
            return None
        club = club_of(named[1], self.knowledge)
        if club is None:
            raise _RowError(named[0].heading, named[1], "no club is called this")
        return club

    def _hardly(self, column: Column, value: Any, club: str) -> str | None:
        """Why a value can hardly be true, in the unit of its column; None where it can."""
        name, field = column.field or "", FIELDS[column.field or ""]
        span = self.knowledge.plausible.span(name, self.knowledge.club[club].kind)
        if isinstance(value, (bool, str)) or span is None or span[0] <= value <= span[1]:
            return None
        unit = column.unit or OWN_UNIT[name]
        scale = UNITS[field.kind][OWN_UNIT[name]] / UNITS[field.kind][unit]
        found, least, most = (f"{scale * number:.0f}" for number in (value, *span))
        said = unit.replace("deg", "°")
        club_name = self.knowledge.club[club].name.lower()
        return f"{found} {said}: with a {club_name} between {least} and {most} is possible"


def _limit_said(error: ValidationError, column: Column) -> str:
    """What is wrong with a value, a limit in the unit of its column."""
    first = error.errors()[0]
    context = first.get("ctx") or {}
    limit = next((context[name] for name in ("le", "lt", "ge", "gt") if name in context), None)
    if limit is None:
        return _plain(first["msg"])
    field = FIELDS[column.field or ""]
    own, unit = OWN_UNIT[field.id], column.unit or OWN_UNIT[field.id]
    scale = UNITS[field.kind][own] / UNITS[field.kind][unit]
    more = "most" if {"le", "lt"} & context.keys() else "least"
    return f"it can be {scale * limit:.0f} {unit.replace('deg', '°')} at {more}"


def _value(column: Column, cell: str, decimal_comma: bool) -> Any:
    field = FIELDS[column.field or ""]
    if field.kind == "word":
        return re.sub(r"[\s-]+", "_", cell.casefold())
    if field.kind == "yes_no":
        answer = {"true": True, "yes": True, "1": True, "false": False, "no": False, "0": False}
        if cell.casefold() not in answer:
            raise _CellError("neither yes nor no")
        return answer[cell.casefold()]
    return _measured(field, column, cell, decimal_comma)


def _measured(field: Field, column: Column, cell: str, decimal_comma: bool) -> float:
    """In the unit of a case file; a unit in the cell goes before that of its column."""
    found = read_cell(cell, decimal_comma)
    if found is None:
        raise _CellError("not a number")
    units = UNITS[field.kind]
    beside = named_unit(found.unit)
    if found.unit and beside not in units:
        raise _CellError(f"not in {found.unit}")
    scale = units[beside or column.unit or OWN_UNIT[field.id]]
    own = OWN_UNIT[field.id] if field.kind == "small_length" else next(iter(units))
    number = found.signed
    value = round(number * scale / units[own], 4) if scale != units[own] else number
    # a side that the cell names needs no agreement on the sign
    return -value if column.positive in ("left", "heel") and not found.side else value


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
