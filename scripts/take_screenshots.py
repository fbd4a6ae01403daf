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
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, sync_playwright

FOLDER = Path(__file__).parents[1] / "docs" / "screenshots"
PORT = 8766
URL = f"http://127.0.0.1:{PORT}"
FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-quic"]
DESK, TABLET, PHONE = (1280, 800), (820, 1180), (390, 844)
BAY_LEFT = {"mode": "bay", "sides": "left_right", "distance": "m"}

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


def without_a_mat(page: Page) -> None:
    """The feel tests."""
    page.get_by_role("button", name="No mat").click()


def sheet(page: Page) -> None:
    """Wait for the page that goes home."""
    page.frame_locator("iframe").get_by_role("heading").first.wait_for()


def along_time(page: Page) -> None:
    """Scroll to what moved from lesson to lesson."""
    page.get_by_test_id("strips").locator("svg").nth(2).scroll_into_view_if_needed()


def fat(page: Page) -> None:
    """What makes the ground before the ball."""
    page.locator("[data-miss=fat]").click()


def filmed(page: Page) -> None:
    """A swing under the ruler, measured as far as its downswing."""
    with tempfile.TemporaryDirectory() as folder:
        out = Path(folder) / "swing.mp4"
        what = ["--cause", "trail_heel_pops", "--fps", "60", "--height", "960", "--seed", "5"]
        film = [sys.executable, "-m", "firm_footing", "film", "--out", str(out), *what]
        subprocess.run(film, check=True, stdout=subprocess.DEVNULL)
        truth = json.loads(out.with_suffix(".truth.json").read_text())
        page.get_by_role("button", name="Film", exact=True).click()
        page.locator("input[type=file]").set_input_files(out)
        page.get_by_role("button", name="Find the events").click()
        page.get_by_text("Looking through the film").wait_for()
        page.get_by_text("Looking through the film").wait_for(state="detached", timeout=90_000)
    marks, picture = truth["marks"], page.get_by_test_id("film-picture")

    def touch(place: list[float]) -> None:
        box = picture.bounding_box()
        assert box
        x = box["x"] + place[0] / marks["width"] * box["width"]
        page.mouse.click(x, box["y"] + place[1] / marks["height"] * box["height"])
        page.wait_for_timeout(400)

    for what_for, ends in (
        ("Touch the scale", [marks["scale"]["start"], marks["scale"]["end"]]),
        ("Touch the ground", marks["ground"]),
    ):
        page.get_by_role("button", name=what_for).click()
        for end in ends:
            touch(end)
    points = page.request.get(f"{URL}/api/knowledge").json()["film"]["points"]
    ids = {p["ask"]: p["id"] for p in points}
    for _ in range(21):
        said = page.get_by_test_id("film-asked").inner_text()
        if said not in ids:
            break
        frame = int(page.get_by_test_id("film-frame").inner_text().split()[0])
        touch(truth["points"][ids[said]][frame])
    page.get_by_role("button", name=re.compile("^Impact")).click()
    page.wait_for_timeout(1500)


PICTURES: list[tuple[str, str, tuple[int, int], Act | None, dict[str, str]]] = [
    ("day", "/", DESK, None, {}),
    ("student", "student:Marit", DESK, along_time, {}),
    ("shots", "Oda", DESK, second_cause, {}),
    ("shots-left-hander-bay", "Jory", DESK, None, BAY_LEFT),
    ("shots-read", "Wendel", DESK, read, {}),
    ("shots-tablet", "Oda", TABLET, second_cause, {}),
    ("shots-phone", "Wendel", PHONE, None, {}),
    ("look", "Oda/look", DESK, None, {}),
    ("film", "Bastian/look", DESK, filmed, {}),
    ("pressure", "Marit/pressure", DESK, half_way_down, {}),
    ("feel-tests", "Wendel/pressure", DESK, without_a_mat, {}),
    ("listen", "Marit/listen", DESK, None, {}),
    ("decide", "Ines/decide", DESK, None, {}),
    ("drill", "Fenn/drill", DESK, None, {}),
    ("retest", "Fenn/retest", DESK, None, {}),
    ("send", "Petra/send", DESK, sheet, {}),
    ("casebook", "/casebook", DESK, None, {}),
    ("map", "/map", DESK, fat, {}),
    ("settings", "/settings", DESK, None, {}),
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
    """Start the demo, take every picture, stop it."""
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
            for name, where, (width, height), act, settings in PICTURES:
                page = browser.new_page(viewport={"width": width, "height": height}, locale="en-GB")
                kept = json.dumps(settings)
                page.add_init_script(f"localStorage.setItem('firm-footing-settings', '{kept}')")
                page.goto(URL + address(where, day))
                page.wait_for_load_state("networkidle")
                if act is not None:
                    act(page)
                page.wait_for_timeout(500)
                page.screenshot(path=FOLDER / f"{name}.png")
                page.close()
            browser.close()
        finally:
            server.terminate()


main()
