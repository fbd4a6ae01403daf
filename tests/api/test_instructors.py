"""Name, school and words follow an instructor to their devices; lessons keep who gave them."""

from fastapi.testclient import TestClient

from tests.api.asking import claim, offered


def lesson_by(client: TestClient) -> str:
    student = client.post("/api/students", json={"name": "Pia", "handedness": "left"}).json()
    begun = client.post(f"/api/students/{student['id']}/lessons", json={}).raise_for_status()
    return str(begun.json()["given_by"])


def paired(machine: TestClient, tablet: TestClient, instructor_id: str | None = None) -> None:
    assert claim(tablet, offered(machine, instructor_id)) == 204


def test_the_first_who_says_something_works_at_the_machine(client: TestClient) -> None:
    assert client.get("/api/instructors").json() == {"mine": None, "all": []}
    assert lesson_by(client) == ""
    said = {"name": " Ona Field ", "place": "Gorse Quay", "sides": "left_right"}
    mine = client.put("/api/instructors/mine", json=said).raise_for_status().json()
    assert (mine["name"], mine["sides"]) == ("Ona Field", "left_right")
    school = {**mine["school"], "pressure": "steady"}
    client.put("/api/instructors/mine", json={"school": school}).raise_for_status()
    found = client.get("/api/instructors").json()
    assert found["mine"]["school"]["pressure"] == "steady"
    assert found["mine"]["name"] == "Ona Field"
    assert [i["id"] for i in found["all"]] == [mine["id"]]
    assert lesson_by(client) == "Ona Field"


def test_each_device_has_its_instructor(pair: tuple[TestClient, TestClient]) -> None:
    machine, tablet = pair
    ona = machine.put("/api/instructors/mine", json={"name": "Ona"}).json()
    bo = machine.post("/api/instructors", json={"name": "Bo"}).json()
    paired(machine, tablet, bo["id"])
    assert tablet.get("/api/instructors").json()["mine"]["name"] == "Bo"
    assert lesson_by(tablet) == "Bo"
    assert lesson_by(machine) == "Ona"
    tablet.put("/api/instructors/mine", json={"place": "Bay 3"}).raise_for_status()
    (device,) = machine.get("/api/pairing").json()["devices"]
    assert device["instructor_id"] == bo["id"]
    changed = {"instructor_id": ona["id"]}
    machine.patch(f"/api/devices/{device['id']}", json=changed).raise_for_status()
    assert tablet.get("/api/instructors").json()["mine"]["name"] == "Ona"
    assert tablet.get("/api/instructors").json()["mine"]["place"] == ""


def test_who_works_at_the_machine_changes_there_only(
    pair: tuple[TestClient, TestClient],
) -> None:
    machine, tablet = pair
    ona = machine.put("/api/instructors/mine", json={"name": "Ona"}).json()
    bo = machine.post("/api/instructors", json={"name": "Bo"}).json()
    paired(machine, tablet)
    assert tablet.get("/api/instructors").json()["mine"]["id"] == ona["id"]
    for method, path in (
        ("POST", "/api/instructors"),
        ("PUT", f"/api/instructors/{bo['id']}/here"),
        ("DELETE", f"/api/instructors/{bo['id']}"),
    ):
        assert tablet.request(method, path, json={}).status_code == 409
    machine.put(f"/api/instructors/{bo['id']}/here").raise_for_status()
    assert machine.get("/api/instructors").json()["mine"]["name"] == "Bo"


def test_lessons_keep_the_name_of_one_who_is_gone(pair: tuple[TestClient, TestClient]) -> None:
    machine, tablet = pair
    ona = machine.put("/api/instructors/mine", json={"name": "Ona"}).json()
    bo = machine.post("/api/instructors", json={"name": "Bo"}).json()
    paired(machine, tablet, bo["id"])
    assert lesson_by(tablet) == "Bo"
    lesson = machine.get("/api/day").json()["lessons"][0]
    refused = machine.delete(f"/api/instructors/{ona['id']}")
    assert (refused.status_code, refused.json()["message"]) == (
        409,
        "Ona works at this machine.",
    )
    machine.delete(f"/api/instructors/{bo['id']}").raise_for_status()
    assert machine.get(f"/api/lessons/{lesson['id']}").json()["given_by"] == "Bo"
    assert tablet.get("/api/instructors").json()["mine"]["name"] == "Ona"
    gone = {"instructor_id": bo["id"]}
    assert machine.post("/api/pairing/offer", json=gone).status_code == 404


def test_the_name_on_a_lesson_is_corrected_and_taken_back(
    client: TestClient, lesson: dict[str, str]
) -> None:
    url = f"/api/lessons/{lesson['id']}"
    changed = (
        client.post(
            f"/api/lessons/{lesson['id']}/changes",
            json={"kind": "lesson", "body": {"given_by": "Ona Field"}},
        )
        .raise_for_status()
        .json()
    )
    assert changed["given_by"] == "Ona Field"
    assert client.post(f"{url}/changes", json={"kind": "undo"}).json()["given_by"] == ""


def test_a_lesson_taken_up_by_another_is_theirs(client: TestClient, lesson: dict[str, str]) -> None:
    client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "lesson", "body": {"given_by": "Ona"}}
    ).raise_for_status()
    again = client.post(f"/api/lessons/{lesson['id']}/reopen").raise_for_status().json()
    assert again["given_by"] == "Ona"
    client.put("/api/instructors/mine", json={"name": "Bo"}).raise_for_status()
    later = client.post(f"/api/lessons/{lesson['id']}/reopen").raise_for_status().json()
    assert later["given_by"] == "Bo"
