"""What do case files with outcomes teach?"""

import hashlib
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import Annotated

import typer

from firm_footing.cli.rank import MANY
from firm_footing.core.knowledge import KnowledgeError
from firm_footing.core.learning.counts import LessonSeen, lesson_seen
from firm_footing.core.learning.learned import learn as learn_from
from firm_footing.core.text.learned import what_moved
from firm_footing.files.case_files import BadCaseError, read_file_and_case
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.files.learned_files import read_learned, write_learned


def learn(
    files: Annotated[
        list[Path], typer.Argument(help="Case files with an outcome", metavar="FILE...")
    ],
    out: Annotated[Path, typer.Option(help="Where to write what was learned")],
    before: Annotated[
        Path | None, typer.Option("--from", help="What was learned before, to go on from")
    ] = None,
) -> None:
    """Learn how common causes are and how the eye is, from known outcomes; exit 2: a bad file."""
    try:
        knowledge = load_knowledge()
        earlier = read_learned(before, knowledge) if before else None
    except (KnowledgeError, BadCaseError) as error:
        typer.echo(f"{before}: {error}" if isinstance(error, BadCaseError) else error, err=True)
        raise typer.Exit(2) from error
    lessons: list[LessonSeen] = []
    bad = untold = 0
    for path, found in _seen(files):
        if isinstance(found, str):
            bad += 1
            typer.echo(f"{path}: {found}", err=True)
        elif found is None:
            untold += 1
        else:
            lessons.append(found)
    learned = learn_from(lessons, knowledge, earlier)
    try:
        write_learned(learned, out)
    except OSError as error:
        typer.echo(f"{out}: {error.strerror}", err=True)
        raise typer.Exit(2) from error
    again = len(lessons) + (earlier.outcomes if earlier else 0) - learned.outcomes
    if again:
        typer.echo(f"{again} of the files were learned from already and were left out.")
    if untold:
        typer.echo(f"{untold} of the files say nothing of an outcome and were left out.")
    for line in what_moved(learned, knowledge):
        typer.echo(line)
    if bad:
        raise typer.Exit(2)


def _seen(files: list[Path]) -> Iterator[tuple[Path, LessonSeen | str | None]]:
    """Each file as a lesson, what is wrong with it, or None where it tells no outcome."""
    if len(files) < MANY:
        yield from ((path, _one(path)) for path in files)
        return
    with ProcessPoolExecutor() as pool:
        yield from zip(files, pool.map(_one, files, chunksize=8), strict=True)


def _one(path: Path) -> LessonSeen | str | None:
    knowledge = load_knowledge()
    try:
        file, case = read_file_and_case(path, knowledge)
    except BadCaseError as error:
        return str(error)
    if file.outcome is None:
        return None
    order = hashlib.sha256(file.model_dump_json().encode()).hexdigest()
    person = file.student.key or order
    return lesson_seen(case, file.outcome, person, order, knowledge)
