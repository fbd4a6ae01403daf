"""Two pages at one student: nothing of one is swept away by the other, by change or by undo."""

from typing import Any
from uuid import uuid4

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from firm_footing.api.changes.answer_again import VIEWS
from firm_footing.api.changes.write_response import ChangedLesson
from firm_footing.api.context import _writing
from tests.api.asking import Json, change
from tests.api.test_sent_twice import Write, as_it_is, new_lesson, send


def undo(client: TestClient, lesson: Json, page: str, **named: Any) -> Any:
    return send(client, lesson, Write("undo", None, named), str(uuid4()), page)


def limits_of(client: TestClient, lesson: Json) -> list[str]:
    return list(as_it_is(client, lesson)["student"]["limits"])


def test_an_undo_does_not_take_back_what_was_added_on_the_students_page(
    client: TestClient, lesson: Json
) -> None:
    knee = Write("student", None, {"limits": ["knee"], "was": {"limits": []}})
    send(client, lesson, knee, "w1", "tablet").raise_for_status()
    both = {"limits": ["knee", "pregnancy"], "was": {"limits": ["knee"]}}
    url = f"/api/students/{lesson['student']['id']}"
    client.patch(url, json=both, headers={"page-id": "laptop"}).raise_for_status()
    assert undo(client, lesson, "tablet").status_code == 409
    assert limits_of(client, lesson) == ["knee", "pregnancy"]
    assert send(client, lesson, Write("redo", None, {}), "w3", "tablet").status_code == 200
    assert limits_of(client, lesson) == ["knee", "pregnancy"]


def test_another_lesson_of_the_student_counts_too(client: TestClient, lesson: Json) -> None:
    url = f"/api/students/{lesson['student']['id']}/lessons"
    other = client.post(url, json={}).raise_for_status().json()
    send(client, lesson, Write("student", None, {"handicap": 12}), "w1", "a")
    send(client, other, Write("student", None, {"handicap": 9}), "w2", "b")
    assert undo(client, lesson, "a").status_code == 409
    assert as_it_is(client, lesson)["student"]["handicap"] == 9
    undo(client, other, "b").raise_for_status()
    assert undo(client, lesson, "a").status_code == 200
    assert as_it_is(client, lesson)["student"]["handicap"] is None


def test_the_lesson_is_another_one_when_its_student_is(client: TestClient, lesson: Json) -> None:
    before = client.get(f"/api/lessons/{lesson['id']}/revision").json()
    client.patch(f"/api/students/{lesson['student']['id']}", json={"about": "tall"})
    assert client.get(f"/api/lessons/{lesson['id']}/revision").json() != before


def test_an_undo_takes_back_one_field_and_leaves_the_one_beside_it(
    client: TestClient, lesson: Json
) -> None:
    change_of: Any = lambda **listen: Write("lesson", None, {"listen": listen})  # noqa: E731
    send(client, lesson, change_of(goal="break 90"), "w1", "a")
    send(client, lesson, change_of(health="pregnant"), "w2", "b")
    undo(client, lesson, "a").raise_for_status()
    heard = as_it_is(client, lesson)["listen"]
    assert (heard["goal"], heard["health"]) == ("", "pregnant")


def test_what_one_page_took_back_is_done_again_whatever_another_does(
    client: TestClient, lesson: Json
) -> None:
    change_of: Any = lambda **listen: Write("lesson", None, {"listen": listen})  # noqa: E731
    send(client, lesson, change_of(goal="break 90"), "w1", "a")
    undo(client, lesson, "a").raise_for_status()
    send(client, lesson, change_of(health="pregnant"), "w2", "b")
    send(client, lesson, Write("redo", None, {}), "w3", "a").raise_for_status()
    heard = as_it_is(client, lesson)["listen"]
    assert (heard["goal"], heard["health"]) == ("break 90", "pregnant")


def test_an_undo_by_the_same_page_out_of_order_is_refused(client: TestClient, lesson: Json) -> None:
    for i, goal in enumerate(("a", "b")):
        send(client, lesson, Write("lesson", None, {"listen": {"goal": goal}}), f"w{i}", "a")
    assert undo(client, lesson, "a", step=1).status_code == 409
    assert as_it_is(client, lesson)["listen"]["goal"] == "b"
    undo(client, lesson, "a", step=2).raise_for_status()
    undo(client, lesson, "a", step=1).raise_for_status()
    again = Write("redo", None, {"step": 2})
    assert send(client, lesson, again, "w9", "a").status_code == 409
    assert as_it_is(client, lesson)["listen"]["goal"] == ""


def test_what_rests_on_something_taken_back_is_not_done_again(
    client: TestClient, lesson: Json
) -> None:
    send(client, lesson, Write("block", "b2", {"kind": "retest"}), "w1", "a")
    ball = {"block_id": "b2", "observed": {"start": "pull"}}
    send(client, lesson, Write("shot", "s", ball), "w2", "a")
    undo(client, lesson, "a", step=2).raise_for_status()
    undo(client, lesson, "a", step=1).raise_for_status()
    refused = send(client, lesson, Write("redo", None, {"step": 2}), "w5", "a")
    assert refused.status_code == 409
    assert "not there any more" in refused.json()["message"]
    assert len(as_it_is(client, lesson)["blocks"]) == 1


def test_an_undo_names_the_write_it_takes_back(client: TestClient, lesson: Json) -> None:
    block = lesson["blocks"][0]["id"]
    ball = Write("shot", "two", {"block_id": block, "observed": {"start": "pull"}})
    send(client, lesson, ball, "ball-two", "tablet").raise_for_status()
    change(client, lesson, listen={"goal": "theirs"})
    goal = Write("lesson", None, {"listen": {"goal": "mine"}, "was": {"listen.goal": ""}})
    assert send(client, lesson, goal, "goal", "tablet").status_code == 409
    undo(client, lesson, "tablet", write="goal").raise_for_status()
    assert len(as_it_is(client, lesson)["blocks"][0]["shots"]) == 1
    undo(client, lesson, "tablet", write="ball-two").raise_for_status()
    assert as_it_is(client, lesson)["blocks"][0]["shots"] == []
    again = Write("redo", None, {"write": "ball-two"})
    send(client, lesson, again, "again", "tablet").raise_for_status()
    assert len(as_it_is(client, lesson)["blocks"][0]["shots"]) == 1


BALL = {"start": "pull", "contact": "fat"}
ROWS: dict[str, tuple[str, Json, Json, Json, Json]] = {
    # kind, first, had, mine, theirs
    "ball": (
        "shot", {"observed": BALL}, {"observed": BALL},
        {"observed": {**BALL, "contact": "clean"}}, {"observed": {**BALL, "contact": "thin"}},
    ),
    "note": ("note", {"text": "a"}, {"text": "a"}, {"text": "b"}, {"text": "c"}),
    "block": ("block", {"club": "7i"}, {"club": "7i"}, {"club": "8i"}, {"club": "9i"}),
    "follow-up": (
        "follow-up", {"course": ""}, {"course": ""}, {"course": "went well"}, {"course": "badly"},
    ),
    "answer": (
        "answer", {"answer": "yes"}, {"answer": "yes"}, {"answer": "no"}, {"answer": "partly"},
    ),
}  # fmt: skip


def body_of(lesson: Json, row: str, part: Json) -> Json:
    more: Json = {
        "ball": {"block_id": lesson["blocks"][0]["id"]},
        "answer": {"check_id": "wobbly_finish"},
        "follow-up": {"due_on": "2026-12-24"},
    }.get(row, {})
    return part | more


@pytest.mark.parametrize("row", ROWS)
def test_the_second_of_two_pages_is_told_what_the_first_wrote(
    client: TestClient, lesson: Json, row: str
) -> None:
    kind, first, had, mine, theirs = ROWS[row]
    own = None if kind == "follow-up" else "b2"
    send(client, lesson, Write(kind, own, body_of(lesson, row, first)), "w1").raise_for_status()
    new = body_of(lesson, row, theirs) | {"was": had}
    send(client, lesson, Write(kind, own, new), "w2", "b").raise_for_status()
    stale = body_of(lesson, row, mine) | {"was": had}
    refused = send(client, lesson, Write(kind, own, stale), "w3", "a")
    assert refused.status_code == 409, refused.text
    assert refused.json()["code"] == "conflict"
    place = refused.json()["where"]
    value: Any = theirs
    for name in place.split("."):
        value = value[name]
    assert refused.json()["theirs"] == value
    seen = body_of(lesson, row, mine) | {"was": theirs}
    assert send(client, lesson, Write(kind, own, seen), "w4", "a").status_code == 200


def test_what_one_page_says_of_the_start_leaves_the_others_curve(
    client: TestClient, lesson: Json
) -> None:
    def put(name: str, observed: Json, was: Json | None = None) -> None:
        body = body_of(lesson, "ball", {"observed": observed})
        body |= {} if was is None else {"was": {"observed": was}}
        send(client, lesson, Write("shot", "s", body), name).raise_for_status()

    put("w1", {"contact": "fat"})
    put("w2", {"contact": "fat", "curve": "push"}, {"contact": "fat"})
    put("w3", {"contact": "clean"}, {"contact": "fat"})
    kept = as_it_is(client, lesson)["blocks"][0]["shots"][0]["observed"]
    assert (kept["contact"], kept["curve"]) == ("clean", "push")


def test_what_was_taken_out_elsewhere_is_told(client: TestClient, lesson: Json) -> None:
    send(client, lesson, Write("note", "n", {"text": "a"}), "w1")
    send(client, lesson, Write("note-gone", "n", None), "w2", "b")
    stale = Write("note", "n", {"text": "b", "was": {"text": "a"}})
    refused = send(client, lesson, stale, "w3")
    assert (refused.status_code, refused.json()["code"]) == (409, "taken_out")
    assert as_it_is(client, lesson)["notes"] == []
    put_back = Write("note", "n", {"text": "b"})
    send(client, lesson, put_back, "w4").raise_for_status()
    assert [n["text"] for n in as_it_is(client, lesson)["notes"]] == ["b"]


def test_a_block_of_another_lesson_is_not_taken_for_a_new_one(
    client: TestClient, lesson: Json
) -> None:
    url = f"/api/students/{lesson['student']['id']}/lessons"
    taken = client.post(url, json={"block_id": lesson["blocks"][0]["id"]})
    assert (taken.status_code, taken.json()["where"]) == (409, "block_id")


ONCE: dict[str, tuple[str, str, Json | None]] = {
    "clock": ("POST", "/api/lessons/{lesson}/clock", {"stage": "listen", "seconds": 30}),
    "student": ("PATCH", "/api/students/{student}", {"about": "tall"}),
    "new student": ("POST", "/api/students", {"name": "Pia", "handedness": "left"}),
    "new lesson": ("POST", "/api/students/{student}/lessons", {}),
    "reopen": ("POST", "/api/lessons/{lesson}/reopen", {}),
    "instructor": ("POST", "/api/instructors", {"name": "Ines"}),
    "mine": ("PUT", "/api/instructors/mine", {"name": "Ines"}),
    "case": (
        "POST", "/api/cases",
        {"format": "firm-footing-case", "version": 1, "student": {"handedness": "right"}},
    ),
    "lesson gone": ("DELETE", "/api/lessons/{lesson}", None),
    "student gone": ("DELETE", "/api/students/{student}", None),
}  # fmt: skip


@pytest.mark.parametrize("kind", ONCE)
def test_on_every_route_a_known_write_counts_once(
    client: TestClient, lesson: Json, kind: str
) -> None:
    method, path, body = ONCE[kind]
    url = path.format(lesson=lesson["id"], student=lesson["student"]["id"])
    first, again = (
        client.request(method, url, json=body, headers={"Idempotency-Key": "one"}) for _ in range(2)
    )
    assert first.status_code < 300, first.text
    assert (again.status_code, again.content) == (first.status_code, first.content)


def test_every_route_that_writes_knows_what_to_answer_again(client: TestClient) -> None:
    app: Any = client.app
    assert isinstance(app, FastAPI)

    def writes(route: Any) -> bool:
        found = getattr(route, "dependant", None)
        return found is not None and any(d.call is _writing for d in found.dependencies)

    unknown = [
        route.name
        for route in all_routes(app.routes)
        if writes(route)
        and route.status_code != 204
        and route.response_model is not ChangedLesson
        and route.name not in VIEWS
    ]
    assert unknown == []
    assert any(writes(route) for route in all_routes(app.routes))


def all_routes(routes: Any) -> list[Any]:
    found = []
    for route in routes:
        inner = getattr(route, "routes", None) or getattr(
            getattr(route, "original_router", None), "routes", None
        )
        found += all_routes(inner) if inner else [route]
    return found


GOALS = st.lists(
    st.tuples(st.sampled_from("ab"), st.sampled_from(["goal", "health", "undo", "redo"])),
    max_size=14,
)


@given(steps=GOALS)
@settings(max_examples=12, suppress_health_check=list(HealthCheck))
def test_whatever_two_pages_undo_each_ones_last_word_is_kept_or_its_own_undo(
    client: TestClient, steps: list[tuple[str, str]]
) -> None:
    """A model beside it: a field is what was last said of it, less what its own page took back."""
    lesson = new_lesson(client)
    said: list[tuple[str, str, str]] = []
    for i, (page, what) in enumerate(steps):
        if what in ("undo", "redo"):
            before = as_it_is(client, lesson)["listen"]
            answer = send(client, lesson, Write(what, None, {}), f"{lesson['id'][:8]}{i}", page)
            after = as_it_is(client, lesson)["listen"]
            changed = [f for f in ("goal", "health") if before[f] != after[f]]
            assert answer.status_code in (200, 409)
            assert len(changed) <= 1
            own_none = not any(p == page for p, _, _ in said)
            for field in changed:
                word = before[field] if what == "undo" else after[field]
                assert own_none or (page, field, word) in said
            continue
        word = f"{page}{i}"
        write = Write("lesson", None, {"listen": {what: word}})
        send(client, lesson, write, str(uuid4()), page).raise_for_status()
        said.append((page, what, word))


@pytest.mark.parametrize("name", ["\u200b", "\u2800\u3164", "\u202e\u200f", "\u0301", " \u00a0 "])
def test_a_name_of_nothing_visible_is_asked_for_again(
    client: TestClient, lesson: Json, name: str
) -> None:
    made = client.post("/api/students", json={"name": name, "handedness": "right"})
    changed = client.patch(f"/api/students/{lesson['student']['id']}", json={"name": name})
    assert made.status_code in (409, 422)
    assert changed.status_code in (409, 422)
    assert made.json()["where"] == changed.json()["where"] == "name"
