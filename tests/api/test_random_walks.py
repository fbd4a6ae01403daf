"""Nothing that is sent makes the server fail, hang, or answer in another shape.

Twenty thousand requests: `make fuzz`.
"""

import json

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import Engine, text

from tests import sizes
from tests.api.asking import Json, decide
from tests.fuzzing import walk


@pytest.mark.parametrize("seed", [11, 12])
def test_a_random_walk_finds_no_failure(seed: int) -> None:
    found = walk(sizes.of(150, 350), seed)
    assert found.failures == []
    assert found.statuses[200] > sizes.of(40, 100), "most of what is not spoilt is taken"
    assert found.statuses[422] > sizes.of(15, 40), "and much of what is, refused"


@pytest.mark.parametrize(
    ("sent", "said"),
    [
        (b'{"text": "\\ud800"}', "half a character"),
        (b'{"text": "a", "text": "b"}', "stands twice"),
        (b'{"text": NaN}', "not a number in JSON"),
        (b"[" * 15_000, "nested too deeply"),
        (b'{"text": ', "not JSON"),
        (b'{"text": "\xff"}', "not UTF-8"),
        (b'{"text": ' + b"9" * 5000 + b"}", "too long"),
    ],
)
def test_what_is_no_good_json_is_said(
    client: TestClient, lesson: Json, sent: bytes, said: str
) -> None:
    refused = client.post(
        f"/api/lessons/{lesson['id']}/changes",
        content=sent,
        headers={"content-type": "application/json"},
    )
    assert refused.status_code == 422
    assert said in refused.json()["message"]


def test_a_body_of_more_than_twenty_megabytes_is_not_read(client: TestClient, lesson: Json) -> None:
    declared = client.post(
        f"/api/lessons/{lesson['id']}/changes",
        content=b"{}",
        headers={"content-length": "200000000"},
    )
    streamed = client.post(
        f"/api/lessons/{lesson['id']}/changes",
        content=(b" " * 1_000_000 for _ in range(21)),
    )
    assert (declared.status_code, streamed.status_code) == (413, 413)
    assert "20 MB" in streamed.json()["message"]


def test_a_lesson_holds_two_thousand_balls_and_says_so(client: TestClient, lesson: Json) -> None:
    block = lesson["blocks"][0]["id"]
    rows = "Carry\n" + "".join(f"{100 + i / 100:.2f}\n" for i in range(1999))
    body = {"text": rows, "block_id": block}
    client.post(f"/api/lessons/{lesson['id']}/table", json=body).raise_for_status()
    url = f"/api/lessons/{lesson['id']}/changes"
    ball = {"kind": "shot", "body": {"block_id": block, "observed": {"carry_m": 99.0}}}
    assert client.post(url, json={**ball, "id": "last"}).status_code == 200
    refused = client.post(url, json={**ball, "id": "more"})
    assert refused.status_code == 409
    assert "2000 balls" in refused.json()["message"]


def test_a_lesson_with_a_day_that_never_was_still_opens(
    client: TestClient, lesson: Json, engine: Engine
) -> None:
    broken = json.dumps({"goal": "break 90", "event_on": "2026-99-99"})
    with engine.begin() as connection:
        connection.execute(text("UPDATE lesson SET listen = :v"), {"v": broken})
    found = client.get(f"/api/lessons/{lesson['id']}").raise_for_status().json()
    assert found["listen"]["goal"] == "break 90"
    assert found["listen"]["event_on"] is None
    assert found["unreadable"] == ["event on: 2026-99-99"]
    decide(client, lesson, "backs_up")
    for page in ("sheet", "sheet.pdf", "practice.ics", "retest"):
        client.get(f"/api/lessons/{lesson['id']}/{page}").raise_for_status()


def test_a_lesson_with_a_drill_that_is_gone_still_coaches(
    client: TestClient, lesson: Json, engine: Engine
) -> None:
    with engine.begin() as connection:
        connection.execute(text("UPDATE lesson SET drill = 'juggling'"))
    found = client.get(f"/api/lessons/{lesson['id']}/coaching").raise_for_status().json()
    assert found["ladder"] is None
    assert found["cards"]


@pytest.mark.parametrize("day", ["2026-99-99", "2026-02-30", 0, "0001-01-01", True])
def test_a_day_is_a_day(client: TestClient, lesson: Json, day: object) -> None:
    url = f"/api/lessons/{lesson['id']}"
    assert (
        client.post(
            f"{url}/changes", json={"kind": "follow-up", "body": {"due_on": day}}
        ).status_code
        == 422
    )
    assert (
        client.post(
            f"/api/lessons/{lesson['id']}/changes",
            json={"kind": "lesson", "body": {"listen": {"event_on": day}}},
        ).status_code
        == 422
    )
