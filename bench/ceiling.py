"""How far could anyone get on the simulated students? The knower, under the same policies."""

from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from functools import lru_cache

import numpy as np

from bench.knower import Belief, Knower, delivery_known, same_reading
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.measure import (
    BUDGET_S,
    LEAST_SHOWN,
    LOOKS,
    StudentRanked,
    draw_student,
    log_score,
    looks_at_random,
)
from firm_footing.simulators.student import answer
from firm_footing.simulators.worlds import WORLDS

EIGHT, RANDOM, BUDGET = "eight proposed", "eight at random", "five minutes proposed"


@lru_cache(maxsize=2)
def _knower(world: str) -> Knower:
    return Knower(load_knowledge(), WORLDS[world])


def _one(task: tuple[str, bool, int, str]) -> StudentRanked:
    """One student, met by the knower under one policy; the same student as the ranking meets."""
    policy, all_known, seed, world = task
    knower, knowledge = _knower(world), load_knowledge()
    student, case, _ = draw_student(seed, knowledge, WORLDS[world])
    eyes = np.random.default_rng([seed, 1])
    known = delivery_known(student, knowledge) if all_known else same_reading(case, knowledge)
    belief = Belief(knower, known, case.handicap or 0.0)
    setup = knowledge.numbers.decision.setup_seconds
    seconds = np.array([c.seconds + setup for c in knowledge.checks])
    left = np.ones(len(seconds), dtype=bool)
    budget, taken = BUDGET_S, 0
    planned: Sequence[str] = looks_at_random(knowledge, eyes) if policy == RANDOM else ()
    while taken < LOOKS or policy == BUDGET:
        if policy == RANDOM:
            look = belief.column[planned[taken]]
        else:
            open_looks = left & (seconds <= budget) if policy == BUDGET else left
            if not open_looks.any():
                break
            look = int(np.argmax(np.where(open_looks, belief.gains() / seconds, -1.0)))
        left[look] = False
        budget -= int(seconds[look])
        taken += 1
        belief.take(answer(student, knowledge.checks[look].id, knowledge, eyes))
    present = belief.present
    names = [knowledge.causes[i].id for i in np.argsort(-belief.root)]
    said = dict(zip(knowledge.cause, present.tolist(), strict=True))
    return StudentRanked(
        first=names[0] in student.causes,
        start=names[0] in knowledge.roots_of(student.causes),
        in_three=any(n in student.causes for n in names[:3]),
        said=tuple((p, c in student.causes) for c, p in said.items() if p >= LEAST_SHOWN),
        looks=taken,
        log_score=log_score((p, c in student.causes) for c, p in said.items()),
    )


def run(
    students: int, seed: int, policy: str, all_known: bool, world: str = "a"
) -> Iterator[StudentRanked]:
    """Outcomes of as many students, on all cores."""
    tasks = [(policy, all_known, seed * 1_000_000 + i, world) for i in range(students)]
    with ProcessPoolExecutor() as pool:
        yield from pool.map(_one, tasks, chunksize=20)
