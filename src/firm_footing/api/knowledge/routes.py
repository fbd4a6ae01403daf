"""What does the program know of the trade? Everything a screen needs to name things."""

from typing import Any, Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from firm_footing.api.conclusions.views import usual_carries
from firm_footing.api.context import Known
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.wire import Out
from firm_footing.core.case import Block, limits
from firm_footing.core.conclusions.causes_of_miss import makers_of
from firm_footing.core.conclusions.chain import chain_alone
from firm_footing.core.estimation.expected import expected_of
from firm_footing.core.knowledge import Cause, Check, Club, Drill, Knowledge, Mechanism
from firm_footing.core.knowledge.coaching import Cautions, Equipment
from firm_footing.core.knowledge.cues import Cues
from firm_footing.core.knowledge.film import FilmMeasure, FilmView
from firm_footing.core.knowledge.misses import Miss
from firm_footing.core.knowledge.poses import PoseView, Thing
from firm_footing.core.knowledge.pressure import FeelTest, FeltQuestion, Sign
from firm_footing.core.knowledge.schools import Schools
from firm_footing.core.text.chain import END_WORDS
from firm_footing.core.text.school_changes import changes_of
from firm_footing.core.text.words import cause_words

router = APIRouter(route_class=ParsedOnceRoute, tags=["knowledge"])


class Figure(BaseModel):
    """How a look is drawn, sound and unsound; see knowledge/poses.yaml for the numbers."""

    check: str
    view: PoseView
    sound: dict[str, float]
    unsound: dict[str, float]


class DrillFigure(BaseModel):
    """One moment of a drill: the figure's numbers and what stands beside it."""

    drill: str
    word: Literal["start", "right", "not_yet"]
    view: PoseView
    pose: dict[str, float]
    things: tuple[Thing, ...]


class NotingRules(BaseModel):
    """What a word or a touch stands for before it is read.

    word_inner_deg, word_outer_deg : a direction up to the first is straight, beyond the second far
    word_near_deg, word_far_deg : the middles of the words, where they are drawn
    divot_length_cm : of a divot whose length was not noted
    contact_mm : word of contact to how far along the face it is, its limit; + toe
    carry_m : of a block without a club
    """

    word_inner_deg: float
    word_outer_deg: float
    word_near_deg: float
    word_far_deg: float
    divot_length_cm: float
    contact_mm: dict[str, float]
    carry_m: float


class FilmPointOut(Out):
    """A point that is touched on a film, and what is asked for."""

    id: str
    name: str
    ask: str


class FilmScaleOut(Out):
    """What gives a scale; `cm` null: its length is said."""

    id: str
    name: str
    cm: float | None
    views: tuple[FilmView, ...] = Field(description="From where it is seen at its length")


class CmRange(BaseModel):
    """The least and the most that may be typed."""

    least: float
    most: float


class FilmLimits(BaseModel):
    """What lengths may be, cm."""

    scale_cm: CmRange
    distance_cm: CmRange
    off_line_cm: CmRange
    felt_cm: CmRange


class CameraUsual(BaseModel):
    """Where a camera is taken to stand where nobody says, cm."""

    distance_cm: float
    off_line_cm: float


class FilmRules(BaseModel):
    """What a film is measured for."""

    points: list[FilmPointOut]
    scales: list[FilmScaleOut]
    measures: tuple[FilmMeasure, ...]
    limits: FilmLimits
    camera: CameraUsual
    bases: dict[PoseView, dict[str, dict[str, float]]] = Field(
        description="The figure at the moments of a swing, for what a student points to on it"
    )
    cm_per_unit: float = Field(description="What a hundredth of the figure's drawing is")


class KnowledgeOut(BaseModel):
    """The knowledge that screens show."""

    version: str
    causes: tuple[Cause, ...]
    mechanisms: tuple[Mechanism, ...]
    checks: tuple[Check, ...]
    drills: tuple[Drill, ...]
    equipment: tuple[Equipment, ...]
    clubs: tuple[Club, ...]
    schools: Schools
    cautions: Cautions
    signs: tuple[Sign, ...]
    trace_told: str = Field(description="Pressure, weight and force told apart")
    feel_tests: tuple[FeelTest, ...]
    felt: tuple[FeltQuestion, ...]
    film: FilmRules
    misses: tuple[Miss, ...]
    cues: Cues
    figures: list[Figure] = Field(description="Looks that can be drawn")
    chains: dict[str, tuple[str, ...]] = Field(description="From every cause to the ball")
    ends: dict[str, str] = Field(description="What a cause does to club and ball, in words")
    cause_words: dict[str, str] = Field(description="How sure of a cause: each word as it is said")
    drill_figures: list[DrillFigure] = Field(description="Every drill, moment by moment")
    usual_carry_m: dict[str, float] = Field(description="Club to its carry at the usual handicap")
    noting: NotingRules
    school_changes: dict[str, dict[str, list[str]]] = Field(
        description="Question to option to what choosing it changes, in sentences"
    )


class MadeBy(BaseModel):
    """A miss and what makes it."""

    miss: str
    causes: dict[str, float] = Field(description="Cause to how much it makes it, 1 for the most")


@router.get("/map", summary="What makes each miss, and how much of it")
def read_map(known: Known) -> list[MadeBy]:
    """Of every miss as students name them; causes that do not make it are left out."""
    return [MadeBy(miss=m.id, causes=makers_of(m.id, known)) for m in known.misses]


@router.get("/knowledge", summary="Causes, checks, drills, clubs, schools, cautions, signs")
def read_knowledge(known: Known) -> KnowledgeOut:
    """Read-only: it is edited in the files under `knowledge/`."""
    figures = []
    for check, pose in known.poses.checks.items():
        sound, unsound = known.poses.pair(check) or ({}, {})
        figures.append(Figure(check=check, view=pose.view, sound=sound, unsound=unsound))
    drawn = [
        DrillFigure(
            drill=drill, word=m.word, view=m.view, pose=known.poses.moment(m), things=m.things
        )
        for drill, moments in known.poses.drills.items()
        for m in moments
    ]
    made: dict[str, Any] = {"figures": figures, "drill_figures": drawn, "ends": END_WORDS}
    made["cause_words"] = cause_words(known.numbers)
    made["usual_carry_m"] = usual_carries(known, None)
    made["school_changes"] = {
        question: {o.id: list(changes_of(question, o, known)) for o in asked.options}
        for question, asked in known.schools.questions.items()
    }
    made["noting"] = _noting(known)
    made["trace_told"] = known.traces.told
    made["film"] = FilmRules(
        points=[FilmPointOut.model_validate(p) for p in known.film.points],
        scales=[FilmScaleOut.model_validate(s) for s in known.film.scales],
        measures=known.film.measures,
        limits=FilmLimits(
            scale_cm=_range(limits.SCALE_CM),
            distance_cm=_range(limits.CAMERA_CM),
            off_line_cm=_range(limits.OFF_LINE_CM),
            felt_cm=_range(limits.FELT_CM),
        ),
        camera=CameraUsual(
            distance_cm=known.film.errors.distance_cm, off_line_cm=known.film.errors.off_line_cm
        ),
        bases={m.view: known.poses.bases[m.view] for m in known.film.measures},
        cm_per_unit=known.poses.cm_per_unit,
    )
    made["chains"] = {c.id: chain_alone(c, known) for c in known.causes}
    parts = {n: getattr(known, n) for n in KnowledgeOut.model_fields if n not in made}
    return KnowledgeOut(**parts, **made)


def _range(limit: tuple[float, float]) -> CmRange:
    least, most = limit
    return CmRange(least=least, most=most)


def _noting(known: Knowledge) -> NotingRules:
    shape, numbers = known.numbers.shape, known.numbers
    contact = {}
    for word, says in numbers.contact_says.items():
        limits = [limit for limit in (says.least, says.most) if limit is not None]
        if says.quantity == "heel_toe_mm":
            contact[word] = sum(limits) / len(limits)
    return NotingRules(
        word_inner_deg=shape.word_inner_deg,
        word_outer_deg=shape.word_outer_deg,
        word_near_deg=(shape.word_inner_deg + shape.word_outer_deg) / 2,
        word_far_deg=(shape.word_outer_deg + numbers.reading.word_far_ends_deg) / 2,
        divot_length_cm=2 * numbers.turf.half_length_cm.normal,
        contact_mm=contact,
        carry_m=expected_of(Block(), known).carry_m,
    )
