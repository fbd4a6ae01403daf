"""Random walks through the API with ids that exist and values that nobody would send.

Also a program: `python -m tests.fuzzing --requests 20000`.
"""

import argparse
import base64
import io
import json
import random
import resource
import sys
import tempfile
import time
import zipfile
from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, Final

from fastapi.testclient import TestClient
from httpx2 import Response
from PIL import Image
from sqlalchemy import Engine, text
from sqlmodel import Session

from firm_footing.api.app import create_app
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.store.database import open_database
from firm_footing.store.files.exchange import bring_in, export
from firm_footing.store.files.opening import CannotOpenError

Json = Any
SLOW_S: Final = 5.0
NASTY: Final[tuple[Callable[[], Json], ...]] = (
    lambda: None, lambda: True, lambda: 0, lambda: -1, lambda: 1e308, lambda: -1e308,
    lambda: 1e-300, lambda: 420, lambda: 105.5, lambda: 2**70, lambda: "", lambda: "\ud800",
    lambda: "a\x00b", lambda: "\u202e<script>alert(1)</script>", lambda: "x" * 30_000,
    lambda: "2026-99-99", lambda: "0000-00-00", lambda: "../../etc/passwd", lambda: [],
    lambda: ["fat"] * 3000, lambda: {}, lambda: {"a": {"b": [1]}}, lambda: [[[[[]]]]],
    lambda: "é" * 199, lambda: "🏌️" * 20, lambda: 9.99999999e15, lambda: "1,5",
)  # fmt: skip
TEXTS: Final[tuple[Callable[[], str], ...]] = (
    lambda: "", lambda: "a,b\n", lambda: "[" * 15_000, lambda: "(" * 500 + "\n1,2",
    lambda: "Carry,Side\n" + "1e308,-1e308\n" * 50, lambda: 'Carry,"' + "x" * 140_000,
    lambda: "t,lead_pct\n0,50\n100000,50\n" + "".join(f"{i},50\n" for i in range(40)),
    lambda: "Carry;Side\n150,5;3 L\n-;9 heel\n", lambda: "\x00,\x01\n\x02,\x03\n",
    lambda: "Club Spd (mph),Carry Dist. (yds)\n" + "80,150\n" * 2500,
    lambda: "t,lead_pct\n" + "".join(f"{i / 100},{50 + i % 7}\n" for i in range(-120, 60)),
)  # fmt: skip


def _jpeg() -> str:
    """A grey picture, in base64."""
    out = io.BytesIO()
    Image.new("RGB", (90, 160), "grey").save(out, "JPEG")
    return base64.b64encode(out.getvalue()).decode()


JPEG: Final = _jpeg()
WORDS: Final = (
    ("lesson", "drill"), ("lesson", "aid"), ("lesson", "primary"), ("lesson", "zone"),
    ("lesson", "listen"), ("lesson", "cue"), ("lesson", "sheet"), ("block", "club"),
    ("block", "kind"), ("block", "drill"), ("block", "surface"), ("check_answer", "check_id"),
    ("check_answer", "source"), ("decision", "cause"), ("decision", "ranked_first"),
    ("repetition", "drill"), ("repetition", "result"), ("follow_up", "verdict"),
    ("student", "age_group"), ("still", "event"), ("clock", "stage"),
)  # fmt: skip
"""Columns with words of the knowledge, or of a list in the code."""
MARKS: Final = {
    "view": "down_the_line", "width": 1080, "height": 1920, "fps": 240.0, "distance_cm": 400.0,
    "events": {"address": 60, "top": 250, "lead_arm_level_down": 280, "impact": 310},
    "scale": {"by": "known", "start": [300.0, 1700.0], "end": [700.0, 1700.0], "cm": 100.0},
    "ground": [[200.0, 1700.0], [900.0, 1702.0]], "off_line_cm": 10.0,
    "points": {"trail_heel": {"address": [400.0, 1690.0], "lead_arm_level_down": [402.0, 1660.0]},
               "seat": {"address": [300.0, 1200.0], "impact": [330.0, 1190.0]}},
    "felt": {"trail_heel_arm_level": 0.0},
}  # fmt: skip
"""A film of which a little is touched."""
PAGES: Final = (
    "", "/revision", "/diagnosis", "/balls", "/since", "/traces", "/coaching", "/retest", "/clock",
    "/sheet", "/sheet.html", "/practice.ics", "/balls.csv", "/last", "/films",
    "/case?limits=true&notes=true&stills=true",
)  # fmt: skip


@dataclass
class Walk:
    """What was found on the way."""

    requests: int = 0
    failures: list[str] = field(default_factory=list)
    slowest_s: float = 0.0
    statuses: Counter[int] = field(default_factory=Counter)


class Walker:
    """One that goes on and on from what it has found so far."""

    def __init__(self, client: TestClient, seed: int, engine: Engine, folder: Path) -> None:
        self.client, self.dice = client, random.Random(seed)
        self.engine, self.folder = engine, folder
        self.writes: list[str] = []
        self.walk = Walk()
        self.lesson, self.block, self.student = "", "", ""
        self.rows = [f"r{i}" for i in range(12)]
        self.begin()

    def begin(self) -> None:
        """A new student with a new lesson."""
        hand = self.dice.choice(["left", "right"])
        made = self.ask("POST", "/api/students", {"name": "Oda", "handedness": hand}, False)
        self.student = made.json()["id"]
        started = self.ask("POST", f"/api/students/{self.student}/lessons", {}, False).json()
        self.lesson, self.block = started["id"], started["blocks"][0]["id"]
        self.rows = [f"{self.lesson[:8]}-{i}" for i in range(12)]

    def go(self, requests: int) -> Walk:
        """So many requests, a look at every page now and then."""
        while self.walk.requests < requests:
            self.change()
            if self.dice.random() < 0.02:
                self.forget_a_word()
            if self.dice.random() < 0.005:
                self.bring_in()
            if self.dice.random() < 0.04:
                for page in PAGES:
                    self.ask("GET", f"/api/lessons/{self.lesson}{page}", None, False)
                for path in ("day", "due", "casebook", "instructors", *self.of_student()):
                    self.ask("GET", f"/api/{path}", None, False)
            if self.dice.random() < 0.01:
                self.ask("GET", f"/api/lessons/{self.lesson}/sheet.pdf", None, False)
                self.begin()
        return self.walk

    def forget_a_word(self) -> None:
        """The knowledge has changed: some word that is stored is none of it any more."""
        table, column = self.dice.choice(WORDS)
        word = json.dumps({"gone": "gone"}) if column in ("listen", "cue", "sheet") else "gone"
        with self.engine.begin() as connection:
            connection.execute(
                text(
                    f'UPDATE "{table}" SET "{column}" = :word WHERE rowid IN '
                    f'(SELECT rowid FROM "{table}" ORDER BY random() LIMIT 2)'
                ),
                {"word": word},
            )

    def bring_in(self) -> None:
        """An export, damaged somewhere, comes in or is refused with a sentence."""
        whole, bad = self.folder / "whole.zip", self.folder / "bad.zip"
        with Session(self.engine) as session:
            export(session, whole)
        with zipfile.ZipFile(whole) as archive, zipfile.ZipFile(bad, "w") as spoilt:
            names = archive.namelist()
            at = self.dice.choice(names)
            for name in names:
                data = archive.read(name)
                spoilt.writestr(name, self.damaged(data) if name == at else data)
        if self.dice.random() < 0.3:
            bad.write_bytes(self.damaged(bad.read_bytes()))
        with Session(self.engine) as session:
            try:
                bring_in(session, bad)
            except CannotOpenError:
                pass
            except Exception as error:
                self.walk.failures.append(f"import, {at} damaged: {type(error).__name__} {error}")

    def damaged(self, data: bytes) -> bytes:
        """Some values or bytes of it are others."""
        lines = data.splitlines(keepends=True)
        if lines and self.dice.random() < 0.7:
            i = self.dice.randrange(len(lines))
            try:
                lines[i] = _text(self.spoilt(json.loads(lines[i]))) + b"\n"
            except ValueError:
                lines[i] = b""
            return b"".join(lines)
        cut = self.dice.randrange(len(data) + 1)
        return data[:cut] + bytes(self.dice.randrange(256) for _ in range(8)) + data[cut + 4 :]

    def of_student(self) -> list[str]:
        """What is read of the student."""
        return [f"students/{self.student}/{page}" for page in ("progress", "films")]

    def change(self) -> None:
        """One change, most of them with something wrong in it."""
        row, lesson = self.dice.choice(self.rows), f"/api/lessons/{self.lesson}"
        block = self.dice.choice([self.block, row, None])
        method, path, body = self.dice.choice(list(self.possible(lesson, row, block)))
        self.ask(method, path, body, self.dice.random() < 0.8, method != "GET")

    def possible(self, lesson: str, row: str, block: str | None) -> Iterator[tuple[str, str, Json]]:
        """Every kind of change, in good order."""
        dice = self.dice
        shot = {
            "start_deg": dice.uniform(-9, 9), "curve_deg": 2.0, "carry_m": dice.uniform(20, 200),
            "heel_toe_mm": -12.0, "contact": "fat", "start": "pull", "divot_start_cm": -4.0,
            "ball_speed_mps": 50.0, "club_speed_mps": 36.0, "launch_deg": 17.0, "apex_m": 25.0,
            "spin_rpm": 6000.0, "attack_deg": -3.0, "side_m": 4.0, "path_deg": -3.0,
        }  # fmt: skip
        some = dict(dice.sample(sorted(shot.items()), dice.randint(1, 6)))
        listen = {"goal": "g", "health": "h", "misses": ["fat"], "event_on": "2026-12-24",
                  "minutes": 45, "corrected": [], "feels": "f"}  # fmt: skip
        stance = {"lead_flare_deg": 20.0, "width_cm": 40.0}
        typed = {"address": 50, "top": 46, "lead_arm_level_down": 60, "impact": 52}
        samples = [[i / 100, 50.0 + i % 5] for i in range(-120, 60)]
        table = dice.choice(TEXTS)()

        def change(kind: str, body: Json, row: str | None = row) -> tuple[str, str, Json]:
            said = {"kind": kind, "id": row, "body": body}
            return "POST", f"{lesson}/changes", {k: v for k, v in said.items() if v is not None}

        ball = {"block_id": block or self.block, "observed": some, "touched": {"start_deg": 1.0}}
        yield change("shot", ball)
        yield change("block", {"kind": "retest", "club": dice.choice(["7i", "d"]), "teed": True,
                               "expected_carry_m": 130.0, "effort_pct": 80.0,
                               "stance": stance})  # fmt: skip
        yield change("answer", {"check_id": "wobbly_finish", "answer": "yes", "source": "film",
                                "block_id": block, "share": 0.5})  # fmt: skip
        yield change("note", {"text": "a note"})
        yield change("trace", {"recorded": {"typed_pct": typed}, "name": "n"})
        recorded = {"columns": ["t", "lead_pct"], "samples": samples, "events": {"top": -0.2}}
        yield change("trace", {"recorded": recorded, "block_id": block, "name": "n"})
        yield change("trace-change", {"events": {"impact": 0.0}, "swapped": True})
        yield change("repetition", {"drill": "step_away", "result": "pass"})
        yield change("follow-up", {"due_on": "2026-12-24", "practised": 3, "passes": 9,
                                   "course": "went", "verdict": "partly"}, None)  # fmt: skip
        yield change("lesson", {"listen": listen, "drill": "step_away", "at_hand": ["film"],
                                "complaint": "c", "lacking": [], "cue": {"text": "t"},
                                "sheet": {"cue": "c", "ball_drill": "step_away"},
                                "was": {"listen.goal": ""}}, None)  # fmt: skip
        yield change("student", {"handicap": 12.0, "limits": ["back"], "name": "Pia",
                                 "limit_details": {"back": {"since": "2026-01-01"}}},
                     None)  # fmt: skip
        yield change("decision", {"cause": "backs_up", "reason": "r"}, None)
        yield change("undo", {"step": dice.randint(1, 30)}, None)
        yield change("undo", {"write": dice.choice(self.writes or ["none"])}, None)
        yield change("redo", {}, None)
        yield change("redo", {"step": dice.randint(1, 30)}, None)
        gone = ("shot-gone", "answer-gone", "note-gone", "trace-gone", "film-gone", "still-gone")
        yield change(dice.choice(gone), None)
        yield change("film", {"marks": MARKS, "block_id": block, "name": "n"})
        still = {"film_id": row, "event": "top", "consent": "student", "picture": JPEG}
        yield change("still", {**still, "on_sheet": True})
        yield change("still-change", {"on_sheet": True})
        yield "POST", f"{lesson}/clock", {"stage": "shots", "seconds": 3.0}
        yield "POST", f"{lesson}/table/preview", {"text": table, "block_id": self.block}
        yield "POST", f"{lesson}/table", {"text": table, "block_id": self.block}
        yield "POST", f"{lesson}/traces/preview", {"text": table}
        yield "GET", f"/api/films/{row}/beside?after={dice.choice(self.rows)}", None
        yield "GET", f"{lesson}/stills/{row}/picture", None
        moves = [abs(dice.gauss(0, 1)) for _ in range(dice.choice([3, 300]))]
        yield (
            "POST",
            "/api/films/events",
            {"change": moves, "down": [0.5] * len(moves), "fps": 60.0},
        )
        yield "PUT", "/api/instructors/mine", {"name": "Ona Field", "place": "Bay 3"}
        yield "POST", "/api/instructors", {"name": "Ivo Reed", "school": {"heel_toe": "undecided"}}
        yield "POST", "/api/cases", {
            "format": "firm-footing-case", "version": 1, "student": {"handedness": "right"},
            "units": {"distance": "yd", "speed": "mph"}, "checks": {"wobbly_finish": "yes"},
            "blocks": [{"kind": "baseline", "expected_carry": 150.0,
                        "shots": [{"carry": 140.0, "apex": 30.0, "ball_speed": 110.0}]}],
            "traces": [{"columns": ["t", "lead_pct"], "samples": samples, "events": {"top": -0.2}}],
        }  # fmt: skip

    def ask(self, method: str, path: str, body: Json, spoil: bool, named: bool = False) -> Response:
        """Send it, spoilt or not, and look at what comes back."""
        if spoil and body is not None:
            body = self.spoilt(body)
        started = time.perf_counter()
        try:
            content = None if body is None else _text(body)
            headers = {"content-type": "application/json", "page-id": self.dice.choice("ab")}
            if named and self.dice.random() < 0.5:
                headers["Idempotency-Key"] = self.idempotency_key()
            found = self.client.request(method, path, content=content, headers=headers)
        except Exception as error:
            self.walk.failures.append(
                f"{method} {path}: {type(error).__name__} {_text(body)[:300]!r}"
            )
            raise
        took = time.perf_counter() - started
        self.walk.requests += 1
        self.walk.statuses[found.status_code] += 1
        self.walk.slowest_s = max(self.walk.slowest_s, took)
        said = f"{method} {path}: {found.status_code} {_text(body)[:400]!r}"
        if found.status_code >= 500 or took > SLOW_S:
            self.walk.failures.append(f"{said} in {took:.1f} s")
        elif found.status_code >= 400 and not {"message", "hint"} <= found.json().keys():
            self.walk.failures.append(f"{said}: not the shape of an error")
        return found

    def idempotency_key(self) -> str:
        """A new one, or one that was sent before."""
        if self.writes and self.dice.random() < 0.2:
            return self.dice.choice(self.writes)
        self.writes = [*self.writes[-40:], f"w{self.dice.getrandbits(60)}"]
        return self.writes[-1]

    def spoilt(self, body: Json) -> Json:
        """The same with one value, somewhere, put wrong."""
        if isinstance(body, dict) and body and self.dice.random() < 0.93:
            name = self.dice.choice(sorted(body))
            return {**body, name: self.spoilt(body[name])}
        if isinstance(body, list) and body and self.dice.random() < 0.7:
            i = self.dice.randrange(len(body))
            return [*body[:i], self.spoilt(body[i]), *body[i + 1 :]]
        return self.dice.choice(NASTY)()


def _text(body: Json) -> bytes:
    """JSON as a careless program writes it."""
    return json.dumps(body).encode()


def walk(requests: int, seed: int) -> Walk:
    """A walk on a database of its own."""
    with tempfile.TemporaryDirectory() as folder:
        engine = open_database(Path(folder) / "fuzz.db")
        with TestClient(create_app(engine, load_knowledge(), screens=None)) as client:
            found = Walker(client, seed, engine, Path(folder)).go(requests)
        engine.dispose()
    return found


def main() -> None:
    """Print what was found; ends with 1 when anything was."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--requests", type=int, default=20_000)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    found = walk(given.requests, given.seed)
    memory = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    print(f"{found.requests} requests, slowest {found.slowest_s:.2f} s, {memory:.0f} MB")
    print(dict(sorted(found.statuses.items())))
    for failure in found.failures[:40]:
        print(failure)
    sys.exit(bool(found.failures))


if __name__ == "__main__":
    main()
