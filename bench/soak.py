"""Does it hold for as long as an afternoon, and while strangers hammer at the door?

Twenty devices log balls for minutes beside a thousand students; then one paired tablet logs balls
while an address that is not paired sends requests, half requests and large bodies as fast as it
can. Addresses of the loopback network stand in for other devices: only 127.0.0.1 is the machine.
"""

import argparse
import os
import socket
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from functools import partial
from pathlib import Path
from typing import Any

import httpx

from bench.serving import wait_for
from bench.size import fill
from firm_footing.store.database import open_database

Row = tuple[str, str, str]
DEVICES, STUDENTS, PORT = 20, 1000, 8769
URL = f"http://127.0.0.1:{PORT}"
TABLET, STRANGER = "127.0.0.21", "127.0.0.66"
HALF = b"POST /api/students HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-length: 19000000\r\n\r\n[["


def measure(soak_s: float = 300.0, flood_s: float = 60.0) -> Iterator[Row]:
    """Rows of name, wanted, found."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "own.db"
        engine = open_database(path, lasting=False)
        fill(engine, STUDENTS, 2, 10)
        engine.dispose()
        words = ["serve", "--network", "--port", str(PORT)]
        command = [sys.executable, "-m", "firm_footing", *words]
        own = {**os.environ, "FIRM_FOOTING_DB": str(path)}
        with (
            (Path(folder) / "stderr").open("wb") as stderr,
            subprocess.Popen(command, env=own, stdout=subprocess.DEVNULL, stderr=stderr) as server,
        ):
            try:
                wait_for(URL)
                yield from _soak(soak_s)
                yield from _flood(flood_s, server.pid)
            finally:
                server.terminate()
        logged = sum(f.stat().st_size for f in Path(folder).glob("own.log*"))
        logged += (Path(folder) / "stderr").stat().st_size
        yield "... written to logs meanwhile", "under 4 MB", f"{logged / 1e6:.2f} MB"


def _soak(seconds: float) -> Iterator[Row]:
    waits: list[float] = []
    refused: list[str] = []
    ends = time.monotonic() + seconds

    def device(number: int) -> int:
        sent = 0
        with httpx.Client(base_url=URL, timeout=30) as client:
            lesson, block = _lesson(client, f"Device {number}")
            while time.monotonic() < ends:
                sent += _ball(client, lesson, block, f"d{number}-{sent}", waits, refused)
                time.sleep(1.0)
            found = client.get(f"/api/lessons/{lesson}").json()["blocks"][0]["shots"]
            return sent - len(found)

    lost: list[int] = []
    _together([partial(lambda i: lost.append(device(i)), i) for i in range(DEVICES)])
    waits.sort()
    p95 = f"{1000 * waits[int(0.95 * len(waits))]:.0f} ms of {len(waits)}, {len(refused)} errors"
    yield f"{DEVICES} devices for {seconds:.0f} s, 95 % of balls within", "1000 ms", p95
    yield "... balls lost", "0", str(sum(lost))


def _flood(seconds: float, server: int) -> Iterator[Row]:
    waits: list[float] = []
    refused: list[str] = []
    asked = [0]
    ends = time.monotonic() + seconds

    def stranger() -> None:
        body = b"[" * 2_000_000
        while time.monotonic() < ends:
            try:
                with _client(STRANGER) as client:
                    for path in ("/api/day", "/", "/api/pairing", "/api/health"):
                        client.get(path)
                    headers = {"content-type": "application/json"}
                    client.post("/api/students", content=body, headers=headers)
                    client.post("/api/pairing/claim", json={"code": "000000", "name": "x"})
                    asked[0] += 6
            except httpx.HTTPError:
                asked[0] += 1

    def half_sender() -> None:
        held: list[socket.socket] = []
        while time.monotonic() < ends:
            line = socket.socket()
            try:
                line.bind((STRANGER, 0))
                line.settimeout(2)
                line.connect(("127.0.0.1", PORT))
                line.sendall(HALF)
                held.append(line)
            except OSError:
                line.close()
            if len(held) > 500:
                held.pop(0).close()
            time.sleep(0.005)
        for line in held:
            line.close()

    def tablet() -> None:
        with _client(TABLET) as client:
            with httpx.Client(base_url=URL, timeout=30) as machine:
                code = machine.post("/api/pairing/offer", json={}).raise_for_status().json()["code"]
            claim = {"code": code, "name": "Tablet"}
            client.post("/api/pairing/claim", json=claim).raise_for_status()
            lesson, block = _lesson(client, "Tablet")
            sent = 0
            while time.monotonic() < ends:
                sent += _ball(client, lesson, block, f"t{sent}", waits, refused)
                time.sleep(0.5)

    before = _memory(server)
    _together([tablet, half_sender, *[stranger] * 8])
    waits.sort()
    p95 = f"{1000 * waits[int(0.95 * len(waits))]:.0f} ms of {len(waits)}, {len(refused)} errors"
    yield f"unpaired flood for {seconds:.0f} s, 95 % of the tablet's balls within", "1000 ms", p95
    yield "... requests of the stranger", "-", str(asked[0])
    grown = f"{_memory(server) - before:.0f} MB"
    yield "... memory of the server, more than before", "under 100 MB", grown


def _client(address: str) -> httpx.Client:
    transport = httpx.HTTPTransport(local_address=address)
    return httpx.Client(base_url=URL, transport=transport, timeout=30)


def _lesson(client: httpx.Client, name: str) -> tuple[str, str]:
    body = {"name": name, "handedness": "right"}
    student = client.post("/api/students", json=body).raise_for_status().json()["id"]
    lesson = client.post(f"/api/students/{student}/lessons", json={}).raise_for_status().json()
    return lesson["id"], lesson["blocks"][0]["id"]


def _ball(
    client: httpx.Client,
    lesson: str,
    block: str,
    name: str,
    waits: list[float],
    refused: list[str],
) -> int:
    """How many balls were acknowledged: one or none."""
    ball = {"block_id": block, "observed": {"start_deg": -4.0, "contact": "fat"}}
    begun = time.monotonic()
    try:
        client.post(
            f"/api/lessons/{lesson}/changes", json={"kind": "shot", "id": name, "body": ball}
        ).raise_for_status()
    except httpx.HTTPError as error:
        refused.append(str(error))
        return 0
    finally:
        waits.append(time.monotonic() - begun)
    return 1


def _memory(process: int) -> float:
    pages = int(Path(f"/proc/{process}/statm").read_text(encoding="ascii").split()[1])
    return pages * os.sysconf("SC_PAGE_SIZE") / 1e6


def _together(jobs: list[Callable[[], Any]]) -> None:
    threads = [threading.Thread(target=job) for job in jobs]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()


def main() -> None:
    """Print what came out."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--soak", type=float, default=300.0, help="seconds with twenty devices")
    parser.add_argument("--flood", type=float, default=60.0, help="seconds with a stranger")
    given = parser.parse_args()
    for name, wanted, found in measure(given.soak, given.flood):
        print(f"{name:68} {found:>26}   wanted {wanted}", flush=True)


if __name__ == "__main__":
    main()
