"""What is a day, as it comes in?"""

import re
from datetime import date, datetime
from typing import Annotated, Any

from pydantic import BeforeValidator, WithJsonSchema

from firm_footing.core.case.limits import FIRST_YEAR, LAST_YEAR

_WRITTEN = re.compile(r"^\d{4}-\d{2}-\d{2}$")


def _day(value: Any) -> date:
    """A day, and no number that would pass for one."""
    if isinstance(value, str) and _WRITTEN.match(value):
        try:
            value = date.fromisoformat(value)
        except ValueError:
            raise ValueError("there is no such day") from None
    if type(value) is not date:
        raise ValueError("give a day as year-month-day, 2026-05-31")
    if not FIRST_YEAR <= value.year <= LAST_YEAR:
        raise ValueError(f"give a year between {FIRST_YEAR} and {LAST_YEAR}")
    return value


def _moment(value: Any) -> Any:
    """A moment as it was given out, and no number that would pass for one."""
    if isinstance(value, str) and not re.match(r"^(19|20|21)\d\d-", value):
        raise ValueError("give a moment as it was given, 2026-05-31T10:00:00Z")
    return value


Moment = Annotated[
    datetime,
    BeforeValidator(_moment),
    WithJsonSchema({"type": "string", "format": "date-time", "pattern": "^(19|20|21)[0-9]{2}-"}),
]
"""A moment, written as in ISO 8601."""
Day = Annotated[
    date,
    BeforeValidator(_day),
    WithJsonSchema({"type": "string", "format": "date", "pattern": "^(19|20|21)[0-9]{2}-"}),
]
"""A day of the calendar, written year-month-day."""
