"""Balls that come from a table or a device, and what the drawings say of them."""

import json
import re
import subprocess
import sys
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from tests import sizes
from tests.browser.choosing import choose
from tests.browser.conftest import ROOT, Finger
from tests.browser.test_journeys import new_block, open_lesson_of, own_copy_of, saved

TABLE = """Session of a made-up bay;;;
Shot;Club;Ball Speed;Launch Direction;Spin Axis;Carry;Side;Club Path;Face Angle
;;[mph];[deg];[deg];[yds];[yds];[deg];[deg]
1;7 Iron;104,3;3,1L;12,2R;142,1;8,1R;-5,0;-2,1
2;7 Iron;101,0;2,0L;9,0R;139,1;7,0R;-4,0;-1,1
3;7 Iron;broken;2,4L;9,9R;139,1;7,2R;-4,2;-1,3
4;7 Iron;102,2;2,8L;10,0R;140,1;7,5R;-4,9;-1,6
"""


def lesson_of(page: Page) -> dict[str, Any]:
    lesson_id = re.findall(r"/lessons/([^/?]+)", page.url)[0]
    return page.request.get(f"/api/lessons/{lesson_id}").json()  # type: ignore[no-any-return]


def bring_in(page: Page, text: str) -> None:
    page.get_by_role("button", name="This lesson").tap()
    page.get_by_role("button", name="Bring in balls from a table").tap()
    page.get_by_label("Table of balls").set_input_files(
        {"name": "bay.csv", "mimeType": "text/csv", "buffer": text.encode("utf-8-sig")}
    )


def test_a_table_with_a_bad_cell_comes_in_once(page: Page) -> None:
    own_copy_of(page, "Bastian Roe")
    before = len(lesson_of(page)["blocks"][0]["shots"])
    bring_in(page, TABLE)
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_test_id("would")).to_have_text("4 balls would be taken in.")
    expect(dialog.get_by_test_id("bad-rows")).to_contain_text("row 6, Ball Speed “broken”: not a")
    # the guess can be put right, and the preview follows
    choose(dialog, "Face Angle holds", "left out")
    choose(dialog, "Side of Club Path", "+ is left")
    dialog.get_by_role("button", name="Take in 4 balls").tap()
    expect(dialog.get_by_role("status")).to_contain_text("4 balls taken in")
    expect(dialog.get_by_test_id("bad-rows")).to_contain_text("Not taken in:")
    dialog.get_by_role("button", name="Close").tap()
    tape = page.get_by_role("list", name="Balls").get_by_role("button")
    expect(tape).to_have_count(before + 4)
    shots = [s["observed"] for s in lesson_of(page)["blocks"][0]["shots"][before:]]
    assert [s["path_deg"] for s in shots] == [5, 4, 4.2, 4.9]
    assert all(s["face_deg"] is None for s in shots)
    assert [s["ball_speed_mps"] is None for s in shots] == [False, False, True, False]
    bring_in(page, TABLE)  # the same again: known headings, nothing new
    expect(dialog).to_contain_text("as you agreed last time")
    expect(dialog.get_by_test_id("would")).to_contain_text("0 balls would be taken in.")
    expect(dialog.get_by_role("button", name="Take in")).to_be_disabled()
    dialog.get_by_role("button", name="Cancel").tap()
    page.get_by_test_id("undo").tap()
    expect(tape).to_have_count(before)


@pytest.mark.offline  # the browser notes the refused request
def test_what_is_no_table_is_said_and_changes_nothing(page: Page) -> None:
    own_copy_of(page, "Bastian Roe")
    with page.expect_response(re.compile("preview")):
        bring_in(page, "just some words\n")
    expect(page.get_by_role("alert")).to_contain_text("No row of headings was found")
    expect(page.get_by_role("alert")).to_contain_text("Nothing was changed")


def test_balls_of_the_simulated_monitor_appear_as_they_are_hit(page: Page, base_url: str) -> None:
    own_copy_of(page, "Ines Vollard")
    lesson = lesson_of(page)
    before = sum(len(b["shots"]) for b in lesson["blocks"])
    asked: list[str] = []
    page.on("request", lambda r: asked.append(r.url) if r.url.endswith("/revision") else None)
    command = [sys.executable, "-m", "firm_footing", "monitor", "--url", base_url, "--every", "0.2"]
    done = subprocess.run(
        [*command, "--lesson", lesson["id"], "--balls", "3", "--cause", "weak_grip"],
        cwd=ROOT, check=True, capture_output=True, text=True,
    )  # fmt: skip
    assert "ball 3: carry" in done.stdout
    tape = page.get_by_role("list", name="Balls").get_by_role("button")
    expect(tape).to_have_count(before + 3)
    expect(page.locator(".flight")).to_have_count(before + 3)
    expect(page.get_by_test_id("pattern")).to_contain_text("mm to the heel")
    page.wait_for_timeout(500)
    asked.clear()
    page.wait_for_timeout(3000)
    assert asked == []  # it is told, and does not ask every second


def test_a_monitor_without_an_application_says_what_to_do() -> None:
    command = [sys.executable, "-m", "firm_footing", "monitor", "--url", "http://127.0.0.1:9"]
    done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)
    assert done.returncode == 2
    assert "Start the application" in done.stderr


def test_every_drawing_says_the_same_number_and_chooses_the_same_ball(
    page: Page, finger: Finger
) -> None:
    own_copy_of(page, "Wendel Carrow")
    lesson = lesson_of(page)
    read = page.request.get(f"/api/lessons/{lesson['id']}/balls").json()[0]
    told = page.request.get(f"/api/lessons/{lesson['id']}/diagnosis").json()
    page.get_by_role("button", name="Read", exact=True).tap()
    delivery = read["delivery"]
    for name in ("path_deg", "face_to_path_deg", "low_point_cm", "heel_toe_mm", "start_deg"):
        assert delivery[name]["value"] == pytest.approx(told["spreads"][name]["value"]), name

    path = delivery["path_deg"]
    size = f"{abs(path['value']):.1f}° {'left' if path['value'] < 0 else 'right'}"
    doubt = f"± {path['se']:.1f}"
    expect(page.get_by_test_id("pattern")).to_contain_text(f"path {size} {doubt}")
    expect(page.get_by_test_id("path-says")).to_contain_text(f"{size} {doubt}")
    low = f"{abs(delivery['low_point_cm']['value']):.0f} cm"
    expect(page.get_by_test_id("pattern")).to_contain_text(low)
    expect(page.get_by_test_id("low-says")).to_contain_text(low)

    lost = read["lost"]
    short = (lost["expected_m"] - lost["actual_m"]) / 0.9144
    expect(page.get_by_test_id("lost")).to_contain_text(f"The block: {abs(short):.0f} yd")
    items = [*lost["items"].values(), lost["remainder_m"]]
    assert sum(items) == pytest.approx(lost["expected_m"] - lost["actual_m"])

    # a ball chosen on the turf is chosen on the tape, the range, the face and in the account
    page.get_by_test_id("turf-strip").locator(".divot").nth(2).dispatch_event("pointerdown")
    chosen = page.get_by_role("list", name="Balls").locator("[aria-pressed=true]")
    expect(chosen).to_have_count(1)
    number = chosen.inner_text()
    expect(page.get_by_test_id("lost")).to_contain_text(f"Ball {number}:")
    for drawing in ("range", "side-view", "turf-strip", "face"):
        expect(page.get_by_test_id(drawing).locator(".newest")).to_have_count(1)
    one = read["balls"][int(number) - 1]["lost"]
    expect(page.get_by_test_id("lost")).to_contain_text(f"{one['actual_m'] / 0.9144:.0f} yd")
    assert json.dumps(lesson_of(page)["blocks"]) == json.dumps(lesson["blocks"])  # nothing changed
    page.get_by_role("button", name="Log", exact=True).tap()
    expect(page.get_by_role("group", name="Contact")).to_be_visible()
    finger.tap("face", (0.5, 0.5))
    saved(page)


@pytest.mark.parametrize(("club", "carry"), [("Driver", "230"), ("Pitching wedge", "100")])
def test_a_baseline_with_a_driver_and_with_a_wedge(
    page: Page, finger: Finger, club: str, carry: str
) -> None:
    own_copy_of(page, "Bastian Roe")
    new_block(page, "More baseline")
    choose(page, "Club", club)
    page.get_by_label("Expected carry").fill(carry)
    page.get_by_label("Expected carry").press("Tab")
    for x in (0.36, 0.40, 0.38, 0.33, 0.43):
        finger.drag("range", (x, 0.4), (x + 0.12, 0.3))
        if club != "Driver":
            finger.tap("ground", (0.85, 0.55))
        finger.tap("face", (0.6, 0.55))
        page.get_by_role("button", name="Next ball").tap()
    saved(page)
    page.get_by_role("button", name="Read", exact=True).tap()
    expect(page.get_by_test_id("lost")).to_contain_text(f"of {carry} yd expected")
    teed = page.get_by_text("Teed: no turf is taken")
    expect(teed).to_have_count(1 if club == "Driver" else 0)
    expect(page.get_by_test_id("path-says")).to_contain_text("left ±")


def test_after_a_touch_of_a_button_enter_still_begins_the_next_ball(page: Page) -> None:
    """Else the keys of the second ball would be written over the first."""
    own_copy_of(page, "Bastian Roe")
    new_block(page, "More baseline")
    tape = page.get_by_role("list", name="Balls").get_by_role("button")
    expect(tape).to_have_count(0)
    page.keyboard.type("1e")
    expect(tape).to_have_count(1)
    page.get_by_role("button", name="Read", exact=True).tap()
    page.keyboard.press("Enter")
    page.keyboard.type("5e")
    expect(tape).to_have_count(2)
    expect(page.get_by_role("button", name="Ball 1: starts far left")).to_be_visible()
    expect(page.get_by_role("button", name="Ball 2: starts far right")).to_be_visible()


def test_dragging_across_a_drawing_with_the_mouse_marks_no_words(page: Page) -> None:
    own_copy_of(page, "Bastian Roe")
    box = page.get_by_test_id("range").bounding_box()
    assert box
    page.mouse.move(box["x"] + box["width"] * 0.46, box["y"] + box["height"] * 0.6)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] * 0.55, box["y"] + box["height"] * 0.2, steps=5)
    page.mouse.up()
    assert page.evaluate("String(getSelection())") == ""


def test_an_iron_can_be_teed(page: Page) -> None:
    own_copy_of(page, "Bastian Roe")
    choose(page, "Hit from", "Tee")
    saved(page)
    assert lesson_of(page)["blocks"][0]["teed"] is True
    choose(page, "Hit from", "Mat")
    saved(page)
    block = lesson_of(page)["blocks"][0]
    assert (block["surface"], block["teed"]) == ("mat", False)
    choose(page, "Hit from", "not noted")
    saved(page)
    assert lesson_of(page)["blocks"][0]["teed"] is None


def test_the_divots_deep_side_is_answered_where_the_turf_is_read(page: Page) -> None:
    own_copy_of(page, "Wendel Carrow")
    page.get_by_role("button", name="Read", exact=True).tap()
    deep = page.get_by_role("group", name="Divots deeper at toe or heel")
    deep.get_by_role("button", name="Yes").tap()
    expect(deep.get_by_role("button", name="Yes")).to_have_attribute("aria-pressed", "true")
    saved(page)
    answers = {a["check_id"]: a["answer"] for a in lesson_of(page)["answers"]}
    assert answers["heel_or_toe_deep_divot"] == "yes"


def test_a_second_lesson_says_what_moved_since_the_first(page: Page) -> None:
    open_lesson_of(page, "Marit Halloway")
    since = page.request.get(f"/api/lessons/{lesson_of(page)['id']}/since").json()
    assert len(since) == 2
    page.get_by_role("button", name="Read", exact=True).tap()
    notes = page.get_by_test_id("pattern-notes")
    expect(notes).to_contain_text(f"({since[0]['balls']} balls)")
    sure = [m for m in since[0]["moved"] if m["sure"]]
    expect(notes).to_contain_text("Since" if sure else "nothing has moved more than chance would")


def test_the_same_touch_is_the_same_carry_at_every_ball_and_in_the_retest(
    page: Page, finger: Finger
) -> None:
    """The range keeps its scale while balls are hit, however far one of them goes."""
    own_copy_of(page, "Oda Brack")
    before = len(lesson_of(page)["blocks"][0]["shots"])

    def touch(times: int) -> None:
        for _ in range(times):
            finger.drag("range", (0.5, 0.5), (0.5, 0.3))
            page.get_by_role("button", name="Next ball").tap()
        saved(page)

    touch(10)
    logged = [s["observed"]["carry_m"] for s in lesson_of(page)["blocks"][0]["shots"][before:]]
    assert len(logged) == 10
    assert len(set(logged)) == 1
    yards = logged[0] / 0.9144
    assert yards == pytest.approx(round(yards / 5) * 5, abs=0.02)
    new_block(page, "Retest")
    touch(3)
    retest = lesson_of(page)["blocks"][-1]
    assert retest["kind"] == "retest"
    assert [s["observed"]["carry_m"] for s in retest["shots"]] == logged[:3]


PHONE = {"width": 390, "height": 844}


def test_on_a_phone_a_swipe_scrolls_and_a_ball_is_a_ball(page: Page, finger: Finger) -> None:
    """Told apart by where they begin: the upper half and the margins are the page's."""
    page.set_viewport_size(PHONE)
    own_copy_of(page, "Bastian Roe")
    tape = page.get_by_role("list", name="Balls").get_by_role("button")
    before = tape.count()
    balls = sizes.of(20, 100)
    for i in range(balls):
        page.evaluate("scrollTo(0, 0)")
        x = (-0.04, 0.2, 0.5, 0.8, 1.04)[i % 5]  # beside it too
        y = 0.45 if 0 < x < 1 else (0.3, 0.9)[i % 2]
        finger.drag("range", (x, y), (x + 0.02, y - 0.4 if i % 3 else y + 0.3))
    page.wait_for_timeout(300)
    expect(tape).to_have_count(before)
    page.evaluate("scrollTo(0, 0)")
    page.wait_for_timeout(400)  # a finger that stops a moving page means the page
    box = page.get_by_test_id("range").bounding_box()
    for i in range(balls):
        finger.drag("range", (0.42 + i % 7 * 0.02, 0.75), (0.4 + i % 5 * 0.05, 0.3))
        page.get_by_role("button", name="Next ball").tap()
    expect(tape).to_have_count(before + balls)
    assert page.get_by_test_id("range").bounding_box() == box
    assert page.evaluate("scrollY") == 0  # no ball needed any


def test_on_a_phone_a_whole_ball_goes_from_drawing_to_drawing(page: Page, finger: Finger) -> None:
    page.set_viewport_size(PHONE)
    own_copy_of(page, "Bastian Roe")
    before = len(lesson_of(page)["blocks"][0]["shots"])
    drawings = {name: page.get_by_test_id(name) for name in ("range", "ground", "face")}

    def alone(name: str | None) -> None:
        for other, drawing in drawings.items():
            expect(drawing).to_have_count(1 if other == name else 0)

    alone("range")
    finger.drag("range", (0.48, 0.7), (0.6, 0.3))
    alone("ground")
    finger.tap("ground", (0.85, 0.5))
    alone("face")
    finger.tap("face", (0.5, 0.55))
    alone(None)
    page.get_by_role("button", name="Thin").tap()
    alone("range")
    saved(page)
    (ball,) = lesson_of(page)["blocks"][0]["shots"][before:]
    noted = {name for name, value in ball["observed"].items() if value is not None}
    assert {"start", "curve", "carry_m", "divot_start_cm", "heel_toe_mm", "contact"} <= noted
    # a start alone waits for its landing, which may lie in the upper half
    finger.tap("range", (0.5, 0.7))
    alone("range")
    finger.tap("range", (0.6, 0.3))
    alone("ground")
    saved(page)
    assert lesson_of(page)["blocks"][0]["shots"][before + 1]["observed"]["carry_m"] is not None


def test_looks_on_a_phone_are_folded_by_standing_place(page: Page) -> None:
    page.set_viewport_size(PHONE)
    own_copy_of(page, "Oda Brack")
    page.get_by_role("link", name="Look").tap()
    expect(page.get_by_role("heading", name="Would tell most now")).to_be_visible()
    looks = page.locator("li.check")
    expect(looks).to_have_count(3)
    assert page.evaluate("document.documentElement.scrollHeight") < 4 * PHONE["height"]
    page.get_by_role("button", name="Face on").last.tap()
    assert looks.count() > 8
    page.get_by_role("button", name="Finish").last.tap()  # one at a time
    assert 3 < looks.count() <= 7
    # the stages are wider than the screen: the open one is in sight
    for stage in ("Send", "Listen"):
        link = page.get_by_role("navigation", name="Stages").get_by_role("link", name=stage)
        link.evaluate("(here) => here.click()")  # where it is: a tap would bring it into sight
        expect(link).to_be_in_viewport(ratio=1)


def _box(page: Page, locator: Locator) -> tuple[float, float, float, float]:
    """Left, top, right and bottom of what is on the page."""
    box = locator.bounding_box()
    assert box is not None
    return box["x"], box["y"], box["x"] + box["width"], box["y"] + box["height"]


@pytest.mark.parametrize("size", [(1280, 800), (1180, 820), (820, 1180), (844, 390), (390, 844)])
def test_nothing_lies_over_the_fan_and_its_words_are_whole(
    page: Page, size: tuple[int, int]
) -> None:
    """With a second block, so that the fields left of the fan are all there."""
    page.set_viewport_size({"width": size[0], "height": size[1]})
    own_copy_of(page, "Petra Lunn")
    page.get_by_role("navigation", name="Stages").get_by_role("link", name="Shots").tap()
    fan = page.get_by_test_id("range")
    expect(fan.locator(".ring").first).to_be_visible()
    left, top, right, bottom = _box(page, fan)
    for word in fan.locator(".zone").all():
        x, y, to_x, to_y = _box(page, word)
        assert left <= x < to_x <= right
        assert top <= y < to_y <= bottom
    if size[0] > 600:
        fields = page.locator(".block-bar")
        expect(fields.get_by_role("combobox", name="Block")).to_be_visible()
        assert _box(page, fields)[2] <= left


@pytest.mark.parametrize("size", [(1280, 800), (1180, 820)])
def test_beside_the_list_the_fan_is_wide_and_the_foot_whole(
    page: Page, size: tuple[int, int]
) -> None:
    page.set_viewport_size({"width": size[0], "height": size[1]})
    open_lesson_of(page, "Oda Brack", "shots")
    fan = page.get_by_test_id("range")
    expect(fan.locator(".ring").first).to_be_visible()
    left, _, right, _ = _box(page, fan)
    arcs = [_box(page, arc) for arc in fan.locator(".ring").all()]
    assert max(to_x - x for x, _, to_x, _ in arcs) > 0.45 * (right - left)
    foot = page.get_by_role("button", name=re.compile("^Show all"))
    expect(foot).to_be_in_viewport(ratio=1)
    assert _box(page, foot)[3] <= _box(page, page.get_by_test_id("next-step"))[1]


@pytest.mark.parametrize("size", [(1280, 800), (1180, 820), (820, 1180), (390, 844)])
def test_drawings_keep_their_place_and_size_whatever_comes_above(
    page: Page, finger: Finger, size: tuple[int, int]
) -> None:
    page.set_viewport_size({"width": size[0], "height": size[1]})
    own_copy_of(page, "Oda Brack")
    phone = size[0] < 600
    names = ("range",) if phone else ("range", "ground", "face")

    def boxes() -> list[list[int]]:
        page.wait_for_timeout(300)
        if phone:
            page.get_by_role("button", name="Range", exact=True).tap()
        found = [page.get_by_test_id(name).bounding_box() for name in names]
        return [[round(box[k]) for k in ("x", "y", "width", "height")] for box in found if box]

    before = boxes()
    assert len(before) == len(names)
    first = page.get_by_test_id("causes").locator("li.cause").first
    first.get_by_role("button").first.tap()
    page.evaluate("scrollTo(0, 0)")
    assert boxes() == before  # the chain of an opened cause
    finger.drag("range", (0.5, 0.7), (0.55, 0.3))
    assert boxes() == before  # a ball
    page.get_by_test_id("undo").tap()
    saved(page)
    assert boxes() == before
    page.get_by_role("button", name="A few balls").tap()
    page.get_by_role("button", name="Hit these 5 balls").tap()
    page.evaluate("scrollTo(0, 0)")
    expect(page.get_by_text("Was the drill done right?")).to_be_visible()
    assert boxes() == before  # a trial block, with its question
