"""A table of balls, as it goes over the wire."""

from typing import Annotated

from pydantic import BaseModel, StringConstraints
from pydantic import Field as Described

from firm_footing.api.lessons.schemas import LessonOut
from firm_footing.api.wire import In, Out
from firm_footing.core.case import Shot
from firm_footing.files.shot_tables import Column

TableText = Annotated[str, StringConstraints(min_length=1, max_length=2_000_000)]


class FieldOut(BaseModel):
    """Something a column can hold."""

    id: str
    name: str
    units: list[str] = Described(description="Empty for words")
    positive: list[str] = Described(description="Sides that can be the positive one")


class TableIn(In):
    """A table as text, and what its columns hold; left out: guessed, or as remembered."""

    text: TableText
    columns: list[Column] | None = None
    block_id: str | None = Described(None, description="Whose club is meant where none is named")
    keep_doubtful: bool = Described(False, description="Take in what can hardly be true as well")


class TableImport(TableIn):
    """A table to take in."""

    block_id: str


class BadRowOut(Out):
    """Why a row, or one cell of it, is not taken."""

    line: int = Described(description="In the text, from 1")
    heading: str
    cell: str
    reason: str


class PreviewBall(BaseModel):
    """A ball as it would be taken in."""

    line: int
    club: str | None
    shot: Shot


class TablePreview(BaseModel):
    """What is in a table, before anything is kept."""

    columns: list[Column]
    remembered: bool = Described(description="The columns were agreed before")
    fields: list[FieldOut]
    samples: list[list[str]] = Described(description="The first rows as they stand")
    balls: int
    already: int = Described(description="Balls that the lesson has already")
    first: list[PreviewBall]
    bad: list[BadRowOut]
    doubtful: list[BadRowOut] = Described(description="Cells that can hardly be true")


class TableTaken(BaseModel):
    """What an import did."""

    lesson: LessonOut
    added: int
    already: int
    bad: list[BadRowOut]
    doubtful: list[BadRowOut]
