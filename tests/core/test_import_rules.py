"""The core knows no web, no database, no files and no clock; arrows point downward only."""

import ast
from pathlib import Path

import pytest

SOURCE = Path(__file__).parents[2] / "src" / "firm_footing"
FORBIDDEN_IN_CORE = {
    "fastapi", "starlette", "sqlmodel", "sqlalchemy", "alembic", "yaml", "pathlib", "os", "io",
    "time", "random", "typer", "uvicorn", "platformdirs", "importlib",
}  # fmt: skip
LAYERS = {
    "core": {"core"},
    "files": {"core", "files"},
    "store": {"core", "store"},
    "simulators": {"core", "files", "store", "simulators"},
    "api": {"core", "files", "store", "api"},
    "cli": {"core", "files", "store", "simulators", "api", "cli"},
}
ROOMS = (
    "frame", "knowledge", "case", "physics", "estimation", "patterns", "pressure", "film",
    "coaching", "inference", "learning", "conclusions", "text", "diagnosis",
)  # fmt: skip
"""The rooms of the core from the bottom up, as `docs/ARCHITECTURE.md` draws them."""
MODULES = sorted(SOURCE.rglob("*.py"))


def imports(path: Path) -> set[str]:
    found: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if isinstance(node, ast.Import):
            found |= {alias.name for alias in node.names}
        elif isinstance(node, ast.ImportFrom):
            assert node.level == 0, f"{path}: relative import"
            found.add(node.module or "")
    return found


def asks_the_clock(path: Path) -> bool:
    """A day may be a value of the core; which one it is today, it is told."""
    tree = ast.walk(ast.parse(path.read_text(encoding="utf-8")))
    called = (n.func for n in tree if isinstance(n, ast.Call))
    return any(isinstance(f, ast.Attribute) and f.attr in ("now", "today") for f in called)


@pytest.mark.parametrize("layer", LAYERS)
def test_a_layer_imports_only_what_lies_below_it(layer: str) -> None:
    for path in (SOURCE / layer).rglob("*.py"):
        if layer == "core":
            assert not asks_the_clock(path), f"{path.name} asks what time it is"
        for name in imports(path):
            if name.startswith("firm_footing."):
                assert name.split(".")[1] in LAYERS[layer], f"{path.name} imports {name}"
            elif layer == "core":
                assert name.split(".")[0] not in FORBIDDEN_IN_CORE, f"{path.name} imports {name}"


def test_every_room_of_the_core_is_held() -> None:
    found = {p.name for p in (SOURCE / "core").iterdir() if (p / "__init__.py").exists()}
    assert found == set(ROOMS)


@pytest.mark.parametrize("room", ROOMS)
def test_a_room_of_the_core_imports_only_what_lies_below_it(room: str) -> None:
    for path in (SOURCE / "core" / room).rglob("*.py"):
        for name in imports(path):
            if name.startswith("firm_footing.core."):
                below = name.split(".")[2]
                assert below in ROOMS[: ROOMS.index(room) + 1], f"{path.name} imports {name}"


def test_the_core_opens_no_files() -> None:
    for path in (SOURCE / "core").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Name):
                assert node.func.id != "open", path


def test_modules_stay_readable() -> None:
    for path in MODULES:
        lines = path.read_text(encoding="utf-8").count("\n")
        assert lines <= 330, f"{path.name} has {lines} lines: divide the room"
