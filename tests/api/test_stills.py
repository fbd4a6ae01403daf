"""Stills, feels and two films beside each other over HTTP; what consent allows, and deletion."""

import base64
import io
import struct
import zlib
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from fastapi.testclient import TestClient
from PIL import Image
from PIL.PngImagePlugin import PngInfo
from sqlalchemy import Engine
from sqlmodel import Session, select
from weasyprint import HTML

from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed
from firm_footing.store.tables import Still
from tests.api.asking import Json, decide, get, picture


def marks_of(knowledge: Knowledge, view: Any = "down_the_line", **causes: float) -> Json:
    person, again = np.random.default_rng(1), np.random.default_rng(2)
    found = Filmed(swing(causes, person, again), Camera(view))
    return found.marked(knowledge.film, np.random.default_rng(3)).model_dump(mode="json")


def film(client: TestClient, lesson: Json, name: str, marks: Json) -> None:
    client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "film", "id": name, "body": {"marks": marks, "name": f"{name}.mp4"}},
    ).raise_for_status()


def still(client: TestClient, lesson: Json, name: str, **more: Any) -> Any:
    body = {"consent": "student", "picture": picture(), **more}
    return client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "still", "id": name, "body": body}
    )


def test_at_most_two_and_each_is_deleted_alone(client: TestClient, lesson: Json) -> None:
    assert [s["id"] for s in still(client, lesson, "a").json()["stills"]] == ["a"]
    still(client, lesson, "b", event="impact").raise_for_status()
    full = still(client, lesson, "c")
    assert full.status_code == 409
    assert full.json()["message"] == "A lesson holds at most 2 stills."
    url = f"/api/lessons/{lesson['id']}/stills/a"
    shown = client.get(f"{url}/picture").raise_for_status()
    assert shown.headers["content-type"] == "image/jpeg"
    assert shown.headers["cache-control"] == "no-store"
    assert Image.open(io.BytesIO(shown.content)).size == (270, 480)
    assert [
        s["id"]
        for s in client.post(
            f"/api/lessons/{lesson['id']}/changes", json={"kind": "still-gone", "id": "a"}
        ).json()["stills"]
    ] == ["b"]
    assert client.get(f"{url}/picture").status_code == 404
    client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "undo"})
    assert [s["id"] for s in client.get(f"/api/lessons/{lesson['id']}").json()["stills"]] == ["b"]


def test_what_is_deleted_is_gone_from_the_file(
    client: TestClient, lesson: Json, engine: Engine
) -> None:
    noise = np.random.default_rng(1).integers(0, 255, (480, 270, 3), dtype=np.uint8)
    out = io.BytesIO()
    Image.fromarray(noise).save(out, "JPEG", quality=70)
    still(client, lesson, "a", picture=base64.b64encode(out.getvalue()).decode())
    kept = client.get(f"/api/lessons/{lesson['id']}/stills/a/picture").content
    database = Path(str(engine.url.database))
    part = base64.b64encode(kept)[3000:3080]

    def on_disk() -> bool:
        with engine.connect() as connection:
            connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
        return part in database.read_bytes()

    assert on_disk()
    client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "still-gone", "id": "a"}
    ).raise_for_status()
    assert not on_disk()


def test_a_junior_needs_a_guardian(client: TestClient, lesson: Json) -> None:
    url = f"/api/lessons/{lesson['id']}"
    client.post(
        f"{url}/changes", json={"kind": "student", "body": {"age_group": "junior"}}
    ).raise_for_status()
    refused = still(client, lesson, "a")
    assert refused.json()["message"] == (
        "A picture of a junior is kept only when a guardian agrees."
    )
    assert still(client, lesson, "a", consent="guardian").status_code == 200
    case = client.get(f"{url}/case?stills=true").json()
    case["stills"][0]["consent"] = "student"
    student = client.get(url).json()["student"]["id"]
    assert client.post("/api/cases", params={"student_id": student}, json=case).status_code == 409


def test_what_a_camera_writes_beside_the_picture_is_left_out(
    client: TestClient, lesson: Json
) -> None:
    exif = Image.Exif()
    exif[0x010E] = "behind the barn"
    still(client, lesson, "a", picture=picture(2600, 1200, exif=exif)).raise_for_status()
    kept = client.get(f"/api/lessons/{lesson['id']}/stills/a/picture").content
    assert b"behind the barn" not in kept
    assert Image.open(io.BytesIO(kept)).size == (1280, 591)


@pytest.mark.parametrize("sent", ["bm8gcGljdHVyZQ==", "not base64!", ""])
def test_what_is_no_picture_is_refused(client: TestClient, lesson: Json, sent: str) -> None:
    refused = still(client, lesson, "a", picture=sent)
    assert refused.status_code == 409
    assert refused.json()["message"] == "This is no picture that can be read."


def test_it_is_in_a_case_file_only_when_asked(
    client: TestClient, lesson: Json, knowledge: Knowledge
) -> None:
    film(client, lesson, "f", marks_of(knowledge))
    still(client, lesson, "a", film_id="f", event="impact", measure="seat_impact")
    assert "stills" not in get(client, lesson, "case")
    case = get(client, lesson, "case?stills=true")
    assert case["stills"][0]["film"] == 0
    again = client.post("/api/cases", params={"name": "Again"}, json=case).raise_for_status().json()
    (kept,) = again["stills"]
    (marked,) = get(client, again, "films")
    assert (kept["film_id"], kept["measure"], kept["event"]) == (
        marked["id"],
        "seat_impact",
        "impact",
    )
    case["stills"][0]["jpeg_base64"] = "bm8gcGljdHVyZQ=="
    told = client.post("/api/cases", params={"name": "Bad"}, json=case).json()
    assert "stills.0.jpeg_base64" in str(told)


def test_a_feel_is_kept_with_its_truth_and_goes_home_with_the_still(
    client: TestClient, baseline: Json, knowledge: Knowledge
) -> None:
    marks = marks_of(knowledge, trail_heel_pops=1.3)
    felt = {"trail_heel_arm_level": 0.5}
    film(client, baseline, "f", {**marks, "felt": felt})
    (found,) = get(client, baseline, "films")
    said = {m["id"]: m["felt"] for m in found["measures"]}
    assert said["trail_heel_arm_level"].startswith("Trail heel off the ground: felt 0 cm")
    assert said["seat_impact"] is None
    still(client, baseline, "a", film_id="f", measure="trail_heel_arm_level")
    decide(client, baseline, "trail_heel_pops")
    page = f"/api/lessons/{baseline['id']}/sheet.html"
    assert "data:image/jpeg" not in client.get(page).text
    client.post(
        f"/api/lessons/{baseline['id']}/changes",
        json={"kind": "still-change", "id": "a", "body": {"on_sheet": True}},
    ).raise_for_status()
    sheet = client.get(page).text
    assert "data:image/jpeg" in sheet
    assert said["trail_heel_arm_level"] in sheet
    assert len(HTML(string=sheet).render().pages) <= 2


def test_what_nobody_can_point_at_is_refused(
    client: TestClient, lesson: Json, knowledge: Knowledge
) -> None:
    marks = {**marks_of(knowledge), "felt": {"shaft_arm_level": 90.0}}
    assert client.post(
        f"/api/lessons/{lesson['id']}/changes",
        json={"kind": "film", "id": "f", "body": {"marks": marks}},
    ).json()["message"] == ("Nobody points to 'shaft_arm_level'.")


def test_two_films_of_a_student_are_compared(
    client: TestClient, lesson: Json, knowledge: Knowledge
) -> None:
    student = client.get(f"/api/lessons/{lesson['id']}").json()["student"]["id"]
    later = client.post(f"/api/students/{student}/lessons", json={}).json()
    film(client, lesson, "f", marks_of(knowledge, trail_heel_pops=1.5))
    film(client, later, "g", marks_of(knowledge))
    film(client, later, "h", marks_of(knowledge, "face_on"))
    listed = client.get(f"/api/students/{student}/films").raise_for_status().json()
    assert {f["id"] for f in listed} == {"f", "g", "h"}
    assert {f["lesson_id"] for f in listed if f["id"] != "f"} == {later["id"]}
    found = client.get("/api/films/f/beside", params={"after": "g"}).raise_for_status().json()
    heel = next(c for c in found["changes"] if c["measure"] == "trail_heel_arm_level")
    assert heel["beyond_chance"]
    assert heel["by"] == pytest.approx(heel["after"] - heel["before"])
    assert found["before"]["cm_per_px"] > 0
    other = client.get("/api/films/f/beside", params={"after": "h"})
    assert other.json()["message"] == (
        "One of these films is seen down the line and the other face on."
    )
    assert client.get("/api/films/f/beside", params={"after": "none"}).status_code == 404
    film(client, later, "g", {**marks_of(knowledge), "scale": None})
    bare = client.get("/api/films/f/beside", params={"after": "g"})
    assert "gives a scale" in bare.json()["message"]


def png(size: tuple[int, int], comment: str = "") -> bytes:
    """A picture of this size by its header; its pixels are those of a small one."""
    out, info = io.BytesIO(), PngInfo()
    info.add_text("comment", comment)
    Image.new("RGB", (30, 30), "grey").save(out, "PNG", pnginfo=info)
    data = bytearray(out.getvalue())
    data[16:24] = struct.pack(">II", *size)
    data[29:33] = struct.pack(">I", zlib.crc32(bytes(data[12:29])))
    return bytes(data)


@pytest.mark.parametrize("sent", [png((20_000, 20_000)), png((5_000, 5_000))])
def test_a_picture_that_claims_to_be_huge_is_refused(
    client: TestClient, lesson: Json, sent: bytes
) -> None:
    body = {"consent": "student", "picture": base64.b64encode(sent).decode()}
    refused = client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "still", "id": "s", "body": body}
    )
    assert refused.status_code == 409
    assert "too large" in refused.json()["message"]


def test_a_comment_is_dropped_however_long(
    client: TestClient, lesson: Json, engine: Engine
) -> None:
    for name, sent in (
        ("p", png((30, 30), "Quillona was here " * 4000)),
        ("j", base64.b64decode(picture(comment=b"Quillona was here"))),
    ):
        body = {"consent": "student", "picture": base64.b64encode(sent).decode()}
        client.post(
            f"/api/lessons/{lesson['id']}/changes", json={"kind": "still", "id": name, "body": body}
        ).raise_for_status()
    with Session(engine) as session:
        kept = [base64.b64decode(s.jpeg_base64) for s in session.exec(select(Still))]
    assert len(kept) == 2
    assert not any(b"Quillona" in jpeg for jpeg in kept)
