"""The simulated launch monitor speaks only HTTP; its balls reach the lesson once each."""

import httpx
import numpy as np
import pytest
from starlette.testclient import TestClient

from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.monitor import SimulatedMonitor, send
from firm_footing.simulators.sending import NoLessonError, find_lesson


def test_the_newest_open_lesson_gets_the_balls(
    client: TestClient, lesson: dict[str, object], knowledge: Knowledge
) -> None:
    target = find_lesson(client, None, knowledge)
    assert target.lesson_id == lesson["id"]
    device = SimulatedMonitor(("trail_heel_pops",), "thrown", target, knowledge, 3)
    for _ in range(6):
        send(client, target, device.ball(), lambda _s: None)
    seen = client.get(f"/api/lessons/{target.lesson_id}").json()
    balls = [s["observed"] for s in seen["blocks"][-1]["shots"]]
    assert len(balls) == 6
    assert all(b["carry_m"] > 30 and b["path_deg"] is not None for b in balls)
    assert seen["revision"] != lesson["revision"]
    # the pattern is there at once, with the student's sign: a path to the pull side
    path = np.mean([b["path_deg"] for b in balls])
    told = client.get(f"/api/lessons/{target.lesson_id}/diagnosis").json()
    assert told["spreads"]["path_deg"]["value"] == pytest.approx(path, abs=1.5)


def test_without_a_lesson_it_says_so(client: TestClient, knowledge: Knowledge) -> None:
    with pytest.raises(NoLessonError, match="No lesson is open"):
        find_lesson(client, None, knowledge)
    with pytest.raises(NoLessonError, match="This lesson is not there any more"):
        find_lesson(client, "nobody", knowledge)


def test_a_lost_answer_does_not_store_a_ball_twice(
    client: TestClient, lesson: dict[str, object], knowledge: Knowledge
) -> None:
    lost: list[str] = []

    class Flaky(httpx.BaseTransport):
        def handle_request(self, request: httpx.Request) -> httpx.Response:
            answer = client.request(
                request.method,
                request.url.path,
                content=request.read(),
                headers={"content-type": "application/json"},
            )
            if request.method == "POST" and len(lost) < 2:
                lost.append(request.url.path)
                raise httpx.ReadTimeout("lost")
            return httpx.Response(answer.status_code, content=answer.content)

    with httpx.Client(transport=Flaky(), base_url="http://x") as flaky:
        target = find_lesson(flaky, str(lesson["id"]), knowledge)
        device = SimulatedMonitor(("weak_grip",), "thrown", target, knowledge, 3)
        waits: list[float] = []
        send(flaky, target, device.ball(), waits.append)
    assert len(lost) == 2
    assert waits == [1.0, 2.0]
    seen = client.get(f"/api/lessons/{lesson['id']}").json()
    assert len(seen["blocks"][-1]["shots"]) == 1


def test_the_same_seed_hits_the_same_balls(
    client: TestClient, lesson: dict[str, object], knowledge: Knowledge
) -> None:
    target = find_lesson(client, None, knowledge)
    one, other = (
        SimulatedMonitor(("weak_grip",), "thrown", target, knowledge, 8) for _ in range(2)
    )
    assert [one.ball() for _ in range(3)] == [other.ball() for _ in range(3)]
