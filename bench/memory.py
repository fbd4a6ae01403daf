"""How much memory does a day of lessons take, and how much CPU a ball and an answer?

A server of its own, one tablet: fifty lessons one after the other, each with fourteen balls and
eight looks as they are proposed, the ranking asked for with every change as the screens do.
"""

import os
from collections.abc import Iterator
from pathlib import Path
from statistics import median
from typing import Any

import httpx
import numpy as np

from bench.serving import served

Row = tuple[str, str, str]
LESSONS, BALLS, LOOKS = 50, 14, 8
PORT = 8769
URL = f"http://127.0.0.1:{PORT}"


def rss_mb(pid: int) -> float:
    """Resident memory of a process, megabytes."""
    for line in Path(f"/proc/{pid}/status").read_text(encoding="ascii").splitlines():
        if line.startswith("VmRSS:"):
            return int(line.split()[1]) / 1024
    raise ValueError(pid)


def cpu_ms(pid: int) -> float:
    """CPU time of a process so far, milliseconds."""
    fields = Path(f"/proc/{pid}/stat").read_text(encoding="ascii").rpartition(")")[2].split()
    return 1000 * (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def measure() -> Iterator[Row]:
    """Rows of name, wanted, found."""
    with served(PORT) as pid:
        yield "memory at the start", "-", f"{rss_mb(pid):.0f} MB"
        with httpx.Client(base_url=URL, timeout=60) as client:
            yield from _lessons(client, pid)


def _lessons(client: httpx.Client, pid: int) -> Iterator[Row]:
    balls: list[float] = []
    answers: list[float] = []
    after: dict[int, float] = {}
    for number in range(LESSONS):
        _lesson(client, pid, number, balls, answers)
        after[number + 1] = rss_mb(pid)
    yield "... after ten lessons", "-", f"{after[10]:.0f} MB"
    more = after[LESSONS] - after[LESSONS // 2]
    found = f"{after[LESSONS]:.0f} MB, {more:+.0f} in the second half"
    yield f"... after {LESSONS} lessons", "300 MB, flat", found
    yield "CPU of a ball with its ranking, mean and median", "25 ms", _told(balls)
    yield "CPU of an answer with its ranking, mean and median", "15 ms", _told(answers)


def _told(times: list[float]) -> str:
    """Of batches: a clock tick is ten milliseconds."""
    return f"{np.mean(times):.0f}, {median(times):.0f} ms"


def _lesson(
    client: httpx.Client, pid: int, number: int, balls: list[float], answers: list[float]
) -> None:
    """One lesson; appends the mean CPU of its balls and of its answers."""
    rng = np.random.default_rng(number)
    who = {"name": f"Student {number}", "handedness": "right", "handicap": int(rng.integers(0, 36))}
    student = client.post("/api/students", json=who).json()
    lesson = client.post(f"/api/students/{student['id']}/lessons", json={}).json()
    here, block = f"/api/lessons/{lesson['id']}", lesson["blocks"][0]["id"]
    started = cpu_ms(pid)
    for ball in range(BALLS):
        seen = {
            "start": str(rng.choice(["pull", "straight", "push"])),
            "curve": str(rng.choice(["straight", "push", "far_push"])),
            "contact": str(rng.choice(["clean", "fat", "thin"])),
            "heel_toe_mm": int(rng.integers(-20, 12)),
            "divot_start_cm": int(rng.integers(-8, 3)),
            "carry_m": int(rng.integers(105, 140)),
        }
        body = {"block_id": block, "observed": seen}
        _sent(client, here, {"kind": "shot", "id": f"l{number}b{ball}", "body": body})
    balls.append((cpu_ms(pid) - started) / BALLS)
    found = client.get(f"{here}/diagnosis").json()
    started = cpu_ms(pid)
    taken = 0
    for _ in range(LOOKS):
        looks = found["ranking"]["next_checks"]
        if not looks:
            break
        taken += 1
        answer = str(rng.choice(["yes", "no"]))
        body = {"check_id": looks[0]["id"], "answer": answer, "source": "look"}
        change = {"kind": "answer", "id": f"l{number}a{taken}", "body": body}
        found = _sent(client, here, change)["diagnosis"]
    if taken:
        answers.append((cpu_ms(pid) - started) / taken)


def _sent(client: httpx.Client, lesson: str, change: dict[str, Any]) -> dict[str, Any]:
    reply = client.post(f"{lesson}/changes?diagnosis=true", json=change)
    reply.raise_for_status()
    found: dict[str, Any] = reply.json()
    return found


def main() -> None:
    """Print the rows."""
    for name, wanted, found in measure():
        print(f"{name:58} {found:>18}   wanted {wanted}", flush=True)


if __name__ == "__main__":
    main()
