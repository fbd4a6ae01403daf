"""What may a row that comes in from a file hold? As much as the API takes, and no more."""

from typing import Annotated, Any, Final

from pydantic import AfterValidator, Field, StringConstraints, TypeAdapter
from sqlmodel import SQLModel

from firm_footing.core.case.base import visible
from firm_footing.core.case.evidence import Effort, ExpectedCarry, Handicap
from firm_footing.core.case.limits import NAME, NOTE, STILL_BYTES, WORDS
from firm_footing.store.columns import OneOf
from firm_footing.store.tables import (
    CheckAnswer,
    Decision,
    FollowUp,
    Lesson,
    LoggedBlock,
    LoggedShot,
    Recording,
    Student,
)

_Scalar = (
    None
    | bool
    | Annotated[int, Field(ge=-(2**53), le=2**53)]
    | Annotated[float, Field(allow_inf_nan=False)]
    | Annotated[str, StringConstraints(max_length=NOTE)]
    | list[Any]
    | dict[str, Any]
)
_ANY: Final[TypeAdapter[Any]] = TypeAdapter(_Scalar)
_ID: Final[TypeAdapter[Any]] = TypeAdapter(
    Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,64}$")] | None
)
_PICTURE: Final[TypeAdapter[Any]] = TypeAdapter(
    Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9+/=]*$", max_length=2 * STILL_BYTES)]
)
_Name = Annotated[str, StringConstraints(min_length=1, max_length=NAME), AfterValidator(visible)]
_Position = Annotated[int, Field(ge=0, le=1_000_000)]
_Words = Annotated[str, StringConstraints(max_length=WORDS)] | None
LIMITS: Final[dict[type[SQLModel], dict[str, TypeAdapter[Any]]]] = {
    Student: {
        "name": TypeAdapter(_Name),
        "handicap": TypeAdapter(Handicap | None),
        "about": TypeAdapter(_Words),
    },
    Lesson: {"complaint": TypeAdapter(_Words), "given_by": TypeAdapter(_Words)},
    LoggedBlock: {
        "position": TypeAdapter(_Position),
        "expected_carry_m": TypeAdapter(ExpectedCarry | None),
        "effort_pct": TypeAdapter(Effort | None),
    },
    LoggedShot: {"position": TypeAdapter(_Position)},
    CheckAnswer: {"share": TypeAdapter(Annotated[float, Field(ge=0, le=1)] | None)},
    FollowUp: {"course": TypeAdapter(_Words)},
    Decision: {"reason": TypeAdapter(_Words)},
}
"""What the API takes of a field that the table's own type does not hold within limits."""


def validated(table: type[SQLModel], raw: Any) -> SQLModel:
    """A row of these values, each as the API would take it, or ValidationError."""
    columns = table.__table__.columns  # type: ignore[attr-defined]
    if not isinstance(raw, dict):
        raise TypeError
    known = {name: value for name, value in raw.items() if name in columns}
    for name, value in known.items():
        _plain_values(name).validate_python(value)
    for name, limit in LIMITS.get(table, {}).items():
        limit.validate_python(known.get(name))
    words = {n: v for n, v in known.items() if isinstance(columns[n].type, OneOf)}
    checked = table.model_validate(known | {n: columns[n].type.usual for n in words})
    for name, word in words.items():
        setattr(checked, name, word)
    if isinstance(checked, Recording):
        samples = checked.samples
        if any(len(row) != len(samples.columns) for row in samples.samples):
            raise ValueError
    return checked


def _plain_values(name: str) -> TypeAdapter[Any]:
    """What a value of this name may be, whatever the table."""
    if name == "id" or name.endswith("_id"):
        return _ID
    return _PICTURE if name == "jpeg_base64" else _ANY
