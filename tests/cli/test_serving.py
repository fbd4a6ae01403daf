"""Starting and stopping: one sentence where it cannot be, and nothing left behind."""

import os
import signal
import socket
import subprocess
import sys
from pathlib import Path

import pytest

from firm_footing.store.opening import the_only_server

COMMAND = [sys.executable, "-m", "firm_footing"]


def run(*words: str, database: Path) -> subprocess.CompletedProcess[str]:
    own = {**os.environ, "FIRM_FOOTING_DB": str(database)}
    return subprocess.run(
        [*COMMAND, *words], env=own, capture_output=True, text=True, timeout=60, check=False
    )


def test_the_demo_leaves_nothing_behind_when_it_is_asked_to_stop(tmp_path: Path) -> None:
    own = {**os.environ, "TMPDIR": str(tmp_path)}
    with subprocess.Popen(
        [*COMMAND, "demo", "--port", "0"], env=own, stdout=subprocess.PIPE, text=True
    ) as demo:
        assert demo.stdout is not None
        assert "Firm Footing is at" in demo.stdout.readline()
        assert list(tmp_path.glob("firm-footing-demo-*"))
        demo.send_signal(signal.SIGTERM)
        demo.wait(30)
    assert list(tmp_path.glob("firm-footing-demo-*")) == []


def test_a_busy_port_is_said_before_anything_else(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        found = run("serve", "--port", str(port), database=tmp_path / "own.db")
    assert found.returncode == 1
    assert found.stdout == ""
    assert found.stderr.strip() == (
        f"Another program is using port {port}. Nothing was changed. "
        f"Stop it, or choose another one: --port {port + 1}."
    )


def test_a_second_server_on_one_database_is_refused(tmp_path: Path) -> None:
    database = tmp_path / "own.db"
    with the_only_server(database):
        found = run("serve", "--port", "0", database=database)
    assert found.returncode == 1
    assert "is being served already" in found.stderr
    assert len(found.stderr.strip().splitlines()) == 1


@pytest.mark.parametrize("command", ["serve", "backup"])
def test_a_text_file_is_no_database(tmp_path: Path, command: str) -> None:
    words = tmp_path / "own.db"
    words.write_text("Dear diary, today the trail heel stayed down.\n")
    more = [str(tmp_path / "copy.db")] if command == "backup" else []
    found = run(command, *more, database=words)
    assert found.returncode == 1
    assert found.stderr.strip().splitlines() == [
        f"{words} is not a database. Nothing was changed. Name another file with FIRM_FOOTING_DB."
    ]


def test_a_backup_comes_back(tmp_path: Path) -> None:
    database, copy = tmp_path / "own.db", tmp_path / "copy.db"
    from firm_footing.store.database import close_database, open_database  # noqa: PLC0415

    close_database(open_database(database))
    assert "Everything is in" in run("backup", str(copy), database=database).stdout
    back = run("restore", str(copy), database=database)
    assert back.returncode == 0
    assert "What was there before is kept in" in back.stdout
