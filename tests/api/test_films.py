"""Marks of films over HTTP: kept, measured, taken back; the film itself never comes."""

from typing import Any

import numpy as np
import pytest
from fastapi.testclient import TestClient

from firm_footing.core.film.finder import rates_that_fit
from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed
from tests.api.asking import Json, get


@pytest.fixture
def marks(knowledge: Knowledge) -> dict[str, Any]:
    """Of someone whose trail heel pops up, seen down the line."""
    person, again = np.random.default_rng(1), np.random.default_rng(2)
    filmed = Filmed(swing({"trail_heel_pops": 1.3}, person, again), Camera("down_the_line"))
    return filmed.marked(knowledge.film, np.random.default_rng(3)).model_dump(mode="json")


def put(client: TestClient, lesson: Json, marks: Json, name: str = "f", **more: Any) -> Json:
    answer = client.post(
        f"/api/lessons/{lesson['id']}/changes?diagnosis=true",
        json={"kind": "film", "id": name, "body": {"marks": marks, **more}},
    ).raise_for_status()
    found: Json = answer.json()
    return found


def test_marks_become_measures_and_move_the_ranking(
    client: TestClient, lesson: Json, marks: Json
) -> None:
    before = get(client, lesson, "diagnosis")["ranking"]["causes"]
    after = put(client, lesson, marks)["diagnosis"]["ranking"]["causes"]
    rank = [c["id"] for c in after].index("trail_heel_pops")
    assert rank < [c["id"] for c in before].index("trail_heel_pops")
    (film,) = get(client, lesson, "films")
    assert film["wanted"] == []
    assert film["rates"] == [120.0]
    heel = next(m for m in film["measures"] if m["id"] == "trail_heel_arm_level")
    assert heel["value"] > 3
    assert heel["answers"][0]["share"] > 0.8
    assert heel["answers"][0]["answer"] == "yes"
    assert "give or take" in heel["text"]


def test_points_come_one_by_one_and_are_taken_back(
    client: TestClient, lesson: Json, marks: Json
) -> None:
    bare = {**marks, "points": {}, "scale": None}
    put(client, lesson, bare)
    (film,) = get(client, lesson, "films")
    assert "gives a scale" in film["problem"]
    seat = {"points": {"seat": marks["points"]["seat"]}}
    put(client, lesson, {**marks, **seat})
    (film,) = get(client, lesson, "films")
    assert {m["id"] for m in film["measures"]} == {"seat_top", "seat_impact"}
    assert "seat_address" in [w["measure"] for w in film["wanted"]]
    url = f"/api/lessons/{lesson['id']}"
    client.post(f"{url}/changes", json={"kind": "undo"}).raise_for_status()
    assert get(client, lesson, "films")[0]["measures"] == []
    client.post(f"{url}/changes", json={"kind": "film-gone", "id": "f"}).raise_for_status()
    assert get(client, lesson, "films") == []
    client.post(f"{url}/changes", json={"kind": "undo"}).raise_for_status()
    assert len(get(client, lesson, "films")) == 1


def test_a_film_with_a_drill_measures_but_does_not_count(
    client: TestClient, lesson: Json, marks: Json
) -> None:
    client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={
            "kind": "block",
            "id": "trial",
            "body": {"kind": "trial", "club": "7i", "drill": "bottle_guard"},
        },
    )
    plain = get(client, lesson, "diagnosis")["ranking"]["causes"]
    put(client, lesson, marks, block_id="trial")
    (film,) = get(client, lesson, "films")
    assert (film["counts"], len(film["measures"])) == (False, 17)
    assert get(client, lesson, "diagnosis")["ranking"]["causes"] == plain


def test_a_case_file_keeps_the_marks(client: TestClient, lesson: Json, marks: Json) -> None:
    put(client, lesson, marks)
    case = get(client, lesson, "case")
    again = client.post("/api/cases", params={"name": "Again"}, json=case).raise_for_status().json()
    (film,) = get(client, again, "films")
    assert film["marks"] == get(client, lesson, "films")[0]["marks"]


def test_what_cannot_be_is_refused(client: TestClient, lesson: Json, marks: Json) -> None:
    strange = {**marks, "points": {"elbow_of_the_caddie": {"top": [1.0, 2.0]}}}
    assert (
        client.post(
            f"/api/lessons/{lesson['id']}/changes",
            json={"kind": "film", "id": "f", "body": {"marks": strange}},
        ).status_code
        == 409
    )
    muddled = {**marks, "events": {"top": 50, "impact": 40}}
    assert client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "film", "id": "f", "body": {"marks": muddled}},
    ).json()["message"] == ("'impact' does not come after 'top'.")
    case = {**get(client, lesson, "case"), "films": [muddled]}
    told = client.post("/api/cases", params={"name": "Muddled"}, json=case).json()
    assert "does not come after" in told["message"]
    still = {"change": [0.0] * 60, "down": [0.5] * 60, "fps": 60}
    refused = client.post("/api/films/events", json=still)
    assert refused.json()["message"] == "Nothing moves in this film."


def test_events_are_proposed_from_how_much_moves(client: TestClient, knowledge: Knowledge) -> None:
    """A quiet start, a swing back, a still top, and most movement lowest at the ball."""
    fps, top, impact = 60.0, 70, 85
    at = np.arange(140)
    back = np.where((at > 20) & (at < top), np.sin(np.pi * (at - 20) / (top - 20)), 0)
    down = np.exp(-(((at - impact) / 9) ** 2)) * (at > top + 1)
    lies = np.where(at > top, 0.9 - np.abs(at - impact) / 60, 0.4).clip(0, 1)
    sent = {"change": (1000 * (back + 3 * down)).tolist(), "down": lies.tolist(), "fps": fps}
    found = client.post("/api/films/events", json=sent).raise_for_status().json()
    assert abs(found["top"]["frame"] - top) <= 2
    assert abs(found["impact"]["frame"] - impact) <= 2
    # the same pictures from a file that plays four times slower than life are the same events
    slow = client.post("/api/films/events", json={**sent, "fps": 15.0}).raise_for_status().json()
    assert slow == found
    assert rates_that_fit(impact - top, fps, knowledge) == [60.0]
