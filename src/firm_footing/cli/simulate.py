"""Where do case files with known truth come from?"""

import json
from pathlib import Path
from typing import Annotated

import numpy as np
import typer

from firm_footing.core.case import to_file
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.knowledge_files import load_knowledge


def simulate(
    seed: Annotated[int, typer.Option(help="The same seed writes the same files")],
    students: Annotated[int, typer.Option(min=1, help="How many students")],
    out: Annotated[Path, typer.Option(help="Folder for the files; made if missing")],
    swings: Annotated[int, typer.Option(min=0, max=20, help="Pressure traces of each")] = 1,
) -> None:
    """Write case files of simulated students, each with its hidden truth beside it.

    Every student has ten baseline balls, a pressure trace, and the eight looks the program would
    propose without it.
    """
    # large: the other commands start without it
    from firm_footing.simulators.measure import draw_student, proposed, with_traces  # noqa: PLC0415

    knowledge = load_knowledge()
    out.mkdir(parents=True, exist_ok=True)
    for number in range(students):
        own = seed * 1_000_000 + number
        student, case, _ = draw_student(own, knowledge)
        case = proposed(student, case, knowledge, np.random.default_rng([own, 1]))
        feet = np.random.default_rng([own, 2])
        case = with_traces(student, case, knowledge, feet, swings)
        stem = out / f"student-{seed}-{number:05}"
        file = to_file(case).model_dump(mode="json", exclude_none=True)
        _write(stem.with_suffix(".case.json"), file)
        _write(stem.with_suffix(".truth.json"), truth_of(student.causes, knowledge))
    typer.echo(f"{students} case files and their truths are in {out}")


def truth_of(causes: tuple[str, ...], knowledge: Knowledge) -> dict[str, list[str]]:
    """All causes that are present, and those with nothing upstream of them present."""
    return {"causes": list(causes), "roots": knowledge.roots_of(causes)}


def _write(path: Path, content: object) -> None:
    path.write_text(json.dumps(content, indent=1) + "\n", encoding="utf-8")
