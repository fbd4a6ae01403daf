"""How good is the ranking on students whose causes are known?

Students come from the mechanical stand-in. Each is looked at twice with the same number of looks:
once those the program proposes, once any at random; and once within a budget of seconds.
"""

import math
from collections.abc import Callable, Iterable, Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from typing import Final, NamedTuple

import numpy as np
from numpy.random import Generator

from firm_footing.core.case import Block, Case
from firm_footing.core.conclusions.next_check import next_checks
from firm_footing.core.diagnosis.diagnosis import Diagnosis, diagnose
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.film.marking import USUAL, with_films
from firm_footing.simulators.pressing import habit_of, press
from firm_footing.simulators.student import (
    SimulatedStudent,
    answer,
    draw_causes,
    draw_mode,
    hit_block,
    make_student,
)
from firm_footing.simulators.worlds import STAND_IN, WORLDS, World

LOOKS, BUDGET_S, SWINGS = 8, 300, 3
LEAST_SHOWN = 0.05
NEVER = 1e-9
"""The least probability that a log score takes."""


class Baseline(NamedTuple):
    """What a student hits first: with what, how many, and how much wider than they usually do."""

    balls: int = 10
    club: str = "7i"
    carry_m: float = 135.0
    wide: float = 1.0


TEN_IRONS = Baseline()


@dataclass(frozen=True)
class StudentRanked:
    """What the ranking said of one student.

    first, in_three : whether a true cause was first, among the first three of the list
    start : whether the first of the list is a true cause that comes from no other
    said : (probability given, was it true) of every cause given LEAST_SHOWN or more
    looks : looks taken
    log_score : nats, of what is said of every cause: log of what was given to what is true; 0 is
        the best there is
    """

    first: bool
    start: bool
    in_three: bool
    said: tuple[tuple[float, bool], ...]
    looks: int
    log_score: float


Policy = Callable[[SimulatedStudent, Case, Knowledge, Generator], Case]


def draw_student(
    seed: int, knowledge: Knowledge, world: World = STAND_IN, baseline: Baseline = TEN_IRONS
) -> tuple[SimulatedStudent, Case, Generator]:
    """A student of this world and a baseline; the same student whatever is hit."""
    rng = np.random.default_rng(seed)
    handicap = float(np.clip(rng.normal(16, 8), -2, 36))
    causes: tuple[str, ...] = ()
    while len(causes) not in world.causes_at_work:
        causes = draw_causes(knowledge, rng, most=max(world.causes_at_work) + 1)
    mode = draw_mode(handicap, knowledge, rng)
    student = make_student(causes, handicap, mode, knowledge, rng, world)
    student = replace(student, scatter=student.scatter * baseline.wide)
    block = hit_block(student, baseline.balls, baseline.club, baseline.carry_m, knowledge, rng)
    return student, Case(handedness="right", handicap=handicap, blocks=(block,)), rng


def proposed(student: SimulatedStudent, case: Case, knowledge: Knowledge, rng: Generator) -> Case:
    """Eight looks, each the one the program proposes after the last answer."""
    for _ in range(LOOKS):
        following = next_checks(infer(case, knowledge))
        asked = {r.check for r in case.readings}
        name = next((c.id for c in following if c.id not in asked), None)
        if name is None:
            break
        case = _seen(case, answer(student, name, knowledge, rng))
    return case


def at_random(student: SimulatedStudent, case: Case, knowledge: Knowledge, rng: Generator) -> Case:
    """Eight looks, any."""
    for name in looks_at_random(knowledge, rng):
        case = _seen(case, answer(student, name, knowledge, rng))
    return case


def looks_at_random(knowledge: Knowledge, rng: Generator) -> list[str]:
    """As many different checks as there are looks."""
    looks = [c.id for c in knowledge.checks if c.view != "belief"]
    names = rng.choice(looks, size=LOOKS, replace=False)
    return [str(name) for name in names]


def within_budget(
    student: SimulatedStudent, case: Case, knowledge: Knowledge, rng: Generator
) -> Case:
    """Proposed looks for as long as five minutes last, setting up included."""
    left = BUDGET_S
    setup = knowledge.numbers.decision.setup_seconds
    while True:
        asked = {r.check for r in case.readings}
        following = [
            c
            for c in next_checks(infer(case, knowledge))
            if c.id not in asked and c.seconds + setup <= left
        ]
        if not following:
            return case
        left -= following[0].seconds + setup
        case = _seen(case, answer(student, following[0].id, knowledge, rng))


def _seen(case: Case, reading: object) -> Case:
    return case.model_copy(update={"readings": (*case.readings, reading)})


def with_traces(
    student: SimulatedStudent,
    case: Case,
    knowledge: Knowledge,
    rng: Generator,
    swings: int = SWINGS,
) -> Case:
    """Swings on the mat, whose camera names address, top and impact."""
    habit = habit_of(student, rng)
    traces = tuple(
        press(student, habit, case.school.pressure, knowledge, rng, name_events=True)
        for _ in range(swings)
    )
    return case.model_copy(update={"traces": traces})


def on_the_mat(policy: Policy) -> Policy:
    """The same policy after swings on the mat; what the mat answers is not looked at again."""

    def policy_on_the_mat(
        student: SimulatedStudent, case: Case, knowledge: Knowledge, rng: Generator
    ) -> Case:
        feet = rng.spawn(1)[0]  # the looks stay those of the same student without a mat
        return policy(student, with_traces(student, case, knowledge, feet), knowledge, rng)

    return policy_on_the_mat


POLICIES: dict[str, Policy] = {
    "eight proposed": proposed,
    "eight at random": at_random,
    "five minutes proposed": within_budget,
}


def on_film(policy: Policy) -> Policy:
    """The same policy after a swing of any body, filmed from both sides with the usual care.

    The camera stands some degrees off its place, which nobody tells, and touches are off as well.
    """

    def policy_on_film(
        student: SimulatedStudent, case: Case, knowledge: Knowledge, rng: Generator
    ) -> Case:
        case = with_films(student, case, knowledge, rng.spawn(1)[0], anyone=True, care=USUAL)
        return policy(student, case, knowledge, rng)

    return policy_on_film


ON_FILM: dict[str, Policy] = {
    f"{name}, on film": on_film(policy) for name, policy in POLICIES.items()
}
ON_THE_MAT: dict[str, Policy] = {
    f"{name}, with traces": on_the_mat(policy) for name, policy in POLICIES.items()
}


def outcome(
    found: Diagnosis, truth: Sequence[str], knowledge: Knowledge, looks: int
) -> StudentRanked:
    """Judge one ranking by the hidden truth."""
    return StudentRanked(
        first=found.causes[0].id in truth,
        start=found.causes[0].id in knowledge.roots_of(truth),
        in_three=any(c.id in truth for c in found.causes[:3]),
        said=tuple(
            (c.probability, c.id in truth) for c in found.causes if c.probability >= LEAST_SHOWN
        ),
        looks=looks,
        log_score=log_score((c.probability, c.id in truth) for c in found.causes),
    )


def log_score(said: Iterable[tuple[float, bool]]) -> float:
    """Nats, from (probability given, was it true) of every cause: 0 is the best, below it worse."""
    return math.fsum(math.log(max(p if true else 1 - p, NEVER)) for p, true in said)


class Task(NamedTuple):
    """One student under one policy in one world; the same student under every policy.

    without : channels of evidence that are taken away: fields of a ball, or "looks"
    """

    policy: str
    world: str
    seed: int
    without: tuple[str, ...] = ()
    baseline: Baseline = TEN_IRONS


def _one(task: Task) -> StudentRanked:
    knowledge = load_knowledge()
    student, case, _ = draw_student(task.seed, knowledge, WORLDS[task.world], task.baseline)
    case = lacking(case, task.without)
    eyes = np.random.default_rng([task.seed, 1])
    case = {**POLICIES, **ON_THE_MAT, **ON_FILM}[task.policy](student, case, knowledge, eyes)
    return outcome(diagnose(case, knowledge), student.causes, knowledge, len(case.readings))


CHANNELS: Final[dict[str, tuple[str, ...]]] = {
    "carry": ("carry_m",),
    "strike": ("heel_toe_mm", "low_high_mm"),
    "divot": ("divot_start_cm", "divot_direction_deg"),
    "flight": ("start", "curve"),
}
"""Channels of evidence, and the fields of a ball that carry them."""


def lacking(case: Case, channels: Sequence[str]) -> Case:
    """The case without these channels."""
    fields = [field for channel in channels for field in CHANNELS[channel]]
    blocks = tuple(without_fields(block, fields) for block in case.blocks)
    return case.model_copy(update={"blocks": blocks})


def without_fields(block: Block, fields: Sequence[str]) -> Block:
    """The block as if these fields of its balls had not been noted."""
    nothing = dict.fromkeys(fields)
    shots = tuple(shot.model_copy(update=nothing) for shot in block.shots)
    return block.model_copy(update={"shots": shots})


def run(
    students: int,
    seed: int,
    policy: str,
    world: str = "a",
    without: tuple[str, ...] = (),
    baseline: Baseline = TEN_IRONS,
) -> Iterator[StudentRanked]:
    """Outcomes of as many students, on all cores; the same seed gives the same outcomes."""
    tasks = [Task(policy, world, seed * 1_000_000 + i, without, baseline) for i in range(students)]
    with ProcessPoolExecutor() as pool:
        yield from pool.map(_one, tasks, chunksize=20)


@dataclass(frozen=True)
class Summary:
    """Figures of one policy, as shares of students or of what was said.

    calibration_error : mean distance of said from true over ten bands, weighted by how many
    sure_and_true : of causes given 0.8 or more, the share that is true
    bands : (mean said, share true, how many) of each band that has any
    """

    first: float
    start: float
    in_three: float
    calibration_error: float
    sure_and_true: float
    sure: int
    looks: float
    bands: tuple[tuple[float, float, int], ...]


def summarise(outcomes: Sequence[StudentRanked]) -> Summary:
    """The figures over all outcomes."""
    said = np.array([pair for o in outcomes for pair in o.said])
    band = np.minimum((said[:, 0] * 10).astype(int), 9)
    bands = tuple(
        (float(said[band == b, 0].mean()), float(said[band == b, 1].mean()), int((band == b).sum()))
        for b in range(10)
        if (band == b).any()
    )
    sure = said[:, 0] >= 0.8
    return Summary(
        first=float(np.mean([o.first for o in outcomes])),
        start=float(np.mean([o.start for o in outcomes])),
        in_three=float(np.mean([o.in_three for o in outcomes])),
        calibration_error=sum(n * abs(a - b) for a, b, n in bands) / len(said),
        sure_and_true=float(said[sure, 1].mean()) if sure.any() else float("nan"),
        sure=int(sure.sum()),
        looks=float(np.mean([o.looks for o in outcomes])),
        bands=bands,
    )
