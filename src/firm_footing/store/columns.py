"""How is a Pydantic value kept in one column?"""

import json
import zlib
from contextvars import ContextVar
from datetime import UTC, datetime
from functools import lru_cache
from threading import Lock
from typing import Any, Final, get_args
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

import numpy as np
from cachetools import LRUCache, cached
from pydantic import TypeAdapter, ValidationError
from sqlalchemy import JSON, Column, DateTime, Dialect, LargeBinary, String
from sqlalchemy.types import TypeDecorator
from sqlmodel import Field

from firm_footing.core.case import Trace
from firm_footing.core.case.samples import PackedSamples, as_array

KEPT_BYTES: Final = 24_000_000
"""Of samples that were read: those of all lessons of a day; of the longest traces two."""
UNREADABLE: ContextVar[list[str]] = ContextVar("unreadable")
"""What could not be read of the rows that are being read, where somebody wants to know."""


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
        """JSON to Python, as `read`."""
        return self.read(value)

    def read(self, value: Any) -> Any:
        """JSON to Python, validated; what older data holds that no longer fits is left out."""
        if value is None:
            return None
        try:
            return self.adapter.validate_python(value)
        except ValidationError as error:
            return self._without(value, error)

    def _without(self, value: Any, error: ValidationError) -> Any:
        """The value without the fields that do not fit, which are told to `UNREADABLE`.

        None where nothing of it fits.
        """
        for problem in error.errors(include_url=False):
            place = [step for step in problem["loc"] if isinstance(step, str | int)]
            _tell(".".join(map(str, place)) or "a value", problem["input"])
            if isinstance(value, dict) and place:
                value = {name: kept for name, kept in value.items() if name != place[0]}
            elif isinstance(value, list) and place:
                value = [kept for i, kept in enumerate(value) if i != place[0]]
        empty: Any = [] if isinstance(value, list) else {}
        for found in (value, empty):
            try:
                return self.adapter.validate_python(found)
            except ValidationError:
                continue
        return None


class OneOf(TypeDecorator[Any]):
    """A column holding one of some words; another one is read as `usual` and stays as it is."""

    impl = String
    cache_ok = True

    def __init__(self, words: Any = Any, usual: str | None = None) -> None:
        super().__init__()
        self.words, self.usual = words, usual  # SQLAlchemy tells columns apart by them

    def process_result_value(self, value: Any, dialect: Dialect) -> Any:
        """The word, where it is known."""
        if value is None or value in _words_of(self.words):
            return value
        _tell("a word", value)
        return self.usual


def one_of(words: Any, usual: str | None = None, needed: bool = False) -> Any:
    """A column with one of these words; a word that is not known is read as the usual one.

    usual : also what it is where nothing is said, unless it is needed; None: nothing
    """
    column: Column[Any] = Column(OneOf(words, usual), nullable=usual is None)
    return Field(sa_column=column) if needed else Field(default=usual, sa_column=column)


@lru_cache(maxsize=64)
def _words_of(words: Any) -> frozenset[str]:
    return frozenset(get_args(words))


def _tell(field: str, value: Any) -> None:
    told = UNREADABLE.get(None)
    if told is not None:
        told.append(f"{field.replace('_', ' ')}: {str(value)[:40]}")


class PackedTrace(TypeDecorator[Trace]):
    """A pressure trace's columns and samples, compressed: a line of JSON, then eight bytes each."""

    impl = LargeBinary
    cache_ok = True

    def process_bind_param(self, value: Trace | None, dialect: Dialect) -> bytes | None:
        """Trace to bytes."""
        if value is None:
            return None
        head = {"columns": value.columns, "typed_pct": value.typed_pct}
        numbers = as_array(value.samples, len(value.columns)).astype("<f8")
        return zlib.compress(json.dumps(head).encode() + b"\n" + numbers.tobytes(), level=1)

    def process_result_value(self, value: bytes | None, dialect: Dialect) -> Trace | None:
        """Bytes to trace; the same bytes give the same trace, so that it is read but once."""
        return None if value is None else _trace(value)


@cached(
    LRUCache(maxsize=KEPT_BYTES, getsizeof=lambda t: as_array(t.samples, 1).nbytes), lock=Lock()
)
def _trace(packed: bytes) -> Trace:
    """It was validated when it came in."""
    head, _, numbers = zlib.decompress(packed).partition(b"\n")
    said = json.loads(head)
    table = np.frombuffer(numbers, dtype="<f8").reshape(-1, max(1, len(said["columns"])))
    return Trace.model_construct(
        block=None,
        shot=None,
        columns=tuple(said["columns"]),
        samples=PackedSamples(table),  # type: ignore[arg-type]  # behaves as rows do
        events={},
        typed_pct=said["typed_pct"],
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


def zone_of(name: str) -> ZoneInfo | None:
    """The time zone of this name; None, which is this machine's, for one it does not know."""
    try:
        return ZoneInfo(name) if name else None
    except (ZoneInfoNotFoundError, ValueError, OSError):
        return None
