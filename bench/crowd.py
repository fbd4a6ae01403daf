"""How long does anybody wait when twenty devices have one lesson open?

As pages do: each asks once a second whether anything has changed, and reads lesson, ranking and
balls when it has. A ball is logged every three seconds, by one of them after the other.
"""

import threading
import time
from collections.abc import Iterator

import httpx

from bench.serving import served

Row = tuple[str, str, str]
CLIENTS, SECONDS, EVERY_S = 20, 24, 3.0
PORT = 8768
URL = f"http://127.0.0.1:{PORT}"


def measure() -> Iterator[Row]:
    """Rows of name, wanted, found."""
    with served(PORT):
        waits, late, errors = _crowd()
    waits.sort()
    p95 = f"{1000 * waits[int(0.95 * len(waits))]:.0f} ms of {len(waits)}, {errors} errors"
    yield "twenty devices at one lesson, 95 % of answers within", "300 ms", p95
    yield "... a ball of one on the others, the latest", "2000 ms", f"{1000 * max(late):.0f} ms"


def _crowd() -> tuple[list[float], list[float], int]:
    student = httpx.post(f"{URL}/api/students", json={"name": "Oda", "handedness": "right"}).json()
    lesson = httpx.post(f"{URL}/api/students/{student['id']}/lessons", json={}).json()
    block, here = lesson["blocks"][0]["id"], f"{URL}/api/lessons/{lesson['id']}"
    waits: list[float] = []
    late: list[float] = [0.0]
    errors = 0
    logged: dict[int, float] = {}
    ends = time.monotonic() + SECONDS

    def device(number: int) -> None:
        nonlocal errors
        seen, mine = 0, EVERY_S * (1 + number % int(SECONDS / EVERY_S))
        begun, sent, revision = time.monotonic(), False, ""
        time.sleep(number / CLIENTS)
        with httpx.Client(timeout=30) as client:

            def timed(method: str, url: str, **more: object) -> httpx.Response:
                nonlocal errors
                started = time.monotonic()
                found = client.request(method, url, **more)  # type: ignore[arg-type]
                waits.append(time.monotonic() - started)
                errors += found.status_code >= 400
                return found

            while time.monotonic() < ends:
                if not sent and number < SECONDS / EVERY_S and time.monotonic() - begun > mine:
                    sent = True
                    ball = {"block_id": block, "observed": {"start_deg": -4.0, "contact": "fat"}}
                    change = {"kind": "shot", "id": f"s{number}", "body": ball}
                    timed("POST", f"{here}/changes?diagnosis=true", json=change)
                    logged[len(logged) + 1] = time.monotonic()
                now = timed("GET", f"{here}/revision").json()["revision"]
                if now != revision:
                    revision = now
                    found = timed("GET", here).json()
                    timed("GET", f"{here}/diagnosis")
                    timed("GET", f"{here}/balls")
                    balls = len(found["blocks"][0]["shots"])
                    late.extend(
                        time.monotonic() - logged[b]
                        for b in range(seen + 1, balls + 1)
                        if b in logged
                    )
                    seen = balls
                time.sleep(1.0)

    threads = [threading.Thread(target=device, args=(i,)) for i in range(CLIENTS)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return waits, late, errors
