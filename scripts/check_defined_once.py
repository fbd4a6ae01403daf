"""Is every type defined once? One name has one meaning: `scripts/check_defined_once.py`.

Classes and type aliases of the package, and exported types of the screens; what is defined a second
time is printed with both places, and the exit code is one.
"""

import ast
import re
import sys
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parents[1]
ALIASES = {"Annotated", "Literal", "NDArray", "TypeVar", "Callable", "Mapping"}
"""What an alias of a type begins with; `dict`, `tuple` and `X | Y` count as well."""
EXPORTED = re.compile(r"^export (?:type|interface|class) (\w+)", re.MULTILINE)


def types_of(tree: ast.Module) -> Iterator[str]:
    """Names of the classes and type aliases at the top of a module."""
    for node in tree.body:
        if isinstance(node, ast.ClassDef):
            yield node.name
        elif isinstance(node, ast.Assign) and isinstance(node.targets[0], ast.Name):
            name = node.targets[0].id
            if name.lstrip("_")[:1].isupper() and not name.isupper() and is_type(node.value):
                yield name


def is_type(value: ast.expr) -> bool:
    """Whether what is assigned reads as a type."""
    if isinstance(value, ast.BinOp):
        return isinstance(value.op, ast.BitOr)
    inner = value.func if isinstance(value, ast.Call) else value
    inner = inner.value if isinstance(inner, ast.Subscript) else inner
    return isinstance(inner, ast.Name) and inner.id in ALIASES | {"dict", "tuple", "list"}


def main() -> None:
    """Print every name defined twice."""
    places: dict[str, list[str]] = defaultdict(list)
    for path in sorted((ROOT / "src").rglob("*.py")):
        for name in types_of(ast.parse(path.read_text(encoding="utf-8"))):
            places[name].append(str(path.relative_to(ROOT)))
    for path in sorted((ROOT / "web" / "src").rglob("*")):
        if path.suffix in (".ts", ".vue") and path.name != "schema.d.ts":
            for name in EXPORTED.findall(path.read_text(encoding="utf-8")):
                places[f"{name} (screens)"].append(str(path.relative_to(ROOT)))
    twice = {name: where for name, where in places.items() if len(where) > 1}
    for name, where in twice.items():
        print(f"{name} is defined more than once: {', '.join(where)}")
    sys.exit(1 if twice else 0)


if __name__ == "__main__":
    main()
