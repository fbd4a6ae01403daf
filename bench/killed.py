"""Is everything that was acknowledged there after a kill at a random moment?

`python -m bench.killed --times 200`
"""

import argparse
import os
import random
import signal
import sqlite3
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

from sqlmodel import Session

from firm_footing.core.case import Shot
from firm_footing.store import lessons, notes, shots, students
from firm_footing.store.database import open_database, take_turn
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.tables import Lesson, Student


def write_on(database: Path, said: int, number: int) -> None:
    """Balls and notes without end; the id of each is said once it is kept."""
    with Session(open_database(database), expire_on_commit=False) as session:
        block = content_of(session, "l").blocks[0]
        for i in range(1_000_000):
            take_turn(session)
            name = f"{number}-{i}"
            shots.put_shot(session, "l", name, block.id, Shot(start="pull"), {})
            os.write(said, f"{name}\n".encode())
            if i % 3 == 0:
                take_turn(session)
                notes.put_note(session, "l", f"n{name}", "kept")
                os.write(said, f"n{name}\n".encode())


def killed(times: int, seed: int) -> Iterator[tuple[int, int, str]]:
    """Of each kill: how many were acknowledged, how many of them are missing, what SQLite says."""
    dice = random.Random(seed)
    with tempfile.TemporaryDirectory() as folder:
        for number in range(times):
            database = Path(folder) / f"{number}.db"
            _begin(database)
            acknowledged = _write_until_killed(database, dice.uniform(0.0, 0.25), number)
            with closing(sqlite3.connect(database)) as there:
                kept = {
                    r[0] for r in there.execute("SELECT id FROM shot UNION SELECT id FROM note")
                }
                sound = str(there.execute("PRAGMA integrity_check").fetchone()[0])
                if there.execute("PRAGMA foreign_key_check").fetchone() is not None:
                    sound = "a row without its parent"
            yield len(acknowledged), len(acknowledged - kept), sound
            database.unlink()


def _begin(database: Path) -> None:
    engine = open_database(database)
    with Session(engine) as session:
        students.add_student(session, Student(id="s", name="Oda", handedness="right"))
        lessons.add_lesson(session, Lesson(id="l", student_id="s"))
    engine.dispose()


def _write_until_killed(database: Path, after_s: float, number: int) -> set[str]:
    heard, said = os.pipe()
    child = os.fork()
    if child == 0:
        os.close(heard)
        write_on(database, said, number)
        os._exit(0)
    os.close(said)
    with os.fdopen(heard, "rb") as pipe:
        first = pipe.readline()  # it is writing
        time.sleep(after_s)
        os.kill(child, signal.SIGKILL)
        lines = (first + pipe.read()).decode().splitlines(keepends=True)
    os.waitpid(child, 0)
    return {line.strip() for line in lines if line.endswith("\n")}


def main() -> None:
    """Print the sum; ends with 1 when anything was lost."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--times", type=int, default=200)
    found = list(killed(parser.parse_args().times, seed=1))
    lost = sum(missing for _, missing, _ in found)
    words = {sound for _, _, sound in found}
    print(f"{len(found)} kills, {sum(n for n, _, _ in found)} acknowledged, {lost} lost, {words}")
    sys.exit(lost > 0 or words != {"ok"})


if __name__ == "__main__":
    main()
