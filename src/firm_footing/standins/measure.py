"""How good is the ranking on students whose causes are known?

Students come from the mechanical stand-in. Each is looked at twice with the same number of looks:
once those the program proposes, once any at random; and once within a budget of seconds.
"""

from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass

import numpy as np
from numpy.random import Generator

from firm_footing.core.case import Case
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.reasoning import Diagnosis, diagnose
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.standins.pressing import habit_of, press
from firm_footing.standins.student import (
    SimulatedStudent,
    answer,
    draw_causes,
    draw_mode,
    hit_block,
    make_student,
)

BALLS, LOOKS, BUDGET_S, SWINGS = 10, 8, 300, 3
CLUB, CARRY_M = "7i", 135.0
LEAST_SHOWN = 0.05


@dataclass(frozen=True)
class Outcome:
    """What the ranking said of one student.

    first, in_three : whether a true cause was first, among the first three of the list
    start : whether the cause to start with, the first of the roots, was a true cause
    said : (probability given, was it true) of every cause given LEAST_SHOWN or more
    looks : looks taken
    """

    first: bool
    start: bool
    in_three: bool
    said: tuple[tuple[float, bool], ...]
    looks: int


Policy = Callable[[SimulatedStudent, Case, Knowledge, Generator], Case]


def draw_student(seed: int, knowledge: Knowledge) -> tuple[SimulatedStudent, Case, Generator]:
    """A student with one or two causes and a baseline of ten balls."""
    rng = np.random.default_rng(seed)
    handicap = float(np.clip(rng.normal(16, 8), -2, 36))
    causes: tuple[str, ...] = ()
    while len(causes) not in (1, 2):
        causes = draw_causes(knowledge, rng)
    student = make_student(causes, handicap, draw_mode(handicap, knowledge, rng), knowledge, rng)
    block = hit_block(student, BALLS, CLUB, CARRY_M, knowledge, rng)
    return student, Case(handedness="right", handicap=handicap, blocks=(block,)), rng


def proposed(student: SimulatedStudent, case: Case, knowledge: Knowledge, rng: Generator) -> Case:
    """Eight looks, each the one the program proposes after the last answer."""
    for _ in range(LOOKS):
        following = diagnose(case, knowledge).next_checks
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
    names = rng.choice([c.id for c in knowledge.checks], size=LOOKS, replace=False)
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
            for c in diagnose(case, knowledge).next_checks
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
ON_THE_MAT: dict[str, Policy] = {
    f"{name}, with traces": on_the_mat(policy) for name, policy in POLICIES.items()
}


def outcome(found: Diagnosis, truth: Sequence[str], looks: int) -> Outcome:
    """Judge one ranking by the hidden truth; the list is in the order of probability."""
    return Outcome(
        first=found.causes[0].id in truth,
        start=found.start_with in truth,
        in_three=any(c.id in truth for c in found.causes[:3]),
        said=tuple(
            (c.probability, c.id in truth) for c in found.causes if c.probability >= LEAST_SHOWN
        ),
        looks=looks,
    )


def _one(task: tuple[str, int]) -> Outcome:
    """One student under one policy; the student is the same under every policy."""
    policy, seed = task
    knowledge = load_knowledge()
    student, case, _ = draw_student(seed, knowledge)
    eyes = np.random.default_rng([seed, 1])
    case = {**POLICIES, **ON_THE_MAT}[policy](student, case, knowledge, eyes)
    return outcome(diagnose(case, knowledge), student.causes, len(case.readings))


def run(students: int, seed: int, policy: str) -> Iterator[Outcome]:
    """Outcomes of as many students, on all cores; the same seed gives the same outcomes."""
    tasks = [(policy, seed * 1_000_000 + i) for i in range(students)]
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


def summarise(outcomes: Sequence[Outcome]) -> Summary:
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
