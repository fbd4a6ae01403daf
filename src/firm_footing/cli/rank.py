"""What is the diagnosis of each case file?"""

import json
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from functools import partial
from pathlib import Path
from typing import Annotated

import typer

from firm_footing.core.case.past import Taught
from firm_footing.core.conclusions.schools import SchoolStart
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.diagnosis.ranking import Ranking, ranking_of
from firm_footing.core.knowledge import Knowledge, KnowledgeError
from firm_footing.core.text.schools import schools_sentence
from firm_footing.core.text.words import cause_words, percent
from firm_footing.files.case_files import BadCaseError, read_case_file
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.files.learned_files import read_learned

SHOWN = 5
"""Causes shown to people; programs get all."""
MANY = 16
"""From so many files on it pays to start a process for each processor."""


def rank(
    files: Annotated[list[Path], typer.Argument(help="Case files", metavar="FILE...")],
    as_json: Annotated[bool, typer.Option("--json", help="One object a line")] = False,
    learned: Annotated[
        Path | None,
        typer.Option(help="What `learn` wrote: how common causes are, how the eye is"),
    ] = None,
) -> None:
    """Rank the root causes of each case file; exit 2 when any file was bad."""
    try:
        knowledge = load_knowledge()
        taught = read_learned(learned, knowledge).taught_but(()) if learned else Taught()
    except (KnowledgeError, BadCaseError) as error:
        typer.echo(f"{learned}: {error}" if isinstance(error, BadCaseError) else error, err=True)
        raise typer.Exit(2) from error
    bad = False
    for path, answered in _ranked(files, taught):
        if isinstance(answered, str):
            bad = True
            typer.echo(f"{path}: {answered}", err=True)
        elif as_json:
            typer.echo(json.dumps({"file": str(path), **answered}))
        else:
            typer.echo(_in_words(path, answered, knowledge))
    if bad:
        raise typer.Exit(2)


def _ranked(files: list[Path], taught: Taught) -> Iterator[tuple[Path, Ranking | str]]:
    """Each file with its ranking, or with what is wrong with it; many files on all processors."""
    if len(files) < MANY:
        yield from ((path, _rank(path, taught)) for path in files)
        return
    with ProcessPoolExecutor() as pool:
        found = pool.map(partial(_rank, taught=taught), files, chunksize=4)
        yield from zip(files, found, strict=True)


def _rank(path: Path, taught: Taught) -> Ranking | str:
    knowledge = load_knowledge()
    try:
        case = read_case_file(path, knowledge)
    except BadCaseError as error:
        return str(error)
    case = case.model_copy(update={"how_common": taught.how_common, "eye": taught.eye})
    return ranking_of(diagnose(case, knowledge), knowledge)


SEEN_WORDS = {"yes": "seen, ", "partly": "partly seen, ", "no": "looked, not seen, "}


def _in_words(path: Path, ranking: Ranking, knowledge: Knowledge) -> str:
    """A few lines for people."""
    known = knowledge.cause
    lines = [
        f"{path}",
        f"  {ranking['pattern']['shape'] or 'no pattern yet'} · {ranking['enough_reason']}",
    ]
    if ranking["ball_next"]:
        lines.append(f"  once it is mended: {ranking['ball_next']}")
    elsewhere = [SchoolStart(**said) for said in ranking["schools_elsewhere"]]
    if said := schools_sentence(elsewhere, knowledge):
        lines.append(f"  {said}")
    for cause in ranking["causes"][:SHOWN]:
        seen = SEEN_WORDS.get(cause["seen"] or "", "")
        word = seen + cause_words(knowledge.numbers)[cause["word"]]
        lines.append(f"  {percent(cause['root']):>9}  {known[cause['id']].name} ({word})")
    for check in ranking["next_checks"][:1]:
        found = knowledge.check[check["id"]]
        lines.append(f"  look next ({found.seconds} s): {found.question}")
    return "\n".join(lines)
