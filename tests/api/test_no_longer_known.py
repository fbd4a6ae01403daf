"""A stored word that is no longer known costs its field, and the lesson says so."""

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import Engine, text

from firm_footing.api.conclusions.kept import KeptConclusions
from tests.api.asking import Json, decide, hit
from tests.api.test_sent_twice import every_kind, send

PAGES = (
    "", "/diagnosis", "/balls", "/coaching", "/retest", "/sheet", "/films", "/traces", "/case",
    "/balls.csv", "/clock", "/since",
)  # fmt: skip
EVERYBODY = ("/api/day", "/api/due", "/api/casebook", "/api/booked.ics")
STORED: dict[str, tuple[str, Any]] = {
    # what it is called: the statement, and its value
    "feel test": ("UPDATE lesson SET cue = :v", json.dumps({"felt": {"gone_test": "pushing"}})),
    "cause": ("UPDATE decision SET cause = :v", "gone_cause"),
    "look": ("UPDATE check_answer SET check_id = :v", "gone_look"),
    "club": ("UPDATE block SET club = :v", "z9"),
    "drill on the bench": ("UPDATE lesson SET drill = :v", "gone_drill"),
    "drill of a block": ("UPDATE block SET drill = :v", "gone_drill"),
    "drill of a repetition": ("UPDATE repetition SET drill = :v", "gone_drill"),
    "kind": ("UPDATE block SET kind = :v", "gone_kind"),
    "surface": ("UPDATE block SET surface = :v", "moss"),
    "source": ("UPDATE check_answer SET source = :v", "gone_means"),
    "view": ("UPDATE film_marks SET marks = :v", json.dumps({"view": "from_above"})),
    "verdict": ("UPDATE follow_up SET verdict = :v", "gone_verdict"),
    "measure of the retest": ("UPDATE lesson SET 'primary' = :v", "gone_measure"),
    "equipment": ("UPDATE lesson SET lacking = :v", json.dumps(["gone_stick"])),
    "miss": ("UPDATE lesson SET listen = :v", json.dumps({"misses": ["gone_miss"]})),
    "belief": ("UPDATE lesson SET listen = :v", json.dumps({"corrected": ["gone_belief"]})),
    "drill sent home": ("UPDATE lesson SET sheet = :v", json.dumps({"ball_drill": "gone_drill"})),
    "limit": ("UPDATE student SET limits = :v", json.dumps(["knee", "gone_limb"])),
    "age": ("UPDATE student SET age_group = :v", "toddler"),
}
SENT_HOME = ("/sheet.pdf", "/practice.ics")
ON_THE_SHEET = {"cause", "feel test", "drill sent home"}
TOLD_ELSEWHERE = {"limit", "age"}
"""Of the student, whose own page says what is known of them."""


@pytest.fixture
def whole(client: TestClient, lesson: Json) -> Json:
    """A lesson with one of everything."""
    hit(client, lesson, lesson["blocks"][0]["id"], [-5.0, -4, -6, -3, -5])
    for name, write in every_kind(lesson).items():
        if "undo" not in name and "gone" not in name:
            send(client, lesson, write, name.replace(" ", "-")).raise_for_status()
    decide(client, lesson, "backs_up")
    return lesson


def test_an_unknown_word_costs_its_field(client: TestClient, whole: Json, engine: Engine) -> None:
    for what, (statement, value) in STORED.items():
        table, column = statement.split()[1], statement.split()[3].strip("'")
        with engine.begin() as connection:
            known = connection.execute(text(f'SELECT id, "{column}" FROM "{table}"')).all()
            assert connection.execute(text(statement), {"v": value}).rowcount > 0
        for page in EVERYBODY:
            assert client.get(page).status_code == 200, (what, page)
        client.app.state.conclusions = KeptConclusions()  # type: ignore[attr-defined]
        for page in (*PAGES, *(SENT_HOME if what in ON_THE_SHEET else ())):
            found = client.get(f"/api/lessons/{whole['id']}{page}")
            assert found.status_code < 500, (what, page, found.text)
        told = client.get(f"/api/lessons/{whole['id']}").json()["unreadable"]
        gone = next(w for w in ("gone", "z9", "moss", "from_above", "toddler") if w in value)
        assert what in TOLD_ELSEWHERE or any(gone in line for line in told), (what, told)
        with engine.begin() as connection:
            back = text(f'UPDATE "{table}" SET "{column}" = :v WHERE id = :id')
            connection.execute(back, [{"id": row[0], "v": row[1]} for row in known])
    assert client.get(f"/api/lessons/{whole['id']}").json()["unreadable"] == []


def test_what_is_not_known_stays_in_the_file(
    client: TestClient, whole: Json, engine: Engine
) -> None:
    with engine.begin() as connection:
        connection.execute(text("UPDATE lesson SET drill = 'gone_drill'"))
        connection.execute(text("UPDATE block SET kind = 'gone_kind'"))
    url = f"/api/lessons/{whole['id']}"
    client.post(
        f"/api/lessons/{whole['id']}/changes",
        json={"kind": "lesson", "body": {"complaint": "slices"}},
    ).raise_for_status()
    block = {"expected_carry_m": 140.0}
    client.post(
        f"{url}/changes", json={"kind": "block", "id": whole["blocks"][0]["id"], "body": block}
    ).raise_for_status()
    with engine.begin() as connection:
        drills = set(connection.execute(text("SELECT drill FROM lesson")).scalars())
        kinds = set(connection.execute(text("SELECT kind FROM block")).scalars())
    assert (drills, kinds) == ({"gone_drill"}, {"gone_kind"})


def test_an_unknown_time_zone_is_this_machines(
    client: TestClient, whole: Json, engine: Engine
) -> None:
    with engine.begin() as connection:
        connection.execute(text("UPDATE lesson SET zone = 'Mars/Olympus'"))
    for page in EVERYBODY:
        client.get(page).raise_for_status()
    for page in ("/sheet", "/practice.ics", "/last-lesson"):
        assert client.get(f"/api/lessons/{whole['id']}{page}").status_code < 500


def test_a_feel_test_that_is_not_known_is_not_taken(client: TestClient, lesson: Json) -> None:
    cue = {"felt": {"made_up": "pushing"}}
    refused = client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "lesson", "body": {"cue": cue}}
    )
    assert (refused.status_code, refused.json()["where"]) == (409, "cue.felt")
