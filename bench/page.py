"""How soon is the lesson page usable, and how much script does it load?"""

import gzip
import shutil
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from statistics import median

from playwright.sync_api import Browser, sync_playwright
from tests.browser.conftest import FLAGS

from bench import film, trace
from bench.serving import wait_for
from firm_footing.api.app import SCREENS

Row = tuple[str, str, str]
PORT = 8765
URL = f"http://127.0.0.1:{PORT}"
LOADS, TOUCHES = 7, 15
BETWEEN_MS = 500
"""Nobody touches faster than twice a second; what a touch draws later is done by then."""


def measure() -> Iterator[Row]:
    """Rows of name, wanted, found."""
    command = [sys.executable, "-m", "firm_footing", "demo", "--port", str(PORT)]
    with subprocess.Popen(command, stdout=subprocess.DEVNULL) as server, sync_playwright() as p:
        try:
            wait_for(URL)
            path = shutil.which("chromium-headless-shell") or shutil.which("chromium")
            browser = p.chromium.launch(executable_path=path, args=FLAGS)
            loads, script = zip(*(_cold_load(browser) for _ in range(LOADS)), strict=True)
            yield "lesson page usable after a cold load", "1500 ms", f"{median(loads):.0f} ms"
            yield "script of the lesson page, gzipped", "under 250 kB", f"{script[0] / 1000:.0f} kB"
            in_page, with_click = zip(*_touches(browser), strict=True)
            yield "from a touch to the new ranking", "150 ms", f"{median(in_page):.0f} ms"
            yield "... with the driver's click and answer", "-", f"{median(with_click):.0f} ms"
            marks = _marks(browser)
            yield "a ball logged, from lifting to its mark", "100 ms", f"{median(marks):.0f} ms"
            yield from trace.playing(browser, URL)
            yield from film.stepping(browser, URL)
            browser.close()
        finally:
            server.terminate()


def _lesson(browser: Browser) -> str:
    page = browser.new_page()
    day = page.request.get(f"{URL}/api/day").json()
    page.close()
    return f"{URL}/lessons/{day['lessons'][0]['id']}/shots"


def _cold_load(browser: Browser) -> tuple[float, int]:
    """Milliseconds until the ranking stands, and bytes of script, in a browser with no cache."""
    url = _lesson(browser)
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    scripts: set[str] = set()
    page.on("request", lambda r: scripts.add(r.url) if r.resource_type == "script" else None)
    start = time.perf_counter()
    page.goto(url, wait_until="commit")
    page.get_by_test_id("next-look").wait_for()
    took = 1000 * (time.perf_counter() - start)
    size = sum(len(gzip.compress(_file(s).read_bytes(), 6)) for s in scripts)
    context.close()
    return took, size


def _file(url: str) -> Path:
    return SCREENS / url.removeprefix(f"{URL}/")


CLICKED = "addEventListener('click', () => { window.clickedAt = performance.now() }, true)"
RANKED = """(list) => {
    window.ranked = new Promise((done) => {
        const seen = new MutationObserver(() => {
            seen.disconnect()
            requestAnimationFrame(() => done(performance.now() - clickedAt))
        })
        seen.observe(list, { subtree: true, childList: true, characterData: true })
    })
}"""
"""Milliseconds from the click until the list of causes has changed and a frame has shown it."""


def _touches(browser: Browser) -> list[tuple[float, float]]:
    """Milliseconds from a touch of the club's face to the ranking that counts it.

    Heel and toe in turn, never the same place twice, so that no answer was worked out before. As
    the page has it, from its event until a frame shows the changed list; and with the driver's own
    click and answer around it.
    """
    page = browser.new_page()
    page.goto(_lesson(browser))
    page.get_by_test_id("next-look").wait_for()
    page.evaluate(CLICKED)
    times = []
    box = page.get_by_test_id("face").bounding_box()
    assert box
    for i in range(TOUCHES):
        across = (0.35 if i % 2 else 0.65) + i / 300
        page.get_by_test_id("causes").evaluate(RANKED)
        start = time.perf_counter()
        page.mouse.click(box["x"] + box["width"] * across, box["y"] + box["height"] / 2)
        in_page = page.evaluate("ranked")
        times.append((in_page, 1000 * (time.perf_counter() - start)))
        page.wait_for_timeout(BETWEEN_MS)
    page.close()
    return times


LIFTED = "addEventListener('pointerup', () => { window.liftedAt = performance.now() }, true)"
MARKED = """(before) => new Promise((done) => {
    const look = () => {
        const marks = document.querySelectorAll('.flight').length
        if (marks > before) done(performance.now() - liftedAt)
        else requestAnimationFrame(look)
    }
    look()
})"""


def _marks(browser: Browser) -> list[float]:
    """Milliseconds from lifting the pointer off the range to the frame that shows the ball."""
    page = browser.new_page()
    page.goto(_lesson(browser))
    page.get_by_test_id("next-look").wait_for()
    page.evaluate(LIFTED)
    box = page.get_by_test_id("range").bounding_box()
    assert box
    times = []
    for i in range(TOUCHES):
        before = page.locator(".flight").count()
        page.mouse.move(box["x"] + box["width"] * 0.48, box["y"] + box["height"] * 0.7)
        page.mouse.down()
        page.mouse.move(box["x"] + box["width"] * (0.5 + i % 3 / 50), box["y"] + 60)
        page.mouse.up()
        times.append(page.evaluate(MARKED, before))
        page.wait_for_timeout(BETWEEN_MS)
    page.close()
    return times
