"""Which column holds what, in which unit, and to which side is it positive?"""

import hashlib
import re
from typing import Final, Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict

from firm_footing.core.frame.units import METRES, METRES_A_SECOND, YARD_M
from firm_footing.files.text_tables.cells import number_of
from firm_footing.files.text_tables.table import Table

FloatArray = NDArray[np.float64]
Kind = Literal["length", "small_length", "speed", "angle", "spin", "word", "yes_no"]
Positive = Literal["right", "left", "toe", "heel"]

UNITS: Final[dict[Kind, dict[str, float]]] = {
    "length": {str(u): m for u, m in METRES.items()} | {"ft": YARD_M / 3},
    "small_length": {"mm": 0.001, "cm": 0.01, "in": YARD_M / 36, "m": 1.0},
    "speed": {str(u): v for u, v in METRES_A_SECOND.items()},
    "angle": {"deg": 1.0},
    "spin": {"rpm": 1.0},
    "word": {},
    "yes_no": {},
}
"""To metres, metres a second, degrees, turns a minute."""

KNOWN_UNITS: Final = {unit for units in UNITS.values() for unit in units}

SPELLINGS: Final = {
    "yds": "yd", "yard": "yd", "yards": "yd", "y": "yd", "meter": "m", "meters": "m", "metre": "m",
    "metres": "m", "feet": "ft", "foot": "ft", "inch": "in", "inches": "in", "kmh": "km/h",
    "km/hr": "km/h", "kph": "km/h", "mi/h": "mph", "mps": "m/s", "°": "deg", "degree": "deg",
    "degrees": "deg", "r/min": "rpm", "1/min": "rpm",
}  # fmt: skip


class Field(NamedTuple):
    """Something a column can hold.

    id : name in the case format
    said : words in a heading that mean it, each a set of words that must all be there
    sided : whether it has a side, so that a sign must be agreed
    """

    id: str
    name: str
    kind: Kind
    said: tuple[str, ...]
    sided: Literal["", "target", "face"] = ""


FIELDS: Final = {
    f.id: f
    for f in (
        Field("club", "Club", "word", ("club", "club type", "club name")),
        Field("carry", "Carry", "length", ("carry", "carry distance", "carry length")),
        Field("side", "Side at landing", "length", ("side", "carry side", "lateral", "offline",
              "side distance", "deviation"), "target"),
        Field("apex", "Apex", "length", ("apex", "height", "max height", "peak height")),
        Field("ball_speed", "Ball speed", "speed", ("ball speed", "ball velocity")),
        Field("club_speed", "Club speed", "speed", ("club speed", "club head speed",
              "clubhead speed", "swing speed", "head speed")),
        Field("launch_deg", "Launch angle", "angle", ("launch", "launch angle", "vertical launch",
              "launch vertical")),
        Field("start_deg", "Start direction", "angle", ("start", "start direction", "direction",
              "launch direction", "azimuth", "horizontal launch", "launch horizontal"), "target"),
        Field("curve_deg", "Curve", "angle", ("curve", "curvature"), "target"),
        Field("spin_rpm", "Spin", "spin", ("spin", "spin rate", "total spin", "backspin",
              "back spin")),
        Field("spin_axis_deg", "Spin axis", "angle", ("spin axis", "axis", "axis tilt",
              "spin tilt"), "target"),
        Field("path_deg", "Club path", "angle", ("path", "club path", "swing path"), "target"),
        Field("face_deg", "Face to target", "angle", ("face", "face angle", "club face",
              "face to target"), "target"),
        Field("attack_deg", "Angle of attack", "angle", ("attack", "attack angle",
              "angle of attack")),
        Field("dynamic_loft_deg", "Dynamic loft", "angle", ("dynamic loft", "loft",
              "delivered loft")),
        Field("heel_toe_mm", "Strike, heel to toe", "small_length", ("heel toe",
              "horizontal impact", "impact offset", "impact horizontal"), "face"),
        Field("low_high_mm", "Strike, low to high", "small_length", ("low high", "vertical impact",
              "impact height", "impact vertical")),
        Field("start", "Start, in a word", "word", ("start",)),
        Field("curve", "Curve, in a word", "word", ("curve",)),
        Field("contact", "Contact", "word", ("contact", "strike")),
        Field("divot_start_cm", "Divot start", "small_length", ("divot start",)),
        Field("divot_length_cm", "Divot length", "small_length", ("divot length",)),
        Field("divot_depth", "Divot depth", "word", ("divot depth",)),
        Field("divot_direction_deg", "Divot direction", "angle", ("divot direction",), "target"),
        Field("brush_start_cm", "Brush start", "small_length", ("brush start",)),
        Field("drill_ok", "Drill done right", "yes_no", ("drill ok",)),
    )
}  # fmt: skip

OWN_UNIT: Final = {
    f.id: f.id[-2:] if f.kind == "small_length" else next(iter(UNITS[f.kind]), "")
    for f in FIELDS.values()
}
"""Unit of each field where the heading names none and the numbers tell none."""


USUALLY_POSITIVE: Final[dict[str, Positive | None]] = {"target": "right", "face": "toe", "": None}
CLEARLY_AGAINST, LEAST_BALLS = -0.6, 5
"""Correlation and number of balls from which a sign is turned."""
FITS_FROM: Final = 0.75
"""How well a heading must fit: 'face to path' is neither face nor path."""


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


def guess(table: Table) -> tuple[Column, ...]:
    """What each column most likely holds; no field is given twice."""
    both = zip(table.headings, table.units, strict=True)
    wanted = [
        (fits, column, field)
        for column, (heading, unit) in enumerate(both)
        for fits, field in _fields(heading, _unit(unit))
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
                unit=_guess_unit(FIELDS[of[i]], table, i) if i in of else "",
                positive=USUALLY_POSITIVE[FIELDS[of[i]].sided] if i in of else None,
            )
            for i, heading in enumerate(table.headings)
        ],
    )


def numbers_in(table: Table, column: int) -> list[float]:
    """What of a column can be read as numbers."""
    found = (number_of(cells[column], table.decimal_comma) for _, cells in table.rows)
    return [n for n in found if n is not None]


def _fields(heading: str, unit: str) -> list[tuple[float, str]]:
    """Fields this heading may mean, with how well it fits."""
    if heading.casefold() in FIELDS:
        return [(3.0, heading.casefold())]
    words = set(re.findall(r"[a-z]+", heading.casefold())) - {"deg", "avg", "est"}
    found = []
    for field in FIELDS.values():
        fits = [set(said.split()) for said in field.said if set(said.split()) <= words]
        if fits and (unit not in KNOWN_UNITS or unit in UNITS[field.kind]):
            best = max(len(f) for f in fits)
            how_well = 2 * best / (best + len(words)) + 0.05 * best
            if how_well >= FITS_FROM:
                found.append((how_well, field.id))
    return found


def _looks_like(field: Field, table: Table, column: int) -> bool:
    """Whether the cells are of the kind: numbers for numbers, words for words."""
    filled = [cells[column] for _, cells in table.rows if cells[column]]
    numbers = numbers_in(table, column)
    if field.kind in ("word", "yes_no"):
        return len(numbers) < len(filled) or field.id == "club"
    return not filled or len(numbers) >= 0.5 * len(filled)


def _unit(text: str) -> str:
    plain = text.casefold().strip().split(",")[0].strip()
    return SPELLINGS.get(plain, plain)


def _guess_unit(field: Field, table: Table, column: int) -> str:
    """The unit named; else by the size of the numbers."""
    named = _unit(table.units[column])
    if named in UNITS[field.kind]:
        return named
    sizes = [abs(n) for n in numbers_in(table, column)]
    middle = float(np.median(sizes)) if sizes else 0.0
    if field.kind == "speed":
        slow, fast = (78.0, 175.0) if field.id == "ball_speed" else (56.0, 130.0)
        return "m/s" if middle <= slow else "mph" if middle <= fast else "km/h"
    if field.kind == "length" and field.id != "apex":
        speeds = [_unit(u) for u in table.units]
        return "yd" if "mph" in speeds or "yd" in speeds else "m"
    return OWN_UNIT[field.id]


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
    at: dict[str, int],
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
    found = (number_of(cells[column], table.decimal_comma) for _, cells in table.rows)
    return np.array([np.nan if n is None else n for n in found])
