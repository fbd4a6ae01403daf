"""Balls in and out of a lesson as a table, over HTTP."""

from typing import Any

from starlette.testclient import TestClient

TABLE = "Club,Carry [yd],Launch direction [deg],Face\n7i,140,-3,-1\n7i,nothing,-2,-1\n7i,150,2,1\n"


def put_in(client: TestClient, lesson: dict[str, Any], text: str = TABLE, **more: Any) -> Any:
    body = {"text": text, "block_id": lesson["blocks"][0]["id"], **more}
    return client.post(f"/api/lessons/{lesson['id']}/table", json=body).json()


def balls(lesson: dict[str, Any]) -> list[dict[str, Any]]:
    return [s["observed"] for b in lesson["blocks"] for s in b["shots"]]


def test_a_preview_keeps_nothing(client: TestClient, lesson: dict[str, Any]) -> None:
    url = f"/api/lessons/{lesson['id']}"
    seen = client.post(f"{url}/table/preview", json={"text": TABLE}).json()
    assert (seen["balls"], seen["already"], seen["remembered"]) == (3, 0, False)
    assert [c["field"] for c in seen["columns"]] == ["club", "carry", "start_deg", "face_deg"]
    assert seen["bad"] == [
        {"line": 3, "heading": "Carry", "cell": "nothing", "reason": "not a number"}
    ]
    assert client.get(url).json()["revision"] == lesson["revision"]


def test_good_rows_are_kept_once_however_often_they_come(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    first = put_in(client, lesson)
    again = put_in(client, lesson)
    assert (first["added"], first["already"], len(first["bad"])) == (3, 0, 1)
    assert (again["added"], again["already"]) == (0, 3)
    assert balls(again["lesson"]) == balls(first["lesson"])
    assert again["lesson"]["revision"] == first["lesson"]["revision"]
    undone = client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"}).json()
    assert balls(undone) == []  # one step
    assert put_in(client, lesson)["added"] == 3


def test_twins_in_one_table_are_two_balls(client: TestClient, lesson: dict[str, Any]) -> None:
    row = "7i,140,-3,-1\n"
    text = TABLE.splitlines()[0] + "\n" + row + row
    assert put_in(client, lesson, text)["added"] == 2
    assert put_in(client, lesson, text + row)["added"] == 1


def test_the_columns_are_remembered(client: TestClient, lesson: dict[str, Any]) -> None:
    url = f"/api/lessons/{lesson['id']}/table/preview"
    columns = client.post(url, json={"text": TABLE}).json()["columns"]
    columns[2]["positive"] = "left"
    taken = put_in(client, lesson, columns=columns)
    assert balls(taken["lesson"])[0]["start_deg"] == 3
    other = TABLE.replace("140", "141")
    seen = client.post(url, json={"text": other}).json()
    assert seen["remembered"]
    assert seen["columns"] == columns


def test_what_can_hardly_be_is_named_first_and_comes_in_when_wanted(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    text = "Carry [yd],Ball speed [m/s]\n140,98\n141,47\n"
    url = f"/api/lessons/{lesson['id']}/table/preview"
    body = {"text": text, "block_id": lesson["blocks"][0]["id"]}
    (doubt,) = client.post(url, json=body).json()["doubtful"]
    assert (doubt["line"], doubt["cell"]) == (2, "98")
    assert "7 iron" in doubt["reason"]
    taken = put_in(client, lesson, text)
    assert [b["ball_speed_mps"] for b in balls(taken["lesson"])] == [None, 47]
    client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"})
    kept = put_in(client, lesson, text, keep_doubtful=True)
    assert [b["ball_speed_mps"] for b in balls(kept["lesson"])] == [98, 47]


def test_a_column_assigned_by_hand_has_the_unit_of_its_heading(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    url = f"/api/lessons/{lesson['id']}/table/preview"
    sent = {"text": "How fast it was (mph),Carry (yds)\n104,140\n"}
    columns = client.post(url, json=sent).json()["columns"]
    assert columns[0]["field"] is None
    columns[0] |= {"field": "ball_speed", "unit": ""}
    assert client.post(url, json=sent | {"columns": columns}).json()["columns"][0]["unit"] == "mph"


def test_another_club_goes_to_a_block_of_its_own(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    put_in(client, lesson)
    taken = put_in(client, lesson, TABLE.replace("7i", "Driver"))
    assert [(b["club"], len(b["shots"])) for b in taken["lesson"]["blocks"]] == [
        ("7i", 3),
        ("d", 3),
    ]


def test_wrong_columns_are_refused_and_change_nothing(
    client: TestClient, lesson: dict[str, Any]
) -> None:
    url = f"/api/lessons/{lesson['id']}/table/preview"
    columns = client.post(url, json={"text": TABLE}).json()["columns"]
    twice = [*columns[:3], columns[3] | {"field": "carry"}]
    parsec = [columns[0], columns[1] | {"unit": "parsec"}, *columns[2:]]
    for wrong in (twice, parsec, columns[:2]):
        answer = client.post(url, json={"text": TABLE, "columns": wrong})
        assert answer.status_code == 409
        assert answer.json()["hint"]
    answer = client.post(url, json={"text": "no table"})
    assert answer.status_code == 409
    assert "headings" in answer.json()["message"]


def test_the_balls_go_out_and_come_back(client: TestClient, lesson: dict[str, Any]) -> None:
    taken = put_in(client, lesson)
    out = client.get(f"/api/lessons/{lesson['id']}/balls.csv")
    assert out.headers["content-type"].startswith("text/csv")
    student = lesson["student"]["id"]
    other = client.post(f"/api/students/{student}/lessons", json={"club": "9i"}).json()
    back = put_in(client, other, out.text)
    assert balls(back["lesson"]) == balls(taken["lesson"])
    assert back["lesson"]["blocks"][0]["club"] == "7i"
