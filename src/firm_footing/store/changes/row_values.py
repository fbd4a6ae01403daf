"""How does a row become JSON and come back, and in which fields do two of its states differ?

A field is a column, or one part of a column that holds several: what one page says of a ball's
start leaves what another says of its curve.
"""

from collections.abc import Mapping
from datetime import date, datetime
from typing import Any, NamedTuple

from pydantic import BaseModel
from pydantic_core import to_jsonable_python
from sqlalchemy import Column
from sqlalchemy.types import TypeDecorator
from sqlmodel import SQLModel

from firm_footing.store.columns import AsJson, Instant

Content = Mapping[str, Any]
"""A row as JSON, by the names of its columns."""


class RowField(NamedTuple):
    """A column, or a part of it."""

    column: str
    part: str | None = None

    def overlaps(self, other: "RowField") -> bool:
        """Whether one is within the other."""
        same = self.column == other.column
        return same and (self.part == other.part or None in (self.part, other.part))


def content_of_row(row: SQLModel) -> dict[str, Any]:
    """The row as JSON."""
    return row.model_dump(mode="json")


def row_of(table: type[SQLModel], content: Content) -> SQLModel:
    """The row again; what does not fit any more is left out, as when it is read from the file."""
    known = [name for name in content if name in _columns(table)]
    return table(**{name: read(table, name, content[name]) for name in known})


def read(table: type[SQLModel], column: str, raw: Any) -> Any:
    """A column's value out of JSON, as lenient as reading it from the file."""
    kind = _columns(table)[column].type
    if raw is None:
        return None
    if isinstance(kind, AsJson):
        return kind.read(raw)
    if isinstance(kind, Instant):
        return datetime.fromisoformat(raw) if isinstance(raw, str) else raw
    if not isinstance(kind, TypeDecorator) and kind.python_type is date and isinstance(raw, str):
        return date.fromisoformat(raw)
    return raw


def strictly(table: type[SQLModel], column: str, raw: Any) -> Any:
    """The same, and ValidationError for what does not fit."""
    kind = _columns(table)[column].type
    return kind.adapter.validate_python(raw) if isinstance(kind, AsJson) else raw


def plain(table: type[SQLModel], column: str, raw: Any) -> Any:
    """JSON of a column as this version writes it: what older ones left out is filled in."""
    return to_jsonable_python(read(table, column, raw))


def fields_that_differ(
    table: type[SQLModel], one: Content | None, other: Content | None
) -> set[RowField]:
    """Where two states of a row differ; everywhere, where one of them is none."""
    if one is None or other is None:
        return {RowField(name) for name in _columns(table)}
    found: set[RowField] = set()
    for name in _columns(table):
        a, b = plain(table, name, one.get(name)), plain(table, name, other.get(name))
        if a == b:
            continue
        if isinstance(a, dict) and isinstance(b, dict):
            differ = (field for field in a.keys() | b.keys() if a.get(field) != b.get(field))
            found |= {RowField(name, field) for field in differ}
        else:
            found.add(RowField(name))
    return found


def with_fields(
    table: type[SQLModel], now: Content, wanted: Content, of: set[RowField]
) -> dict[str, Any]:
    """Values of the columns that have such a field: there as in `wanted`, elsewhere as `now`."""
    found: dict[str, Any] = {}
    for column, field in sorted(of, key=str):
        target = plain(table, column, wanted.get(column))
        if field is None:
            found[column] = target
            continue
        value = found.setdefault(column, dict(plain(table, column, now.get(column)) or {}))
        if isinstance(target, dict) and field in target:
            value[field] = target[field]
        else:
            value.pop(field, None)
    return {column: read(table, column, value) for column, value in found.items()}


def as_mapping(value: Any) -> dict[str, Any] | None:
    """A value of several fields by their names; None for any other."""
    if isinstance(value, BaseModel):
        return value.model_dump(mode="json")
    return dict(to_jsonable_python(value)) if isinstance(value, Mapping) else None


def _columns(table: type[SQLModel]) -> dict[str, Column[Any]]:
    return {c.name: c for c in table.__table__.columns}  # type: ignore[attr-defined]
