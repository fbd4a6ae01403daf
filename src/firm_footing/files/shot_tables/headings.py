"""Which field does a heading mean?

Headings are read as words: abbreviations in full, punctuation and capitals no matter, any order; a
slip of the pen is forgiven (`rapidfuzz`). What is none of our fields is known by its own name, so
that "face to path" is taken for neither.
"""

import re
from typing import Final, Literal, NamedTuple

from rapidfuzz import fuzz, process

from firm_footing.core.frame.units import METRES, METRES_A_SECOND, YARD_M

Kind = Literal["length", "small_length", "speed", "angle", "spin", "word", "yes_no"]

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
    "metres": "m", "mtr": "m", "feet": "ft", "foot": "ft", "inch": "in", "inches": "in",
    "kmh": "km/h", "km/hr": "km/h", "kph": "km/h", "mi/h": "mph", "mps": "m/s", "ms": "m/s",
    "°": "deg", "degree": "deg", "degrees": "deg", "º": "deg", "r/min": "rpm", "1/min": "rpm",
    "millimeters": "mm", "millimetres": "mm", "centimeters": "cm", "centimetres": "cm",
}  # fmt: skip


class Field(NamedTuple):
    """Something a column can hold.

    id : name in the case format
    said : what it is called in headings
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
        Field("club", "Club", "word", ("club", "club type", "club name", "club used")),
        Field("carry", "Carry", "length", ("carry", "carry distance", "carry length")),
        Field("side", "Side at landing", "length", ("side", "carry side", "lateral",
              "offline", "side distance", "deviation", "carry deviation", "landing side"),
              "target"),
        Field("apex", "Apex", "length", ("apex", "height", "max height", "peak height",
              "apex height")),
        Field("ball_speed", "Ball speed", "speed", ("ball speed", "ball velocity")),
        Field("club_speed", "Club speed", "speed", ("club speed", "club head speed",
              "clubhead speed", "swing speed", "head speed")),
        Field("launch_deg", "Launch angle", "angle", ("launch", "launch angle", "vertical launch",
              "vertical launch angle")),
        Field("start_deg", "Start direction", "angle", ("start", "start direction", "direction",
              "launch direction", "azimuth", "horizontal launch", "horizontal launch angle",
              "push pull", "start line", "side angle"), "target"),
        Field("curve_deg", "Curve", "angle", ("curve", "curvature"), "target"),
        Field("spin_rpm", "Spin", "spin", ("spin", "spin rate", "total spin", "backspin",
              "back spin")),
        Field("spin_axis_deg", "Spin axis", "angle", ("spin axis", "axis", "axis tilt",
              "spin tilt", "tilt axis angle"), "target"),
        Field("path_deg", "Club path", "angle", ("path", "club path", "swing path"), "target"),
        Field("face_deg", "Face to target", "angle", ("face", "face angle", "club face",
              "face to target"), "target"),
        Field("attack_deg", "Angle of attack", "angle", ("attack", "attack angle",
              "angle of attack", "vertical path")),
        Field("dynamic_loft_deg", "Dynamic loft", "angle", ("dynamic loft", "loft",
              "delivered loft")),
        Field("heel_toe_mm", "Strike, heel to toe", "small_length", ("heel toe",
              "horizontal impact", "impact offset", "strike heel toe",
              "face impact lateral", "impact location horizontal"), "face"),
        Field("low_high_mm", "Strike, low to high", "small_length", ("low high", "vertical impact",
              "impact height", "strike low high", "face impact vertical",
              "impact location vertical")),
        Field("start", "Start, in a word", "word", ("start",)),
        Field("curve", "Curve, in a word", "word", ("curve",)),
        Field("contact", "Contact", "word", ("contact", "strike")),
        Field("divot_start_cm", "Divot start", "small_length", ("divot start",)),
        Field("divot_length_cm", "Divot length", "small_length", ("divot length",)),
        Field("divot_depth", "Divot depth", "word", ("divot depth",)),
        Field("divot_direction_deg", "Divot direction", "angle", ("divot direction",), "target"),
        Field("brush_start_cm", "Brush start", "small_length", ("brush start",)),
        Field("low_point_cm", "Low point", "small_length", ("low point", "low point distance",
              "low point position")),
        Field("drill_ok", "Drill done right", "yes_no", ("drill ok",)),
    )
}  # fmt: skip


OTHERS: Final = (
    "face to path", "smash factor", "total", "total distance", "total side", "roll", "run",
    "landing angle", "descent angle", "hang time", "flight time", "swing plane", "swing direction",
    "spin loft", "closure rate", "side spin", "shot", "shot number", "date",
    "time", "player", "ball", "tempo", "distance to pin", "target distance", "score",
    "landing height", "curve distance", "lie angle", "efficiency", "temperature", "altitude",
    "dynamic lie",
)  # fmt: skip
"""Headings of what is not taken in."""

IN_FULL: Final = {
    "spd": "speed", "vel": "speed", "velocity": "speed", "dist": "distance", "dir": "direction",
    "dirn": "direction", "ang": "angle", "ax": "axis", "v": "vertical", "vert": "vertical",
    "h": "horizontal", "hor": "horizontal", "horiz": "horizontal", "lat": "lateral",
    "dyn": "dynamic", "att": "attack", "atk": "attack", "aoa": "attack angle", "la": "launch angle",
    "vla": "vertical launch angle", "hla": "horizontal launch angle", "ftp": "face to path",
    "hgt": "height", "ht": "height", "chs": "club speed", "bs": "ball speed", "max": "max",
    "lnch": "launch", "cf": "carry", "no": "number", "num": "number", "loc": "location",
    "imp": "impact", "f2p": "face to path", "clubhead": "club head", "backspin": "back spin",
}  # fmt: skip
"""Abbreviations, and words that are written as one."""

NOISE: Final = {"avg", "est", "calc", "actual", "measured", "flat", "raw", "value", "the", "deg"}
ALIKE: Final = 86
"""How alike heading and name must be, of 100: below it "face to path" would be "face to target"."""


def _full(name: str) -> str:
    return " ".join(IN_FULL.get(word, word) for word in name.split())


NAMES_OF: Final = {
    name: tuple(f.id for f in FIELDS.values() if name in map(_full, f.said))
    for name in dict.fromkeys(_full(said) for f in FIELDS.values() for said in f.said)
}
"""Every name to the fields that are called so: "start" is a direction and a word."""
NAMES: Final = (*NAMES_OF, *OTHERS)


def named_unit(text: str) -> str:
    """A unit as we write it; what is none is given back."""
    plain = text.casefold().strip().split(",")[0].strip(" .[]()")
    return SPELLINGS.get(plain, plain)


def words_and_unit(heading: str) -> tuple[str, str]:
    """A heading's words in full, and the unit that it ends with; '' without one."""
    apart = re.sub(r"(?<=[a-z])(?=[A-Z][a-z])", " ", heading)
    words = re.findall(
        r"[a-z0-9]+(?:/[a-z]+)?|°", apart.casefold().replace("push/pull", "push pull")
    )
    words = [part for word in words for part in ([word] if word in SPELLINGS else word.split("/"))]
    unit = named_unit(words[-1]) if len(words) > 1 else ""
    if unit in KNOWN_UNITS and words[-1] not in ("in", "y"):
        words.pop()
    else:
        unit = ""
    full = " ".join(IN_FULL.get(word, word) for word in words if word not in NOISE)
    return full, unit


def fields_of(heading: str, unit: str) -> list[tuple[float, str]]:
    """Fields that a heading may mean, and how well it fits, 0 to 3; none where it means another."""
    if heading.casefold() in FIELDS:
        return [(3.0, heading.casefold())]
    words, own_unit = words_and_unit(heading)
    unit = unit or own_unit
    found: dict[str, float] = {}
    for name, score, _ in process.extract(
        words, NAMES, scorer=fuzz.token_sort_ratio, score_cutoff=ALIKE, limit=None
    ):
        for field in NAMES_OF.get(name, ("",)):
            found[field] = max(found.get(field, 0.0), score / 100)
    best = max(found.values(), default=0.0)
    if found.get("", 0.0) >= best:
        return []
    fits = {f: s for f, s in found.items() if f}
    return [
        (score, field)
        for field, score in fits.items()
        if unit not in KNOWN_UNITS or unit in UNITS[FIELDS[field].kind]
    ]
