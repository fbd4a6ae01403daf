"""Was a field changed by somebody else since the one who changes it now has read it?"""

from collections.abc import Mapping
from typing import Any, Final

from pydantic import BaseModel
from pydantic_core import to_jsonable_python
from sqlmodel import SQLModel

from firm_footing.store.errors import ConflictError

NOTHING: Final[tuple[Any, ...]] = (None, "", [], {})


def not_changed_elsewhere(row: SQLModel, values: Mapping[str, Any], was: Mapping[str, Any]) -> None:
    """Compare what a change was made from with what is there.

    Parameters
    ----------
    row : as it is kept
    values : column to its new value, or to the new values of some of its fields
    was : column, or `column.field`, to what the sender had before; what is left out is not compared

    Raises
    ------
    ConflictError
        Another value is kept than the sender had, and it is not the new one either.

    """
    for place, before in was.items():
        column, _, field = place.partition(".")
        if column not in values or column not in type(row).model_fields:
            continue
        kept, wanted = getattr(row, column), values[column]
        if field:
            if not isinstance(wanted, Mapping) or field not in wanted:
                continue
            kept, wanted = _field(kept, field), wanted[field]
        kept, wanted = to_jsonable_python(kept), to_jsonable_python(wanted)
        if not _same(kept, before) and not _same(kept, wanted):
            raise ConflictError(
                code="conflict",
                message="This was changed on another device since you read it.",
                hint="Both are kept until you choose one, or put both together.",
                where=place,
                theirs=kept,
                mine=wanted,
            )


def _field(kept: Any, field: str) -> Any:
    return getattr(kept, field, None) if isinstance(kept, BaseModel) else kept.get(field)


def _same(one: Any, other: Any) -> bool:
    return bool(one == other or (one in NOTHING and other in NOTHING))
