"""What do all values of a case have in common?"""

import unicodedata
from typing import Annotated, Final

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field

from firm_footing.core.case.limits import NAME


class Strict(BaseModel):
    """Base of everything that comes in from outside: unknown keys and NaN are errors."""

    model_config = ConfigDict(extra="forbid", frozen=True, allow_inf_nan=False)


Number = Annotated[float, Field(strict=True)]
"""A number, and not a truth value that would pass for one."""


def _whole(value: object) -> object:
    """Let 2 and 2.0 through as JSON does, but no text and no truth value."""
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise ValueError("give a whole number")
    return value


UNSEEN: Final = frozenset("\u115f\u1160\u2800\u3164\uffa0")
"""Letters by their kind, and nothing to be seen."""


def visible(text: str) -> str:
    """The text, where anything of it can be seen; ValueError else."""
    if not any(unicodedata.category(c)[0] not in "CZM" and c not in UNSEEN for c in text):
        raise ValueError("give a name that can be seen")
    return text


Word = Annotated[str, Field(max_length=NAME)]
"""An id, a club, a heading."""
Whole = BeforeValidator(_whole)
"""A whole number may be written 2 or 2.0."""

Index = Annotated[int, Field(ge=0), Whole]
"""Which one, counted from 0."""
