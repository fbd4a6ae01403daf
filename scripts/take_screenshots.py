"""Take the pictures of `docs/screenshots/` from the demo data: run by `make screenshots`."""

import json
import re
import shutil
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import Any
from uuid import uuid4

from playwright.sync_api import Page, sync_playwright

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"
PORT = 8766
URL = f"http://127.0.0.1:{PORT}"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-quic"]
DESK, PHONE = (1280, 800), (390, 844)

Act = Callable[[Page], object]


def second_cause(page: Page) -> None:
    """Open the second cause, so that its chain is lit."""
    page.get_by_test_id("causes").locator("li.cause").nth(1).get_by_role("button").first.click()


def third_ball(page: Page) -> None:
    """Choose a ball to be changed."""
    page.get_by_role("list", name="Balls").get_by_role("button").nth(2).click()


def read(page: Page) -> None:
    """What the balls show, with a ball chosen."""
    page.get_by_role("button", name="Read", exact=True).click()
    third_ball(page)


def half_way_down(page: Page) -> None:
    """Scrub to the middle of the downswing."""
    curve = page.get_by_test_id("pressure-curve").bounding_box()
    assert curve
    page.mouse.click(curve["x"] + curve["width"] * 0.6, curve["y"] + curve["height"] * 0.6)


def sheet(page: Page) -> None:
    """Wait for the page that goes home."""
    page.frame_locator("iframe").get_by_role("heading").first.wait_for()


def along_time(page: Page) -> None:
    """Scroll to what moved from lesson to lesson."""
    page.get_by_test_id("strips").locator("svg").nth(2).scroll_into_view_if_needed()


def fat(page: Page) -> None:
    """What makes the ground before the ball."""
    page.locator("[data-miss=fat]").click()


@cache
def film(name: str) -> Path:
    """A film of the invented player, with its truth beside it."""
    out = Path(tempfile.mkdtemp(prefix="films-")) / f"{name}.mp4"
    what = ["--fps", "60", "--height", "960", "--seed", "5", *FILMS[name]]
    command = [sys.executable, "-m", "firm_footing", "film", "--out", str(out), *what]
    subprocess.run(command, check=True, stdout=subprocess.DEVNULL)
    return out


FILMS = {
    "down the line": ["--cause", "trail_heel_pops"],
    "front": ["--cause", "trail_heel_pops", "--view", "face_on"],
    "after": [],
}


def marked(page: Page, *names: str) -> None:
    """Keep all marks of these films with the lesson, once."""
    lesson = page.url.split("/lessons/")[1].split("/")[0]
    url = f"{URL}/api/lessons/{lesson}"
    there = {f["name"] for f in page.request.get(f"{url}/films").json()}
    for path in (film(name) for name in names):
        if path.name not in there:
            truth = json.loads(path.with_suffix(".truth.json").read_text())
            body = {"marks": {**truth["marks"], "block": None}, "name": path.name}
            change = {"kind": "film", "id": str(uuid4()), "body": body}
            assert page.request.post(f"{url}/changes", data=change).ok


def opened(page: Page, name: str) -> None:
    """Put a film under the ruler."""
    page.get_by_role("button", name="Film", exact=True).click()
    page.locator("input[type=file]").set_input_files(film(name))
    page.get_by_test_id("film-frame").wait_for()


def beside(page: Page, what: str, field: str, name: str) -> None:
    """Put a second film beside it."""
    page.get_by_role("button", name=what).click()
    page.get_by_label(field, exact=True).first.click(force=True)
    page.get_by_role("option").filter(has_text=f"{name}.mp4").first.click()
    page.locator("input[type=file]").set_input_files(film(name))
    page.get_by_label(field, exact=True).first.blur()


def measured(page: Page) -> None:
    """Down the line, at impact."""
    marked(page, "down the line")
    opened(page, "down the line")
    page.get_by_role("button", name=re.compile("^Impact")).click()
    page.wait_for_timeout(1500)


def from_the_front(page: Page) -> None:
    """Face on, on a phone."""
    marked(page, "front")
    opened(page, "front")
    page.get_by_role("button", name=re.compile("^Impact")).click()
    page.wait_for_timeout(1500)
    page.get_by_test_id("film-asked").scroll_into_view_if_needed()


def together(page: Page) -> None:
    """Two films and the pressure, as the shaft is level coming down."""
    marked(page, "down the line", "front")
    opened(page, "down the line")
    page.get_by_role("button", name=re.compile("^Shaft level down")).click()
    beside(page, "With film and pressure", "Second film", "front")
    page.get_by_test_id("film-other").wait_for()
    page.wait_for_timeout(1500)


def compared(page: Page) -> None:
    """The outlines before and after, and what changed."""
    marked(page, "down the line", "after")
    opened(page, "after")
    beside(page, "Before and after", "Compared with", "down the line")
    page.locator("figure .laid").first.wait_for()
    page.get_by_role("button", name="Outlines, one upon the other").click()
    page.wait_for_timeout(2500)


PICTURES: list[tuple[str, str, tuple[int, int], Act | None]] = [
    ("day", "/", DESK, None),
    ("student", "student:Marit", DESK, along_time),
    ("shots", "Oda", DESK, second_cause),
    ("shots-read", "Wendel", DESK, read),
    ("look", "Oda/look", DESK, None),
    ("film", "Bastian/look", DESK, measured),
    ("film-front-phone", "Bastian/look", PHONE, from_the_front),
    ("film-together", "Marit/look", DESK, together),
    ("film-compared", "Bastian/look", DESK, compared),
    ("pressure", "Marit/pressure", DESK, half_way_down),
    ("listen", "Marit/listen", DESK, None),
    ("decide", "Ines/decide", DESK, None),
    ("drill", "Fenn/drill", DESK, None),
    ("retest", "Fenn/retest", DESK, None),
    ("send", "Petra/send", DESK, sheet),
    ("casebook", "/casebook/right", DESK, None),
    ("learned", "/casebook/learned", DESK, None),
    ("map", "/map", DESK, fat),
    ("settings", "/settings", DESK, None),
]


def address(where: str, day: dict[str, Any]) -> str:
    """The address of a page named by whose it is."""
    if where.startswith("/"):
        return where
    if where.startswith("student:"):
        name = where.removeprefix("student:")
        return "/students/" + next(s["id"] for s in day["students"] if s["name"].startswith(name))
    name, _, stage = where.partition("/")
    found = next(x["id"] for x in day["lessons"] if x["student_name"].startswith(name))
    return f"/lessons/{found}/{stage or 'shots'}"


def main() -> None:
    """Start the demo, take every picture, or those named, stop it."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    command = [sys.executable, "-m", "firm_footing", "demo", "--port", str(PORT)]
    with subprocess.Popen(command, stdout=subprocess.DEVNULL) as server, sync_playwright() as p:
        try:
            for _ in range(300):
                try:
                    day = json.load(urllib.request.urlopen(f"{URL}/api/day"))
                    break
                except OSError:
                    time.sleep(0.1)
            path = shutil.which("chromium") or shutil.which("chromium-headless-shell")
            browser = p.chromium.launch(executable_path=path, args=FLAGS)
            for name, where, (width, height), act in PICTURES:
                if sys.argv[1:] and name not in sys.argv[1:]:
                    continue
                page = browser.new_page(viewport={"width": width, "height": height}, locale="en-GB")
                page.goto(URL + address(where, day))
                page.wait_for_load_state("load")  # a lesson keeps a stream open: never idle
                page.wait_for_timeout(1500)
                page.get_by_text("Opening the lesson").wait_for(state="hidden")
                if act is not None:
                    act(page)
                page.wait_for_timeout(500)
                page.screenshot(path=FOLDER / f"{name}.png")
                page.close()
            browser.close()
        finally:
            server.terminate()


main()
