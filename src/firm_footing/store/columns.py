"""How is a Pydantic value kept in one column?"""

import json
from datetime import UTC, datetime
from functools import lru_cache
from typing import Any, TypeVar

from pydantic import TypeAdapter
from sqlalchemy import JSON, DateTime, Dialect, Text
from sqlalchemy.types import TypeDecorator

from firm_footing.core.case import Trace

T = TypeVar("T")


class AsJson(TypeDecorator[Any]):
    """A column holding one Pydantic-validated value as JSON, without the keys left at default."""

    impl = JSON(none_as_null=True)
    cache_ok = True

    def __init__(self, kind: Any = Any) -> None:
        super().__init__()
        self.kind = kind  # SQLAlchemy tells columns apart by it
        self.adapter: TypeAdapter[Any] = TypeAdapter(kind)

    def process_bind_param(self, value: Any, dialect: Dialect) -> Any:
        """Python to JSON."""
        if value is None:
            return None
        return self.adapter.dump_python(value, mode="json", exclude_defaults=True)

    def process_result_value(self, value: Any, dialect: Dialect) -> Any:
        """JSON to Python, validated."""
        return None if value is None else self.adapter.validate_python(value)


class Samples(TypeDecorator[Trace]):
    """A pressure trace's columns and samples as text: thousands of numbers, read often."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: Trace | None, dialect: Dialect) -> str | None:
        """Trace to text."""
        if value is None:
            return None
        kept = {"columns": value.columns, "samples": value.samples}
        return json.dumps(kept | ({"typed_pct": value.typed_pct} if value.typed_pct else {}))

    def process_result_value(self, value: str | None, dialect: Dialect) -> Trace | None:
        """Text to trace; the same text gives the same trace, so that it is read but once."""
        return None if value is None else _trace(value)


@lru_cache(maxsize=256)
def _trace(text: str) -> Trace:
    """It was validated when it came in."""
    raw = json.loads(text)
    samples = tuple(tuple(row) for row in raw["samples"])
    return Trace.model_construct(
        block=None,
        shot=None,
        columns=tuple(raw["columns"]),
        samples=samples,
        events={},
        typed_pct=raw.get("typed_pct", {}),
    )


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
