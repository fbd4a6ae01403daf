"""Two whole lessons of one student, on a phone and on a tablet: is it better, and by what?"""

import re
import time

import pytest
from playwright.sync_api import Page, expect

from firm_footing.core.knowledge import Knowledge
from tests import sizes
from tests.browser.conftest import Finger
from tests.browser.test_balls import lesson_of
from tests.browser.test_journeys import new_lesson, own_copy_of, saved
from tests.browser.test_whole_lesson import stage

SIZES = {"phone": (390, 844), "tablet": (1180, 820)}


def met(page: Page, phone: bool, *words: str) -> None:
    """Balls noted by a word of contact alone."""
    for word in words:
        if phone:
            page.get_by_role("group", name="What is noted").get_by_role(
                "button", name="Contact"
            ).tap()
        contact = page.get_by_role("group", name="Contact", exact=True)
        contact.get_by_role("button", name=word).tap()
    saved(page)


def fits(page: Page) -> None:
    """What stands above, beside and under the first cause says one thing."""
    headline = page.get_by_test_id("standing").inner_text()
    first = page.get_by_test_id("causes").locator("li.cause").first.inner_text()
    if "Start here" in first:
        assert headline.startswith("Start with")
        assert re.search(r"likely", first)
        assert "unlikely" not in first
        assert "less likely" not in first
    if headline.startswith(("Open between", "Much is still open", "Nothing stands out")):
        assert "Start here" not in first
        assert "First so far" not in first
    assert not re.search(r"\b(0|100) %", first)
    asked = page.get_by_test_id("next-look").locator(".question")
    told = [c for c in (page.get_by_test_id("unexplained"),) if c.count()]
    for sentence in told:
        assert "Look:" not in sentence.inner_text()
    assert asked.count() <= 1


def studied(page: Page, lesson_id: str) -> None:
    """The casebook says by itself what the retest makes of the decision, some seconds later."""
    until = time.monotonic() + 60
    while time.monotonic() < until:
        cases = page.request.get("/api/casebook").json()["cases"]
        if any(c["lesson_id"] == lesson_id and "retest" in c["known_by"] for c in cases):
            return
        page.wait_for_timeout(200)
    raise TimeoutError(lesson_id)


@pytest.mark.parametrize("size", SIZES)
def test_two_lessons_of_one_student(page: Page, size: str, knowledge: Knowledge) -> None:
    phone = size == "phone"
    width, height = SIZES[size]
    page.set_viewport_size({"width": width, "height": height})
    name = f"Ottilie Renn {size}"
    page.goto("/")
    page.get_by_role("button", name="New student").tap()
    page.get_by_label("Name").fill(name)
    page.get_by_role("button", name="Add student").tap()
    new_lesson(page, name)
    met(page, phone, "Fat", "Fat", "Clean", "Fat", "Fat")
    expect(page.get_by_test_id("pattern")).to_contain_text("4 of 5 fat")
    fits(page)
    # decide: the cues come into sight
    stage(page, "Decide")
    card = page.locator("[data-testid^=compare-]").first
    # nobody saw them fly: no flight is drawn, and only the words' own thing is said to change
    expect(card).to_contain_text("the low point moves forward")
    expect(card.locator("svg.flight")).to_have_count(0)
    expect(card).not_to_contain_text("What it explains of these balls")
    card.get_by_test_id("decide").tap()
    expect(page.get_by_role("group", name="Cues").get_by_role("button").first).to_be_in_viewport()
    # retest: the share of fat balls is proposed, and decides
    stage(page, "Retest")
    expect(page.get_by_test_id("verdict")).to_have_text(
        "Ready. Decided by ground first: 4 of 5 before."
    )
    page.get_by_test_id("begin-retest").tap()
    expect(page.get_by_test_id("pattern")).to_contain_text("No balls yet")
    met(page, phone, "Clean", "Clean", "Clean", "Clean", "Clean")
    headline = page.get_by_test_id("pattern")
    expect(headline).not_to_contain_text("fat")  # of this block
    stage(page, "Retest")
    expect(page.get_by_test_id("verdict")).to_have_text(
        "Better, and more than chance: met the ground first: 4 of 5 before, 0 of 5 now."
    )
    # send: the student's page says from what to what; the next lesson is booked
    stage(page, "Send")
    sheet = page.frame_locator("iframe")
    expect(sheet.get_by_text("4 of 5 before, 0 of 5 now").first).to_be_visible()
    expect(sheet.get_by_text("before any drill")).to_have_count(0)
    tomorrow = page.evaluate(
        "(() => { const d = new Date(Date.now() + 864e5);"
        " return new Date(d - d.getTimezoneOffset() * 6e4).toISOString().slice(0, 10) })()"
    )
    page.get_by_label("Next lesson on").fill(tomorrow)
    page.get_by_label("Next lesson at").fill("10:30")
    page.get_by_role("button", name="Book it").tap()
    expect(page.get_by_test_id("next-lesson")).to_contain_text("The day lists it.")
    saved(page)
    page.get_by_test_id("send-home").tap()
    saved(page)
    first = lesson_of(page)
    # the day lists who comes; the second lesson goes on from the first
    page.goto("/")
    row = page.get_by_test_id("booked").get_by_role("listitem").filter(has_text=name)
    expect(row).to_contain_text("ask how it went")
    row.get_by_role("button", name=f"Begin the lesson with {name}").tap()
    back = page.get_by_test_id("came-back")
    back.get_by_label("Practised, times").fill("6")
    back.get_by_label("On the course").fill("Two fat ones in eighteen holes.")
    back.get_by_label("On the course").blur()
    back.get_by_role("button", name="It was the cause").tap()
    expect(back.get_by_role("button", name="It was the cause")).to_have_attribute(
        "aria-pressed", "true"
    )
    kept = page.request.get(f"/api/lessons/{first['id']}").json()["follow_up"]
    assert (kept["practised"], kept["verdict"]) == (6, "confirmed")
    studied(page, first["id"])
    stage(page, "Shots")
    met(page, phone, "Clean", "Clean", "Clean", "Clean")
    fits(page)
    # what came back is evidence here, until one touch takes it away
    cause = knowledge.cause[first["decisions"][-1]["cause"]]
    causes = page.get_by_test_id("causes")
    causes.get_by_role("button", name=cause.name).first.tap()
    line = causes.get_by_text(f"“{cause.label}” confirmed today, by the retest and what came back")
    expect(line).to_be_visible()
    line.get_by_role("button", name="Leave out what earlier lessons found").tap()
    expect(line).to_have_count(0)
    page.get_by_test_id("past-left-out").get_by_role("button", name="Count it again").tap()
    expect(page.get_by_test_id("past-left-out")).to_have_count(0)
    saved(page)
    stage(page, "Retest")
    expect(page.get_by_test_id("since-first")).to_contain_text(
        "met the ground first: 4 of 5 before, 0 of 4 now"
    )


def test_a_note_is_one_touch_away_at_every_stage(page: Page) -> None:
    own_copy_of(page, "Oda Brack")
    stages = ("Listen", "Shots", "Look", "Pressure", "Decide", "Drill", "Retest", "Send")
    for i, name in enumerate(stages):
        stage(page, name)
        page.get_by_test_id("note").tap()
        notes = page.get_by_role("complementary", name="Notes")
        notes.get_by_label("Note", exact=True).fill(f"{name}: wrist.")
        notes.get_by_role("button", name="Keep note").tap()
        expect(notes.get_by_role("listitem")).to_have_count(i + 1)
        page.keyboard.press("Escape")
        expect(notes).to_be_hidden()
    saved(page)
    assert [n["text"] for n in lesson_of(page)["notes"]] == [f"{s}: wrist." for s in stages]


def test_a_stage_that_was_touched_lets_go_of_enter_and_no_ball_is_written_over(
    page: Page,
) -> None:
    own_copy_of(page, "Bastian Roe")
    before = lesson_of(page)["blocks"][0]["shots"]
    stage(page, "Look")
    page.get_by_role("navigation", name="Stages").get_by_role("link", name="Shots").click()
    expect(page.get_by_test_id("range")).to_be_visible()  # keys mean what is seen
    for key in ("2", "w", "Enter", "4", "r", "4"):
        page.keyboard.press(key)
    saved(page)
    shots = lesson_of(page)["blocks"][0]["shots"]
    noted = [(s["observed"]["start"], s["observed"]["curve"]) for s in shots[len(before) :]]
    assert noted == [("pull", "pull"), ("push", "push"), ("push", None)]
    assert shots[: len(before)] == before


def test_how_it_was_seen_is_shown_and_changed_in_one_touch(page: Page) -> None:
    page.goto("/")
    page.get_by_role("button", name="New student").tap()
    page.get_by_label("Name").fill("Perrin Ost")
    page.get_by_role("button", name="Add student").tap()
    new_lesson(page, "Perrin Ost")
    met(page, False, "Fat", "Fat", "Fat", "Fat", "Fat")
    for _ in range(12):  # until a look that more than the eye shows is asked
        means = page.get_by_role("group", name="How it is seen")
        if means.count() and means.get_by_role("button", name="On film").count():
            break
        page.get_by_test_id("next-look").get_by_role("button", name="No").tap()
        saved(page)
    expect(means.get_by_role("button", name="By eye")).to_have_attribute("aria-pressed", "true")
    asked = page.get_by_test_id("next-look").locator(".question").inner_text()
    means.get_by_role("button", name="On film").tap()
    page.get_by_test_id("next-look").get_by_role("button", name="Yes").tap()
    expect(page.get_by_test_id("next-look")).not_to_contain_text(asked)
    saved(page)
    assert lesson_of(page)["answers"][-1]["source"] == "film"
    assert {a["source"] for a in lesson_of(page)["answers"][:-1]} <= {"look", "feel"}


def test_on_a_phone_nothing_of_the_range_is_dead(page: Page, finger: Finger) -> None:
    """A press that rests or moves sideways is a ball anywhere, a quick swipe up or down is none."""
    page.set_viewport_size({"width": 390, "height": 844})
    own_copy_of(page, "Bastian Roe")
    tape = page.get_by_role("list", name="Balls").get_by_role("button")
    before = tape.count()
    balls = sizes.of(20, 100)
    for i in range(balls):
        page.evaluate("scrollTo(0, 0)")
        x, y = 0.1 + 0.2 * (i % 5), 0.08 + 0.1 * (i % 5)
        finger.drag("range", (x, y), (x + 0.02, y - 0.3 if i % 2 else y + 0.35))
    page.wait_for_timeout(400)
    expect(tape).to_have_count(before)
    page.evaluate("scrollTo(0, 0)")
    page.wait_for_timeout(400)
    for i in range(balls):  # sideways, and at rest before it moves
        x, y = 0.15 + 0.1 * (i % 4), 0.1 + 0.09 * (i % 5)
        if i % 4:
            finger.drag("range", (x, y), (x + 0.35, y + 0.03))
        else:
            finger.drag("range", (x, y), (x, y + 0.3), rest_ms=220)
        page.get_by_role("button", name="Next ball").tap()
    expect(tape).to_have_count(before + balls)
