"""Write what is generated into a folder: the schemas of case file and API, and the schools.

Run by `make generate`; `make lint` fails when the committed files differ from these.
"""

import json
import sys
from pathlib import Path

from firm_footing.api.app import create_app
from firm_footing.core.case import CaseFile
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.learned import Learned
from firm_footing.core.text.school_changes import changes_of
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.store.database import open_database

FOLDER = Path(sys.argv[1])


def write(name: str, content: object) -> None:
    """One JSON file, the same bytes for the same content."""
    (FOLDER / name).write_text(json.dumps(content, indent=1) + "\n", encoding="utf-8")


schema = {
    "$schema": "https://json-schema.org/draft/2020-12/schema",
    "title": "Firm Footing case file",
} | CaseFile.model_json_schema()
write("case.schema.json", schema)
learned = {
    "$schema": "https://json-schema.org/draft/2020-12/schema",
    "title": "What Firm Footing learned from a casebook",
} | Learned.model_json_schema()
write("learned.schema.json", learned)
write("openapi.json", create_app(open_database(), load_knowledge(), None).openapi())


def schools(known: Knowledge) -> str:
    """What is disputed, and what choosing a school changes, as a page."""
    lines = [
        "# Where practitioners disagree",
        "",
        "Every matter of dispute has its schools; a lesson keeps the one it was started with. This "
        "page is made from `knowledge/` by `make generate`.",
    ]
    for name in type(known.schools).model_fields:
        question = getattr(known.schools, name)
        lines += ["", f"## {question.title}"]
        for option in question.options:
            usual = ", the usual one" if option.id == question.default else ""
            lines += [
                "",
                f"**{option.name}** (`{option.id}`{usual}). {option.sentence}",
                "",
                *(f"- {change}" for change in changes_of(name, option, known)),
                f"- Source: {option.source}.",
            ]
    return "\n".join(lines) + "\n"


(FOLDER / "SCHOOLS.md").write_text(schools(load_knowledge()), encoding="utf-8")
