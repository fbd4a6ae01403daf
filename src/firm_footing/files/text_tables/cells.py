"""What does one cell say? Numbers with decimal points or commas, with a side before or behind."""

import re
from collections.abc import Iterable

_CELL = re.compile(
    r"^(?P<before>[LRlr])?\s*(?P<number>[+\-−]?\s*[\d.,'\s]*\d)\s*(?P<after>[LRlr]|right|left)?$"
)
_BROKEN_BY_COMMA = re.compile(r"\d,\d{1,2}(?!\d)|\d,\d{4}")
_BROKEN_BY_POINT = re.compile(r"\d\.\d{1,2}(?!\d)|\d\.\d{4}")
_EMPTY = {"", "-", "--", "—", "n/a", "na", "nan", "null", "none", "."}


def is_empty(cell: str) -> bool:
    """Whether nothing was measured."""
    return cell.strip().casefold() in _EMPTY


def number_of(cell: str, decimal_comma: bool) -> float | None:
    """The number in a cell, None where there is none; '12L' is minus 12, '3 R' plus 3."""
    found = _CELL.match(cell.strip())
    if found is None:
        return None
    text = re.sub(r"[\s']", "", found["number"]).replace("−", "-")
    text = text.replace(".", "").replace(",", ".") if decimal_comma else text.replace(",", "")
    try:
        number = float(text)
    except ValueError:
        return None
    side = (found["before"] or found["after"] or "").casefold()[:1]
    return -abs(number) if side == "l" else abs(number) if side == "r" else number


def has_decimal_comma(cells: Iterable[str]) -> bool:
    """Whether commas part whole from broken numbers in a table; thousands come in threes."""
    commas = points = 0
    for cell in cells:
        if "," in cell:
            commas += bool(_BROKEN_BY_COMMA.search(cell))
        if "." in cell:
            points += bool(_BROKEN_BY_POINT.search(cell))
    return commas > points
