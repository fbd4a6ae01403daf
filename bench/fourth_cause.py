"""What would it change to allow four causes at once instead of three?"""

from dataclasses import dataclass

import numpy as np
import yaml

from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.knowledge import Knowledge, build_knowledge
from firm_footing.files.knowledge_files import KNOWLEDGE_FOLDER, load_knowledge
from firm_footing.simulators.measure import draw_student, proposed


@dataclass(frozen=True)
class Effect:
    """Over all students and causes.

    largest, mean : change of P(present), absolute
    other_first, other_start : share of students where another cause comes first or is started with
    beyond : share of probabilities that change by more than 0.05
    """

    students: int
    largest: float
    mean: float
    other_first: float
    other_start: float
    beyond: float


def with_four(knowledge: Knowledge) -> Knowledge:
    """The same knowledge, where links may add a fourth cause."""
    files = {
        path.stem: yaml.safe_load(path.read_text("utf-8"))
        for path in KNOWLEDGE_FOLDER.glob("*.yaml")
    }
    present = list(knowledge.numbers.prior.causes_present)
    files["numbers"]["prior"]["causes_present"] = [*present, 0.0]
    return build_knowledge(files)


def measure(students: int, seed: int) -> Effect:
    """Diagnose the same cases with either limit."""
    three = load_knowledge()
    four = with_four(three)
    changes, first, start = [], 0, 0
    for i in range(students):
        student, case, _ = draw_student(seed * 1_000_000 + i, three)
        eyes = np.random.default_rng([seed * 1_000_000 + i, 1])
        case = proposed(student, case, three, eyes)
        a, b = diagnose(case, three), diagnose(case, four)
        other = {c.id: c.probability for c in b.causes}
        changes.append([abs(c.probability - other[c.id]) for c in a.causes])
        first += a.causes[0].id != b.causes[0].id
        start += a.start_with != b.start_with
    found = np.array(changes)
    return Effect(
        students=students,
        largest=float(found.max()),
        mean=float(found.mean()),
        other_first=first / students,
        other_start=start / students,
        beyond=float((found > 0.05).mean()),
    )
