"""What does it change to tell half of the severities of three causes instead of all of them?"""

from dataclasses import dataclass
from unittest.mock import patch

import numpy as np

from firm_footing.core.case import Case
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference import enumeration
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.knowledge_files import (
    KNOWLEDGE_FOLDER,
    load_knowledge,
    load_knowledge_from,
)
from firm_footing.simulators.measure import at_random, draw_student


@dataclass(frozen=True)
class Effect:
    """Over all students and causes: change of `root`, absolute; students with another first."""

    students: int
    largest: float
    mean: float
    other_first: float


def measure(students: int, seed: int) -> Effect:
    """Diagnose the same cases either way."""
    half = load_knowledge()
    whole = load_knowledge_from(KNOWLEDGE_FOLDER)
    changes, other = [], 0
    for i in range(students):
        student, case, _ = draw_student(seed * 1_000_000 + i, half)
        eyes = np.random.default_rng([seed * 1_000_000 + i, 1])
        case = at_random(student, case, half, eyes)
        a, b = _roots(case, half), _roots_of_all(case, whole)
        changes.append([abs(a[c] - b[c]) for c in a])
        other += max(a, key=lambda c: a[c]) != max(b, key=lambda c: b[c])
    found = np.array(changes)
    return Effect(students, float(found.max()), float(found.mean()), other / students)


def _roots(case: Case, knowledge: Knowledge) -> dict[str, float]:
    return {c.id: c.root for c in diagnose(case, knowledge).causes}


def _roots_of_all(case: Case, knowledge: Knowledge) -> dict[str, float]:
    """With every severity of three causes told; `knowledge` is used for nothing else."""
    every = patch.object(enumeration, "severities_told", lambda n, levels: np.arange(levels**n))
    with every:
        return _roots(case, knowledge)
