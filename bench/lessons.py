"""The lesson that is measured: 40 balls and 25 answers, and many case files."""

import json
from pathlib import Path

import numpy as np

from firm_footing.core.case import Block, Case, Reading, to_file
from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.student import answer, hit_block, make_student

BALLS, ANSWERS = 40, 25


def full_lesson(knowledge: Knowledge, seed: int) -> Case:
    """40 balls and 25 answers of a simulated student with two causes."""
    rng = np.random.default_rng(seed)
    causes = rng.choice([c.id for c in knowledge.causes], size=2, replace=False).tolist()
    student = make_student(causes, 15.0, "thrown", knowledge, rng)
    block: Block = hit_block(student, BALLS, "7i", 140.0, knowledge, rng)
    looks = rng.choice([c.id for c in knowledge.checks], size=ANSWERS, replace=False)
    readings: tuple[Reading, ...] = tuple(
        answer(student, str(look), knowledge, rng) for look in looks
    )
    return Case(handedness="right", handicap=15.0, blocks=(block,), readings=readings)


def write_case_files(knowledge: Knowledge, folder: Path, count: int) -> list[Path]:
    """Case files of as many simulated students."""
    paths = []
    for seed in range(count):
        path = folder / f"{seed:04}.case.json"
        file = to_file(full_lesson(knowledge, seed)).model_dump(mode="json", exclude_none=True)
        path.write_text(json.dumps(file), encoding="utf-8")
        paths.append(path)
    return paths
