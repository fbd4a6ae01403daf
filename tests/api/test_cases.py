"""A case file opens as a lesson and a lesson saves as one, and both say the same."""

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient

from firm_footing.core.case import CaseFile, from_file
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.diagnosis.ranking import ranking_of
from firm_footing.core.knowledge import Knowledge

FILE: dict[str, Any] = {
    "format": "firm-footing-case",
    "version": 1,
    "student": {"handedness": "left", "handicap": 12, "dominant_leg": "lead", "limits": ["knee"]},
    "school": {"heel_toe": "mid_foot"},
    "units": {"distance": "yd", "speed": "mph"},
    "blocks": [
        {
            "kind": "baseline",
            "club": "6i",
            "expected_carry": 160,
            "surface": "turf",
            "stance": {"lead_flare_deg": 15},
            "shots": [
                {"start": "right", "curve": "left", "contact": "clean", "carry": 140},
                {"start_deg": 3.0, "side": -5, "carry": 150, "club_speed": 80, "heel_toe_mm": -9},
            ],
        },
        {"kind": "trial", "club": "6i", "drill": "bottle_guard", "shots": [{"drill_ok": True}]},
    ],
    "traces": [
        {
            "block": 0,
            "columns": ["t", "lead_pct"],
            "samples": [[-1.0, 50], [0.0, 80]],
            "events": {"impact": 0.0},
        }
    ],
    "checks": {
        "trail_heel_up_early": "yes",
        "toes_going_back": [
            {"answer": "no", "source": "feel"},
            {"answer": "yes", "source": "film", "block": 0},
        ],
    },
    "notes": ["Prefers to be shown, not told."],
}


def test_there_and_back_says_the_same(client: TestClient, knowledge: Knowledge) -> None:
    lesson = client.post("/api/cases", json=FILE).json()
    url = f"/api/lessons/{lesson['id']}"
    saved = client.get(f"{url}/case", params={"limits": True, "notes": True})
    assert "attachment" in saved.headers["content-disposition"]
    before = from_file(CaseFile.model_validate(FILE))
    after = from_file(CaseFile.model_validate(saved.json()))
    mine, theirs = (ranking_of(diagnose(c, knowledge), knowledge) for c in (before, after))
    assert theirs == mine
    assert after.blocks == before.blocks
    assert after.traces == before.traces
    assert saved.json()["notes"] == FILE["notes"]
    everything = {"at_hand": ["look", "film", "mat", "plate", "monitor", "feel"]}
    assert client.get(f"{url}/diagnosis", params=everything).json()["ranking"] == mine


def test_what_is_private_stays_out_unless_asked_for(client: TestClient) -> None:
    lesson = client.post("/api/cases", json=FILE).json()
    saved = client.get(f"/api/lessons/{lesson['id']}/case").json()
    assert "limits" not in saved["student"]
    assert "notes" not in saved
    assert "name" not in json.dumps(saved)


def test_a_left_hander_is_mirrored_once(client: TestClient) -> None:
    lesson = client.post("/api/cases", json=FILE).json()
    first, second = lesson["blocks"][0]["shots"]
    assert first["observed"]["start"] == "pull"
    assert first["observed"]["curve"] == "push"
    assert second["observed"]["start_deg"] == -3.0
    assert second["observed"]["club_speed_mps"] == pytest.approx(80 * 0.44704)


def test_a_bad_file_changes_nothing(client: TestClient) -> None:
    bad = FILE | {"checks": {"trail_heel_up_erly": "yes"}}
    answer = client.post("/api/cases", json=bad)
    assert answer.status_code == 409
    assert "did you mean 'trail_heel_up_early'" in answer.json()["hint"]
    assert client.get("/api/day").json()["students"] == []


def test_a_file_can_join_a_known_student(client: TestClient) -> None:
    first = client.post("/api/cases", json=FILE, params={"name": "Jory Pask"}).json()
    student = first["student"]["id"]
    client.post("/api/cases", json=FILE, params={"student_id": student})
    lessons = client.get(f"/api/students/{student}/lessons").json()
    assert [x["balls"] for x in lessons] == [3, 3]
