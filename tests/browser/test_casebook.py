"""The casebook learns by itself: what came back counts, and goes with the student."""

import re
from datetime import UTC, datetime
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.test_journeys import own_copy_of, saved
from tests.browser.test_whole_lesson import lesson_of, stage


def outcomes(page: Page) -> int:
    return int(page.request.get("/api/casebook/learned").json()["outcomes"])


def until(page: Page, count: int) -> None:
    """What was learned is made anew by itself, a moment after a change."""
    for _ in range(60):
        if outcomes(page) == count:
            break
        page.wait_for_timeout(500)
    assert outcomes(page) == count


def test_what_comes_back_is_learned_from_and_goes_with_the_student(page: Page) -> None:
    page.goto("/casebook/learned")
    expect(page.get_by_test_id("moved-early_lead_rush")).to_contain_text("→")
    before = outcomes(page)
    assert before >= 10
    own_copy_of(page, "Tilda Munge")
    stage(page, "Decide")
    page.locator("[data-testid^=compare-]").first.get_by_test_id("decide").tap()
    saved(page)
    student = lesson_of(page)["student"]["id"]
    lesson: dict[str, Any] = lesson_of(page)
    verdict = {"due_on": datetime.now(UTC).date().isoformat(), "verdict": "confirmed"}
    page.request.post(
        f"/api/lessons/{lesson['id']}/changes", data={"kind": "follow-up", "body": verdict}
    )
    until(page, before + 1)
    page.goto("/casebook/learned")
    expect(page.get_by_test_id("learned")).to_contain_text(f"{before + 1} outcomes of")
    page.goto(f"/students/{student}")
    page.get_by_role("button", name="Delete this student").tap()
    page.get_by_role("button", name="Delete for good").tap()
    expect(page).to_have_url(re.compile(r"/$"))
    until(page, before)
    page.goto("/casebook/learned")
    expect(page.get_by_test_id("learned")).to_contain_text(f"{before} outcomes of")


def test_a_number_is_held_still_and_moves_again(page: Page) -> None:
    page.goto("/casebook/learned")
    row = page.get_by_test_id("moved-early_lead_rush")
    row.get_by_role("button", name=re.compile("Hold it still")).tap()
    expect(row).to_contain_text("held as shipped")
    page.reload()
    row.get_by_role("button", name=re.compile("Let it move")).tap()
    expect(row).not_to_contain_text("held as shipped")
    page.goto("/settings")
    switch = page.get_by_label("Rankings and drills use what your lessons taught")
    switch.tap()
    expect(switch).not_to_be_checked()
    page.reload()
    expect(switch).not_to_be_checked()
    switch.tap()
    expect(switch).to_be_checked()


def test_the_keyboard_goes_on_where_it_was(page: Page) -> None:
    page.goto("/casebook/learned")
    row = page.get_by_test_id("moved-early_lead_rush")
    row.get_by_role("button").focus()
    page.keyboard.press("Enter")
    expect(row).to_contain_text("held as shipped")
    page.keyboard.press("Enter")
    expect(row).not_to_contain_text("held as shipped")
    switch = page.get_by_label("Rankings and drills use what your lessons taught")
    switch.focus()
    for on in (False, True):
        page.keyboard.press("Space")
        expect(switch).to_be_checked(checked=on)
        page.wait_for_load_state("networkidle")
    page.get_by_role("button", name="Begin anew from today").focus()
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("learned")).to_contain_text("is known yet")
    expect(page.get_by_test_id("learned")).to_contain_text("teach nothing")
    page.keyboard.press("Enter")
    expect(row).to_be_visible()
    expect(page.get_by_role("button", name="Begin anew from today")).to_be_focused()
