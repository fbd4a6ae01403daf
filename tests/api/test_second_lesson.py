"""A second lesson goes on from the first, and the day lists who comes."""

from datetime import UTC, datetime, timedelta

from fastapi.testclient import TestClient
from icalendar import Calendar

from tests.api.asking import Json, change, decide, get, hit


def again(client: TestClient, lesson: Json) -> Json:
    made = client.post(f"/api/lessons/{lesson['id']}/reopen", json={}).raise_for_status().json()
    assert isinstance(made, dict)
    return made


def answer(client: TestClient, lesson: Json, check: str, word: str, **more: object) -> None:
    client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={
            "kind": "answer",
            "id": f"{check}-{lesson['id']}",
            "body": {"check_id": check, "answer": word, **more},
        },
    ).raise_for_status()


def test_drill_cue_and_ladder_go_on_where_they_stood(client: TestClient, baseline: Json) -> None:
    decide(client, baseline, "trail_heel_pops")
    change(client, baseline, drill="club_under_heel", cue={"text": "Heavy heel."})
    for i in range(7):
        f"/api/lessons/{baseline['id']}/repetitions/r{i}"
        client.post(
            f"/api/lessons/{baseline['id']}/changes",
            json={
                "kind": "repetition",
                "id": f"r{i}",
                "body": {"drill": "club_under_heel", "result": "pass"},
            },
        ).raise_for_status()
    before = get(client, baseline, "coaching")["ladder"]
    second = again(client, baseline)
    assert (second["drill"], second["cue"]["text"]) == ("club_under_heel", "Heavy heel.")
    ladder = get(client, second, "coaching")["ladder"]
    assert (ladder["at"], ladder["in_a_row"]) == (before["at"], before["in_a_row"]) == (1, 2)
    assert (ladder["passes"], ladder["before"]) == (0, 7)  # of this lesson; of the last one


def test_what_was_answered_last_time_is_told_and_not_asked_first(
    client: TestClient, baseline: Json
) -> None:
    asked = get(client, baseline, "diagnosis")["ranking"]["next_checks"][0]["id"]
    answer(client, baseline, asked, "no")
    answer(client, baseline, "wobbly_finish", "unknown")
    decide(client, baseline, "trail_heel_pops")
    second = again(client, baseline)
    told = {a["check_id"]: a["answer"] for a in get(client, second, "last")["answers"]}
    assert told == {asked: "no"}
    hit(client, second, second["blocks"][0]["id"], [-5.0, -4, -6, -3, -5, -7, -4, -5])
    found = get(client, second, "diagnosis")
    looks = [c["id"] for c in found["ranking"]["next_checks"]]
    assert looks[-1] == asked  # it told most the first time
    assert found["decision_status"]["ask_first"] == looks[0]
    answer(client, second, asked, "no")
    assert asked not in [
        c["id"] for c in get(client, second, "diagnosis")["ranking"]["next_checks"]
    ]


def test_what_came_of_it_is_entered_from_the_second_lesson(
    client: TestClient, baseline: Json
) -> None:
    decide(client, baseline, "trail_heel_pops")
    second = again(client, baseline)
    body = {"due_on": "2026-11-30", "practised": 6, "verdict": "partly"}
    client.post(
        f"/api/lessons/{baseline['id']}/changes", json={"kind": "follow-up", "body": body}
    ).raise_for_status()
    kept = get(client, second, "last")["follow_up"]
    assert (kept["practised"], kept["verdict"]) == (6, "partly")


def test_a_ranking_that_rested_on_nothing_had_no_first(
    client: TestClient, lesson: Json, baseline: Json
) -> None:
    student = lesson["student"]["id"]
    bare = client.post(f"/api/students/{student}/lessons", json={}).raise_for_status().json()
    decide(client, bare, "late_shift", "Taken up again.")
    decide(client, baseline, "late_shift")
    rows = {c["lesson_id"]: c for c in client.get("/api/casebook").json()["cases"]}
    assert rows[bare["id"]]["ranked_first"] is None
    assert rows[baseline["id"]]["ranked_first"] is not None


def test_means_that_were_used_are_at_hand_from_then_on(client: TestClient, lesson: Json) -> None:
    assert lesson["at_hand"] == ["look", "feel"]
    looks = [c["id"] for c in get(client, lesson, "diagnosis")["ranking"]["next_checks"]]
    assert looks
    marks = {"view": "face_on", "width": 100.0, "height": 200.0, "fps": 60.0}
    url = f"/api/lessons/{lesson['id']}"
    client.post(
        f"{url}/changes",
        json={"kind": "film", "id": "f", "body": {"marks": marks, "name": "a.mp4"}},
    ).raise_for_status()
    assert client.get(url).json()["at_hand"] == ["look", "feel", "film"]
    client.post(
        f"{url}/changes", json={"kind": "undo"}
    ).raise_for_status()  # one step, marks and means
    assert client.get(url).json()["at_hand"] == ["look", "feel"]


def test_correcting_the_means_keeps_one_answer(client: TestClient, baseline: Json) -> None:
    answer(client, baseline, "trail_heel_up_early", "yes", source="film")
    by_film = get(client, baseline, "diagnosis")["ranking"]["causes"]
    answer(client, baseline, "trail_heel_up_early", "yes", source="look")
    kept = client.get(f"/api/lessons/{baseline['id']}").json()["answers"]
    assert [(a["check_id"], a["source"]) for a in kept] == [("trail_heel_up_early", "look")]
    by_eye = get(client, baseline, "diagnosis")["ranking"]["causes"]
    shown = [next(c for c in r if c["id"] == "trail_heel_pops") for r in (by_film, by_eye)]
    assert shown[1]["probability"] < shown[0]["probability"]  # an eye errs more


def test_who_comes_is_listed_until_the_lesson_has_begun(client: TestClient, baseline: Json) -> None:
    at = (datetime.now(UTC) + timedelta(days=1)).replace(microsecond=0)
    decide(client, baseline, "late_shift")
    change(client, baseline, drill="mirror_press", next_at=at.isoformat())
    (coming,) = client.get("/api/day").json()["booked"]
    assert datetime.fromisoformat(coming["at"]) == at
    assert (coming["cause"], coming["asked"], coming["drill"]) == (
        "late_shift", False, "mirror_press",
    )  # fmt: skip
    (event,) = Calendar.from_ical(client.get("/api/booked.ics").content).walk("VEVENT")
    assert event.decoded("dtstart") == at
    assert "Oda" in str(event["summary"])
    client.post(f"/api/lessons/{baseline['id']}/changes", json={"kind": "undo"}).raise_for_status()
    assert client.get("/api/day").json()["booked"] == []
    client.post(f"/api/lessons/{baseline['id']}/changes", json={"kind": "redo"}).raise_for_status()
    again(client, baseline)
    assert client.get("/api/day").json()["booked"] == []
    naive = client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "lesson", "body": {"next_at": "2026-12-01T10:00"}},
    )
    assert naive.status_code == 422


def lines_of(client: TestClient, lesson: Json, cause: str) -> dict[str, str]:
    """Evidence for and against a cause, and how it is said."""
    causes = get(client, lesson, "diagnosis")["ranking"]["causes"]
    found = next(c for c in causes if c["id"] == cause)
    return {e["evidence"]: e["text"] for e in [*found["for"], *found["against"]]}


def root_of(client: TestClient, lesson: Json, cause: str) -> float:
    causes = get(client, lesson, "diagnosis")["ranking"]["causes"]
    return float(next(c["root"] for c in causes if c["id"] == cause))


def test_what_came_back_is_evidence_in_the_next_lesson_until_it_is_left_out(
    client: TestClient, baseline: Json
) -> None:
    decide(client, baseline, "late_shift")
    second = again(client, baseline)
    hit(client, second, second["blocks"][0]["id"], [-5.0, -4, -6, -3, -5, -7, -4, -5])
    before = root_of(client, second, "late_shift")
    assert "history:0" not in lines_of(client, second, "late_shift")
    told = {"kind": "follow-up", "body": {"verdict": "confirmed"}}
    client.post(f"/api/lessons/{baseline['id']}/changes", json=told).raise_for_status()
    said = lines_of(client, second, "late_shift")["history:0"]
    assert said == "“late shift” confirmed today, by what came back"
    with_it = root_of(client, second, "late_shift")
    assert with_it > 4 * before
    change(client, second, listen={**second["listen"], "past_left_out": True})
    assert "history:0" not in lines_of(client, second, "late_shift")
    assert root_of(client, second, "late_shift") == before
    undo = {"kind": "undo"}
    client.post(f"/api/lessons/{second['id']}/changes", json=undo).raise_for_status()
    assert "history:0" in lines_of(client, second, "late_shift")


def test_a_case_file_brings_its_history_and_takes_it_along(
    client: TestClient, baseline: Json
) -> None:
    file = client.get(f"/api/lessons/{baseline['id']}/case").json()
    past = {"decided": "hang_back", "fate": "partly", "known_by": ["retest"], "days_ago": 30}
    opened = client.post(
        "/api/cases", params={"student_name": "Oda"}, json={**file, "history": [past]}
    )
    made = opened.raise_for_status().json()
    assert lines_of(client, made, "hang_back")["history:0"] == (
        "“stays on the trail foot” partly confirmed 30 days ago, by the retest"
    )
    again_out = client.get(f"/api/lessons/{made['id']}/case").json()
    assert [p["decided"] for p in again_out["history"]] == ["hang_back"]
