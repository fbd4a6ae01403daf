"""What tests of a lesson ask over HTTP."""

import base64
import io
from typing import Any

from fastapi.testclient import TestClient
from PIL import Image

Json = dict[str, Any]


def get(client: TestClient, lesson: Json, what: str) -> Any:
    return client.get(f"/api/lessons/{lesson['id']}/{what}").raise_for_status().json()


def hit(client: TestClient, lesson: Json, block: str, starts: list[float]) -> None:
    for i, start in enumerate(starts):
        observed = {"start_deg": start, "curve_deg": 4, "heel_toe_mm": -10, "contact": "clean"}
        f"/api/lessons/{lesson['id']}/shots/{block}-{i}"
        client.post(
            f"/api/lessons/{lesson['id']}/changes",
            json={
                "kind": "shot",
                "id": f"{block}-{i}",
                "body": {"block_id": block, "observed": observed},
            },
        ).raise_for_status()


def decide(client: TestClient, lesson: Json, cause: str, reason: str = "seen on film") -> None:
    body = {"cause": cause, "reason": reason}
    client.post(
        f"/api/lessons/{lesson['id']}/changes", json={"kind": "decision", "body": body}
    ).raise_for_status()


def change(client: TestClient, lesson: Json, **values: Any) -> Json:
    return (
        client.post(f"/api/lessons/{lesson['id']}/changes", json={"kind": "lesson", "body": values})
        .raise_for_status()
        .json()
    )  # type: ignore[no-any-return]


ADDRESS = "http://192.168.1.5:8700"


def offered(machine: TestClient, instructor_id: str | None = None) -> str:
    """A new code of the machine, for a device of this instructor."""
    body = {"instructor_id": instructor_id}
    return str(machine.post("/api/pairing/offer", json=body).raise_for_status().json()["code"])


def claim(tablet: TestClient, code: str) -> int:
    """The status that naming this code has."""
    return tablet.post("/api/pairing/claim", json={"code": code, "name": "Tablet"}).status_code


def picture(width: int = 270, height: int = 480, **more: Any) -> str:
    """A grey picture as a browser sends it: JPEG in base64."""
    out = io.BytesIO()
    Image.new("RGB", (width, height), (120, 130, 125)).save(out, "JPEG", **more)
    return base64.b64encode(out.getvalue()).decode()
