"""Which tables does the application keep for itself?

What was done and arrived, who may come in, what the lessons taught.
"""

from datetime import datetime
from typing import Any

from sqlalchemy import Column, ForeignKey, Index, LargeBinary, String
from sqlmodel import Field, SQLModel

from firm_footing.core.knowledge.casebook import Fate, KnownBy
from firm_footing.core.learning.eye import EyeAnswer
from firm_footing.core.learning.learned import Learned
from firm_footing.store.columns import AsJson, Instant, now
from firm_footing.store.tables import belongs_to, new_id


class UndoEntry(SQLModel, table=True):
    """One change of one row, kept so that it can be undone and redone.

    lesson_id : the lesson it was done in; None for one done on the student's own page, which is
        kept so that no lesson takes it back unseen
    student_id : of a change without a lesson, whose it goes with
    step : number of what the instructor did: all changes of one step are undone together; 0
        without a lesson
    made_by : the page it was done on: each takes back its own
    write : the id its sender gave it
    """

    __tablename__ = "change"

    __table_args__ = (
        Index("ix_change_lesson_step", "lesson_id", "step"),
        Index("ix_change_row", "row_id", "table"),
        {"sqlite_autoincrement": True},  # a number given once is not given again: `revision_of`
    )

    id: int | None = Field(default=None, primary_key=True)
    lesson_id: str | None = Field(default=None, sa_column=belongs_to("lesson", nullable=True))
    student_id: str | None = Field(default=None, sa_column=belongs_to("student", nullable=True))
    step: int
    what: str
    table: str
    row_id: str
    before: dict[str, Any] | None = Field(default=None, sa_column=Column(AsJson(dict[str, Any])))
    after: dict[str, Any] | None = Field(default=None, sa_column=Column(AsJson(dict[str, Any])))
    undone: bool = False
    made_by: str | None = None
    write: str | None = None


class SentWrite(SQLModel, table=True):
    """A change that has arrived, by the id its sender gave it: sent again, it changes nothing.

    lesson_id : the lesson it was made in; None for one of something else
    made : id of the row it made or changed, where that is no part of a lesson
    asked : method and path it was sent with; None of one that an older version took
    """

    __tablename__ = "sent_write"

    id: str = Field(primary_key=True)
    lesson_id: str | None = Field(default=None, sa_column=belongs_to("lesson", nullable=True))
    made: str | None = None
    asked: str | None = None
    arrived_at: datetime = Field(default_factory=now, sa_type=Instant)


class Device(SQLModel, table=True):
    """A tablet or phone that may come in over the network, since it was paired.

    instructor_id : whose it is; None: of whoever works at the machine itself
    """

    id: str = Field(default_factory=new_id, primary_key=True)
    name: str
    instructor_id: str | None = Field(
        default=None,
        sa_column=Column(String, ForeignKey("instructor.id", ondelete="SET NULL"), nullable=True),
    )
    paired_at: datetime = Field(default_factory=now, sa_type=Instant)


class AppSetting(SQLModel, table=True):
    """A setting of the application's own, such as what cookies are signed with."""

    __tablename__ = "app_setting"

    name: str = Field(primary_key=True)
    value: str


class ColumnMapping(SQLModel, table=True):
    """What the columns of a table of balls hold, as the user agreed once.

    fingerprint : the same for every table with these headings
    """

    __tablename__ = "column_mapping"

    fingerprint: str = Field(primary_key=True)
    columns: list[dict[str, Any]] = Field(
        sa_column=Column(AsJson(list[dict[str, Any]]), nullable=False)
    )
    used_at: datetime = Field(default_factory=now, sa_type=Instant)


class StudiedLesson(SQLModel, table=True):
    """What one lesson teaches, worked out once: it is worked out anew when the lesson changes.

    state : of the lesson and of the knowledge, when it was studied
    cause : the decision that `measured` is of
    measured : what the lesson itself says became of it, by what says so
    said : what the ranking said when it was decided, that one starts with the cause
    told : bits that each piece of evidence told
    taken : looks that were answered, by hand, a number, a trace or a film
    answers : plain ones by eye
    proposed : look to the bits that were expected of it when it was decided
    log_likelihood : of each set of causes, two bytes each (`store/learning.py`)
    """

    __tablename__ = "studied_lesson"

    lesson_id: str = Field(
        sa_column=Column(String, ForeignKey("lesson.id", ondelete="CASCADE"), primary_key=True)
    )
    state: str
    cause: str
    measured: dict[KnownBy, Fate] = Field(
        default_factory=dict, sa_column=Column(AsJson(dict[KnownBy, Fate]), nullable=False)
    )
    said: float | None = None
    told: dict[str, float] = Field(
        default_factory=dict, sa_column=Column(AsJson(dict[str, float]), nullable=False)
    )
    taken: tuple[str, ...] = Field(
        default=(), sa_column=Column(AsJson(tuple[str, ...]), nullable=False)
    )
    answers: tuple[EyeAnswer, ...] = Field(
        default=(), sa_column=Column(AsJson(tuple[EyeAnswer, ...]), nullable=False)
    )
    proposed: dict[str, float] = Field(
        default_factory=dict, sa_column=Column(AsJson(dict[str, float]), nullable=False)
    )
    log_likelihood: bytes = Field(sa_column=Column(LargeBinary, nullable=False))


class ColleagueCasebook(SQLModel, table=True):
    """What a colleague's lessons taught, as their casebook saved it.

    id : a digest of it, so that the same file is the same row
    name : what it is called here
    """

    __tablename__ = "colleague_casebook"

    id: str = Field(primary_key=True)
    name: str
    learned: Learned = Field(sa_column=Column(AsJson(Learned), nullable=False))
    added_at: datetime = Field(default_factory=now, sa_type=Instant)


class LearnedLayer(SQLModel, table=True):
    """What the casebook taught last; there is one, and it can be worked out anew at any time.

    made_of : a digest of the lessons, fates and choices it was made of
    """

    __tablename__ = "learned_layer"

    id: int = Field(default=1, primary_key=True)
    made_of: str
    learned: Learned | None = Field(
        default=None, sa_column=Column(AsJson(Learned | None), nullable=True)
    )
    made_at: datetime = Field(default_factory=now, sa_type=Instant)
