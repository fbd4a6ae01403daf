"""`docs/SCALING.md` names every place that knows SQLite, and no other."""

import re
from pathlib import Path

ROOT = Path(__file__).parents[2]
SOURCE = ROOT / "src" / "firm_footing"
KNOWS = re.compile(r"import sqlite3|PRAGMA|sqlite://|sqlite:///|json_extract|BEGIN IMMEDIATE")


def test_the_list_of_what_knows_sqlite_is_true() -> None:
    named = set(re.findall(r"^- `([^`]+)`", (ROOT / "docs" / "SCALING.md").read_text(), re.M))
    found = {
        path.relative_to(SOURCE).as_posix()
        for path in SOURCE.rglob("*.py")
        if KNOWS.search(path.read_text(encoding="utf-8"))
    }
    assert found - named == {"store/migrations/env.py"} & found
    assert named <= found
