"""Was a field changed by somebody else since the one who changes it now has read it?"""

from collections.abc import Mapping
from typing import Any, Final

from pydantic import ValidationError
from pydantic_core import to_jsonable_python
from sqlmodel import SQLModel

from firm_footing.store.changes.row_values import as_mapping, plain, strictly
from firm_footing.store.errors import ConflictError

NOTHING: Final[tuple[Any, ...]] = (None, "", [], {})
Was = Mapping[str, Any]
"""What a change was made from: column, or `column.field`, to what the sender had before."""


def merged(row: SQLModel, values: Mapping[str, Any], was: Was | None) -> dict[str, Any]:
    """The new values that a change means, with what others changed meanwhile left as it is.

    Parameters
    ----------
    row : as it is kept
    values : column to its new value, or to the new values of some of its fields
    was : of what is left out here, the new value replaces whatever is there

    Returns
    -------
    Columns to give new values. Of a column of several fields that was sent whole, only the fields
    that are another than they were are taken.

    Raises
    ------
    ConflictError
        Another value is kept than the sender had, and it is not the new one either.

    """
    found = dict(values)
    for place, before in (was or {}).items():
        column, _, field = place.partition(".")
        if column not in values or column not in type(row).model_fields:
            continue
        kept, wanted = getattr(row, column), values[column]
        if field:
            if isinstance(wanted, Mapping) and field in wanted:
                _agree(place, (as_mapping(kept) or {}).get(field), before, wanted[field])
            continue
        mine, theirs = as_mapping(wanted), as_mapping(kept)
        if isinstance(before, Mapping) and mine is not None and theirs is not None:
            found[column] = _by_field(row, column, mine, theirs, before)
        elif _same(to_jsonable_python(wanted), before):
            del found[column]
        else:
            _agree(place, kept, before, wanted)
    return found


def was_there(what: str, was: Was | None, values: Mapping[str, Any]) -> None:
    """Refuse to change what somebody else took out meanwhile.

    Raises
    ------
    ConflictError
        The sender had it, and it is gone.

    """
    if was:
        raise ConflictError(
            code="taken_out",
            message=f"This {what} was taken out on another device.",
            hint="What you entered is kept here until you put it back or leave it out.",
            where=what,
            theirs=None,
            mine=to_jsonable_python(dict(values)),
        )


def _by_field(
    row: SQLModel, column: str, wanted: dict[str, Any], kept: dict[str, Any], before: Any
) -> Any:
    """A value of several fields: theirs, with what the sender changed."""
    had = plain(type(row), column, dict(before))
    mixed = dict(kept)
    for field in wanted.keys() | had.keys():
        mine, old = wanted.get(field), had.get(field)
        if _same(mine, old):
            continue
        _agree(f"{column}.{field}", kept.get(field), old, mine)
        mixed.pop(field, None)
        if field in wanted:
            mixed[field] = mine
    try:
        return strictly(type(row), column, mixed)
    except ValidationError as error:  # each is well by itself, and both together are not
        raise _conflict(column, kept, wanted) from error


def _agree(place: str, kept: Any, before: Any, wanted: Any) -> None:
    kept, wanted = to_jsonable_python(kept), to_jsonable_python(wanted)
    if not _same(kept, before) and not _same(kept, wanted):
        raise _conflict(place, kept, wanted)


def _conflict(place: str, kept: Any, wanted: Any) -> ConflictError:
    return ConflictError(
        code="conflict",
        message="This was changed on another device since you read it.",
        hint="Both are kept until you choose one, or put both together.",
        where=place,
        theirs=kept,
        mine=wanted,
    )


def _same(one: Any, other: Any) -> bool:
    return bool(one == other or (one in NOTHING and other in NOTHING))
