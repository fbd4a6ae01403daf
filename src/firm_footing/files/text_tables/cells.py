"""What does one cell say? A number as people write it, with its side and its unit."""

import re
from collections.abc import Iterable
from typing import Final, NamedTuple

_SIDE = r"left|right|heel|toe|low|high|l|r"
_CELL = re.compile(
    rf"^\(?\s*(?P<before>{_SIDE})?\s*(?P<number>[+\-−–]?\s*[\d.,'\s]*\d)\s*"
    rf"(?P<unit>°|º|[a-z]+/[a-z]+|(?!(?:{_SIDE})\b)[a-z]+)?\.?\s*(?P<after>{_SIDE})?\s*\)?$",
    re.IGNORECASE,
)
_NEGATIVE: Final = {"l", "left", "heel", "low"}
_BROKEN_BY_COMMA = re.compile(r"\d,\d{1,2}(?!\d)|\d,\d{4}")
_BROKEN_BY_POINT = re.compile(r"\d\.\d{1,2}(?!\d)|\d\.\d{4}")
_EMPTY = {"", "-", "--", "—", "–", "n/a", "na", "nan", "null", "none", ".", "x"}


class Cell(NamedTuple):
    """A number as it stands.

    number : with the sign it is written with
    side : the word it stands with, '' without one: 'left', 'r', 'heel'
    unit : as written, '' without one
    """

    number: float
    side: str
    unit: str

    @property
    def signed(self) -> float:
        """'12 L' is minus 12, '3 R' plus 3, '9 heel' minus 9; else as it is written."""
        if not self.side:
            return self.number
        return -abs(self.number) if self.side in _NEGATIVE else abs(self.number)


def is_empty(cell: str) -> bool:
    """Whether nothing was measured."""
    return cell.strip().casefold() in _EMPTY


def read_cell(text: str, decimal_comma: bool) -> Cell | None:
    """The number in a cell, None where there is none."""
    found = _CELL.match(text.strip())
    if found is None:
        return None
    plain = re.sub(r"[\s']", "", found["number"]).replace("−", "-").replace("–", "-")
    plain = plain.replace(".", "").replace(",", ".") if decimal_comma else plain.replace(",", "")
    try:
        number = float(plain)
    except ValueError:
        return None
    side = (found["before"] or found["after"] or "").casefold()
    return Cell(number, side, (found["unit"] or "").casefold())


def has_decimal_comma(cells: Iterable[str]) -> bool:
    """Whether commas part whole from broken numbers in a table; thousands come in threes."""
    commas = points = 0
    for cell in cells:
        if "," in cell:
            commas += bool(_BROKEN_BY_COMMA.search(cell))
        if "." in cell:
            points += bool(_BROKEN_BY_POINT.search(cell))
    return commas > points
