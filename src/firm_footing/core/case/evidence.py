"""What was seen, in the golfer-neutral frame and in SI?

A `Case` is the one value every door hands in: the database, a case file, a simulated student.
"""

from typing import Annotated, Literal

from pydantic import Field

from firm_footing.core.case.base import Index, Number, Strict, Word
from firm_footing.core.case.film import Film
from firm_footing.core.case.limits import (
    ANSWERS,
    BALLS,
    BLOCKS,
    COLUMNS,
    FILMS,
    LIST,
    TRACES,
)
from firm_footing.core.case.past import Eye, HowCommon, PastDecision
from firm_footing.core.case.samples import Samples
from firm_footing.core.frame import Handedness, NeutralDirection
from firm_footing.core.knowledge.pressure import SwingEvent
from firm_footing.core.knowledge.vocabulary import Answer, Contact, Limit, Source

DivotDepth = Literal["none", "shallow", "normal", "deep"]
BlockKind = Literal["baseline", "trial", "retest"]
Surface = Literal["turf", "mat"]
PressureSchool = Literal["recentre", "steady", "stay_lead"]
HeelToeSchool = Literal["undecided", "mid_foot", "heels", "forefoot"]
LeadFootSchool = Literal["undecided", "lead_heel", "lead_toe"]
StartSchool = Literal["ground_up", "upper_led", "hips_first", "arms_led", "angles_first"]
HeelOrKneeSchool = Literal["undecided", "heel_first", "knee_first"]
TrailHipSchool = Literal["undecided", "comes_late", "held_back"]
HeadSchool = Literal["undecided", "stays_behind", "goes_through"]

Bearing = Annotated[float, Field(strict=True, ge=-90, le=90)]
Millimetres = Annotated[float, Field(strict=True, ge=-80, le=80)]
Centimetres = Annotated[float, Field(strict=True, ge=-60, le=60)]
Handicap = Annotated[float, Field(strict=True, ge=-10, le=54)]


Effort = Annotated[float, Field(strict=True, ge=1, le=120)]
Carry = Annotated[float, Field(strict=True, ge=0, le=400)]
ExpectedCarry = Annotated[float, Field(strict=True, ge=1, le=400)]


class ShotReadings(Strict):
    """What a ball shows that is the same in every frame and unit.

    `heel_toe_mm` + toe, `low_high_mm` + high on the face, centimetres along the target line from
    the ball, + on the target side.
    """

    contact: Contact | None = None
    heel_toe_mm: Millimetres | None = None
    low_high_mm: Millimetres | None = None
    divot_start_cm: Centimetres | None = None
    divot_length_cm: Annotated[float, Field(strict=True, gt=0, le=60)] | None = None
    divot_depth: DivotDepth | None = None
    brush_start_cm: Centimetres | None = None
    low_point_cm: Centimetres | None = Field(None, description="As a device measured it")
    launch_deg: Annotated[float, Field(strict=True, ge=-10, le=80)] | None = None
    spin_rpm: Annotated[float, Field(strict=True, ge=0, le=20000)] | None = None
    attack_deg: Annotated[float, Field(strict=True, ge=-30, le=30)] | None = None
    dynamic_loft_deg: Annotated[float, Field(strict=True, ge=-10, le=80)] | None = None
    drill_ok: bool | None = None


class Shot(ShotReadings):
    """One ball. Words and measurements may stand together; measurements win."""

    start: NeutralDirection | None = Field(None, description="Where the ball started")
    curve: NeutralDirection | None = Field(None, description="To which side it curved")
    start_deg: Bearing | None = Field(None, description="Start bearing, + push side")
    curve_deg: Bearing | None = Field(None, description="Landing minus start bearing, + push side")
    divot_direction_deg: Bearing | None = Field(None, description="+ push side")
    spin_axis_deg: Bearing | None = Field(None, description="+ curves to the push side")
    path_deg: Bearing | None = Field(None, description="Club path, + in-to-out")
    face_deg: Bearing | None = Field(None, description="Face to target, + push side")
    side_m: Annotated[float, Field(strict=True, ge=-200, le=200)] | None = Field(
        None, description="Landing place from the target line, + push side"
    )
    carry_m: Carry | None = None
    apex_m: Annotated[float, Field(strict=True, ge=0, le=100)] | None = None
    ball_speed_mps: Annotated[float, Field(strict=True, ge=0, le=200)] | None = None
    club_speed_mps: Annotated[float, Field(strict=True, ge=0, le=150)] | None = None


class Stance(Strict):
    """How the student stands, in degrees and centimetres."""

    lead_flare_deg: Annotated[float, Field(strict=True, ge=-30, le=90)] | None = None
    trail_drop_cm: Annotated[float, Field(strict=True, ge=-40, le=60)] | None = None
    width_cm: Annotated[float, Field(strict=True, ge=0, le=150)] | None = None
    ball_from_lead_heel_cm: Annotated[float, Field(strict=True, ge=-60, le=100)] | None = None
    hands_to_body_cm: Annotated[float, Field(strict=True, ge=0, le=80)] | None = None


class Block(Strict):
    """Balls hit one after the other with one club and, in a trial, one drill."""

    kind: BlockKind = "baseline"
    club: Word = "7i"
    drill: Word | None = None
    expected_carry_m: ExpectedCarry | None = None
    effort_pct: Effort | None = None
    surface: Surface | None = None
    teed: bool | None = None
    stance: Stance | None = None
    shots: Annotated[tuple[Shot, ...], Field(max_length=BALLS)] = ()


class Reading(Strict):
    """One answer to one check, from one source, before or after.

    share : how clearly the fact shows, 0 (not so) to 1 (so), where that is known more finely than
        the word tells
    trace, film : index of the pressure trace, or of the film, that answers by itself
    measured : a number that somebody took answers it, and no eye
    """

    check: Word
    answer: Answer
    source: Source | None = Field(None, description="None: the first source of the check")
    block: Index | None = Field(
        None, description="Index of the block it was seen with; None: seen without a drill"
    )
    share: Annotated[float, Field(ge=0, le=1)] | None = None
    trace: Index | None = None
    film: Index | None = None
    measured: bool = False

    @property
    def by_hand(self) -> bool:
        """Whether somebody gave this answer."""
        return self.trace is None and self.film is None


class Trace(Strict):
    """One swing's pressure trace, as recorded.

    Feet are lead and trail; `core/pressure/recorded.py` says which columns are read.

    typed_pct : in place of samples, the lead share in per cent at some events, as it was read off
        a mat's own screen
    """

    block: Index | None = None
    shot: Index | None = None
    columns: Annotated[tuple[Word, ...], Field(max_length=COLUMNS)] = ("t", "lead_pct")
    samples: Samples = ()
    events: dict[SwingEvent, Number] = Field(default_factory=dict)
    typed_pct: dict[SwingEvent, Annotated[float, Field(ge=0, le=100)]] = Field(default_factory=dict)

    def __hash__(self) -> int:
        """Of its ends only: thousands of samples are compared when they have to be."""
        ends = self.samples[:1] + self.samples[-1:]
        said = tuple(self.events.items()) + tuple(self.typed_pct.items())
        return hash((self.columns, len(self.samples), ends, said))


class School(Strict):
    """Which school the instructor follows in each matter of dispute."""

    pressure: PressureSchool = "recentre"
    heel_toe: HeelToeSchool = "undecided"
    lead_foot: LeadFootSchool = "undecided"
    start: StartSchool = "ground_up"
    heel_or_knee: HeelOrKneeSchool = "undecided"
    trail_hip: TrailHipSchool = "undecided"
    head: HeadSchool = "undecided"


class Case(Strict):
    """All the evidence of one lesson.

    history : what became of earlier decisions on the same student
    how_common : (cause id, factor) where a casebook says that a cause is commoner, or rarer
    eye : where it says that this instructor's answers to a look are wrong more often, or less
    """

    handedness: Handedness
    handicap: Handicap | None = None
    dominant_leg: Literal["lead", "trail"] | None = None
    limits: Annotated[tuple[Limit, ...], Field(max_length=LIST)] = ()
    school: School = School()
    blocks: Annotated[tuple[Block, ...], Field(max_length=BLOCKS)] = ()
    readings: Annotated[tuple[Reading, ...], Field(max_length=ANSWERS)] = ()
    traces: Annotated[tuple[Trace, ...], Field(max_length=TRACES)] = ()
    films: Annotated[tuple[Film, ...], Field(max_length=FILMS)] = ()
    history: Annotated[tuple[PastDecision, ...], Field(max_length=LIST)] = ()
    how_common: HowCommon = ()
    eye: Eye = ()

    @property
    def baselines(self) -> tuple[Block, ...]:
        """The blocks hit with nothing changed: the only ones the diagnosis adds up."""
        return tuple(b for b in self.blocks if b.kind == "baseline")
