"""Which drills serve a cause without hurting the student, and which of them fits best here?"""

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, field

from firm_footing.core.case import Case, School
from firm_footing.core.knowledge import Drill, Knowledge
from firm_footing.core.knowledge.coaching import FitNumbers
from firm_footing.core.knowledge.cues import Leg
from firm_footing.core.knowledge.vocabulary import Limit

USUAL_SCHOOL = School()

Worked = Mapping[tuple[str, str], tuple[int, int]]
EMPTY: Worked = {}


@dataclass(frozen=True)
class Situation:
    """What a choice of drills asks of student and place.

    limits : bodily limits flagged for the student
    handicap : None when not known
    present : cause id to P(present), to keep back drills that another likely cause forbids
    path_deg : club path, + in-to-out, None when not known
    lacking : ids of equipment that is not here
    sides : of a limit, the one leg it is on; not known, or both: left out
    worked : (cause id, drill id) to how often the cause was confirmed in this instructor's lessons
        with the drill, and in how many it is known
    """

    limits: Collection[Limit] = ()
    school: School = USUAL_SCHOOL
    handicap: float | None = None
    present: Mapping[str, float] | None = None
    path_deg: float | None = None
    lacking: Collection[str] = ()
    sides: Mapping[Limit, Leg] | None = None
    worked: Worked = field(default_factory=dict)

    def probability(self, cause: str) -> float:
        """P(present) of a cause, 0 where nothing is known."""
        return (self.present or {}).get(cause, 0.0)


def situation_of(
    case: Case,
    present: Mapping[str, float],
    path_deg: float | None,
    lacking: Collection[str] = (),
    sides: Mapping[Limit, Leg] | None = None,
    worked: Worked = EMPTY,
) -> Situation:
    """The situation of a case's student."""
    limits, school, handicap = case.limits, case.school, case.handicap
    return Situation(limits, school, handicap, present, path_deg, lacking, sides, worked)


@dataclass(frozen=True)
class Withheld:
    """A drill kept back, and the flagged limits or the causes it would make worse."""

    drill: str
    limits: tuple[Limit, ...]
    worse_for: tuple[str, ...]


@dataclass(frozen=True)
class Fit:
    """How well a drill fits here: points, and in words what speaks for and against it."""

    points: float
    pros: tuple[str, ...]
    cons: tuple[str, ...]


def drills_for(cause: str, knowledge: Knowledge, here: Situation) -> tuple[str, ...]:
    """Ids of the drills that serve this cause, the best fitting first."""
    kept_back = {w.drill for w in withheld_for(cause, knowledge, here)}
    serving = [d for d in _serving(cause, knowledge) if d.id not in kept_back]
    fitting = sorted(serving, key=lambda d: -fit_of(d, cause, knowledge, here).points)
    return tuple(d.id for d in fitting)


def fit_of(drill: Drill, cause: str, knowledge: Knowledge, here: Situation) -> Fit:
    """The drill's points, each with its reason; equal points leave the order of the file."""
    worth = knowledge.numbers.coaching.fit
    missing = [
        e.name for e in knowledge.equipment if e.id in drill.equipment and e.id in here.lacking
    ]
    beyond = (
        drill.handicap_at_most is not None and _handicap(here, knowledge) > drill.handicap_at_most
    )
    schools = {o.id for o in knowledge.schools.chosen(here.school.model_dump())}
    taught = len(schools & set(drill.schools))  # what two of them teach comes before what one does
    at_setup = drill.on_course is not None and drill.on_course.at_setup
    said = [
        (taught > 0, taught * worth.school, "your school teaches it"),
        (drill.targets[0] == cause, worth.made_for, "made for this cause"),
        (
            at_setup and knowledge.cause[cause].group == "setup",
            worth.at_setup,
            "finished at set-up",
        ),
        (not drill.equipment, worth.nothing_needed, "needs nothing"),
        (drill.ball == "none", 0.0, "without a ball"),
        (drill.on_course is not None, 0.0, "a piece may go to the course"),
        (beyond, worth.beyond_skill, "asks much of this player"),
        *((True, points, words) for points, words in _worked(drill, cause, worth, here)),
        *((True, 0.0, spared) for spared in _spared(drill, knowledge, here)),
        *((True, worth.lacking, f"{name} is not here") for name in missing),
    ]
    holding = [(points, words) for holds, points, words in said if holds]
    return Fit(
        points=sum(points for points, _ in holding),
        pros=tuple(words for points, words in holding if points >= 0),
        cons=tuple(words for points, words in holding if points < 0),
    )


def _worked(
    drill: Drill, cause: str, worth: FitNumbers, here: Situation
) -> Iterator[tuple[float, str]]:
    """What became of the lessons with this drill for this cause, once there are enough."""
    came, of = here.worked.get((cause, drill.id), (0, 0))
    if of >= worth.worked_from:
        share = (came + worth.worked_as_if / 2) / (of + worth.worked_as_if)
        yield worth.worked * (share - 0.5), f"cause confirmed in {came} of {of} lessons with it"


def _handicap(here: Situation, knowledge: Knowledge) -> float:
    return knowledge.numbers.handicap_left_out if here.handicap is None else here.handicap


def withheld_for(cause: str, knowledge: Knowledge, here: Situation) -> list[Withheld]:
    """The drills for this cause that are kept back, with the reasons."""
    found, likely = [], knowledge.numbers.likely_from
    for drill in _serving(cause, knowledge):
        hurt = tuple(x for x in drill.limits if x in here.limits and not _spares(drill, x, here))
        worse = tuple(c for c in drill.not_for if here.probability(c) >= likely)
        worse += _opposed(drill, cause, knowledge, here)
        if hurt or worse:
            found.append(Withheld(drill.id, hurt, worse))
    return found


def _opposed(drill: Drill, cause: str, knowledge: Knowledge, here: Situation) -> tuple[str, ...]:
    """Causes whose remedy is the opposite of this drill's, and that are at least as likely.

    So two opposite remedies are never advised together: neither beside the cause to start with,
    nor for a third cause that one of the drills happens to serve as well.
    """
    found, possible = [], knowledge.numbers.possible_from
    for target in drill.targets:
        opposite = knowledge.cause[target].opposite_of
        if opposite is None or opposite in drill.not_for or target == cause:
            continue
        likelier = here.probability(opposite) >= max(here.probability(target), possible)
        if opposite == cause or likelier:
            found.append(opposite)
    return tuple(found)


def _serving(cause: str, knowledge: Knowledge) -> list[Drill]:
    return [d for d in knowledge.drills if cause in d.targets]


def _spares(drill: Drill, limit: Limit, here: Situation) -> bool:
    """Whether the drill loads only the other leg."""
    side = (here.sides or {}).get(limit)
    return side is not None and drill.loads not in ("both", side)


def _spared(drill: Drill, knowledge: Knowledge, here: Situation) -> list[str]:
    """What is said where a flagged limit does not keep the drill back: it loads the other leg."""
    names = {limit.id: limit.name.lower() for limit in knowledge.cautions.limits}
    return [
        f"does not load the {(here.sides or {})[limit]} {names[limit]}"
        for limit in drill.limits
        if limit in here.limits and _spares(drill, limit, here)
    ]
