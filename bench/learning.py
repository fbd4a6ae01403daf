"""Does a casebook teach: how much of what the population is does the ranking come to know?

`python -m bench.learning`: a simulated instructor takes lessons with the program (ten balls in
words, ten looks at random), decides for what it would start with, and a third of the fates stay
unknown, of the others one in six is wrong. Then new students of the same population are ranked with
what was learned, as shipped, and by one who is told the population. Second lessons: a cause stays
in half of the students and is mended in the other half, who come with another one.
"""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import argparse
from collections.abc import Mapping
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from functools import cache, partial
from typing import NamedTuple

import numpy as np

from firm_footing.core.case import Case
from firm_footing.core.case.past import DecisionOutcome, Eye, HowCommon, PastDecision
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.causes import Cause
from firm_footing.core.knowledge.vocabulary import BY_EYE, DeliveryEffect
from firm_footing.core.learning.counts import LessonSeen, lesson_seen
from firm_footing.core.learning.learned import learn
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.measure import StudentRanked, draw_student, outcome, summarise
from firm_footing.simulators.student import SimulatedStudent, answer, hit_block, make_student

LOOKS = 10
UNKNOWN, WRONG = 1 / 3, 1 / 6
LESSONS = (20, 50, 150, 400)
POPULATIONS: dict[str, dict[str, float]] = {
    "ordinary": {},
    "two causes make half": {"late_shift": 9.0, "toes_in_downswing": 9.0},
    "set-up makes half": {"ball_position": 6.0, "weak_grip": 6.0, "reach_to_ball": 6.0},
    "juniors": {
        "over_effort": 4.0, "hang_back": 3.0, "reverse_pivot": 3.0, "club_fit": 3.0,
        "static_hips": 0.3, "backs_up": 0.5, "face_rolled_shut": 0.5,
    },
    "effects half as large": {},
}  # fmt: skip
"""Factors of how common causes are; the rest stays as shipped. Juniors' are an estimate."""
EFFECTS: dict[str, float] = {"effects half as large": 0.5}
"""Factors of what causes do to the ball. Nothing learns them: told is what would be to gain."""
EYES: dict[str, tuple[str, float]] = {
    "an eye that says yes too easily": ("", 0.2),
    "an eye that calls knees too often": ("knee", 0.5),
}
"""Looks whose names hold this, and how often what is not there is called there besides."""


SECOND = "second lessons"


class Idea(NamedTuple):
    """What somebody knows of a population and an eye beyond the files."""

    how_common: HowCommon = ()
    eye: Eye = ()


def told(name: str) -> Idea:
    """The idea of one who is told."""
    if name not in EYES:
        return Idea(how_common=tuple(POPULATIONS[name].items()))
    part, more = EYES[name]
    knowledge = load_knowledge()
    rates = {
        c.id: knowledge.numbers.reading_error.of(c.sources[0], c.read_as)
        for c in knowledge.checks
        if part in c.id
    }
    return Idea(eye=tuple((c, 1 + more * (1 - e) / e, 1 - more) for c, e in rates.items()))


def with_effects(cause: Cause, times: float) -> Cause:
    """The same cause, doing so many times as much to the ball."""

    def sized(effect: DeliveryEffect) -> DeliveryEffect:
        return DeliveryEffect(**{k: times * v for k, v in effect.model_dump().items()})

    sides = (s.model_copy(update={"effect": sized(s.effect)}) for s in cause.sides)
    stuck = {k: times * v for k, v in cause.effect_stuck.items()}
    update = {"effect": sized(cause.effect), "effect_stuck": stuck, "sides": tuple(sides)}
    return cause.model_copy(update=update)


@cache
def population(name: str) -> Knowledge:
    """The knowledge by which students of this population are drawn."""
    shipped = load_knowledge()
    more = POPULATIONS.get(name, {})
    causes = tuple(
        with_effects(c, EFFECTS.get(name, 1.0)).model_copy(
            update={"base_weight": c.base_weight * more.get(c.id, 1.0)}
        )
        for c in shipped.causes
    )
    return replace(shipped, causes=causes)


def seen(name: str, seed: int) -> tuple[SimulatedStudent, Case]:
    """A student of a population with ten balls and looks at random."""
    knowledge = load_knowledge()
    student, case, _ = draw_student(seed, population(name))
    return student, through_the_eye(name, looked_at(student, case, knowledge, seed), seed)


def looked_at(student: SimulatedStudent, case: Case, knowledge: Knowledge, seed: int) -> Case:
    """The case with as many looks, any."""
    rng = np.random.default_rng([seed, 3])
    looks = [c.id for c in knowledge.checks if c.view != "belief"]
    readings = [
        answer(student, str(n), knowledge, rng) for n in rng.choice(looks, LOOKS, replace=False)
    ]
    return case.model_copy(update={"readings": tuple(readings)})


def through_the_eye(name: str, case: Case, seed: int) -> Case:
    """The case as this instructor answers it."""
    if name not in EYES:
        return case
    part, more = EYES[name]
    rng = np.random.default_rng([seed, 6])
    calls = rng.random(len(case.readings)) < more
    readings = tuple(
        r.model_copy(update={"answer": "yes"})
        if c and r.answer == "no" and part in r.check and r.source in BY_EYE
        else r
        for r, c in zip(case.readings, calls, strict=True)
    )
    return case.model_copy(update={"readings": readings})


def fate_of(decided: str, truth: tuple[str, ...], seed: int) -> DecisionOutcome | None:
    """What becomes of a decision, as far as it is known."""
    rng = np.random.default_rng([seed, 4])
    if rng.random() < UNKNOWN:
        return None
    right = (decided in truth) != (rng.random() < WRONG)
    return DecisionOutcome(
        decided=decided, fate="confirmed" if right else "rejected", known_by=("retest",)
    )


def lesson(name: str, seed: int) -> LessonSeen | None:
    """One lesson of the casebook; None where nothing is known of its fate."""
    knowledge = load_knowledge()
    student, case = seen(name, seed)
    decided = infer(case, knowledge).start_with
    if decided is None:
        return None
    found = fate_of(decided, student.causes, seed)
    return None if found is None else lesson_seen(case, found, str(seed), str(seed), knowledge)


Ideas = Mapping[str, Idea]


def ranked(name: str, seed: int, ideas: Ideas) -> dict[str, StudentRanked]:
    """A new student, under each idea; who is told knows what causes do here as well."""
    knowledge = load_knowledge()
    student, case = seen(name, seed)
    here = population(name) if name in EFFECTS else knowledge
    return {
        idea: outcome(
            diagnose(case.model_copy(update=of._asdict()), here if idea == "told" else knowledge),
            student.causes, knowledge, LOOKS,
        )
        for idea, of in ideas.items()
    }  # fmt: skip


class Second(NamedTuple):
    """A second lesson: whether the cause stayed; ranked with the first finding and without."""

    stayed: bool
    remembered: StudentRanked
    forgotten: StudentRanked


def second(seed: int) -> Second | None:
    """A student comes again after a month; None where nothing is known of the first decision."""
    knowledge = load_knowledge()
    student, case = seen("ordinary", seed)
    decided = infer(case, knowledge).start_with
    found = decided and fate_of(decided, student.causes, seed)
    if not found:
        return None
    rng = np.random.default_rng([seed, 5])
    stayed = bool(rng.random() < 0.5)
    causes = student.causes
    if not stayed:
        causes = draw_student(seed + 7_000_000, population("ordinary"))[0].causes
    mode = student.mode
    again = make_student(causes, student.handicap, mode, knowledge, rng)
    block = hit_block(again, 10, "7i", 135.0, knowledge, rng)
    fresh = Case(handedness="right", handicap=student.handicap, blocks=(block,))
    fresh = looked_at(again, fresh, knowledge, seed + 9_000_000)
    past = PastDecision(**found.model_dump(), days_ago=30.0)
    both = (fresh.model_copy(update={"history": (past,)}), fresh)
    said = [outcome(diagnose(c, knowledge), again.causes, knowledge, LOOKS) for c in both]
    return Second(stayed, *said)


def main() -> None:
    """Print a table for each population, and one of second lessons."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--students", type=int, default=300)
    parser.add_argument("--only", action="append", help=f"Populations, or {SECOND!r}")
    asked = parser.parse_args()
    new = asked.students
    knowledge = load_knowledge()
    with ProcessPoolExecutor() as pool:
        wanted = asked.only or [*POPULATIONS, *EYES, SECOND]
        for name in (n for n in wanted if n != SECOND):
            most = max(LESSONS)
            book = list(pool.map(partial(lesson, name), range(1000, 1000 + most), chunksize=8))
            ideas = {"shipped": Idea(), "told": told(name)}
            for count in LESSONS:
                some = [b for b in book[:count] if b is not None]
                found_out = learn(some, knowledge)
                ideas[f"after {count}"] = Idea(found_out.how_common, found_out.eye)
            work = partial(ranked, name, ideas=ideas)
            found = list(pool.map(work, range(50_000, 50_000 + new), chunksize=4))
            print(f"\n{name}: {new} new students\n\n| | true start first | calibration error |")
            print("|---|---|---|")
            for idea in ideas:
                of = summarise([f[idea] for f in found])
                print(f"| {idea} | {of.start:.1%} | {of.calibration_error:.3f} |", flush=True)
        if SECOND not in wanted:
            return
        came = pool.map(second, range(90_000, 90_000 + new), chunksize=4)
        again = [s for s in came if s is not None]
        print(
            f"\n{SECOND}\n\n| | forgotten | remembered | gained | lessons |\n|---|---|---|---|---|"
        )
        for word, stayed in (("the cause stayed", True), ("another one", False)):
            these = [s for s in again if s.stayed == stayed]
            starts = np.array([(s.forgotten.start, s.remembered.start) for s in these], float)
            gained = 100 * (starts[:, 1] - starts[:, 0])
            points = f"{gained.mean():+.1f} ± {gained.std() / len(these) ** 0.5:.1f}"
            before, after = starts.mean(axis=0)
            print(f"| {word} | {before:.1%} | {after:.1%} | {points} | {len(these)} |")


if __name__ == "__main__":
    main()
