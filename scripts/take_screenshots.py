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

TABLE = """Shot;Club;Ball Speed;Launch Direction;Spin Axis;Carry;Side;Club Path;Face Angle
;;[mph];[deg];[deg];[yds];[yds];[deg];[deg]
1;7 Iron;104,3;3,1L;12,2R;142,1;8,1R;-5,0;-2,1
2;7 Iron;101,0;2,0L;9,0R;139,1;7,0R;-4,0;-1,1
3;7 Iron;broken;2,4L;9,9R;139,1;7,2R;-4,2;-1,3
4;7 Iron;102,2;2,8L;10,0R;140,1;7,5R;-4,9;-1,6
"""

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


def table(page: Page) -> None:
    """The preview of a table of balls."""
    page.get_by_role("button", name="This lesson").click()
    page.get_by_role("button", name="Bring in balls from a table").click()
    page.get_by_label("Table of balls").set_input_files(
        {"name": "bay.csv", "mimeType": "text/csv", "buffer": TABLE.encode()}
    )
    page.get_by_test_id("would").wait_for()


def half_way_down(page: Page) -> None:
    """Scrub to the middle of the downswing."""
    curve = page.get_by_test_id("pressure-curve").bounding_box()
    assert curve
    page.mouse.click(curve["x"] + curve["width"] * 0.6, curve["y"] + curve["height"] * 0.6)


def without_a_mat(page: Page) -> None:
    """The feel tests."""
    page.get_by_role("button", name="No mat").click()


def second_root(page: Page) -> None:
    """Pick a cause the ranking does not have first."""
    page.locator(".roots button").nth(1).click()
    page.wait_for_timeout(700)


def sheet(page: Page) -> None:
    """Wait for the page that goes home."""
    page.frame_locator("iframe").get_by_role("heading").first.wait_for()


def separating(page: Page) -> None:
    """Hit three balls of the separating block."""
    page.get_by_role("button", name="Separating balls").click()
    page.get_by_role("button", name="Hit these 5 balls").click()
    fan, face = (page.get_by_test_id(name).bounding_box() for name in ("range", "face"))
    assert fan
    assert face
    for ball in range(3):
        x, y = fan["x"] + fan["width"] * (0.49 + 0.01 * ball), fan["y"] + fan["height"] * 0.6
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x + 5 + 4 * ball, y - 80)
        page.mouse.up()
        page.mouse.click(face["x"] + face["width"] * (0.52 - 0.02 * ball), face["y"] + 130)
        page.keyboard.press("a")
        page.keyboard.press("Enter")
    page.get_by_test_id("verdict").wait_for()
    page.wait_for_timeout(600)


PICTURES: list[tuple[str, str, tuple[int, int], Act | None, dict[str, str]]] = [
    ("day", "/", DESK, None, {}),
    ("student", "student:Marit", DESK, None, {}),
    ("shots", "Oda", DESK, second_cause, {}),
    ("shots-left-hander-bay", "Jory", DESK, None, BAY_LEFT),
    ("shots-read", "Wendel", DESK, read, {}),
    ("import", "Bastian", DESK, table, {}),
    ("shots-tablet", "Oda", TABLET, second_cause, {}),
    ("shots-phone", "Wendel", PHONE, None, {}),
    ("look", "Oda/look", DESK, None, {}),
    ("pressure", "Marit/pressure", DESK, half_way_down, {}),
    ("pressure-left-hander-bay", "Jory/pressure", DESK, half_way_down, BAY_LEFT),
    ("feel-tests", "Wendel/pressure", DESK, without_a_mat, {}),
    ("listen", "Ines/listen", DESK, None, {}),
    ("decide", "Oda/decide", DESK, second_root, {}),
    ("drill", "Tilda/drill", DESK, None, {}),
    ("retest", "Wendel/retest", DESK, None, {}),
    ("send", "Wendel/send", DESK, sheet, {}),
    ("casebook", "/casebook", DESK, None, {}),
    ("separating", "Oda", DESK, separating, {}),  # last: it adds balls to the lesson
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
                page = browser.new_page(viewport={"width": width, "height": height})
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
