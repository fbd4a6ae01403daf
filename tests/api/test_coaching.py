"""After the decision: drills, ladder, cues, retest, sheet, follow-up, casebook, clock."""

import io
import json
import zipfile
from datetime import date, timedelta

import pytest
from fastapi.testclient import TestClient
from icalendar import Calendar

from firm_footing.core.case import CaseFile
from firm_footing.core.case.past import DecisionOutcome
from firm_footing.core.knowledge import Knowledge
from tests.api.asking import Json, change, decide, get, hit


def test_what_is_heard_is_kept_undone_and_orders_the_looks(
    client: TestClient, lesson: Json
) -> None:
    plain = get(client, lesson, "diagnosis")["ranking"]["next_checks"]
    listen = {"misses": ["shank"], "goal": "Break ninety", "event_on": "2026-12-05"}
    assert change(client, lesson, listen=listen)["listen"]["misses"] == ["shank"]
    told = get(client, lesson, "diagnosis")
    assert told["ranking"]["next_checks"] != plain
    assert told["ranking"]["pattern"]["balls"] == 0  # what is told is no evidence
    undone = client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"}).json()
    assert undone["listen"]["misses"] == []
    assert (
        client.post(
            f"/api/lessons/{lesson['id']}/changes",
            json={"kind": "lesson", "body": {"listen": {"event_on": "soon"}}},
        ).status_code
        == 422
    )


def test_drills_serve_the_cause_decided_on_and_limits_keep_some_back(
    client: TestClient, baseline: Json, knowledge: Knowledge
) -> None:
    before = get(client, baseline, "coaching")
    assert not before["decided"]
    decide(client, baseline, "trail_knee_fires", "seen on film")
    found = get(client, baseline, "coaching")
    assert (found["decided"], found["cause"]) == (True, "trail_knee_fires")
    assert {c["drill"] for c in found["cards"]} == {
        d.id for d in knowledge.drills if "trail_knee_fires" in d.targets
    }
    student = baseline["student"]["id"]
    client.patch(f"/api/students/{student}", json={"limits": ["balance", "knee"]})
    cards = {c["drill"]: c for c in get(client, baseline, "coaching")["cards"]}
    assert "balance" in cards["sweep_behind"]["withheld"]
    assert cards[cards["sweep_behind"]["instead"]]["withheld"] is None
    assert [c["withheld"] is None for c in cards.values()] == sorted(
        (c["withheld"] is None for c in cards.values()), reverse=True
    )


def test_repetitions_move_the_ladder_once_each_and_can_be_undone(
    client: TestClient, lesson: Json
) -> None:
    assert get(client, lesson, "coaching")["ladder"] is None
    change(client, lesson, drill="club_under_heel")
    url = f"/api/lessons/{lesson['id']}/changes"
    for i in (0, 1, 2, 3, 4, 4):
        body = {"drill": "club_under_heel", "result": "pass"}
        tapped = {"kind": "repetition", "id": f"r{i}", "body": body}
        client.post(url, json=tapped).raise_for_status()
    ladder = get(client, lesson, "coaching")["ladder"]
    assert (ladder["at"], ladder["said"], ladder["passes"]) == (1, "up", 5)
    assert ladder["steps"][2]["say"] == "Balls of 60 to 70 yards"
    client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"})
    ladder = get(client, lesson, "coaching")["ladder"]
    assert (ladder["at"], ladder["in_a_row"]) == (0, 4)
    juggled = {"kind": "repetition", "id": "x", "body": {"drill": "juggling", "result": "pass"}}
    assert client.post(url, json=juggled).status_code == 409
    for name in ("juggling", ""):
        refused = client.post(
            f"/api/lessons/{lesson['id']}/changes", json={"kind": "lesson", "body": {"drill": name}}
        )
        assert "No drill is called" in refused.json()["message"]


def test_cues_follow_what_was_felt(client: TestClient, baseline: Json) -> None:
    decide(client, baseline, "late_shift")
    pushing = get(client, baseline, "coaching")["cues"]
    change(client, baseline, cue={"text": "", "felt": {"jump": "moved", "hop_to_target": "moved"}})
    moved = get(client, baseline, "coaching")["cues"]
    assert sorted(moved) == sorted(pushing)
    assert moved[0] != pushing[0]


def test_the_retest_is_judged_by_the_measure_fixed_beforehand(
    client: TestClient, lesson: Json
) -> None:
    assert get(client, lesson, "retest") is None
    hit(client, lesson, lesson["blocks"][0]["id"], [-5.0, -4, -6, -3, -5, -7, -4, -5])
    change(client, lesson, primary="start_deg")
    client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "block", "id": "again", "body": {"kind": "retest", "club": "7i"}},
    ).raise_for_status()
    hit(client, lesson, "again", [-0.5, 1])
    assert get(client, lesson, "retest")["result"]["state"] == "too_few"
    hit(client, lesson, "again", [-0.5, 1, 0, 0.5, -1])
    tomorrow = date.fromisoformat(lesson["started_at"][:10]) + timedelta(days=1)
    assert not get(client, lesson, "retest")["setup_only"]
    change(client, lesson, listen={"event_on": tomorrow.isoformat()})
    assert get(client, lesson, "retest")["setup_only"]
    found = get(client, lesson, "retest")
    assert (found["fixed"], found["result"]["state"]) == (True, "real")
    start = next(m for m in found["measures"] if m["name"] == "start_deg")
    assert start["sure"]
    assert start["change"]["by"] == pytest.approx(4.875)
    curve = next(m for m in found["measures"] if m["name"] == "curve_deg")
    assert not curve["sure"]
    assert found["headline"].startswith("Better, and more than chance: start 5° left before")


def test_a_measure_chosen_after_the_first_ball_is_told_on_page_and_sheet(
    client: TestClient, lesson: Json
) -> None:
    hit(client, lesson, lesson["blocks"][0]["id"], [-5.0, -4, -6, -3, -5, -7, -4, -5])
    change(client, lesson, primary="heel_toe_mm")
    change(client, lesson, primary="start_deg")  # before the first ball it is free
    client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "block", "id": "again", "body": {"kind": "retest", "club": "7i"}},
    ).raise_for_status()
    hit(client, lesson, "again", [-0.5, 1, 0, 0.5, -1])
    assert get(client, lesson, "retest")["chosen_late"] == ""
    change(client, lesson, primary="heel_toe_mm")
    told = "Decided by strike since after the first ball; start was fixed before it."
    assert get(client, lesson, "retest")["chosen_late"] == told
    decide(client, lesson, "trail_heel_pops")
    assert told in client.get(f"/api/lessons/{lesson['id']}/sheet.html").text
    change(client, lesson, primary="start_deg")
    assert get(client, lesson, "retest")["chosen_late"] == ""
    change(client, lesson, primary="curve_deg")
    client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"}).raise_for_status()
    assert get(client, lesson, "retest")["chosen_late"] == ""
    refused = client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "lesson", "body": {"primary": "luck"}}
    )
    assert "No measure is called 'luck'." in refused.json()["message"]


def test_a_second_lesson_stands_beside_the_first_and_keeps_its_prediction(
    client: TestClient, lesson: Json
) -> None:
    hit(client, lesson, lesson["blocks"][0]["id"], [-5.0, -4, -6, -3, -5, -7, -4, -5])
    decide(client, lesson, "trail_heel_pops")
    url = f"/api/lessons/{lesson['id']}/reopen"
    second = client.post(url, json={}).raise_for_status().json()
    hit(client, second, second["blocks"][0]["id"], [-0.5, 1, 0, 0.5, -1])
    found = get(client, second, "retest")
    start = next(m for m in found["measures"] if m["name"] == "start_deg")
    assert start["first"] == [-5.0, -4, -6, -3, -5, -7, -4, -5]
    assert start["predicted"] is not None
    assert found["since_first"].startswith("Since the first lesson better, and more than chance: ")
    assert "start 5° left before, straight now" in found["since_first"]


def test_the_sheet_can_be_worded_and_goes_out_as_page_pdf_and_calendar(
    client: TestClient, baseline: Json
) -> None:
    for what in ("sheet", "sheet.html", "sheet.pdf", "practice.ics"):
        early = client.get(f"/api/lessons/{baseline['id']}/{what}")
        assert (early.status_code, early.json()["code"]) == (409, "refused")
    assert (
        client.post(
            f"/api/lessons/{baseline['id']}/changes",
            json={"kind": "follow-up", "body": {"practised": 1}},
        ).status_code
        == 409
    )  # no day to ask on
    decide(client, baseline, "trail_heel_pops")
    event = (date.fromisoformat(baseline["started_at"][:10]) + timedelta(days=5)).isoformat()
    listen = {"event_on": event, "health": "Left hip replaced."}
    change(client, baseline, listen=listen, cue={"text": "Heavy heel <until> the hands drop."})
    sheet = get(client, baseline, "sheet")
    assert [d["what"] for d in sheet["days"] if d["on"] == event] == ["event"]
    change(client, baseline, sheet={"miss": "left and weak", "rehearsal": "bottle_guard"})
    worded = get(client, baseline, "sheet")
    assert worded["miss"] == "left and weak"
    assert worded["rehearsal"] == sheet["rehearsal"]  # the bottle serves another cause
    page = client.get(f"/api/lessons/{baseline['id']}/sheet.html").text
    assert "left and weak" in page
    assert "&lt;until&gt;" in page
    assert "hip replaced" not in page
    assert "http" not in page.replace("http://www.w3.org/2000/svg", "")  # nothing from outside
    pdf = client.get(f"/api/lessons/{baseline['id']}/sheet.pdf")
    assert pdf.headers["content-type"] == "application/pdf"
    assert pdf.content.startswith(b"%PDF")
    text = client.get(f"/api/lessons/{baseline['id']}/practice.ics").content
    events = Calendar.from_ical(text).walk("VEVENT")
    assert len(events) == len(sheet["days"])
    assert str(events[-1]["summary"]) == "Check in with the instructor"
    assert events[-1]["dtstart"].dt.isoformat() == sheet["check_in"]
    assert len({str(e["uid"]) for e in events}) == len(events)


def test_who_is_due_and_what_came_back_fill_the_casebook(
    client: TestClient, baseline: Json
) -> None:
    first = get(client, baseline, "diagnosis")["ranking"]["start_with"]
    decide(client, baseline, first)
    client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "follow-up", "body": {"due_on": "2026-01-02"}},
    ).raise_for_status()
    (due,) = client.get("/api/due").json()
    assert (due["student_name"], due["cause"], due["late"]) == ("Oda", first, True)
    kept = client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "follow-up", "body": {"practised": 4, "verdict": "rejected"}},
    ).json()["follow_up"]
    assert (kept["due_on"], kept["practised"], kept["verdict"]) == ("2026-01-02", 4, "rejected")
    assert kept["answered_at"] is not None
    assert client.get("/api/due").json() == []
    book = client.get("/api/casebook").json()
    assert [(book[k]["came"], book[k]["of"]) for k in ("decided", "first", "against")] == [
        (0, 1),
        (0, 1),
        (0, 0),
    ]
    packed = client.get("/api/casebook/cases.zip").raise_for_status()
    with zipfile.ZipFile(io.BytesIO(packed.content)) as archive:
        (name,) = archive.namelist()
        exported = archive.read(name).decode()
    told = CaseFile.model_validate_json(exported)
    assert told.outcome == DecisionOutcome(decided=first, fate="rejected", known_by=("follow_up",))
    assert told.student.key
    assert "Oda" not in exported
    (case,) = book["cases"]
    assert (case["club"], case["handedness"]) == ("7i", "right")
    assert case["shape"] == get(client, baseline, "diagnosis")["ranking"]["pattern"]["shape"]
    client.post(f"/api/lessons/{baseline['id']}/changes", json={"kind": "undo"})
    assert client.get("/api/casebook").json()["decided"]["of"] == 0


def test_time_adds_up_by_stage_and_is_not_undone(client: TestClient, lesson: Json) -> None:
    url = f"/api/lessons/{lesson['id']}/clock"
    change(client, lesson, listen={"minutes": 30})
    for seconds in (20.0, 40.5):
        client.post(url, json={"stage": "look", "seconds": seconds}).raise_for_status()
    client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"})
    clock = client.get(url).json()
    assert clock["used_s"] == {"look": 60.5}
    assert clock["minutes"] == 45  # the thirty were undone
    assert sum(clock["planned_min"].values()) == pytest.approx(45, abs=3)
    assert client.post(url, json={"stage": "lunch", "seconds": 5}).status_code == 422


def test_progress_is_along_time_and_all_lessons_can_be_taken_away(
    client: TestClient, baseline: Json
) -> None:
    student = baseline["student"]["id"]
    second, third = (
        client.post(f"/api/students/{student}/lessons", json={}).json() for _ in range(2)
    )
    hit(client, third, third["blocks"][0]["id"], [0.0] * 8)
    steps = client.get(f"/api/students/{student}/progress").json()["steps"]
    assert [s["lesson_id"] for s in steps] == [baseline["id"], second["id"], third["id"]]
    assert steps[0]["values"]["start_deg"] == pytest.approx(-4.9, abs=0.6)
    assert (steps[1]["values"], steps[1]["clubs"], steps[1]["moved"]) == ({}, [], [])
    # the lesson between hit nothing: the third stands beside the first
    moved = {m["name"]: m for m in steps[2]["moved"]}
    assert moved["start_deg"]["sure"]
    assert moved["start_deg"]["difference"]["value"] == pytest.approx(4.9, abs=0.6)
    assert client.get(f"/api/students/{student}/progress").json()["overall"] == steps[2]["moved"]
    # with another club it stands beside nothing
    block = {"club": "d"}
    client.post(
        f"/api/lessons/{third['id']}/changes",
        json={"kind": "block", "id": third["blocks"][0]["id"], "body": block},
    )
    steps = client.get(f"/api/students/{student}/progress").json()["steps"]
    assert (steps[2]["clubs"], steps[2]["moved"]) == (["d"], [])
    packed = client.get(f"/api/students/{student}/cases.zip").content
    with zipfile.ZipFile(io.BytesIO(packed)) as archive:
        names = archive.namelist()
        assert len(names) == 3
        again = [client.post("/api/cases", json=json.loads(archive.read(n))) for n in names]
    assert [r.status_code for r in again] == [201, 201, 201]
    assert client.delete(f"/api/students/{student}").status_code == 204
    for what in ("coaching", "sheet", "clock"):
        assert client.get(f"/api/lessons/{baseline['id']}/{what}").status_code == 404


def test_feel_and_real_are_logged_apart_and_a_second_aid_stands_there_too(
    client: TestClient, lesson: Json
) -> None:
    base = f"/api/lessons/{lesson['id']}"
    change(client, lesson, drill="club_under_heel", aid="trail_foot_back")
    for name, real in (("a", False), ("b", True)):
        tap = {"drill": "club_under_heel", "result": "pass", "real": real}
        client.post(
            f"{base}/changes", json={"kind": "repetition", "id": name, "body": tap}
        ).raise_for_status()
    now = client.get(base).json()
    assert [r["real"] for r in now["repetitions"]] == [False, True]
    assert now["aid"] == "trail_foot_back"
    change(client, lesson, aid=None)
    assert client.get(base).json()["aid"] is None
    unknown = client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "lesson", "body": {"aid": "no_such_drill"}},
    )
    assert unknown.status_code == 409
    assert "no_such_drill" in unknown.text


def test_the_sheet_has_the_retest_s_word_and_a_thought_for_when_the_miss_comes_back(
    client: TestClient, baseline: Json
) -> None:
    decide(client, baseline, "trail_heel_pops")
    change(client, baseline, listen={"misses": ["slice"]})
    said = get(client, baseline, "sheet")["rescue"]
    assert "club more" in said
    url = f"/api/lessons/{baseline['id']}/sheet.html"
    assert "The retest:" not in client.get(url).text
    retest = f"{baseline['id']}-again"
    block = {"kind": "retest", "club": "7i"}
    client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "block", "id": retest, "body": block},
    ).raise_for_status()
    for i in range(5):
        ball = {"block_id": retest, "observed": {"start": "straight", "heel_toe_mm": 1.0 + i}}
        client.post(
            f"/api/lessons/{baseline['id']}/changes",
            json={"kind": "shot", "id": f"again-{i}", "body": ball},
        ).raise_for_status()
    page = client.get(url).text
    assert said in page
    assert "<strong>The retest:</strong> " in page
