"""However much is kept, a page asks the database as often as with little."""

from pathlib import Path

import pytest
from bench.size import fill, statements_of
from fastapi.testclient import TestClient

from firm_footing.api.app import create_app
from firm_footing.core.knowledge import Knowledge
from firm_footing.store.database import open_database


@pytest.mark.parametrize("page", ["/api/day", "/api/due", "/api/casebook"])
def test_statements_do_not_grow_with_what_is_kept(
    tmp_path: Path, knowledge: Knowledge, page: str
) -> None:
    counts = []
    for name, students in (("few", 3), ("many", 90)):
        engine = open_database(tmp_path / f"{name}.db")
        fill(engine, students, lessons=3, balls=2)
        client = TestClient(create_app(engine, knowledge, screens=None))
        counts.append(statements_of(engine, client, page))
        engine.dispose()
    assert counts[0] == counts[1] < 15


def test_everyone_is_found_by_name_and_only_some_are_listed(
    tmp_path: Path, knowledge: Knowledge
) -> None:
    engine = open_database(tmp_path / "many.db")
    fill(engine, 90, lessons=1, balls=1)
    client = TestClient(create_app(engine, knowledge, screens=None))
    day = client.get("/api/day").json()
    assert (len(day["students"]), day["of"]) == (60, 90)
    listed = {s["name"] for s in day["students"]}
    assert "Student 0089" in listed
    assert "Student 0003" not in listed
    found = client.get("/api/students", params={"find": "stu 0003"}).json()
    assert [s["name"] for s in found] == ["Student 0003"]
    assert client.get("/api/students", params={"find": "%"}).json() == []
    engine.dispose()


def test_the_casebook_goes_page_by_page_and_its_sums_are_of_all(
    tmp_path: Path, knowledge: Knowledge
) -> None:
    engine = open_database(tmp_path / "many.db")
    fill(engine, 40, lessons=4, balls=1)
    client = TestClient(create_app(engine, knowledge, screens=None))
    seen, before = [], None
    for _ in range(5):
        params = {"before": before} if before else {}
        book = client.get("/api/casebook", params=params).raise_for_status().json()
        seen += [case["lesson_id"] for case in book["cases"]]
        before = book["cases"][-1]["decided_at"]
        if not book["more"]:
            break
    assert len(seen) == len(set(seen)) == 80
    assert (book["decided"]["came"], book["decided"]["of"]) == (52, 52)
    assert {c["shape"] for c in book["cases"]} == {"pull"}
    engine.dispose()
