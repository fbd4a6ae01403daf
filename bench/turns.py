"""Do the turns that are foretold happen when the answer is given?"""

from concurrent.futures import ProcessPoolExecutor
from itertools import starmap

import numpy as np

from firm_footing.core.case import Reading
from firm_footing.core.conclusions.next_check import decision_flips, next_checks
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.inference import infer
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.measure import draw_student
from firm_footing.simulators.student import answer

LOOKS_BEFORE, CHECKS_TRIED = 4, 5


def measure(students: int, seed: int) -> tuple[int, int]:
    """Turns foretold over all students after a few looks at random, and those that happened."""
    with ProcessPoolExecutor() as pool:
        found = list(pool.map(_one, (seed * 1_000_000 + i for i in range(students))))
    return sum(f for f, _ in found), sum(h for _, h in found)


def _one(seed: int) -> tuple[int, int]:
    knowledge = load_knowledge()
    student, case, rng = draw_student(seed, knowledge)
    eyes = np.random.default_rng([seed, 1])
    asked = rng.choice([c.id for c in knowledge.checks], size=LOOKS_BEFORE, replace=False)
    readings = tuple(answer(student, str(c), knowledge, eyes) for c in asked)
    case = case.model_copy(update={"readings": readings})
    inference = infer(case, knowledge)
    looks = next_checks(inference)[:CHECKS_TRIED]
    foretold = [
        (look, flip) for look, flip in zip(looks, decision_flips(inference, looks), strict=True)
    ]

    def happens(source: str, check: str, said: str, then: str) -> bool:
        more = Reading.model_validate({"check": check, "answer": said, "source": source})
        after = case.model_copy(update={"readings": (*readings, more)})
        return diagnose(after, knowledge).causes[0].id == then

    told = [
        (look.source, flip.check, flip.answer, flip.then_first)
        for look, flip in foretold
        if flip.answer is not None
    ]
    return len(told), sum(starmap(happens, told))
