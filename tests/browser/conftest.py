import shutil
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Page, expect

ROOT = Path(__file__).parents[2]
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    "--disable-quic",
    "--use-fake-device-for-media-stream",
    "--use-fake-ui-for-media-stream",
]
START_SECONDS = 180
PATIENCE_MS = 30_000
"""For what follows from a touch. It takes a tenth of a second; a busy machine takes long."""
STEP_S = 0.02
"""Between two moves of a finger."""
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    """Debian's Chromium, which Playwright does not find by itself."""
    path = shutil.which("chromium-headless-shell") or shutil.which("chromium")
    assert path, "Chromium is missing: run 'make test', which installs it"
    return {"executable_path": path, "args": FLAGS}


@pytest.fixture(scope="session")
def base_url() -> Iterator[str]:
    """The demo, started as a user starts it."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    command = [sys.executable, "-m", "firm_footing", "demo", "--port", str(port)]
    url = f"http://127.0.0.1:{port}"
    with subprocess.Popen(command, cwd=ROOT, stdout=subprocess.DEVNULL) as server:
        try:
            _wait_for(f"{url}/api/health", server)
            yield url
        finally:
            server.terminate()


def _wait_for(url: str, server: subprocess.Popen[bytes]) -> None:
    until = time.monotonic() + START_SECONDS
    while time.monotonic() < until:
        assert server.poll() is None, "the server stopped"
        try:
            with urllib.request.urlopen(url, timeout=1):
                return
        except (urllib.error.URLError, ConnectionError, TimeoutError):
            time.sleep(0.1)
    raise TimeoutError(url)


@pytest.fixture(scope="session")
def browser_context_args(browser_context_args: dict[str, Any], base_url: str) -> dict[str, Any]:
    size = {"width": 1280, "height": 800}
    return browser_context_args | {"base_url": base_url, "viewport": size, "has_touch": True}


@pytest.fixture(autouse=True)
def no_errors_on_the_page(
    context: BrowserContext, request: pytest.FixtureRequest
) -> Iterator[None]:
    """Nothing may go wrong unseen; a test marked offline breaks the line itself."""
    context.set_default_timeout(2 * PATIENCE_MS)
    errors: list[str] = []
    context.on("weberror", lambda e: errors.append(str(e.error)))
    context.on(
        "console", lambda m: errors.append(m.text) if m.type in ("error", "warning") else None
    )
    yield
    if request.node.get_closest_marker("offline"):
        errors = [e for e in errors if "Failed to load resource" not in e]
    assert errors == []


class Finger:
    """Real touches on a drawing, given as parts of its width and height.

    A drag is lifted in full flight, as a hurried hand does; the next touch must still be heard.
    """

    def __init__(self, page: Page) -> None:
        self.page = page
        self.wire = page.context.new_cdp_session(page)

    def drag(
        self,
        test_id: str,
        start: tuple[float, float],
        end: tuple[float, float],
        rest_ms: int = 0,
    ) -> None:
        box = self.page.get_by_test_id(test_id).bounding_box()
        assert box is not None

        def at(part: tuple[float, float]) -> list[dict[str, float]]:
            return [
                {"x": box["x"] + part[0] * box["width"], "y": box["y"] + part[1] * box["height"]}
            ]

        middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
        # told when each happens: a hurried hand is as quick on a machine that is busy
        began = time.time()
        self._send("touchStart", at(start), began)
        if rest_ms:
            self.page.wait_for_timeout(rest_ms)
        moved = began + rest_ms / 1000 + STEP_S
        self._send("touchMove", at(middle), moved)
        self._send("touchMove", at(end), moved + STEP_S)
        self._send("touchEnd", [], moved + 2 * STEP_S)

    def tap(self, test_id: str, at: tuple[float, float]) -> None:
        self.drag(test_id, at, at)

    def _send(self, kind: str, points: list[dict[str, float]], when: float) -> None:
        touch = {"type": kind, "touchPoints": points, "timestamp": when}
        self.wire.send("Input.dispatchTouchEvent", touch)


@pytest.fixture
def finger(page: Page) -> Finger:
    return Finger(page)
