"""The tablet loses the server in the middle of a lesson: nothing is lost, the page still opens."""

import os
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
from playwright.sync_api import Browser, BrowserContext, Page, Route, expect

from tests.browser.conftest import ROOT, Finger

pytestmark = pytest.mark.offline
SOON_MS = 20_000


class Server:
    """The application with a database of its own, which can be killed and started."""

    def __init__(self, folder: Path) -> None:
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.url = f"http://127.0.0.1:{self.port}"
        self.own = {**os.environ, "FIRM_FOOTING_DB": str(folder / "own.db")}
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        command = [sys.executable, "-m", "firm_footing", "serve", "--port", str(self.port)]
        self.process = subprocess.Popen(
            command, cwd=ROOT, env=self.own, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL
        )
        until = time.monotonic() + 60
        while time.monotonic() < until:
            try:
                with urllib.request.urlopen(f"{self.url}/api/health", timeout=1):
                    return
            except (urllib.error.URLError, ConnectionError, TimeoutError):
                time.sleep(0.1)
        raise TimeoutError(self.url)

    def kill(self) -> None:
        """As a power cut does."""
        if self.process is not None:
            self.process.kill()
            self.process.wait()
            self.process = None


@pytest.fixture
def server(tmp_path: Path) -> Iterator[Server]:
    server = Server(tmp_path)
    server.start()
    yield server
    server.kill()


@pytest.fixture
def tablet(browser: Browser) -> Iterator[BrowserContext]:
    context = browser.new_context(viewport={"width": 1180, "height": 820}, has_touch=True)
    yield context
    context.close()


def ready_without_a_server(page: Page) -> None:
    """The page has put itself by."""
    page.evaluate("() => navigator.serviceWorker.ready.then(() => null)")


def begin_lesson(page: Page, name: str, known: bool = True) -> None:
    """A student whom the server knows has a page of their own to begin from."""
    page.get_by_role("button", name="New student").tap()
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_role("button", name="Add student").tap()
    words = "New lesson" if known else f"New lesson with {name}"
    page.get_by_role("button", name=words, exact=True).tap()
    page.get_by_role("navigation", name="Stages").get_by_role("link", name="Shots").tap()
    page.get_by_test_id("range").wait_for()


def hit(page: Page, balls: int) -> None:
    finger = Finger(page)
    for i in range(balls):
        finger.drag("range", (0.5, 0.85), (0.44 + 0.03 * i, 0.3))
        page.wait_for_timeout(400)


def balls_of(page: Page, expected: int) -> None:
    tape = page.get_by_role("list", name="Balls").get_by_role("button")
    expect(tape).to_have_count(expected, timeout=SOON_MS)


def kept(server: Server, page: Page) -> list[dict[str, Any]]:
    lesson = page.url.split("/lessons/")[1].split("/")[0]
    found = page.request.get(f"{server.url}/api/lessons/{lesson}").json()
    return [shot for block in found["blocks"] for shot in block["shots"]]


def test_a_lesson_goes_on_without_a_server_and_nothing_is_lost(
    server: Server, tablet: BrowserContext
) -> None:
    page = tablet.new_page()
    page.goto(server.url)
    ready_without_a_server(page)
    page.reload()
    begin_lesson(page, "Oda Brack")
    hit(page, 2)
    expect(page.get_by_test_id("saved")).to_have_text("Saved", timeout=SOON_MS)
    asked = page.get_by_test_id("next-look").locator(".question")
    server.kill()
    hit(page, 3)
    expect(page.get_by_test_id("saved")).to_contain_text("3 changes kept here", timeout=SOON_MS)
    page.get_by_test_id("undo").tap()
    balls_of(page, 4)
    page.get_by_test_id("redo").tap()
    balls_of(page, 5)
    for key in ("y", "n"):  # each answers the look that is shown then
        question = asked.inner_text()
        page.keyboard.press(key)
        expect(asked).not_to_have_text(question)
    page.reload()
    balls_of(page, 5)
    hit(page, 1)
    page.reload()
    balls_of(page, 6)
    expect(page.get_by_test_id("saved")).to_contain_text("kept here", timeout=SOON_MS)
    page.goto(server.url)
    expect(page.get_by_test_id("waiting")).to_contain_text(
        "4 balls, 1 undo, 1 redo, 2 answers", timeout=SOON_MS
    )
    begin_lesson(page, "Pia Loth", known=False)
    hit(page, 2)
    page.reload()
    balls_of(page, 2)
    server.start()
    expect(page.get_by_test_id("saved")).to_have_text("Saved", timeout=SOON_MS)
    assert len(kept(server, page)) == 2
    day = page.request.get(f"{server.url}/api/day").json()
    assert {s["name"] for s in day["students"]} == {"Oda Brack", "Pia Loth"}
    by_name = {lesson["student_name"]: lesson for lesson in day["lessons"]}
    assert (by_name["Oda Brack"]["balls"], by_name["Oda Brack"]["answers"]) == (6, 2)


def test_what_two_tabs_could_not_send_is_all_sent(server: Server, tablet: BrowserContext) -> None:
    page = tablet.new_page()
    page.goto(server.url)
    begin_lesson(page, "Oda Brack")
    expect(page.get_by_test_id("saved")).to_have_text("Saved", timeout=SOON_MS)
    other = tablet.new_page()
    other.goto(page.url)
    other.get_by_test_id("range").wait_for()
    server.kill()
    hit(page, 3)
    hit(other, 2)
    expect(other.get_by_test_id("saved")).to_contain_text("kept here", timeout=SOON_MS)
    other.close()
    server.start()
    expect(page.get_by_test_id("saved")).to_have_text("Saved", timeout=SOON_MS)
    balls_of(page, 5)
    assert len(kept(server, page)) == 5


def test_a_health_note_of_another_device_is_not_written_over(
    server: Server, tablet: BrowserContext, browser: Browser
) -> None:
    page = tablet.new_page()
    page.goto(server.url)
    begin_lesson(page, "Oda Brack")
    page.get_by_role("navigation", name="Stages").get_by_role("link", name="Listen").tap()
    health = page.get_by_label("Health", exact=False).first
    health.wait_for()
    lesson = page.url.split("/lessons/")[1].split("/")[0]
    tablet.set_offline(True)
    health.fill("sore wrist")
    health.blur()
    with browser.new_context() as elsewhere:
        said = {"listen": {"health": "pregnant, no impact drills"}}
        assert elsewhere.request.post(
            f"{server.url}/api/lessons/{lesson}/changes", data={"kind": "lesson", "body": said}
        ).ok
    tablet.set_offline(False)
    page.get_by_role("button", name="1 not taken: look").tap(timeout=SOON_MS)
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("pregnant, no impact drills")
    dialog.get_by_role("button", name="Keep both").click()
    expect(health).to_have_value("pregnant, no impact drills; sore wrist", timeout=SOON_MS)


def test_the_others_ball_appears_within_two_seconds(
    server: Server, tablet: BrowserContext, browser: Browser
) -> None:
    page = tablet.new_page()
    page.goto(server.url)
    begin_lesson(page, "Oda Brack")
    expect(page.get_by_test_id("saved")).to_have_text("Saved", timeout=SOON_MS)
    with browser.new_context(viewport={"width": 1180, "height": 820}, has_touch=True) as elsewhere:
        other = elsewhere.new_page()
        other.goto(page.url)
        other.get_by_test_id("range").wait_for()
        other.wait_for_timeout(1500)
        hit(page, 1)
        expect(other.get_by_role("list", name="Balls").get_by_role("button")).to_have_count(
            1, timeout=2_500
        )


def test_a_tablet_that_was_sent_away_forgets_what_it_read_and_keeps_what_it_entered(
    server: Server, browser: Browser
) -> None:
    context = browser.new_context(
        viewport={"width": 1180, "height": 820}, has_touch=True, service_workers="block"
    )
    page = context.new_page()
    page.goto(server.url)
    begin_lesson(page, "Quillona Vesp")
    hit(page, 1)
    expect(page.get_by_test_id("saved")).to_have_text("Saved", timeout=SOON_MS)
    page.wait_for_function("() => caches.has('read-lately')")
    lesson = page.url
    sent_away = {
        "code": "not_paired", "message": "This device is not paired.", "hint": "", "where": "cookie"
    }  # fmt: skip

    def turn_away(route: Route) -> None:
        """The first it hears of it is the answer to its ball."""
        if route.request.method == "GET":
            route.continue_()
        else:
            route.fulfill(status=401, json=sent_away)

    context.route("**/api/lessons/**", turn_away)
    hit(page, 1)
    page.wait_for_url("**/pair**", timeout=SOON_MS)
    expect(page.get_by_test_id("waiting")).to_contain_text("Kept here until it is: 1 ball")
    page.wait_for_function("async () => !(await caches.has('read-lately'))")
    context.unroute_all()
    page.goto(lesson)
    balls_of(page, 2)
    expect(page.get_by_test_id("saved")).to_have_text("Saved", timeout=SOON_MS)
    assert len(kept(server, page)) == 2
    context.close()


def test_of_a_ball_that_two_devices_changed_both_are_kept_until_one_is_chosen(
    server: Server, browser: Browser
) -> None:
    first, second = (browser.new_context(has_touch=True) for _ in range(2))
    here, there = first.new_page(), second.new_page()
    here.goto(server.url)
    begin_lesson(here, "Oda Brack")
    hit(here, 1)
    expect(here.get_by_test_id("saved")).to_have_text("Saved", timeout=SOON_MS)
    there.goto(here.url)
    balls_of(there, 1)
    first.route("**/api/lessons/**", lambda route: route.abort())
    for page, word in ((here, "Fat"), (there, "Thin")):
        page.get_by_role("list", name="Balls").get_by_role("button").first.tap()
        page.get_by_role("button", name=word, exact=True).first.tap()
    expect(there.get_by_test_id("saved")).to_have_text("Saved", timeout=SOON_MS)
    expect(here.get_by_test_id("saved")).to_contain_text("kept here", timeout=SOON_MS)
    first.unroute_all()
    here.get_by_role("button", name="1 not taken: look").tap(timeout=SOON_MS)
    dialog = here.get_by_role("dialog")
    expect(dialog).to_contain_text("Ball, contact: changed on another device too")
    dialog.get_by_role("button", name="Keep the other's").tap()
    expect(dialog).to_be_hidden(timeout=SOON_MS)
    assert [shot["observed"]["contact"] for shot in kept(server, here)] == ["thin"]
    first.close()
    second.close()
