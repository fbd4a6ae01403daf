"""What is the diagnosis of each case file?"""

import json
from pathlib import Path
from typing import Annotated

import typer

from firm_footing.core.knowledge import Knowledge, KnowledgeError
from firm_footing.core.pattern.shape import probability_word
from firm_footing.core.reasoning import Ranking, diagnose, ranking_of
from firm_footing.files.case_files import BadCaseError, read_case_file
from firm_footing.files.knowledge_files import load_knowledge

SHOWN = 5
"""Causes shown to people; programs get all."""


def rank(
    files: Annotated[list[Path], typer.Argument(help="Case files", metavar="FILE...")],
    as_json: Annotated[bool, typer.Option("--json", help="One object a line")] = False,
) -> None:
    """Rank the root causes of each case file; exit 2 when any file was bad."""
    try:
        knowledge = load_knowledge()
    except KnowledgeError as error:
        typer.echo(str(error), err=True)
        raise typer.Exit(2) from error
    bad = False
    for path in files:
        try:
            case = read_case_file(path, knowledge)
        except BadCaseError as error:
            bad = True
            typer.echo(f"{path}: {error}", err=True)
            continue
        ranking = ranking_of(diagnose(case, knowledge), knowledge)
        if as_json:
            row = {"file": str(path), **ranking}
            typer.echo(json.dumps(row))
        else:
            typer.echo(_in_words(path, ranking, knowledge))
    if bad:
        raise typer.Exit(2)


def _in_words(path: Path, ranking: Ranking, knowledge: Knowledge) -> str:
    """A few lines for people."""
    known = knowledge.cause
    lines = [
        f"{path}",
        f"  {ranking['pattern']['shape'] or 'no pattern yet'} · {ranking['enough_reason']}",
        f"  start with: {known[ranking['start_with']].name}",
    ]
    for cause in ranking["causes"][:SHOWN]:
        word = probability_word(cause["probability"], knowledge.numbers).replace("_", " ")
        lines.append(f"  {100 * cause['probability']:3.0f} %  {known[cause['id']].name} ({word})")
    for check in ranking["next_checks"][:1]:
        found = knowledge.check[check["id"]]
        lines.append(f"  look next ({found.seconds} s): {found.question}")
    return "\n".join(lines)
