"""Lessons over HTTP: saved at every touch, repeated safely, undone and redone."""

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient
from httpx import Response

from firm_footing.core.text.words import probability_word
from firm_footing.files.knowledge_files import load_knowledge

SHOT = {"start": "pull", "curve": "push", "heel_toe_mm": -14}


def log(client: TestClient, lesson: dict[str, Any], shot: str, **observed: Any) -> Response:
    body = {"block_id": lesson["blocks"][0]["id"], "observed": observed}
    return client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "shot", "id": shot, "body": body}
    )  # type: ignore[return-value]


def balls(client: TestClient, lesson: dict[str, Any]) -> list[dict[str, Any]]:
    now = client.get(f"/api/lessons/{lesson['id']}").json()
    return [s["observed"] for b in now["blocks"] for s in b["shots"]]


def test_a_repeated_request_stores_a_ball_once(client: TestClient, lesson: dict[str, Any]) -> None:
    for _ in range(3):
        assert log(client, lesson, "one", **SHOT).status_code == 200
    assert len(balls(client, lesson)) == 1
    undone = client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"}).json()
    assert undone["undo"] is None
    assert balls(client, lesson) == []


def test_undo_and_redo_walk_through_every_kind_of_step(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    base = f"/api/lessons/{lesson['id']}"
    log(client, lesson, "one", **SHOT)
    log(client, lesson, "one", **SHOT, contact="fat")
    answer = {"check_id": "grip_weak", "answer": "yes"}
    client.post(f"{base}/changes", json={"kind": "answer", "id": "a1", "body": answer})
    client.post(
        f"{base}/changes", json={"kind": "note", "id": "n1", "body": {"text": "Left the bag open."}}
    )
    client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "lesson", "body": {"complaint": "Slices", "school": {"heel_toe": "heels"}}},
    )
    block = lesson["blocks"][0]["id"]
    client.post(
        f"{base}/changes",
        json={"kind": "block", "id": block, "body": {"club": "d", "expected_carry_m": 190}},
    )
    client.post(f"{base}/changes", json={"kind": "shot-gone", "id": "one"})
    states = [client.get(base).json()]
    while states[-1]["undo"] is not None:
        states.append(client.post(f"{base}/changes", json={"kind": "undo"}).json())
    assert len(states) == 8
    assert states[-1]["blocks"] == lesson["blocks"]
    assert [s["answers"] == [] for s in states] == [False] * 5 + [True] * 3
    for state in reversed(states[:-1]):
        again = client.post(f"{base}/changes", json={"kind": "redo"}).json()
        for key in ("blocks", "answers", "notes", "complaint", "school", "undo"):
            assert again[key] == state[key]
    assert client.post(f"{base}/changes", json={"kind": "redo"}).json()["redo"] is None


def test_a_new_step_after_undo_forgets_what_was_undone(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    log(client, lesson, "one", **SHOT)
    client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"})
    now = log(client, lesson, "two", start="push").json()
    assert now["redo"] is None
    assert [b["start"] for b in balls(client, lesson)] == ["push"]


def test_no_revision_comes_twice_for_two_states(client: TestClient, lesson: dict[str, Any]) -> None:
    """What was concluded of a lesson, and what another device has, is known by its revision."""
    base, states = f"/api/lessons/{lesson['id']}", {}

    def note(answer: Response) -> None:
        now = answer.raise_for_status().json()
        kept = json.dumps([now["answers"], [b["shots"] for b in now["blocks"]]], sort_keys=True)
        assert states.setdefault(now["revision"], kept) == kept

    def undo(page: str) -> None:
        note(client.post(f"{base}/changes", json={"kind": "undo"}, headers={"page-id": page}))

    checks = {"one": "trail_heel_up_early", "two": "finish_falls_back"}
    for i in range(6):
        for page, check in checks.items():
            answer = {"check_id": check, "answer": ("yes", "no")[i % 2]}
            note(
                client.post(
                    f"{base}/changes",
                    json={"kind": "answer", "id": page, "body": answer},
                    headers={"page-id": page},
                )
            )
        undo("one")  # what was taken back is forgotten by the next change of its page
        undo("two")
        note(client.post(f"{base}/changes", json={"kind": "redo"}, headers={"page-id": "one"}))
        if i % 2:
            undo("two")
    assert len(states) > 15


def test_a_change_after_undo_is_concluded_anew(client: TestClient, lesson: dict[str, Any]) -> None:
    """Not as it was with what was undone."""
    base = f"/api/lessons/{lesson['id']}"
    yes = {"check_id": "trail_heel_up_early", "answer": "yes"}
    seen = client.post(
        f"{base}/changes?diagnosis=true", json={"kind": "answer", "id": "a", "body": yes}
    ).json()["diagnosis"]["ranking"]
    client.post(f"{base}/changes?diagnosis=true", json={"kind": "undo"})
    other = log(client, lesson, "one", **SHOT)
    assert other.is_success
    now = client.get(f"{base}/diagnosis").json()["ranking"]
    assert next(c for c in seen["causes"] if c["id"] == "trail_heel_pops")["seen"] == "yes"
    assert next(c for c in now["causes"] if c["id"] == "trail_heel_pops")["seen"] is None


def test_the_diagnosis_of_a_lesson_is_one_call(client: TestClient, lesson: dict[str, Any]) -> None:
    for i in range(8):
        log(client, lesson, f"ball{i}", **SHOT)
    for i, check in enumerate(["trail_heel_up_early", "path_diverges_late"]):
        body = {"check_id": check, "answer": "yes"}
        client.post(
            f"/api/lessons/{lesson['id']}/changes",
            json={"kind": "answer", "id": f"a{i}", "body": body},
        )
    found = client.get(f"/api/lessons/{lesson['id']}/diagnosis").json()
    ranking = found["ranking"]
    assert ranking["start_with"] == "trail_heel_pops"
    assert len(ranking["causes"]) == 30
    assert ranking["causes"][0]["word"] in ("likely", "very_likely", "possible")
    likely = probability_word(ranking["outside_feet"], load_knowledge().numbers)
    assert found["outside_word"] == likely
    assert found["spreads"]["heel_toe_mm"]["value"] == pytest.approx(-14, abs=0.1)
    feel_only = client.get(
        f"/api/lessons/{lesson['id']}/diagnosis", params={"at_hand": ["feel"]}
    ).json()
    assert len(feel_only["ranking"]["next_checks"]) < len(ranking["next_checks"])


def test_two_causes_can_be_held_against_each_other(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    for i in range(6):
        log(client, lesson, f"ball{i}", **SHOT)
    url = f"/api/lessons/{lesson['id']}/between"
    found = client.get(url, params={"one": "trail_heel_pops", "other": "weak_grip"}).json()
    assert found["probability"] > 0.5
    assert {"pattern.heel_toe_mm", "pattern.path_deg"} <= {e["evidence"] for e in found["evidence"]}
    assert all(look["source"] in ("look", "film", "feel") for look in found["checks"])
    same = client.get(url, params={"one": "weak_grip", "other": "weak_grip"})
    assert same.status_code == 409


def test_schools_that_would_start_elsewhere_are_named(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    url = f"/api/lessons/{lesson['id']}"
    for i in range(8):
        log(client, lesson, f"b{i}", start="pull", curve="straight", heel_toe_mm=-5)
    body = {"check_id": "trail_heel_deep_going_back", "answer": "yes"}
    client.post(f"{url}/changes", json={"kind": "answer", "id": "a", "body": body})
    found = client.get(f"{url}/diagnosis").json()
    assert not found["ranking"]["schools_agree"]
    known = client.get("/api/knowledge").json()
    for said in found["ranking"]["schools_elsewhere"]:
        assert said["start_with"] != found["ranking"]["start_with"]
        options = known["schools"][said["question"]]["options"]
        name = next(o["name"] for o in options if o["id"] == said["option"])
        assert name.lower() in found["schools_say"].lower()
        client.post(
            f"/api/lessons/{lesson['id']}/changes",
            json={"kind": "lesson", "body": {"school": {said["question"]: said["option"]}}},
        )
        other = client.get(f"{url}/diagnosis").json()
        assert other["ranking"]["start_with"] == said["start_with"]
        client.post(
            f"/api/lessons/{lesson['id']}/changes", json={"kind": "lesson", "body": {"school": {}}}
        )
    assert "start elsewhere: " in found["schools_say"]


def test_a_decision_keeps_what_was_said_and_by_which_knowledge(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    log(client, lesson, "one", **SHOT)
    url = f"/api/lessons/{lesson['id']}"
    decided = client.post(
        f"{url}/changes",
        json={"kind": "decision", "body": {"cause": "weak_grip", "reason": "I saw it"}},
    )
    assert decided.status_code == 200
    kept = decided.json()["decisions"][0]
    now = client.get(f"{url}/diagnosis").json()
    assert kept["knowledge_version"] == now["knowledge_version"]
    assert kept["ranking"] == now["ranking"]
    assert kept["reason"] == "I saw it"


def test_several_answers_to_one_check_stand_side_by_side(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    url = f"/api/lessons/{lesson['id']}/changes"
    felt = {"check_id": "toes_going_back", "answer": "no", "source": "feel"}
    client.post(url, json={"kind": "answer", "id": "a1", "body": felt})
    seen = {"check_id": "toes_going_back", "answer": "yes"}
    now = client.post(url, json={"kind": "answer", "id": "a2", "body": seen}).json()
    assert [(a["answer"], a["source"]) for a in now["answers"]] == [("no", "feel"), ("yes", "film")]


CHANGES = "/api/lessons/{id}/changes"
BALL_OF_NO_BLOCK = {"block_id": "no", "observed": {}}
ANSWER_TO_NOTHING = {"check_id": "x", "answer": "yes"}
ERRORS = [
    ("GET", "/api/lessons/nowhere", None, 404, "not_found"),
    ("GET", "/api/nowhere", None, 404, "http"),
    ("POST", "/api/students", {"name": " ", "handedness": "right"}, 422, "bad_input"),
    ("POST", "/api/students", {"name": "A", "handedness": "both"}, 422, "bad_input"),
    ("POST", "/api/students", {"name": "A", "handedness": "left", "x": 1}, 422, "bad_input"),
    ("POST", CHANGES, {"kind": "juggle", "id": "j"}, 422, "bad_input"),
    ("POST", CHANGES, {"kind": "shot", "id": "s", "body": BALL_OF_NO_BLOCK}, 404, "not_found"),
    ("POST", CHANGES, {"kind": "answer", "id": "a", "body": ANSWER_TO_NOTHING}, 409, "refused"),
    ("POST", CHANGES, {"kind": "block", "id": "b", "body": {"club": "9w"}}, 409, "refused"),
    ("POST", CHANGES, {"kind": "decision", "body": {"cause": "bad_luck"}}, 409, "refused"),
    ("POST", "/api/cases", {"format": "other"}, 422, "bad_input"),
]


@pytest.mark.parametrize(("method", "url", "body", "status", "code"), ERRORS)
def test_every_error_has_one_shape(
    client: TestClient,
    lesson: dict[str, Any],
    method: str,
    url: str,
    body: object,
    status: int,
    code: str,
) -> None:
    answer = client.request(method, url.format(id=lesson["id"]), json=body)
    assert answer.status_code == status
    error = answer.json()
    assert set(error) == {"code", "message", "hint", "where"}
    assert error["code"] == code
    assert error["message"].endswith(".")
    assert error["hint"]


def test_deleting_a_student_takes_everything_along(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    log(client, lesson, "one", **SHOT)
    client.delete(f"/api/students/{lesson['student']['id']}")
    assert client.get(f"/api/lessons/{lesson['id']}").status_code == 404
    assert client.get("/api/day").json() == {"students": [], "of": 0, "lessons": [], "booked": []}


def test_students_can_be_changed(client: TestClient, lesson: dict[str, Any]) -> None:
    url = f"/api/students/{lesson['student']['id']}"
    client.patch(url, json={"handicap": 12, "limits": ["knee"]})
    changed = client.patch(url, json={"handicap": None}).json()
    assert changed["handicap"] is None
    assert changed["limits"] == ["knee"]


def test_an_answer_told_finer_than_by_a_word_is_kept_and_weighed(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    """A heel that lifts straight up just before the ball is the same fault, weaker."""
    url = f"/api/lessons/{lesson['id']}"
    said = {"check_id": "trail_heel_up_early", "source": "film"}
    finer = client.get("/api/knowledge").json()["checks"]
    choices = next(c for c in finer if c["id"] == "trail_heel_up_early")["finer"]
    roots = []
    for choice in choices:
        body = said | {"answer": choice["answer"], "share": choice["share"]}
        answered = (
            client.post(
                f"{url}/changes?diagnosis=true", json={"kind": "answer", "id": "a", "body": body}
            )
            .raise_for_status()
            .json()
        )
        assert answered["answers"][0]["share"] == choice["share"]
        causes = answered["diagnosis"]["ranking"]["causes"]
        root = next(c["root"] for c in causes if c["id"] == "trail_heel_pops")
        roots.append((choice["share"], root))
    assert len({share for share, _ in roots}) == 4  # late is as bad as early for some
    assert sorted(roots) == sorted(roots, key=lambda said: said[1])
    case = client.get(f"{url}/case").json()
    assert case["checks"]["trail_heel_up_early"]["share"] == choices[-1]["share"]
    assert (
        client.post(
            f"{url}/changes", json={"kind": "answer", "id": "b", "body": body | {"share": 1.5}}
        ).status_code
        == 422
    )
