"""Does this text hold JSON that can be worked with?

Stricter than the standard library where that is lenient: a key stands once, numbers are numbers,
and text can be written down again.
"""

import json
import re
from dataclasses import dataclass
from typing import Any, Final

from firm_footing.core.case.limits import BODY_BYTES

MOST_VALUES: Final = 2_000_000
"""Commas and opened brackets: four traces of the longest kind at once."""
HALF: Final = re.compile(r"\\u[dD][89a-fA-F]")
"""Written so, half a character can be in it."""


@dataclass
class BadJsonError(Exception):
    """Where in the text, what is wrong, and what would be right."""

    place: str
    problem: str
    remedy: str


def read_json(data: bytes) -> Any:
    """The value in a text of UTF-8; a byte-order mark is no matter.

    Raises
    ------
    BadJsonError
        It holds none.

    """
    if len(data) > BODY_BYTES:
        raise BadJsonError(
            "file", f"larger than {BODY_BYTES // 1_000_000} MB", "leave out what is not needed"
        )
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BadJsonError(f"byte {error.start}", "not UTF-8 text", "save as UTF-8") from error
    if sum(data.count(mark) for mark in (b",", b"[", b"{")) > MOST_VALUES:
        raise BadJsonError("file", "more values than anything of ours has", "send less at once")
    try:
        value = json.loads(text, parse_constant=_no_constant, object_pairs_hook=_once)
        if HALF.search(text):
            json.dumps(value, ensure_ascii=False).encode()
    except json.JSONDecodeError as error:
        place = f"line {error.lineno}, column {error.colno}"
        raise BadJsonError(place, f"not JSON ({error.msg.lower()})", "mend it there") from error
    except RecursionError as error:
        raise BadJsonError("file", "nested too deeply", "it is not what is wanted") from error
    except UnicodeEncodeError as error:
        raise BadJsonError(
            "file", "half a character is in it", "write the text again where it looks broken"
        ) from error
    except ValueError as error:  # a whole number of thousands of digits
        raise BadJsonError("file", "a number in it is too long", "write it shorter") from error
    return value


def _no_constant(name: str) -> Any:
    raise BadJsonError("file", f"{name} is not a number in JSON", "leave the key out if not known")


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    found = dict(pairs)
    if len(found) < len(pairs):
        names = [name for name, _ in pairs]
        twice = next(name for name in names if names.count(name) > 1)
        raise BadJsonError(f"{twice}"[:60], "stands twice", "keep one of them")
    return found
