"""Starting and stopping: one sentence where it cannot be, and nothing left behind."""

import json
import os
import shutil
import signal
import socket
import ssl
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import httpx
import pytest
import trustme

from firm_footing.store.database import close_database, open_database
from firm_footing.store.files.opening import the_only_server

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
    close_database(open_database(database))
    assert "Everything is in" in run("backup", str(copy), database=database).stdout
    back = run("restore", str(copy), database=database)
    assert back.returncode == 0
    assert "What was there before is kept in" in back.stdout


@pytest.fixture(params=["file", "folder"])
def read_only(tmp_path: Path, request: pytest.FixtureRequest) -> Iterator[Path]:
    """A database that cannot be written, or that nothing can be written beside."""
    folder = tmp_path / "stick"
    database = folder / "own.db"
    close_database(open_database(database))
    locked = database if request.param == "file" else folder
    if os.geteuid() != 0:
        locked.chmod(0o400 if request.param == "file" else 0o500)
        yield database
        locked.chmod(0o700)
        return
    # what root may do no permission forbids: the file system has to
    if shutil.which("chattr") is None or subprocess.run(["chattr", "+i", locked]).returncode:
        pytest.skip("this file system cannot keep root from writing")
    yield database
    subprocess.run(["chattr", "-i", locked], check=True)


def test_what_cannot_be_written_is_said_and_stays(read_only: Path) -> None:
    before = read_only.read_bytes()
    found = run("serve", "--port", "0", database=read_only)
    assert found.returncode == 1
    assert found.stdout == ""
    assert found.stderr.strip().splitlines() == [
        f"{read_only} cannot be written. Nothing was changed. "
        "Make the file and its folder writable, or name another file with FIRM_FOOTING_DB."
    ]
    assert read_only.read_bytes() == before


def test_with_a_certificate_the_network_is_served_encrypted(tmp_path: Path) -> None:
    authority = trustme.CA()
    shown = authority.issue_cert("127.0.0.1", "localhost")
    certificate, key = tmp_path / "own.pem", tmp_path / "own.key"
    shown.cert_chain_pems[0].write_to_path(certificate)
    shown.private_key_pem.write_to_path(key)
    trusted = ssl.create_default_context()
    authority.configure_trust(trusted)
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    own = {**os.environ, "FIRM_FOOTING_DB": str(tmp_path / "own.db")}
    words = ["--network", "--certificate", str(certificate), "--key", str(key)]
    with subprocess.Popen(
        [*COMMAND, "serve", "--port", str(port), *words], env=own, stdout=subprocess.PIPE, text=True
    ) as server:
        try:
            assert server.stdout is not None
            said = [server.stdout.readline() for _ in range(3)]
            assert said[0].startswith(f"Firm Footing is at https://127.0.0.1:{port}")
            assert said[1].startswith("On other devices: https://")
            assert "could listen" not in said[2]
            health = f"127.0.0.1:{port}/api/health"
            with urllib.request.urlopen(f"https://{health}", context=trusted, timeout=30) as answer:
                assert json.load(answer)["status"] == "ready"
            with pytest.raises(urllib.error.URLError, match="CERTIFICATE_VERIFY_FAILED"):
                urllib.request.urlopen(f"https://{health}", timeout=30)
            with pytest.raises(OSError, match=r"closed|reset|aborted|Remote"):
                urllib.request.urlopen(f"http://{health}", timeout=30)
        finally:
            server.terminate()


def test_without_room_for_the_days_backup_it_is_served_and_says_so(tmp_path: Path) -> None:
    database = tmp_path / "own.db"
    close_database(open_database(database))
    (tmp_path / "own-backups").write_text("a file where the folder should be")
    own = {**os.environ, "FIRM_FOOTING_DB": str(database)}
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    with subprocess.Popen(
        [*COMMAND, "serve", "--port", str(port)], env=own, stdout=subprocess.PIPE,
        stderr=subprocess.PIPE, text=True,
    ) as server:  # fmt: skip
        try:
            assert server.stdout is not None
            assert "Firm Footing is at" in server.stdout.readline()
            url = f"http://127.0.0.1:{port}/api/keeping"
            for _ in range(100):
                try:
                    with urllib.request.urlopen(url, timeout=30) as answer:
                        told = json.load(answer)["failed"]
                    break
                except OSError:  # not there yet, or slow: a busy machine takes its time
                    time.sleep(0.1)
            assert "could not be written" in told
        finally:
            server.terminate()
            assert server.stderr is not None
            assert "The backup could not be written" in server.stderr.read()


def test_a_page_is_told_of_a_change_and_does_not_keep_the_server_from_stopping(
    tmp_path: Path,
) -> None:
    own = {**os.environ, "FIRM_FOOTING_DB": str(tmp_path / "own.db")}
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        url = f"http://127.0.0.1:{free.getsockname()[1]}"
    with subprocess.Popen(
        [*COMMAND, "serve", "--port", url.rpartition(":")[2]], env=own, stdout=subprocess.PIPE
    ) as server:
        try:
            assert server.stdout is not None
            server.stdout.readline()
            with httpx.Client(base_url=f"{url}/api", timeout=30) as client:
                who = {"name": "Rosa Quill", "handedness": "left"}
                student = client.post("/students", json=who).json()["id"]
                lesson = client.post(f"/students/{student}/lessons", json={}).json()
                here = f"/lessons/{lesson['id']}"
                assert client.get("/lessons/none/revisions").status_code == 404
                with client.stream("GET", f"{here}/revisions") as stream:
                    told = (
                        json.loads(line[5:]) for line in stream.iter_lines() if line[:5] == "data:"
                    )
                    assert next(told)["revision"] == lesson["revision"]
                    note = httpx.post(
                        f"{url}/api{here}/changes",
                        json={"kind": "note", "id": "n1", "body": {"text": "Heel pops."}},
                    )
                    assert next(told)["revision"] == note.json()["revision"] != lesson["revision"]
                    server.send_signal(signal.SIGTERM)
                    assert (
                        server.wait(8) == 0
                    )  # not after the ten seconds that it would wait at most
                    assert list(told) == []
        finally:
            server.kill()
