"""Does the day stay as quick with 1,000 students as with a hundred?"""

import tempfile
import time
from collections.abc import Iterator
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from statistics import median
from typing import Any

from fastapi.testclient import TestClient
from sqlalchemy import Engine, event
from sqlmodel import Session, insert

from firm_footing.api.app import create_app
from firm_footing.core.case import Shot
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.store.database import open_database
from firm_footing.store.tables import (
    Decision,
    FollowUp,
    Lesson,
    LoggedBlock,
    LoggedShot,
    Student,
)

Row = tuple[str, str, str]
PAGES = (
    "/api/day",
    "/api/due",
    "/api/casebook",
    "/api/lessons/l0-0",
    "/api/lessons/l0-0/diagnosis",
)
SMALL, LARGE = (100, 5, 20), (1000, 5, 20)
"""Students, lessons of each, balls of each lesson."""
TIMES = 9


def fill(engine: Engine, students: int, lessons: int, balls: int) -> None:
    """So many, half of the lessons decided, a quarter followed up."""
    began = datetime(2026, 1, 1, 9, tzinfo=UTC)
    people: list[dict[str, Any]] = [
        {"id": f"s{i}", "name": f"Student {i:04}", "handedness": "right", "handicap": 12.0}
        for i in range(students)
    ]
    given: list[dict[str, Any]] = []
    blocks, shots, decided, asked = [], [], [], []
    for i in range(students):
        for j in range(lessons):
            key = f"l{i}-{j}"
            at = began + timedelta(minutes=i * lessons + j)
            given.append({"id": key, "student_id": f"s{i}", "started_at": at, "complaint": "fat"})
            blocks.append({"id": f"b{key}", "lesson_id": key, "position": 0})
            for k in range(balls):
                seen = Shot(start_deg=-3.0 + k / 7, curve_deg=2.0, contact="fat")
                shots.append(
                    {"id": f"{key}-{k}", "block_id": f"b{key}", "position": k, "observed": seen}
                )
            if j % 2:
                ranking = {"pattern": {"shape": "pull"}, "causes": [{"id": "hang_back"}]}
                decided.append(
                    {"id": f"d{key}", "lesson_id": key, "cause": "hang_back", "ranking": ranking,
                     "knowledge_version": "1", "ranked_first": "hang_back", "shape": "pull",
                     "decided_at": at}
                )  # fmt: skip
                told = "confirmed" if i % 3 else None
                due = date(2026, 2, 1)
                asked.append({"id": key, "lesson_id": key, "due_on": due, "verdict": told})
    with Session(engine) as session:
        for table, rows in (
            (Student, people), (Lesson, given), (LoggedBlock, blocks), (LoggedShot, shots),
            (Decision, decided), (FollowUp, asked),
        ):  # fmt: skip
            if not rows:
                continue
            first = table(**rows[0])
            usual = {name: getattr(first, name) for name in table.model_fields}
            for start in range(0, len(rows), 5000):
                some = [usual | row for row in rows[start : start + 5000]]
                session.exec(insert(table), params=some)
        session.commit()


def measure() -> Iterator[Row]:
    """Rows of name, wanted, found: milliseconds large, and the ratio to small, side by side."""
    found: dict[str, list[float]] = {}
    with tempfile.TemporaryDirectory() as folder:
        clients = []
        for name, size in (("small", SMALL), ("large", LARGE)):
            engine = open_database(Path(folder) / f"{name}.db")
            fill(engine, *size)
            app = create_app(engine, load_knowledge(), screens=None)
            clients.append((name, engine, TestClient(app)))
        for _ in range(TIMES):
            for page in PAGES:
                for name, _, client in clients:
                    started = time.perf_counter()
                    client.get(page).raise_for_status()
                    took = 1000 * (time.perf_counter() - started)
                    found.setdefault(f"{name} {page}", []).append(took)
        statements = {page: statements_of(clients[1][1], clients[1][2], page) for page in PAGES}
    for page in PAGES:
        small, large = median(found[f"small {page}"]), median(found[f"large {page}"])
        said = f"{large:.0f} ms, {large / small:.2f} x, {statements[page]} statements"
        yield f"1,000 students, {page}", "at most 1.5 x", said


def statements_of(engine: Engine, client: TestClient, page: str) -> int:
    """How many statements one request makes."""
    count = 0

    def counted(*_: Any) -> None:
        nonlocal count
        count += 1

    event.listen(engine, "before_cursor_execute", counted)
    client.get(page).raise_for_status()
    event.remove(engine, "before_cursor_execute", counted)
    return count
