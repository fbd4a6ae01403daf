"""What can go wrong between a request and the store? Domain errors; they know no HTTP."""

from dataclasses import dataclass
from typing import Any


@dataclass
class StoreError(Exception):
    """Something the user can understand and mend.

    code : a stable word for programs
    message : what happened
    hint : what was kept and what to do
    where : which part of the request it is about
    """

    code: str
    message: str
    hint: str
    where: str = ""


class NotFoundError(StoreError):
    """The thing asked for does not exist."""


class RefusedError(StoreError):
    """The change does not fit what is there; nothing was changed."""


@dataclass
class ConflictError(RefusedError):
    """Somebody else changed the same field; nothing was changed.

    theirs, mine : what is kept, and what was sent
    """

    theirs: Any = None
    mine: Any = None


def not_found(kind: str, key: str) -> NotFoundError:
    """No such row."""
    return NotFoundError(
        code="not_found",
        message=f"There is no {kind} with the id '{key}'.",
        hint="It may have been deleted. Go back to the day page and open it from there.",
        where=f"{kind}_id",
    )


def refused(message: str, where: str, hint: str) -> RefusedError:
    """A change that is refused, in words."""
    return RefusedError(code="refused", message=message, hint=hint, where=where)
