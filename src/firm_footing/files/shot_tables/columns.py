"""Which column holds what, in which unit, and to which side is it positive?"""

import hashlib
from collections.abc import Mapping
from typing import Final, Literal

import numpy as np
from pydantic import BaseModel, ConfigDict

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.shot_tables.headings import (
    FIELDS,
    UNITS,
    Field,
    fields_of,
    named_unit,
    words_and_unit,
)
from firm_footing.files.text_tables.cells import read_cell
from firm_footing.files.text_tables.table import Table

Positive = Literal["right", "left", "toe", "heel"]

OWN_UNIT: Final = {
    f.id: f.id[-2:] if f.kind == "small_length" else next(iter(UNITS[f.kind]), "")
    for f in FIELDS.values()
}
"""Unit of each field where the heading names none and the numbers tell none."""

USUALLY_POSITIVE: Final[dict[str, Positive | None]] = {"target": "right", "face": "toe", "": None}
CLEARLY_AGAINST, LEAST_BALLS = -0.6, 5
"""Correlation and number of balls from which a sign is turned."""


class Column(BaseModel):
    """What one column holds; `field` None leaves it out.

    positive : which side positive numbers lie on, for fields that have a side
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    heading: str
    field: str | None = None
    unit: str = ""
    positive: Positive | None = None


def fingerprint(table: Table) -> str:
    """The same for every table with these headings and units."""
    both = zip(table.headings, table.units, strict=True)
    text = "\n".join(f"{heading.casefold()} [{unit}]" for heading, unit in both)
    return hashlib.sha256(text.encode()).hexdigest()[:32]


def guess(table: Table, knowledge: Knowledge, club: str | None = None) -> tuple[Column, ...]:
    """What each column most likely holds; no field is given twice.

    club : that the balls were most likely hit with, for units that nothing names
    """
    both = zip(table.headings, table.units, strict=True)
    wanted = [
        (fits, column, field)
        for column, (heading, unit) in enumerate(both)
        for fits, field in fields_of(heading, named_unit(unit))
        if _looks_like(FIELDS[field], table, column)
    ]
    of: dict[int, str] = {}
    for _, column, field in sorted(wanted, key=lambda w: (-w[0], w[1])):
        if column not in of and field not in of.values():
            of[column] = field
    return _with_signs(
        table,
        [
            Column(
                heading=heading,
                field=of.get(i),
                unit=unit_of(of.get(i), table, i, knowledge, club),
                positive=USUALLY_POSITIVE[FIELDS[of[i]].sided] if i in of else None,
            )
            for i, heading in enumerate(table.headings)
        ],
    )


def numbers_in(table: Table, column: int) -> list[float]:
    """What of a column can be read as numbers."""
    found = (read_cell(cells[column], table.decimal_comma) for _, cells in table.rows)
    return [cell.signed for cell in found if cell is not None]


def unit_of(
    field: str | None,
    table: Table,
    column: int,
    knowledge: Knowledge,
    club: str | None = None,
) -> str:
    """The unit that the heading or the row below it names; else the one that makes sense.

    Of a column that is left out, the unit named, so that it is there when the column is taken in.
    """
    heading, below = table.headings[column], table.units[column]
    named = named_unit(below) or words_and_unit(heading)[1]
    if field is None:
        return named if any(named in units for units in UNITS.values()) else ""
    units = UNITS[FIELDS[field].kind]
    return (
        named if named in units else _sensible_unit(FIELDS[field], table, column, knowledge, club)
    )


def _looks_like(field: Field, table: Table, column: int) -> bool:
    """Whether the cells are of the kind: numbers for numbers, words for words."""
    filled = [cells[column] for _, cells in table.rows if cells[column]]
    numbers = numbers_in(table, column)
    if field.kind in ("word", "yes_no"):
        return len(numbers) < len(filled) or field.id == "club"
    return not filled or len(numbers) >= 0.5 * len(filled)


def _sensible_unit(
    field: Field, table: Table, column: int, knowledge: Knowledge, club: str | None
) -> str:
    """The unit in which most of the numbers can be; of several, one of the system used beside it.

    Where nothing else tells, metres and, of the speeds, miles an hour before kilometres.
    """
    units, own = UNITS[field.kind], OWN_UNIT[field.id]
    numbers = np.abs(numbers_in(table, column))
    ranges = knowledge.plausible
    kind = None if club is None else knowledge.club[club].kind
    span = ranges.widest(field.id) if kind is None else ranges.span(field.id, kind)
    if len(units) < 2 or span is None or not len(numbers):
        return own
    own_numbers = {unit: numbers * scale / units[own] for unit, scale in units.items()}
    share = {u: np.mean((n >= span[0]) & (n <= span[1])) for u, n in own_numbers.items()}
    likely = [unit for unit in units if share[unit] == max(share.values())]
    beside = _systems(table)
    usual = [own, "ft" if field.id == "apex" else "yd", "mph", *units]
    return min(likely, key=lambda unit: (unit not in beside, usual.index(unit)))


IMPERIAL: Final = {"mph", "yd", "ft", "in"}
METRIC: Final = {"m/s", "km/h", "m", "cm", "mm"}


def _systems(table: Table) -> set[str]:
    """Units of the system in which other columns are named."""
    named = {
        named_unit(below) or words_and_unit(h)[1]
        for h, below in zip(table.headings, table.units, strict=True)
    }
    return IMPERIAL if named & IMPERIAL else METRIC if named & METRIC else set()


def _with_signs(table: Table, columns: list[Column]) -> tuple[Column, ...]:
    """Turn a sign that the other columns speak against.

    A ball curves to the side its axis is tilted to, and starts about where the face looks. Where
    the numbers run clearly the other way, that column is positive to the left.
    """
    at = {c.field: i for i, c in enumerate(columns) if c.field}
    signed = {field: _numbers_or_nan(table, i) for field, i in at.items() if FIELDS[field].sided}
    if "start_deg" in signed:
        _turn(columns, at, "face_deg", signed, signed["start_deg"])
    if "side" in signed and "carry" in at:
        carry = _numbers_or_nan(table, at["carry"])
        landing = np.degrees(np.arctan2(signed["side"], np.maximum(carry, 1e-9)))
        curve = landing - signed["start_deg"] if "start_deg" in signed else landing
        _turn(columns, at, "spin_axis_deg", signed, curve)
        _turn(columns, at, "curve_deg", signed, curve)
    return tuple(columns)


def _turn(
    columns: list[Column],
    at: Mapping[str, int],
    field: str,
    signed: dict[str, FloatArray],
    goes_with: FloatArray,
) -> None:
    if field not in signed:
        return
    both = np.isfinite(signed[field]) & np.isfinite(goes_with)
    if both.sum() < LEAST_BALLS or min(np.ptp(signed[field][both]), np.ptp(goes_with[both])) == 0:
        return
    if np.corrcoef(signed[field][both], goes_with[both])[0, 1] < CLEARLY_AGAINST:
        columns[at[field]] = columns[at[field]].model_copy(update={"positive": "left"})


def _numbers_or_nan(table: Table, column: int) -> FloatArray:
    found = (read_cell(cells[column], table.decimal_comma) for _, cells in table.rows)
    return np.array([np.nan if cell is None else cell.signed for cell in found])
