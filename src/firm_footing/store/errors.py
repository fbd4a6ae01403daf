"""What can go wrong between a request and the store? Domain errors; they know no HTTP."""

from dataclasses import dataclass
from typing import Any

from firm_footing.core.case.base import visible


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


def name_can_be_seen(name: str) -> None:
    """RefusedError for a name of nothing but blanks and marks that nobody sees."""
    try:
        visible(name)
    except ValueError as error:
        raise refused(
            "Of this name nothing can be seen.", "name", "Nothing was changed. Give another one."
        ) from error


def not_found(kind: str) -> NotFoundError:
    """No such row."""
    return NotFoundError(
        code="not_found",
        message=f"This {kind} is not there any more.",
        hint="It may have been deleted on another device. Go back to the day and open it anew.",
        where=f"{kind}_id",
    )


def refused(message: str, where: str, hint: str) -> RefusedError:
    """A change that is refused, in words."""
    return RefusedError(code="refused", message=message, hint=hint, where=where)
