"""What the balls of a lesson show, over HTTP."""

from typing import Any

import pytest
from starlette.testclient import TestClient

SHOT = {
    "start": "pull", "curve": "push", "contact": "clean", "heel_toe_mm": -12,
    "divot_start_cm": -2, "carry_m": 118,
}  # fmt: skip


def log(client: TestClient, lesson: dict[str, Any], *shots: dict[str, Any]) -> str:
    base = f"/api/lessons/{lesson['id']}"
    block = lesson["blocks"][0]["id"]
    for i, observed in enumerate(shots):
        body = {"block_id": block, "observed": observed}
        assert (
            client.post(
                f"{base}/changes",
                json={"kind": "shot", "id": f"{lesson['id'][:8]}-{i}", "body": body},
            ).status_code
            == 200
        )
    return base


def test_a_lesson_without_balls_shows_none(client: TestClient, lesson: dict[str, Any]) -> None:
    base = f"/api/lessons/{lesson['id']}"
    assert client.get(f"{base}/balls").json() == []
    assert client.get(f"{base}/since").json() == []
    assert client.get("/api/lessons/nobody/balls").status_code == 404


def test_a_block_is_read_ball_by_ball(client: TestClient, lesson: dict[str, Any]) -> None:
    base = log(client, lesson, *[SHOT | {"heel_toe_mm": -12 + i} for i in range(6)])
    block = lesson["blocks"][0]["id"]
    client.post(
        f"{base}/changes", json={"kind": "block", "id": block, "body": {"expected_carry_m": 135}}
    )
    (read,) = client.get(f"{base}/balls").json()
    assert (read["block_id"], read["expected_source"], read["shape"]) == (
        block,
        "named",
        "pull-slice",
    )
    assert [b["shot_id"] for b in read["balls"]] == [f"{lesson['id'][:8]}-{i}" for i in range(6)]
    for ball in read["balls"]:
        along, up, side = ball["track"][-1]
        assert (along**2 + side**2) ** 0.5 == pytest.approx(118, abs=0.5)
        assert up == pytest.approx(0, abs=0.5)
        account = ball["lost"]
        total = sum(account["items"].values()) + account["remainder_m"]
        assert total == pytest.approx(135 - 118)
        assert account["items"]["strike"] > 1
    path, f2p, face = (
        read["delivery"][n]["value"] for n in ("path_deg", "face_to_path_deg", "face_deg")
    )
    assert face == pytest.approx(path + f2p)
    assert path < -2
    assert f2p > 1


def test_without_a_named_carry_club_speed_says_nothing_of_the_student(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    base = log(client, lesson, *[SHOT] * 6)
    (read,) = client.get(f"{base}/balls").json()
    assert read["expected_source"] == "own_best"
    assert "club_speed_pct" not in read["delivery"]
    told = client.get(f"{base}/diagnosis").json()
    assert told["ranking"]["pattern"]["carry_lost_pct"] is None
    evidence = {
        e["evidence"] for c in told["ranking"]["causes"] for e in (*c["for"], *c["against"])
    }
    assert "pattern.club_speed_pct" not in evidence


def test_a_left_hander_s_mirror_image_shows_the_same(client: TestClient) -> None:
    """Over the wire everything is neutral: the hand changes nothing."""
    reads = []
    for hand in ("right", "left"):
        student = client.post("/api/students", json={"name": hand, "handedness": hand}).json()
        lesson = client.post(f"/api/students/{student['id']}/lessons", json={}).json()
        (read,) = client.get(f"{log(client, lesson, *[SHOT] * 5)}/balls").json()
        reads.append(read)
    right, left = reads
    assert right["delivery"] == left["delivery"]
    assert [b["track"] for b in right["balls"]] == [b["track"] for b in left["balls"]]


def test_what_moved_since_the_lesson_before(client: TestClient, lesson: dict[str, Any]) -> None:
    log(client, lesson, *[SHOT] * 8)
    student = lesson["student"]["id"]
    second = client.post(f"/api/students/{student}/lessons", json={}).json()
    base = log(client, second, *[SHOT | {"start": "push", "heel_toe_mm": -11}] * 8)
    (earlier,) = client.get(f"{base}/since").json()
    assert (earlier["lesson_id"], earlier["club"], earlier["balls"]) == (lesson["id"], "7i", 8)
    moved = {m["name"]: m for m in earlier["moved"]}
    assert moved["path_deg"]["sure"]
    assert moved["path_deg"]["difference"]["value"] > 4
    assert not moved["heel_toe_mm"]["sure"]
    # another club cannot be compared, and the first lesson has none before it
    client.post(
        f"{base}/changes",
        json={"kind": "block", "id": second["blocks"][0]["id"], "body": {"club": "d"}},
    )
    assert client.get(f"{base}/since").json() == []
    assert client.get(f"/api/lessons/{lesson['id']}/since").json() == []


def test_the_revision_tells_of_a_ball(client: TestClient, lesson: dict[str, Any]) -> None:
    url = f"/api/lessons/{lesson['id']}/revision"
    assert client.get(url).json()["revision"] == lesson["revision"]
    base = log(client, lesson, SHOT)
    assert client.get(url).json()["revision"] == client.get(base).json()["revision"]
    assert client.get(url).json()["revision"] != lesson["revision"]
    assert client.get("/api/lessons/nobody/revision").status_code == 404
