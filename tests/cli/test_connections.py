"""Who is not paired costs nothing: lines are counted, half requests end, logs stay small.

Addresses of the loopback network stand in for other devices: only 127.0.0.1 is the machine itself.
"""

import asyncio
import logging
import socket
import stat
import threading
import time
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
import uvicorn

from firm_footing.cli.connections import Lines, limited
from firm_footing.cli.logs import BYTES, NAMES, OLDER, log_beside

HEADERS_S, BODY_S = 0.5, 1.0
OTHER, THIRD, HERE = "127.0.0.5", "127.0.0.6", "127.0.0.1"
REQUEST = b"GET / HTTP/1.1\r\nhost: 127.0.0.1\r\n\r\n"


async def answers(_scope: Any, receive: Any, send: Any) -> None:
    while (await receive()).get("more_body"):
        pass
    await send({"type": "http.response.start", "status": 200, "headers": []})
    await send({"type": "http.response.body", "body": b"here"})


@pytest.fixture
def port() -> Iterator[int]:
    """A server with small limits."""
    with closing(socket.socket()) as door:
        door.bind((HERE, 0))
        door.listen(100)
        protocol = limited(Lines(of_one=3, of_all=5), HEADERS_S, BODY_S)
        config = uvicorn.Config(answers, http=protocol, log_config=None, lifespan="off")
        server = uvicorn.Server(config)
        thread = threading.Thread(
            target=lambda: asyncio.run(server.serve(sockets=[door])), daemon=True
        )
        thread.start()
        while not server.started:
            time.sleep(0.01)
        yield door.getsockname()[1]
        server.should_exit = True
        thread.join(10)


def line(port: int, address: str = OTHER) -> socket.socket:
    found = socket.socket()
    found.bind((address, 0))
    found.settimeout(5)
    found.connect((HERE, port))
    return found


def is_closed(of: socket.socket) -> bool:
    try:
        return of.recv(1) == b""
    except ConnectionError:
        return True


def asked(of: socket.socket, request: bytes = REQUEST) -> bytes:
    try:
        of.sendall(request)
        found = b""
        while b"here" not in found:
            part = of.recv(4096)
            if not part:
                break
            found += part
    except ConnectionError:
        return b""
    return found


@pytest.mark.parametrize(
    ("sent", "within"),
    [
        (b"", HEADERS_S),
        (b"POST / HTT", HEADERS_S),
        (b"POST / HTTP/1.1\r\nhost: a\r\ncontent-length: 10\r\n\r\nabc", BODY_S),
    ],
)
def test_half_a_request_ends(port: int, sent: bytes, within: float) -> None:
    with line(port) as half:
        half.sendall(sent)
        begun = time.monotonic()
        assert is_closed(half)
        assert within / 2 < time.monotonic() - begun < within + 2


def test_letter_by_letter_is_no_way_around(port: int) -> None:
    with line(port) as slow:
        begun = time.monotonic()
        try:
            for letter in b"GET / HTTP/1.1\r\nhost: aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa":
                slow.sendall(bytes([letter]))
                time.sleep(0.05)
        except ConnectionError:
            pass
        assert is_closed(slow)
        assert time.monotonic() - begun < HEADERS_S + 2


def test_one_address_holds_so_many_lines_and_shuts_nobody_else_out(port: int) -> None:
    held = [line(port) for _ in range(3)]
    assert all(b"here" in asked(one) for one in held)
    with line(port) as more, line(port, THIRD) as third, line(port, HERE) as machine:
        assert asked(more) == b""
        assert b"here" in asked(third)
        assert b"here" in asked(machine)
    for one in held:
        one.close()
    time.sleep(0.2)
    with line(port) as again:
        assert b"here" in asked(again)


def test_all_together_leave_room_for_the_machine(port: int) -> None:
    held = [line(port, f"127.0.1.{i}") for i in range(1, 6)]
    assert all(b"here" in asked(one) for one in held)
    with line(port, THIRD) as more, line(port, HERE) as machine:
        assert asked(more) == b""
        assert b"here" in asked(machine)
    for one in held:
        one.close()


@pytest.fixture
def own_logs() -> Iterator[None]:
    kept = {name: (logging.getLogger(name).handlers[:], logging.getLogger(name).propagate)
            for name in NAMES}  # fmt: skip
    yield
    for name, (handlers, propagate) in kept.items():
        for handler in logging.getLogger(name).handlers:
            handler.close()
        logging.getLogger(name).handlers, logging.getLogger(name).propagate = handlers, propagate


@pytest.mark.usefixtures("own_logs")
def test_what_is_logged_never_grows_large_and_is_its_owners(tmp_path: Path) -> None:
    file = log_beside(tmp_path / "own.db")
    for i in range(60_000):
        logging.getLogger("uvicorn.error").warning("Invalid HTTP request received, the %dth.", i)
    files = list(tmp_path.glob("own.log*"))
    assert len(files) == OLDER + 1
    assert sum(f.stat().st_size for f in files) <= (OLDER + 1) * BYTES
    assert {stat.S_IMODE(f.stat().st_mode) for f in files} == {0o600}
    assert "59999th" in file.read_text()
