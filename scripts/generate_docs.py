"""Write what is generated from the code into a folder: the case file's schema and the API's.

Run by `make generate`; `make lint` fails when the committed files differ from these.
"""

import json
import sys
from pathlib import Path

from firm_footing.api.app import create_app
from firm_footing.core.case import CaseFile
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
write("openapi.json", create_app(open_database(), load_knowledge(), None).openapi())
