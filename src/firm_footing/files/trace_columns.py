"""What do the columns of a pressure trace hold, whatever the mat calls them?

A heading is read as words: which foot, and whether a share, a load or the toes. What is not
understood is asked, and the answer is remembered for these headings.
"""

import re
from typing import Final

FIELDS: Final = {
    "t": "Time, seconds",
    "time_ms": "Time, milliseconds",
    "left_pct": "Left foot, share of both",
    "right_pct": "Right foot, share of both",
    "lead_pct": "Lead foot, share of both",
    "trail_pct": "Trail foot, share of both",
    "left_kg": "Left foot, load",
    "right_kg": "Right foot, load",
    "lead_kg": "Lead foot, load",
    "trail_kg": "Trail foot, load",
    "left_toe_pct": "Left foot, toe share",
    "right_toe_pct": "Right foot, toe share",
    "lead_toe_pct": "Lead foot, toe share",
    "trail_toe_pct": "Trail foot, toe share",
    "vertical_pct_bw": "Force upward, per cent of body weight",
    "lateral_pct_bw": "Force toward the target, per cent of body weight",
    "torque_nm": "Turning moment, newton metres",
    "event": "Name of a moment",
}
"""Every field a column may hold, as it is called where it is chosen."""

_SIDES: Final = {
    "l": "left", "left": "left", "r": "right", "right": "right",
    "lead": "lead", "front": "lead", "target": "lead",
    "trail": "trail", "back": "trail", "rear": "trail",
}  # fmt: skip
_TIME: Final = {"t", "time", "s", "sec", "secs", "second", "seconds", "timestamp"}
_MILLI: Final = {"ms", "msec", "millis", "millisecond", "milliseconds"}
_TOE: Final = {"toe", "toes", "forefoot"}
_LOAD: Final = {"fz", "kg", "n", "newton", "newtons", "load", "force", "weight", "lb", "lbs"}
_SHARE: Final = {"%", "pct", "percent", "share", "balance", "pressure", "foot"}
_UP: Final = {"vertical", "fz", "grf"}
_SIDEWAYS: Final = {"lateral", "fx"}
_TURNING: Final = {"torque", "mz", "rotational", "moment"}


def guess(heading: str, unit: str = "") -> str | None:
    """The field a heading names; None where it is not understood."""
    plain = re.sub(r"[\s-]+", "_", heading.strip().casefold())
    if plain in FIELDS:
        return plain
    words = set(_words(f"{heading} {unit}"))
    side = {_SIDES[w] for w in words if w in _SIDES}
    if len(side) == 1:
        return _of_a_foot(side.pop(), words)
    if words & _MILLI:
        return "time_ms"
    for said, field in (
        (_TIME, "t"),
        (_UP, "vertical_pct_bw"),
        (_SIDEWAYS, "lateral_pct_bw"),
        (_TURNING, "torque_nm"),
        ({"event", "moment"}, "event"),
    ):
        if words & said:
            return field
    return None


def _of_a_foot(side: str, words: set[str]) -> str:
    if words & _TOE:
        return f"{side}_toe_pct"
    return f"{side}_kg" if words & _LOAD and not words & {"%", "pct", "percent"} else f"{side}_pct"


def _words(text: str) -> list[str]:
    """Lower-case words; an upper-case letter after a lower-case one begins a new word: FzL."""
    apart = re.sub(r"(?<=[a-z])(?=[A-Z])", " ", text)
    return re.findall(r"%|[^\W_]+", apart.casefold())
