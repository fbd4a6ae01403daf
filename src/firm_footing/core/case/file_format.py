"""How does a case file look? Real sides, the file's own units.

The JSON Schema in `docs/case.schema.json` is generated from `CaseFile`.
"""

from typing import Annotated, Literal

from pydantic import Discriminator, Field, Tag

from firm_footing.core.case.base import Index, Strict, Word
from firm_footing.core.case.evidence import (
    Bearing,
    BlockKind,
    Effort,
    Handicap,
    School,
    ShotReadings,
    Stance,
    Surface,
    Trace,
)
from firm_footing.core.case.film import Film
from firm_footing.core.case.limits import (
    ANSWERS,
    BALLS,
    BLOCKS,
    FILMS,
    LIST,
    NOTE,
    NOTES,
    STILLS,
    TRACES,
)
from firm_footing.core.case.past import DecisionOutcome, PastDecision
from firm_footing.core.case.still import FileStill
from firm_footing.core.frame import DistanceUnit, Handedness, RealDirection, SpeedUnit
from firm_footing.core.knowledge.vocabulary import Answer, Limit, Source


class FileStudent(Strict):
    """Whose lesson it is, without a name."""

    handedness: Handedness
    handicap: Handicap | None = Field(None, description="Plus handicaps are negative")
    dominant_leg: Literal["lead", "trail"] | None = None
    limits: Annotated[tuple[Limit, ...], Field(max_length=LIST)] = ()
    key: Word | None = Field(
        None, description="An anonymous word: two files with the same one are of one person"
    )


class FileUnits(Strict):
    """The units of distances and speeds in this file."""

    distance: DistanceUnit = "m"
    speed: SpeedUnit = "m/s"


class FileShot(ShotReadings):
    """One ball, as an onlooker sees it; degrees and sides are positive to the right."""

    start: RealDirection | None = None
    curve: RealDirection | None = None
    start_deg: Bearing | None = None
    curve_deg: Bearing | None = None
    divot_direction_deg: Bearing | None = None
    spin_axis_deg: Bearing | None = None
    path_deg: Bearing | None = None
    face_deg: Bearing | None = Field(None, description="To the target")
    side: Annotated[float, Field(strict=True, ge=-218, le=218)] | None = Field(
        None, description="Landing place from the target line, in distance units"
    )
    carry: Annotated[float, Field(strict=True, ge=0, le=437)] | None = None
    apex: Annotated[float, Field(strict=True, ge=0, le=109)] | None = None
    ball_speed: Annotated[float, Field(strict=True, ge=0, le=430)] | None = None
    club_speed: Annotated[float, Field(strict=True, ge=0, le=320)] | None = None


class FileBlock(Strict):
    """Balls hit one after the other with one club; a trial names its drill."""

    kind: BlockKind
    club: Word = "7i"
    drill: Word | None = None
    expected_carry: Annotated[float, Field(strict=True, ge=1, le=437)] | None = None
    effort_pct: Effort | None = None
    surface: Surface | None = None
    teed: bool | None = None
    stance: Stance | None = None
    shots: Annotated[tuple[FileShot, ...], Field(max_length=BALLS)] = ()


class FileReading(Strict):
    """An answer with its source and block."""

    answer: Answer
    source: Source | None = None
    block: Index | None = None
    share: Annotated[float, Field(ge=0, le=1)] | None = Field(
        None, description="How clearly the fact shows, where it was told finer than by the word"
    )


ANSWER_SHAPES = ("word", "reading", "several")
"""The three ways an answer may be written."""


def _shape(value: object) -> str | None:
    if isinstance(value, str):
        return "word"
    if isinstance(value, dict | FileReading):
        return "reading"
    return "several" if isinstance(value, list | tuple) else None


FileAnswer = Annotated[
    Annotated[Answer, Tag("word")]
    | Annotated[FileReading, Tag("reading")]
    | Annotated[tuple[FileReading, ...], Field(max_length=LIST), Tag("several")],
    Discriminator(_shape),
]


class CaseFile(Strict):
    """One lesson's evidence."""

    format: Literal["firm-footing-case"]
    version: Literal[1]
    student: FileStudent
    school: School = School()
    units: FileUnits = FileUnits()
    blocks: Annotated[tuple[FileBlock, ...], Field(max_length=BLOCKS)] = ()
    traces: Annotated[tuple[Trace, ...], Field(max_length=TRACES)] = ()
    films: Annotated[tuple[Film, ...], Field(max_length=FILMS)] = ()
    stills: Annotated[tuple[FileStill, ...], Field(max_length=STILLS)] = ()
    checks: Annotated[dict[str, FileAnswer], Field(max_length=ANSWERS)] = Field(
        default_factory=dict
    )
    history: Annotated[tuple[PastDecision, ...], Field(max_length=LIST)] = Field(
        (), description="What became of earlier decisions on the same student; the ranking uses it"
    )
    outcome: DecisionOutcome | None = Field(
        None, description="What became of this lesson's decision; `learn` uses it"
    )
    notes: Annotated[
        tuple[Annotated[str, Field(max_length=NOTE)], ...], Field(max_length=NOTES)
    ] = ()


def readings_of(answer: FileAnswer) -> tuple[FileReading, ...]:
    """Every spelling of an answer as a tuple of readings."""
    if isinstance(answer, str):
        return (FileReading(answer=answer),)
    return answer if isinstance(answer, tuple) else (answer,)
