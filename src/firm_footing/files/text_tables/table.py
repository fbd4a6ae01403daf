"""Which headings and rows does a text hold?"""

import csv
import re
from dataclasses import dataclass
from functools import cached_property
from typing import Final

from firm_footing.core.case.limits import BALLS, CELL, COLUMNS
from firm_footing.files.text_tables.cells import has_decimal_comma

DELIMITERS: Final = ",;\t|"
SNIFFED: Final = 4_000
HEADING_WITHIN = 20
"""Titles and settings may stand above the headings, this many lines at most."""

_NUMBER = re.compile(r"^[+-]?\d+([.,]\d+)*$")
_UNIT = re.compile(r"^[\[(]?\s*([a-zA-Z/%°]+(?:/[a-z]+)?)\s*[\])]?$")


class TableError(ValueError):
    """The text is no table; says why."""


@dataclass(frozen=True)
class Table:
    """A table as text.

    headings : without units
    units : beside or below each heading, '' where there is none
    rows : (line in the text from 1, cells), as many cells as headings
    """

    headings: tuple[str, ...]
    units: tuple[str, ...]
    rows: tuple[tuple[int, tuple[str, ...]], ...]

    @cached_property
    def decimal_comma(self) -> bool:
        """Numbers are written 1,5 rather than 1.5."""
        return has_decimal_comma(cell for _, cells in self.rows for cell in cells)


def read_table(text: str, row: str = "balls", most: int = BALLS) -> Table:
    """Read comma, semicolon, tab or bar separated text; a byte-order mark is no matter.

    row : what a row holds, in the plural, for the errors
    most : rows that are read

    Raises
    ------
    TableError
        There is no row of headings, no row below it, or too many.

    """
    text = text.removeprefix("\ufeff")
    if not text.strip():
        raise TableError("The table is empty.")
    try:
        lines = list(csv.reader(text.splitlines(), delimiter=_delimiter(text)))
    except csv.Error as error:
        raise TableError(f"The text cannot be read as a table: {error}.") from error
    _not_too_large(lines)
    start = _heading_line(lines)
    named = [_split(cell) for cell in lines[start]]
    while named and not named[-1][0]:
        named.pop()
    headings, units = (tuple(part) for part in zip(*named, strict=True))
    width = len(headings)
    body = [
        (number, tuple(map(str.strip, (*cells, *[""] * (width - len(cells)))[:width])))
        for number, cells in enumerate(lines[start + 1 :], start + 2)
        if any(cells) and any(map(str.strip, cells))
    ]
    if body and _is_unit_row(body[0][1]):
        below = [_bare(cell) for cell in body[0][1]]
        units = tuple(a or b for a, b in zip(units, below, strict=True))
        body = body[1:]
    if not body:
        raise TableError(f"There are headings but no {row} below them.")
    if len(body) > most:
        raise TableError(f"There are {len(body)} rows; at most {most} are read at once.")
    return Table(headings, units, tuple(body))


def _not_too_large(lines: list[list[str]]) -> None:
    for number, cells in enumerate(lines, 1):
        if len(cells) > COLUMNS:
            raise TableError(f"Line {number} has {len(cells)} columns; at most {COLUMNS} are read.")
        if any(len(cell) > CELL for cell in cells):
            raise TableError(f"A cell of line {number} is longer than {CELL} characters.")


def _delimiter(text: str) -> str:
    """As the standard library sniffs it; a table of one column has none."""
    try:
        return csv.Sniffer().sniff(text[:SNIFFED], delimiters=DELIMITERS).delimiter
    except csv.Error:
        first = next((line for line in text.splitlines() if line.strip()), "")
        return max(DELIMITERS, key=first.count)


def _heading_line(lines: list[list[str]]) -> int:
    """The first line of words that has as many cells as the numbers below it."""
    for i, cells in enumerate(lines[:HEADING_WITHIN]):
        words = [c for c in cells if c.strip()]
        if not words or any(_NUMBER.match(c.strip()) for c in words):
            continue
        for below in lines[i + 1 : i + 3]:
            has_numbers = any(re.search(r"\d", c) for c in below)
            if has_numbers and len(below) >= len(words) > len(below) // 2:
                return i
    raise TableError("No row of headings was found with numbers below it.")


def _split(cell: str) -> tuple[str, str]:
    """'Carry [m]' into 'Carry' and 'm'."""
    found = re.match(r"^(.*?)\s*[\[(]([^\])]*)[\])]\s*$", cell.strip())
    return (found[1].strip(), found[2].strip()) if found and found[1] else (cell.strip(), "")


def _is_unit_row(cells: tuple[str, ...]) -> bool:
    filled = [c for c in cells if c]
    return bool(filled) and all(_UNIT.match(c) and not re.search(r"\d", c) for c in filled)


def _bare(cell: str) -> str:
    found = _UNIT.match(cell)
    return found[1] if found else ""
