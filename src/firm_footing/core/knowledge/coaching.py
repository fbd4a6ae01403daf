"""Which drills and cautions are there, and what are the numbers of the coaching?"""

from typing import Literal, Self

import numpy as np
from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import Act, Contact, DeliveryEffect, Entry, Limit, Stage


class Constraint(Entry):
    """What a block of balls hit with this drill in force takes away and does by itself.

    removes : causes that are not at work while it is in force
    everyone : what it does to the delivery of any player
    effort_at_most_pct : a block that names no drill is this one when its effort is no higher
    """

    removes: tuple[str, ...] = Field(min_length=1)
    everyone: DeliveryEffect = DeliveryEffect()
    effort_at_most_pct: float | None = None


class Equipment(Entry):
    """Something a drill may want.

    outdoors : an indoor bay has none
    """

    id: str
    name: str
    outdoors: bool = False


class OnCourse(Entry):
    """The one thought of a drill that may go to the course.

    at_setup : whether it is finished before the club moves; near an event nothing else goes
    does : what it has the player do, so far as it could feed a cause
    """

    say: str
    at_setup: bool
    does: tuple[Act, ...] = ()


class Dose(Entry):
    """One step of a drill: what is done, how fast, and how often it has to be right in a row.

    speed_pct : of full speed
    ball : whether it is hit with a ball
    """

    say: str
    speed_pct: int = Field(gt=0, le=100)
    times: int = Field(ge=1, le=20)
    ball: bool


class Drill(Entry):
    """One drill with a pass sign that does not depend on the ball.

    pass_sign, feel : what should be seen in the real swing; what a rehearsal may exaggerate it to
    dose : its own steps; without, those that every drill has
    equipment : ids of what it wants
    schools : ids of the schools that teach it
    loads : the leg it loads
    handicap_at_most : for players beyond it the drill asks for much
    """

    id: str
    name: str
    essence: str
    steps: tuple[str, ...] = Field(min_length=2)
    mistake: str
    pass_sign: str
    feel: str | None = None
    dose: tuple[Dose, ...] = ()
    fail_signs: tuple[str, ...] = Field(min_length=1)
    equipment: tuple[str, ...] = ()
    targets: tuple[str, ...] = Field(min_length=1)
    not_for: tuple[str, ...] = ()
    care_with: tuple[str, ...] = ()
    schools: tuple[str, ...] = ()
    loads: Literal["lead", "trail", "both"]
    limits: tuple[Limit, ...] = ()
    handicap_at_most: float | None = None
    ball: Literal["none", "some", "all"]
    on_course: OnCourse | None = None
    constraint: Constraint | None = None
    source: str

    @model_validator(mode="after")
    def _a_constraint_is_hit_with_balls(self) -> "Drill":
        if self.constraint and self.ball == "none":
            raise ValueError("a constraint wants balls, and this drill has none")
        if any(step.ball for step in self.dose) and self.ball == "none":
            raise ValueError("a step is hit with a ball, and this drill has none")
        return self


class LimitName(Entry):
    """A bodily limit that can withhold a drill."""

    id: Limit
    name: str
    home_work: str | None = Field(None, description="What a student may do at home about it")


class Caution(Entry):
    """A caution, and which drills it goes with: any that a condition touches; all without one."""

    id: str
    sentence: str
    to_student: str | None = Field(None, description="The same on the student's page")
    limits: tuple[Limit, ...] = ()
    equipment: tuple[str, ...] = ()
    with_balls: bool = False
    for_minors: bool = False
    source: str

    @property
    def always(self) -> bool:
        """Whether it goes with every drill."""
        return not (self.limits or self.equipment or self.with_balls or self.for_minors)


class ForceTest(Entry):
    """A test of which force component a student feels."""

    id: str
    name: str
    component: Literal["vertical", "lateral", "rotational", "dominance"]
    limits: tuple[Limit, ...]
    source: str


class WithoutADrill(Entry):
    """What is left to do where every drill for a cause is kept back."""

    sentence: str
    source: str


class Cautions(Entry):
    """All of `cautions.yaml`."""

    limits: tuple[LimitName, ...]
    general: tuple[Caution, ...]
    without_a_drill: WithoutADrill
    force_tests: tuple[ForceTest, ...]


class WordLowPoint(Entry):
    """What words of contact say of the low point, in one number each."""

    cm: dict[Contact, float]
    sd_cm: float = Field(gt=0)


class RetestNumbers(Entry):
    """How a retest is judged.

    level : how often a retest of an unchanged student may be called real, all looks together
    nominal_levels : of each look at two means, so that the level holds, by balls of the baseline;
        one for each look, from the first on
    first_look : balls of the retest before anything is said
    looks : balls of a retest after which it is looked at; what is hit beyond them is not judged
    holds_to : p-value of all balls together up to which a change that was real still holds
    balls : of an ordinary retest, for which the chance of seeing a change is told
    most_more : more balls than this are not promised to tell
    mended_part : of a predicted change that one lesson is hoped to bring
    word_low_point : cm ahead of the ball that a word of contact stands for, where no mark was
        noted, and the standard deviation that such words scatter with at least
    """

    level: float = Field(gt=0, lt=1)
    nominal_levels: dict[int, tuple[float, ...]]
    first_look: int = Field(ge=2)
    looks: int = Field(ge=3)
    holds_to: float = Field(gt=0, lt=1)
    balls: int = Field(ge=3)
    most_more: int = Field(ge=1)
    mended_part: float = Field(gt=0, le=1)
    word_low_point: WordLowPoint

    @model_validator(mode="after")
    def _a_level_for_each_look(self) -> Self:
        if self.holds_to < self.level:
            raise ValueError(f"holds_to: at least the level, {self.level}")
        looks = self.looks - self.first_look + 1
        if any(len(row) != looks for row in self.nominal_levels.values()):
            raise ValueError(f"nominal_levels: each row has {looks} looks")
        return self

    def nominal_level(self, before: int, after: int) -> float:
        """Of one look at two means, after so many balls of the retest.

        Between two rows it lies on the straight line in one over the balls of the baseline; beyond
        the table, before it and after it, at its edge.
        """
        column = min(max(after, self.first_look), self.looks) - self.first_look
        known = sorted(self.nominal_levels, reverse=True)
        least, most = known[-1], known[0]
        share = 1 / min(max(before, least), most)
        levels = [self.nominal_levels[n][column] for n in known]
        return float(np.interp(share, [1 / n for n in known], levels))


class LadderNumbers(Entry):
    """The steps of a drill that has none of its own; down after so many fails in a row."""

    down_after: int = Field(ge=1)
    steps: tuple[Dose, ...] = Field(min_length=2)


class PracticeNumbers(Entry):
    """How a practice plan is laid out.

    minutes, balls : of one day
    check_in_days : when to check in where no event comes before
    setup_only_days : before an event only set-up is changed
    """

    minutes: int = Field(gt=0)
    balls: int = Field(gt=0)
    check_in_days: int = Field(ge=2)
    setup_only_days: int = Field(ge=0)


class LessonNumbers(Entry):
    """Minutes of a lesson, and how they are usually shared out among the stages.

    keep_for_retest : minutes kept back from the start
    """

    minutes: int = Field(gt=0)
    keep_for_retest: int = Field(ge=0)
    shares: dict[Stage, int]


class FitNumbers(Entry):
    """What speaks for and against a drill that serves a cause, in points.

    at_setup : for a cause of the set-up, a drill that is finished there
    lacking : for each thing it wants that is not here
    worked : times how much oftener than in a half of the lessons with it the cause was confirmed;
        worked_as_if : so many lessons, half of them confirmed, are counted with those;
        worked_from : lessons before anything is said of it
    """

    school: float = Field(ge=0)
    made_for: float = Field(ge=0)
    at_setup: float = Field(ge=0)
    nothing_needed: float = Field(ge=0)
    lacking: float = Field(le=0)
    beyond_skill: float = Field(le=0)
    worked: float = Field(ge=0)
    worked_as_if: float = Field(gt=0)
    worked_from: int = Field(ge=1)


class TransferNumbers(Entry):
    """Targets of a block in which every ball has its own: bearings, and parts of the carry."""

    bearings_deg: tuple[float, ...] = Field(min_length=2)
    carry_pct: tuple[float, ...] = Field(min_length=1)


class CoachingNumbers(Entry):
    """All numbers of the work after the decision.

    setup_balls : hit with a set-up changed, before any foot drill
    """

    setup_balls: int = Field(ge=1)
    fit: FitNumbers
    transfer: TransferNumbers
    ladder: LadderNumbers
    retest: RetestNumbers
    practice: PracticeNumbers
    lesson: LessonNumbers
