"""No key of the knowledge stands there for nothing: each is read by the program or by a screen.

Keys that no model names are refused at load (`test_knowledge`); those that one names are looked for
here, as an attribute, in all that is not a model's own definition.
"""

import importlib
import pkgutil
import re
from pathlib import Path

from pydantic import BaseModel

from firm_footing.core import knowledge as package

ROOT = Path(__file__).parents[2]
READ_BY_NAME = {
    "Schools": "getattr(self, name) for name in type(self).model_fields",
    "ReadingErrors": "getattr(self, ",
    "SharedError": "getattr(self, name)",
    "MarkError": "getattr(found, mark)",
    "Timing": "getattr(timing, name)",
}
"""Models whose keys are asked for by a name held in a variable, and the words that do so."""


def models() -> dict[str, type[BaseModel]]:
    found = {}
    for module in pkgutil.walk_packages(package.__path__, f"{package.__name__}."):
        for thing in vars(importlib.import_module(module.name)).values():
            if isinstance(thing, type) and issubclass(thing, BaseModel):
                found[thing.__name__] = thing
    return found


def everything(folder: str, *endings: str) -> str:
    files = (p for p in (ROOT / folder).rglob("*") if p.name.endswith(endings))
    return "\n".join(p.read_text(encoding="utf-8") for p in files if "schema.d" not in p.name)


def test_every_key_of_the_knowledge_is_read_somewhere() -> None:
    program = everything("src", ".py")
    read = set(re.findall(r"\.(\w+)", program + everything("web/src", ".ts", ".vue")))
    assert [name for name, words in READ_BY_NAME.items() if words not in program] == []
    unread = {
        f"{name}.{key}"
        for name, model in models().items()
        if model.__module__.startswith(package.__name__) and name not in READ_BY_NAME
        for key in model.model_fields
        if key not in read
    }
    assert unread == set()
