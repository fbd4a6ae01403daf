"""Over the network nobody gets in without the code of the machine; pages elsewhere get nothing."""

import time
from collections.abc import Iterator

import pytest
from fastapi.testclient import TestClient

from firm_footing.api.security.device_auth import COOKIE, Codes, Patience
from firm_footing.files.plain_json import BadJsonError, read_json
from tests.api.asking import claim, offered


def test_nobody_comes_in_without_being_paired(pair: tuple[TestClient, TestClient]) -> None:
    machine, tablet = pair
    assert tablet.get("/api/day").json()["code"] == "not_paired"
    for method, path in (("GET", "/api/due"), ("POST", "/api/students"), ("GET", "/api/knowledge")):
        assert tablet.request(method, path, json={}).status_code == 401
    assert tablet.get("/api/pairing").json()["here"] is False
    assert claim(tablet, offered(machine)) == 204
    assert tablet.get("/api/day").status_code == 200
    (device,) = machine.get("/api/pairing").json()["devices"]
    assert device["name"] == "Tablet"
    assert tablet.get("/api/pairing").json()["devices"] == []
    machine.delete(f"/api/devices/{device['id']}").raise_for_status()
    assert tablet.get("/api/day").status_code == 401


def test_the_cookie_is_signed_and_out_of_reach_of_scripts(
    pair: tuple[TestClient, TestClient],
) -> None:
    machine, tablet = pair
    answer = tablet.post(
        "/api/pairing/claim", json={"code": offered(machine), "name": "Tablet"}
    ).raise_for_status()
    said = answer.headers["set-cookie"].lower()
    assert "httponly" in said
    assert "samesite=strict" in said
    tablet.cookies.set(COOKIE, tablet.cookies[COOKIE][:-2] + "xx")
    tablet.cookies.clear()
    tablet.cookies.set(COOKIE, "made-up")
    assert tablet.get("/api/day").status_code == 401


def test_a_code_is_good_once(pair: tuple[TestClient, TestClient]) -> None:
    machine, tablet = pair
    code = offered(machine)
    assert [claim(tablet, code), claim(tablet, code)] == [204, 409]


def test_codes_end_after_five_minutes_and_five_wrong_ones_lock_for_one() -> None:
    now = 0.0
    codes = Codes(clock=lambda: now)
    code = codes.offer()
    wrong = "000000" if code != "000000" else "111111"
    now = 239.0
    assert codes.seconds_left == 61
    assert [codes.claim(wrong) for _ in range(5)] == ["wrong"] * 5
    assert codes.claim(code) == "locked"
    now = 299.5
    assert codes.claim(code) == "right"
    late = codes.offer()
    now = 601.0
    assert codes.claim(late) == "wrong"


def test_only_the_machine_shows_codes_and_sends_devices_away(
    pair: tuple[TestClient, TestClient],
) -> None:
    machine, tablet = pair
    assert claim(tablet, offered(machine)) == 204
    (device,) = machine.get("/api/pairing").json()["devices"]
    assert tablet.post("/api/pairing/offer").status_code == 409
    assert tablet.delete(f"/api/devices/{device['id']}").status_code == 409
    renamed = {"name": "Bay 3"}
    machine.patch(f"/api/devices/{device['id']}", json=renamed).raise_for_status()
    assert machine.get("/api/pairing").json()["devices"][0]["name"] == "Bay 3"


@pytest.mark.parametrize("host", ["evil.example", "evil.example:8700", "127.0.0.1.evil.example"])
def test_another_name_for_the_machine_is_not_served(client: TestClient, host: str) -> None:
    refused = client.get("/api/day", headers={"host": host})
    assert (refused.status_code, refused.json()["code"]) == (400, "host")


@pytest.mark.parametrize(
    "headers",
    [
        {"origin": "http://evil.example"},
        {"origin": "null"},
        {"origin": "http://testserver:9999"},
        {"sec-fetch-site": "cross-site"},
    ],
)
def test_a_change_asked_for_by_another_page_is_refused(
    client: TestClient, lesson: dict[str, str], headers: dict[str, str]
) -> None:
    for path in (f"lessons/{lesson['id']}/undo", f"lessons/{lesson['id']}/reopen", "students"):
        assert client.post(f"/api/{path}", headers=headers).status_code == 403
    own = {"origin": "http://testserver", "sec-fetch-site": "same-origin"}
    assert (
        client.post(
            f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"}, headers=own
        ).status_code
        == 200
    )


def test_pages_may_do_little(client: TestClient) -> None:
    headers = client.get("/api/day").headers
    assert "script-src 'self';" in headers["content-security-policy"]
    assert "frame-ancestors 'self'" in headers["content-security-policy"]
    assert headers["x-content-type-options"] == "nosniff"
    assert headers["referrer-policy"] == "no-referrer"
    assert headers["cache-control"] == "no-store"


def test_wrong_codes_shut_out_who_names_them_and_nobody_else() -> None:
    now = 0.0
    codes = Codes(clock=lambda: now)
    code = codes.offer()
    wrong = "000000" if code != "000000" else "111111"
    assert [codes.claim(wrong, "10.0.0.9", "x") for _ in range(6)] == ["wrong"] * 5 + ["locked"]
    assert codes.claim(wrong, "10.0.0.9", "y") == "wrong", "another device behind that address"
    for i in range(14):
        codes.claim(wrong, "10.0.0.9", f"made-up-{i}")
    assert codes.claim(code, "10.0.0.9", "one more") == "locked", "twenty of one address"
    assert codes.claim(code, "10.0.0.5", "tablet") == "right"


def test_who_is_not_paired_has_no_body_read(pair: tuple[TestClient, TestClient]) -> None:
    machine, tablet = pair
    read = 0

    def brackets() -> Iterator[bytes]:
        nonlocal read
        for _ in range(20):
            read += 1
            yield b"[" * 1_000_000

    json_body = {"content-type": "application/json"}
    refused = tablet.post("/api/students", content=brackets(), headers=json_body)
    assert refused.status_code == 401
    elsewhere = tablet.post("/", content=brackets(), headers=json_body)
    assert elsewhere.status_code in (404, 405)
    assert read <= 2, "a test client sends before it listens; the server asked for none"
    claimed = tablet.post("/api/pairing/claim", content=b"[" * 5000, headers=json_body)
    assert claimed.status_code == 413
    assert machine.post("/api/students", content=b"[" * 5000, headers=json_body).status_code == 422


def test_who_asks_too_often_unpaired_is_turned_away_and_the_paired_is_not(
    pair: tuple[TestClient, TestClient],
) -> None:
    machine, tablet = pair
    patience = Patience(clock=lambda: 0.0)
    assert [patience.is_over("10.0.0.9") for _ in range(201)][-2:] == [False, True]
    assert not patience.is_over("10.0.0.5")
    assert claim(tablet, offered(machine)) == 204
    assert {tablet.get("/api/pairing").status_code for _ in range(300)} == {200}


def test_more_values_than_anything_of_ours_are_not_read() -> None:
    begun = time.monotonic()
    with pytest.raises(BadJsonError):
        read_json(b"[" + b"[]," * 6_000_000 + b"[]]")
    assert read_json(b"[" + b"1," * 100_000 + b"1]")[-1] == 1
    assert time.monotonic() - begun < 2
