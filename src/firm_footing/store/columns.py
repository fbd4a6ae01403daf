"""How is a Pydantic value kept in one column?"""

from datetime import UTC, datetime
from typing import Any, TypeVar

from pydantic import TypeAdapter
from sqlalchemy import JSON, DateTime, Dialect
from sqlalchemy.types import TypeDecorator

T = TypeVar("T")


class AsJson(TypeDecorator[Any]):
    """A column holding one Pydantic-validated value as JSON, without the keys left at default."""

    impl = JSON(none_as_null=True)
    cache_ok = True

    def __init__(self, kind: Any = Any) -> None:
        super().__init__()
        self.kind = kind

    def process_bind_param(self, value: Any, dialect: Dialect) -> Any:
        """Python to JSON."""
        if value is None:
            return None
        return TypeAdapter(self.kind).dump_python(value, mode="json", exclude_defaults=True)

    def process_result_value(self, value: Any, dialect: Dialect) -> Any:
        """JSON to Python, validated."""
        return None if value is None else TypeAdapter(self.kind).validate_python(value)


class Instant(TypeDecorator[datetime]):
    """A moment in UTC; SQLite forgets the zone, this puts it back."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """Aware datetime to naive UTC."""
        return None if value is None else value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """Naive UTC to aware datetime."""
        return None if value is None else value.replace(tzinfo=UTC)


def now() -> datetime:
    """The present moment, in UTC."""
    return datetime.now(UTC)
