"""A student comes back: lessons taken up again, transfer, swings after the drill."""

from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.asking import Json, change, decide, get, hit
from tests.api.test_traces import put
from tests.core.swings import SEEN, swing


def block(client: TestClient, lesson: Json, name: str, **values: Any) -> None:
    client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "block", "id": name, "body": values}
    ).raise_for_status()


def test_a_rejected_cause_is_taken_up_in_a_new_lesson(client: TestClient, baseline: Json) -> None:
    decide(client, baseline, "static_hips", "Looked slow.")
    change(client, baseline, drill="belt_stick", lacking=["mirror"], complaint="Pulls.")
    heard = {"misses": ["pull"], "health": "Knee.", "health_asked": True}
    change(client, baseline, listen=heard | {"event": "Cup", "event_on": "2020-01-01"})
    first = baseline["blocks"][0]["id"]
    block(client, baseline, first, club="6i", expected_carry_m=150)
    url = f"/api/lessons/{baseline['id']}"
    client.post(
        f"{url}/changes",
        json={"kind": "follow-up", "body": {"practised": 5, "verdict": "rejected"}},
    ).raise_for_status()
    again = client.post(f"{url}/reopen")
    assert again.status_code == 201
    lesson = again.json()
    assert lesson["reopens"] == baseline["id"]
    (only,) = lesson["blocks"]
    assert (only["club"], only["expected_carry_m"], only["shots"]) == ("6i", 150, [])
    assert lesson["lacking"] == ["mirror"]
    heard = lesson["listen"]
    assert (heard["event"], heard["event_on"]) == ("", None)  # gone by
    assert (heard["misses"], heard["health"], heard["health_asked"]) == (["pull"], "", False)
    (before,) = lesson["earlier"]
    assert (before["cause"], before["drill"]) == ("static_hips", "belt_stick")
    assert before["follow_up"]["verdict"] == "rejected"
    assert client.get(url).json()["earlier"] == []
    hit(client, lesson, only["id"], [-1.0, 0, 1, -1, 0])
    read = get(client, lesson, "since")
    assert read[0]["lesson_id"] == baseline["id"]


def test_a_second_lesson_has_the_last_one_beside_it(client: TestClient, baseline: Json) -> None:
    assert get(client, baseline, "last") is None
    decide(client, baseline, "static_hips", "Looked slow.")
    change(client, baseline, drill="belt_stick", complaint="Pulls.", cue={"text": "Hips first"})
    url = f"/api/lessons/{baseline['id']}/changes"
    results = [("belt_stick", "pass"), ("belt_stick", "early"), ("belt_stick", "pass")]
    for i, (drill, result) in enumerate([*results, ("press_pads", "pass")]):  # the last: another
        body = {"drill": drill, "result": result}
        client.post(url, json={"kind": "repetition", "id": f"r{i}", "body": body})
    student = baseline["student"]["id"]
    made = client.post(f"/api/students/{student}/lessons", json={}).raise_for_status().json()
    assert made["blocks"][0]["club"] == "7i"  # as the last one began
    last = get(client, made, "last")
    assert last["lesson_id"] == baseline["id"]
    assert (last["complaint"], last["cue"], last["cause"]) == (
        "Pulls.",
        "Hips first",
        "static_hips",
    )
    assert (last["drill"], last["right"], last["not_yet"]) == ("belt_stick", 2, 1)
    (hits,) = last["baselines"]
    assert hits["club"] == "7i"
    kept = client.get(f"/api/lessons/{baseline['id']}").json()["blocks"][0]["shots"]
    assert [s["id"] for s in hits["shots"]] == [s["id"] for s in kept]
    # a lesson in which nothing happened is passed over; the next begins with the club last hit
    block(client, baseline, baseline["blocks"][0]["id"], club="6i", expected_carry_m=150)
    third = client.post(f"/api/students/{student}/lessons", json={}).json()
    assert get(client, third, "last")["lesson_id"] == baseline["id"]
    assert third["blocks"][0]["club"] == "6i"
    assert third["blocks"][0]["expected_carry_m"] == 150


def test_the_day_says_what_each_lesson_needs_next(client: TestClient, baseline: Json) -> None:
    def needs() -> Json:
        lessons = client.get("/api/day").json()["lessons"]
        (brief,) = [x for x in lessons if x["id"] == baseline["id"]]
        return brief["next"]  # type: ignore[no-any-return]

    assert needs()["stage"] == "look"
    decide(client, baseline, "static_hips", "Looked slow.")
    assert needs() == {"stage": "drill", "words": "Choose the drill.", "done": False}
    change(client, baseline, finished=True)
    assert needs()["done"]


def test_what_is_known_of_the_student_is_a_step_of_the_lesson(
    client: TestClient, lesson: Json
) -> None:
    url = f"/api/lessons/{lesson['id']}"
    changed = client.post(
        f"{url}/changes",
        json={"kind": "student", "body": {"limits": ["knee"], "dominant_leg": "lead"}},
    )
    assert changed.json()["student"]["limits"] == ["knee"]
    person = f"/api/students/{lesson['student']['id']}"
    client.patch(person, json={"name": "Oda B."}).raise_for_status()
    undone = client.post(f"{url}/changes", json={"kind": "undo"}).json()["student"]
    assert (undone["limits"], undone["dominant_leg"]) == ([], None)
    assert undone["name"] == "Oda B."  # changed elsewhere: stays
    assert client.post(f"{url}/changes", json={"kind": "redo"}).json()["student"]["limits"] == [
        "knee"
    ]


def test_what_is_not_here_ranks_the_drills_and_can_be_undone(
    client: TestClient, baseline: Json
) -> None:
    decide(client, baseline, "late_shift")
    usual = [c["drill"] for c in get(client, baseline, "coaching")["cards"]]
    change(client, baseline, lacking=["mirror", "turf", "slope"])
    cards = get(client, baseline, "coaching")["cards"]
    assert sorted(c["drill"] for c in cards) == sorted(usual)
    assert {c["drill"] for c in cards if c["cons"]} == {c["drill"] for c in cards[-2:]}
    sheet = get(client, baseline, "sheet")
    assert sheet["rehearsal"] not in {c["drill"] for c in cards if c["cons"]}
    client.post(f"/api/lessons/{baseline['id']}/changes", json={"kind": "undo"})
    assert [c["drill"] for c in get(client, baseline, "coaching")["cards"]] == usual
    refused = client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "lesson", "body": {"lacking": ["anvil"]}},
    )
    assert "No equipment is called 'anvil'." in refused.json()["message"]


def test_a_set_up_that_is_off_wants_three_balls_first(client: TestClient, baseline: Json) -> None:
    client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "answer", "id": "a", "body": {"check_id": "grip_weak", "answer": "yes"}},
    ).raise_for_status()
    (gate,) = get(client, baseline, "coaching")["setup_changes"]
    assert (gate["drill"], gate["balls"], gate["wanted"]) == ("grip_reset", 0, 3)
    block(client, baseline, "try", kind="trial", drill="grip_reset")
    hit(client, baseline, "try", [0.0, 1, 0])
    assert get(client, baseline, "coaching")["setup_changes"][0]["tried"]


def test_balls_with_targets_of_their_own_are_no_part_of_the_retest(
    client: TestClient, baseline: Json
) -> None:
    change(client, baseline, primary="start_deg")
    block(client, baseline, "own", kind="retest", club="7i", own_targets=True)
    hit(client, baseline, "own", [9.0, 9, 9, 9])
    assert get(client, baseline, "retest")["result"]["state"] == "too_few"
    six, three = (
        client.get("/api/targets", params={"seed": "own", "balls": n}).json() for n in (6, 3)
    )
    assert (len(six), six[:3]) == (6, three)
    assert client.get("/api/targets", params={"seed": ""}).status_code == 422


def test_swings_of_the_retest_are_laid_over_those_before(
    client: TestClient, baseline: Json
) -> None:
    assert get(client, baseline, "retest")["traces"] is None
    for i in range(2):
        put(client, baseline, swing(changed=SEEN["late"]), f"before{i}").raise_for_status()
    block(client, baseline, "again", kind="retest", club="7i")
    block(client, baseline, "drill", kind="trial", drill="mirror_press")
    put(client, baseline, swing(), "drilled", block_id="drill").raise_for_status()
    assert get(client, baseline, "retest")["traces"] is None  # a trial is no retest
    put(client, baseline, swing(), "after", block_id="again").raise_for_status()
    over = get(client, baseline, "retest")["traces"]
    assert (over["before"]["swings"], over["after"]["swings"]) == (2, 1)
    assert (over["gone"], over["new"]) == (["late"], [])
    assert over["after"]["sd_pct"] == []
    assert len(over["before"]["sd_pct"]) == len(over["before"]["t_s"])


@pytest.mark.parametrize(
    ("sides", "foot", "side"), [("lead_trail", "lead", "left"), ("left_right", "left", "left")]
)
def test_the_sheet_speaks_as_was_chosen(
    client: TestClient, baseline: Json, sides: str, foot: str, side: str
) -> None:
    decide(client, baseline, "hang_back")
    url = f"/api/lessons/{baseline['id']}"
    sheet = client.get(f"{url}/sheet", params={"sides": sides}).json()
    assert f"{foot} foot" in sheet["cue"].lower()
    page = client.get(f"{url}/sheet.html", params={"sides": sides}).text
    assert "pull side" not in page
    assert "push side" not in page
    assert ("lead foot" in page.lower()) == (sides == "lead_trail")
    change(client, baseline, sheet={"cue": "Lead on the pull side."})
    own = client.get(f"{url}/sheet", params={"sides": sides}).json()
    assert own["cue"] == "Lead on the pull side."  # typed words stay as they are


def test_a_lesson_is_found_again_where_it_was_left(client: TestClient, lesson: Json) -> None:
    def left() -> Any:
        return client.get("/api/day").json()["lessons"][0]["stage"]

    assert left() is None
    url = f"/api/lessons/{lesson['id']}/clock"
    client.post(url, json={"stage": "look", "seconds": 20.0}).raise_for_status()
    assert left() == "look"
    client.post(url, json={"stage": "look", "seconds": 2.0, "now_in": "drill"}).raise_for_status()
    assert left() == "drill"


def test_a_student_is_changed_archived_and_brought_back(client: TestClient, lesson: Json) -> None:
    url = f"/api/students/{lesson['student']['id']}"
    details = {"knee": {"side": "left", "since": "2026-03-01"}}
    body = {"name": "Oda B.", "handicap": -2, "limits": ["knee"], "limit_details": details}
    changed = client.patch(url, json=body).json()
    assert (changed["name"], changed["handicap"]) == ("Oda B.", -2)
    assert changed["limit_details"] == details
    assert client.patch(url, json={"archived": True}).json()["archived"] is True
    kept = client.get(url).json()
    assert (kept["name"], kept["limit_details"]) == ("Oda B.", details)  # all of it is kept
    assert client.patch(url, json={"archived": False}).json()["archived"] is False
    bad = client.patch(url, json={"limit_details": {"knee": {"since": "last spring"}}})
    assert bad.status_code == 422
    assert client.get(url).json()["limit_details"] == details


def test_files_are_called_after_student_and_day(client: TestClient, baseline: Json) -> None:
    client.patch(f"/api/students/{baseline['student']['id']}", json={"name": "Åse Ødegård-Lind"})
    decide(client, baseline, "trail_heel_pops")
    day = baseline["started_at"][:10]
    url = f"/api/lessons/{baseline['id']}"
    for what, ending in (
        ("sheet.pdf", ".pdf"),
        ("practice.ics", "-practice.ics"),
        ("balls.csv", "-balls.csv"),
        ("case", ".case.json"),
    ):
        said = client.get(f"{url}/{what}").headers["content-disposition"]
        assert f'filename="Ase-degard-Lind-{day}{ending}"' in said, what  # for old browsers
        assert f"%C3%85se-%C3%98deg%C3%A5rd-Lind-{day}{ending}" in said, what


def test_a_drill_that_was_not_tried_goes_home_only_when_it_is_chosen_there(
    client: TestClient, baseline: Json
) -> None:
    decide(client, baseline, "trail_heel_pops")
    serving = [c["drill"] for c in get(client, baseline, "coaching")["cards"] if not c["withheld"]]
    untried = get(client, baseline, "sheet")
    assert (untried["rehearsal"], untried["ball_drill"]) == (None, None)
    page = client.get(f"/api/lessons/{baseline['id']}/sheet.html").text
    assert "Rehearse, without a ball" not in page  # no drill serves would be untrue
    change(client, baseline, sheet={"rehearsal": serving[0]})
    assert get(client, baseline, "sheet")["rehearsal"] == serving[0]
    change(client, baseline, sheet={"rehearsal": None})
    tap = {"drill": serving[1], "result": "pass"}
    client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "repetition", "id": "r", "body": tap},
    ).raise_for_status()
    assert get(client, baseline, "sheet")["rehearsal"] == serving[1]
    change(client, baseline, sheet={"rehearsal": "", "ball_drill": ""})  # none is chosen
    none = get(client, baseline, "sheet")
    assert (none["rehearsal"], none["ball_drill"]) == (None, None)


def test_the_sheet_says_who_gave_the_lesson_and_where(client: TestClient, baseline: Json) -> None:
    decide(client, baseline, "trail_heel_pops")
    url = f"/api/lessons/{baseline['id']}/sheet.html"
    signed = client.get(url, params={"by": "Runa <b>Vest</b>", "place": "Saltmarsh range"}).text
    assert "with Runa &lt;b&gt;Vest&lt;/b&gt;, Saltmarsh range" in signed
    assert ", with" not in client.get(url).text


def test_the_follow_up_takes_its_own_day(client: TestClient, baseline: Json) -> None:
    decide(client, baseline, "trail_heel_pops")
    assert client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "follow-up", "body": {"due_on": "2027-01-05"}},
    ).json()["follow_up"]["due_on"] == ("2027-01-05")
    moved = client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "follow-up", "body": {"due_on": "2027-01-09"}},
    ).json()["follow_up"]
    assert moved["due_on"] == "2027-01-09"
    assert (
        client.post(
            f"/api/lessons/{baseline['id']}/changes",
            json={"kind": "follow-up", "body": {"practised": 3}},
        ).json()["follow_up"]["due_on"]
        == "2027-01-09"
    )
