"""Every change may arrive twice, late, or from two places at once: it is made once."""

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta
from typing import Any, NamedTuple
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from httpx2 import Response
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import Engine
from sqlmodel import Session, select

from firm_footing.store.changes.idempotency import forget_old_writes
from firm_footing.store.own_tables import SentWrite
from tests import sizes
from tests.api.asking import Json, change, get, picture


class Write(NamedTuple):
    """One change as a page sends it."""

    kind: str
    id: str | None
    body: Json | None

    def json(self) -> Json:
        """As it goes over the wire."""
        return {k: v for k, v in self._asdict().items() if v is not None}


PICTURE = picture()
MARKS = {"view": "face_on", "width": 1080, "height": 1920, "fps": 120.0}


def send(client: TestClient, lesson: Json, write: Write, name: str, page: str = "a") -> Response:
    headers = {"Idempotency-Key": name, "page-id": page}
    url = f"/api/lessons/{lesson['id']}/changes"
    return client.post(url, json=write.json(), headers=headers)


def every_kind(lesson: Json) -> dict[str, Write]:
    """Changes in the order a lesson makes them, by a name for each."""
    block = lesson["blocks"][0]["id"]
    row = f"own-{block[:8]}"
    typed = {"address": 50, "top": 46, "lead_arm_level_down": 60, "impact": 52}
    ball, other = ({"block_id": block, "observed": {"start": way}} for way in ("pull", "push"))
    answer = {"check_id": "wobbly_finish", "answer": "yes"}
    tapped = {"drill": "step_away", "result": "pass"}
    return {
        "listen": Write("lesson", None, {"listen": {"goal": "break 90"}}),
        "student": Write("student", None, {"handicap": 12.5}),
        "ball": Write("shot", row, ball),
        "ball again": Write("shot", row, other),
        "block": Write("block", row, {"kind": "retest", "club": "8i"}),
        "answer": Write("answer", row, answer),
        "answer gone": Write("answer-gone", row, None),
        "note": Write("note", row, {"text": "tired"}),
        "note gone": Write("note-gone", row, None),
        "trace": Write("trace", row, {"recorded": {"typed_pct": typed}}),
        "film": Write("film", row, {"marks": MARKS}),
        "still": Write("still", row, {"consent": "student", "picture": PICTURE}),
        "still home": Write("still-change", row, {"on_sheet": True}),
        "trace named": Write("trace-change", row, {"name": "first"}),
        "decision": Write("decision", None, {"cause": "backs_up", "reason": "seen"}),
        "repetition": Write("repetition", row, tapped),
        "follow-up": Write("follow-up", None, {"due_on": "2026-12-24"}),
        "undo": Write("undo", None, {}),
        "redo": Write("redo", None, {}),
        "undo again": Write("undo", None, None),
        "still gone": Write("still-gone", row, None),
        "ball gone": Write("shot-gone", row, None),
    }


def as_it_is(client: TestClient, lesson: Json) -> Json:
    """The lesson without its clocks and ids."""
    found = client.get(f"/api/lessons/{lesson['id']}").raise_for_status().json()

    def plain(value: Any) -> Any:
        if isinstance(value, dict):
            own = ("id", "revision", "block_id", "lesson_id", "ranking")
            return {k: plain(v) for k, v in value.items() if not (k.endswith("_at") or k in own)}
        return [plain(v) for v in value] if isinstance(value, list) else value

    return {**plain(found), "decided": [d["cause"] for d in found["decisions"]]}


def new_lesson(client: TestClient) -> Json:
    student = client.post("/api/students", json={"name": "Oda", "handedness": "right"}).json()
    return client.post(f"/api/students/{student['id']}/lessons", json={}).json()  # type: ignore[no-any-return]


KINDS = every_kind({"blocks": [{"id": "b"}]})
REPEATS = st.lists(st.integers(0, len(KINDS) - 1), max_size=3)
LATE = st.lists(REPEATS, min_size=len(KINDS), max_size=len(KINDS))


def test_a_change_sent_twice_is_made_once(client: TestClient, lesson: Json) -> None:
    for name, write in every_kind(lesson).items():
        first = send(client, lesson, write, name.replace(" ", "-"))
        assert first.status_code < 300, (name, first.text)
        before = as_it_is(client, lesson)
        again = send(client, lesson, write, name.replace(" ", "-"))
        assert again.status_code == first.status_code, name
        assert as_it_is(client, lesson) == before, name
        assert again.json()["revision"] == first.json()["revision"], name


@pytest.fixture
def sent_once(client: TestClient) -> Json:
    """A lesson in which every kind of change arrived once."""
    lesson = new_lesson(client)
    for write in every_kind(lesson).values():
        send(client, lesson, write, str(uuid4())).raise_for_status()
    return as_it_is(client, lesson)


@given(late=LATE)
@settings(max_examples=sizes.of(5, 12), suppress_health_check=list(HealthCheck))
def test_in_whatever_order_repeats_arrive_the_lesson_is_the_same(
    client: TestClient, sent_once: Json, late: list[list[int]]
) -> None:
    """What arrives for the first time keeps its order; repeats come any time later."""
    lesson = new_lesson(client)
    writes = [(w, str(uuid4())) for w in every_kind(lesson).values()]
    for i, (write, name) in enumerate(writes):
        send(client, lesson, write, name).raise_for_status()
        for again in late[i]:
            send(client, lesson, *writes[min(again, i)]).raise_for_status()
    assert as_it_is(client, lesson) == sent_once


@pytest.mark.parametrize("kind", ["ball", "answer", "note", "decision", "block"])
def test_four_at_once_with_one_id_store_one(client: TestClient, lesson: Json, kind: str) -> None:
    write = every_kind(lesson)[kind]
    with ThreadPoolExecutor(4) as four:
        found = list(four.map(lambda _: send(client, lesson, write, "one"), range(4)))
    assert len({r.status_code for r in found}) == 1
    assert found[0].status_code < 300
    assert len({r.json()["revision"] for r in found}) == 1
    counted = as_it_is(client, lesson)
    stored = {
        "ball": len(counted["blocks"][0]["shots"]),
        "answer": len(counted["answers"]),
        "note": len(counted["notes"]),
        "decision": len(counted["decided"]),
        "block": len(counted["blocks"]) - 1,
    }
    assert stored[kind] == 1


def test_balls_of_eight_at_once_have_a_place_of_their_own(client: TestClient, lesson: Json) -> None:
    block = lesson["blocks"][0]["id"]
    body = {"block_id": block, "observed": {"start": "pull"}}
    with ThreadPoolExecutor(8) as eight:
        found = list(
            eight.map(
                lambda i: send(client, lesson, Write("shot", f"x{i}", body), f"w{i}"),
                range(40),
            )
        )
    assert {r.status_code for r in found} == {200}
    undone = client.get(f"/api/lessons/{lesson['id']}").json()
    assert len(undone["blocks"][0]["shots"]) == 40
    assert undone["undo"] == "ball 40"


def test_a_new_student_and_lesson_are_made_once(client: TestClient) -> None:
    body = {"id": "own", "name": "Pia", "handedness": "left"}
    made = [client.post("/api/students", json=body).raise_for_status().json() for _ in range(2)]
    assert made[0] == made[1]
    started = [
        client.post("/api/students/own/lessons", json={"id": "mine"})
        .raise_for_status()
        .json()["id"]
        for _ in range(2)
    ]
    again = [
        client.post("/api/lessons/mine/reopen", json={"id": "next"}).raise_for_status().json()["id"]
        for _ in range(2)
    ]
    assert (started, again) == (["mine"] * 2, ["next"] * 2)
    assert len(client.get("/api/students/own/lessons").json()) == 2


def test_each_page_takes_back_its_own_step(client: TestClient, lesson: Json) -> None:
    note: Callable[[str], Write] = lambda n: Write("note", n, {"text": n})  # noqa: E731
    send(client, lesson, note("mine"), "w1", "a")
    theirs = send(client, lesson, note("theirs"), "w2", "b").json()
    assert theirs["undo_step"] == 2
    left = send(client, lesson, Write("undo", None, {}), "w3", "a").json()
    assert [n["text"] for n in left["notes"]] == ["theirs"]
    assert (left["undo"], left["redo"]) == (None, "note")
    named = Write("undo", None, {"step": 2})
    assert send(client, lesson, named, "w4", "b").json()["notes"] == []
    assert send(client, lesson, named, "w5", "b").json()["notes"] == []


def test_what_another_page_changed_since_is_not_swept_away(
    client: TestClient, lesson: Json
) -> None:
    send(client, lesson, Write("block", "b2", {"kind": "retest"}), "w1", "a")
    ball = {"block_id": "b2", "observed": {"start": "pull"}}
    send(client, lesson, Write("shot", "s", ball), "w2", "b").raise_for_status()
    refused = send(client, lesson, Write("undo", None, {}), "w3", "a")
    assert refused.status_code == 409
    assert "changed since" in refused.json()["message"]
    assert len(as_it_is(client, lesson)["blocks"]) == 2


def test_of_yes_and_no_from_two_pages_the_later_stands(client: TestClient, lesson: Json) -> None:
    for name, page, answer in (("a1", "a", "yes"), ("a2", "b", "no")):
        body = {"check_id": "wobbly_finish", "answer": answer}
        send(client, lesson, Write("answer", name, body), name, page).raise_for_status()
    assert [a["answer"] for a in as_it_is(client, lesson)["answers"]] == ["no"]
    send(client, lesson, Write("undo", None, {}), "u", "b")
    assert [a["answer"] for a in as_it_is(client, lesson)["answers"]] == ["yes"]


def test_a_goal_typed_offline_leaves_the_health_note_alone(
    client: TestClient, lesson: Json
) -> None:
    change(client, lesson, listen={"health": "pregnant, no impact drills"})
    after = change(client, lesson, listen={"goal": "break 90"}, was={"listen.goal": ""})
    assert after["listen"]["health"] == "pregnant, no impact drills"
    assert after["listen"]["goal"] == "break 90"


def test_a_health_note_is_never_written_over_unseen(client: TestClient, lesson: Json) -> None:
    change(client, lesson, listen={"health": "pregnant, no impact drills"})
    stale = {"listen": {"health": "sore wrist"}, "was": {"listen.health": ""}}
    refused = client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "lesson", "body": stale}
    )
    assert refused.status_code == 409
    told = refused.json()
    assert (told["code"], told["where"]) == ("conflict", "listen.health")
    assert (told["theirs"], told["mine"]) == ("pregnant, no impact drills", "sore wrist")
    both = "pregnant, no impact drills; sore wrist"
    seen = {"listen.health": "pregnant, no impact drills"}
    assert change(client, lesson, listen={"health": both}, was=seen)["listen"]["health"] == both


def test_a_limit_is_never_written_over_unseen(client: TestClient, lesson: Json) -> None:
    url = f"/api/students/{lesson['student']['id']}"
    client.patch(url, json={"limits": ["back"]}).raise_for_status()
    stale = {"limits": ["knee"], "was": {"limits": []}}
    assert client.patch(url, json=stale).json()["theirs"] == ["back"]
    assert get(client, lesson, "coaching") is not None
    assert client.get(url).json()["limits"] == ["back"]


def test_the_id_of_another_students_lesson_is_refused(client: TestClient, lesson: Json) -> None:
    other = client.post("/api/students", json={"name": "Pia", "handedness": "left"}).json()["id"]
    taken = client.post(f"/api/students/{other}/lessons", json={"id": lesson["id"]})
    assert taken.status_code == 409
    assert "another student's" in taken.json()["message"]
    assert client.get(f"/api/students/{other}/lessons").json() == []


def test_a_ball_for_a_lesson_that_is_gone_is_told_so(client: TestClient, lesson: Json) -> None:
    client.delete(f"/api/lessons/{lesson['id']}").raise_for_status()
    late = client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={
            "kind": "shot",
            "id": "s",
            "body": {"block_id": lesson["blocks"][0]["id"], "observed": {"start": "pull"}},
        },
    )
    assert late.status_code == 404
    assert late.json()["message"] == "This lesson is not there any more."


def test_ids_of_writes_are_forgotten_after_a_season(
    client: TestClient, lesson: Json, engine: Engine
) -> None:
    for name in ("old", "new"):
        send(client, lesson, Write("note", name, {"text": name}), name)
    with Session(engine) as session:
        old = session.get_one(SentWrite, "old")
        old.arrived_at -= timedelta(days=91)
        session.add(old)
        session.commit()
        forget_old_writes(session)
        assert [w.id for w in session.exec(select(SentWrite))] == ["new"]
