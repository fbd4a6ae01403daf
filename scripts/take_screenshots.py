"""Take the pictures of `docs/screenshots/` from the demo data: run by `make screenshots`."""

import json
import shutil
import subprocess
import sys
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


PICTURES: list[tuple[str, str, tuple[int, int], Act | None, dict[str, str]]] = [
    ("day", "/", DESK, None, {}),
    ("student", "student:Marit", DESK, along_time, {}),
    ("shots", "Oda", DESK, second_cause, {}),
    ("shots-left-hander-bay", "Jory", DESK, None, BAY_LEFT),
    ("shots-read", "Wendel", DESK, read, {}),
    ("shots-tablet", "Oda", TABLET, second_cause, {}),
    ("shots-phone", "Wendel", PHONE, None, {}),
    ("look", "Oda/look", DESK, None, {}),
    ("pressure", "Marit/pressure", DESK, half_way_down, {}),
    ("pressure-left-hander-bay", "Jory/pressure", DESK, half_way_down, BAY_LEFT),
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
