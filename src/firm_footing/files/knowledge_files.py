"""Where do the knowledge files lie, and what is in them?"""

from functools import lru_cache
from pathlib import Path

import yaml

from firm_footing.core.knowledge import Knowledge, KnowledgeError, build_knowledge
from firm_footing.core.knowledge.build import FILES

KNOWLEDGE_FOLDER = Path(__file__).parents[3] / "knowledge"
"""The folder at the root of the checkout, from which the program is installed and run."""

SAFE_LOADER = getattr(yaml, "CSafeLoader", yaml.SafeLoader)
"""The safe loader, in C where PyYAML was built with it: starting takes half a second less."""


def load_knowledge_from(folder: Path) -> Knowledge:
    """Read and validate every knowledge file of a folder; KnowledgeError names file and entry."""
    contents = {}
    for name in FILES:
        path = folder / f"{name}.yaml"
        if not path.is_file():
            raise KnowledgeError(f"knowledge/{name}.yaml: the file is missing in {folder}")
        try:
            contents[name] = yaml.load(path.read_text(encoding="utf-8"), Loader=SAFE_LOADER)
        except yaml.YAMLError as error:
            raise KnowledgeError(f"knowledge/{name}.yaml: not readable as YAML: {error}") from error
    return build_knowledge(contents)


@lru_cache(maxsize=1)
def load_knowledge() -> Knowledge:
    """The knowledge that ships with the program, read once."""
    return load_knowledge_from(KNOWLEDGE_FOLDER)
