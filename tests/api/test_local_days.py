"""A day is the one of where the lesson was given, at the turn of day, year and summer time."""

from datetime import UTC, date, datetime, timedelta

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import Engine
from sqlmodel import Session

from firm_footing.store import tables
from firm_footing.store.tables import Lesson
from tests.api.asking import decide

TURNS = [
    ("America/Los_Angeles", datetime(2026, 3, 2, 1, 30, tzinfo=UTC), date(2026, 3, 1)),
    ("Pacific/Auckland", datetime(2026, 12, 31, 11, 30, tzinfo=UTC), date(2027, 1, 1)),
    ("Europe/Paris", datetime(2026, 3, 28, 23, 30, tzinfo=UTC), date(2026, 3, 29)),
    ("Europe/Paris", datetime(2026, 10, 24, 22, 30, tzinfo=UTC), date(2026, 10, 25)),
    ("UTC", datetime(2026, 6, 1, 23, 59, tzinfo=UTC), date(2026, 6, 1)),
]


@pytest.mark.parametrize(("zone", "started", "day"), TURNS)
def test_practice_begins_from_the_day_of_the_lesson(
    client: TestClient, engine: Engine, zone: str, started: datetime, day: date
) -> None:
    body = {"name": "Oda", "handedness": "right"}
    student = client.post("/api/students", json=body).raise_for_status().json()["id"]
    lesson = client.post(f"/api/students/{student}/lessons", json={"zone": zone}).json()
    with Session(engine) as session:
        kept = session.get_one(Lesson, lesson["id"])
        kept.started_at = started
        session.add(kept)
        session.commit()
    decide(client, lesson, "backs_up")
    sheet = client.get(f"/api/lessons/{lesson['id']}/sheet").raise_for_status().json()
    first = date.fromisoformat(sheet["days"][0]["on"])
    assert first - day == timedelta(days=1)
    calendar = client.get(f"/api/lessons/{lesson['id']}/practice.ics").text
    assert f"{first:%Y%m%d}" in calendar
    saved = client.get(f"/api/lessons/{lesson['id']}/case")
    assert day.isoformat() in saved.headers["content-disposition"]


@pytest.mark.parametrize(("zone", "started", "day"), TURNS)
def test_today_is_the_day_there(
    zone: str, started: datetime, day: date, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(tables, "now", lambda: started)
    assert Lesson(student_id="s", zone=zone).today() == day


def test_a_zone_that_this_machine_does_not_know_refuses_no_lesson(client: TestClient) -> None:
    body = {"name": "Oda", "handedness": "right"}
    student = client.post("/api/students", json=body).json()["id"]
    started = client.post(f"/api/students/{student}/lessons", json={"zone": "Mars/Crater"})
    assert started.status_code == 201
