"""axe finds nothing on any page, in the sun and in the bay."""

import json
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_journeys import open_lesson_of

pytestmark = pytest.mark.browser
AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"

STILL = """() => new Promise((done) => {
    const until = performance.now() + 600
    const fades = () => document.getAnimations().some((a) => a.playState === 'running')
    const look = () =>
        fades() && performance.now() < until ? requestAnimationFrame(look) : setTimeout(done, 50)
    setTimeout(look, 100)
})"""
"""Vuetify fades in: colours are judged once they are there."""


def violations(page: Page) -> list[Any]:
    page.evaluate(STILL)
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text(encoding="utf-8") + "; null")  # not as the page's own script
    only = "{ resultTypes: ['violations'] }"
    found = page.evaluate(f"axe.run({only}).then((result) => result.violations)")
    return [(v["id"], [n["target"] for n in v["nodes"]][:4]) for v in found]


@pytest.fixture(params=["sun", "bay"])
def lit(page: Page, request: pytest.FixtureRequest) -> Page:
    kept = json.dumps({"mode": request.param})
    page.add_init_script(f"localStorage.setItem('firm-footing-settings', '{kept}')")
    return page


def open_lesson(page: Page, name: str) -> None:
    open_lesson_of(page, name)
    expect(page.get_by_test_id("causes")).to_be_visible()


def test_the_day_and_a_new_student(lit: Page) -> None:
    lit.goto("/")
    expect(lit.get_by_role("heading", name="Students")).to_be_visible()
    assert violations(lit) == []
    lit.get_by_role("button", name="New student").click()
    expect(lit.get_by_label("Name")).to_be_visible()
    assert violations(lit) == []


def test_a_student(lit: Page) -> None:
    lit.goto("/")
    lit.get_by_role("searchbox", name="Find a student").fill("wend")
    lit.get_by_role("region", name="Students").get_by_role("link", name="Wendel Carrow").click()
    expect(lit.get_by_role("heading", name="Wendel Carrow")).to_be_visible()
    assert violations(lit) == []


def test_the_shots_of_a_lesson(lit: Page) -> None:
    open_lesson(lit, "Oda Brack")
    lit.get_by_test_id("causes").locator("li.cause").first.get_by_role("button").first.click()
    assert violations(lit) == []
    lit.get_by_role("list", name="Balls").get_by_role("button").first.click()
    assert violations(lit) == []
    lit.keyboard.press("?")
    assert violations(lit) == []


def test_the_looks_of_a_lesson(lit: Page) -> None:
    open_lesson(lit, "Jory Pask")
    lit.get_by_role("link", name="Look").click()
    expect(lit.get_by_role("heading", name="Set-up")).to_be_visible()
    assert violations(lit) == []


def test_the_lesson_as_a_whole_and_the_settings(lit: Page) -> None:
    open_lesson(lit, "Oda Brack")
    lit.get_by_role("button", name="This lesson").click()
    expect(lit.get_by_role("link", name="Save as case file")).to_be_visible()
    assert violations(lit) == []
    lit.keyboard.press("Escape")
    lit.get_by_role("button", name="Settings").click()
    expect(lit.get_by_text("Distances")).to_be_visible()
    assert violations(lit) == []


def test_an_address_that_leads_nowhere(lit: Page) -> None:
    lit.goto("/no/such/page")
    expect(lit.get_by_text("There is no such page.")).to_be_visible()
    assert violations(lit) == []


def test_what_the_balls_show(lit: Page) -> None:
    open_lesson(lit, "Wendel Carrow")
    lit.get_by_role("button", name="Read", exact=True).click()
    expect(lit.get_by_test_id("lost")).to_be_visible()
    assert violations(lit) == []
    lit.get_by_role("button", name="Ball 3").click()
    expect(lit.get_by_test_id("lost")).to_contain_text("Ball 3:")
    assert violations(lit) == []


def test_a_table_of_balls(lit: Page) -> None:
    open_lesson(lit, "Bastian Roe")
    lit.get_by_role("button", name="This lesson").click()
    lit.get_by_role("button", name="Bring in balls from a table").click()
    expect(lit.get_by_role("dialog")).to_be_visible()
    assert violations(lit) == []
    table = "Carry [yd];Start [deg];Face\n120;2;1\nbad;1;1\n"
    lit.get_by_label("Table of balls").set_input_files(
        {"name": "t.csv", "mimeType": "text/csv", "buffer": table.encode()}
    )
    expect(lit.get_by_test_id("would")).to_be_visible()
    assert violations(lit) == []


def test_pressure_with_a_mat_and_without(lit: Page) -> None:
    open_lesson(lit, "Jory Pask")
    lit.get_by_role("link", name="Pressure").click()
    expect(lit.get_by_test_id("pressure-curve")).to_be_visible()
    assert violations(lit) == []
    lit.get_by_label("Ask the feel first").check()
    expect(lit.get_by_test_id("cover")).to_be_visible()
    assert violations(lit) == []
    lit.get_by_role("button", name="No mat").click()
    expect(lit.get_by_test_id("feel-pads")).to_be_visible()
    assert violations(lit) == []


@pytest.mark.parametrize(
    ("name", "stage"),
    [
        ("Oda Brack", "Listen"),
        ("Marit Halloway", "Listen"),
        ("Fenn Tallow", "Retest"),
        ("Petra Lunn", "Send"),
        ("Oda Brack", "Decide"),
        ("Tilda Munge", "Drill"),
        ("Wendel Carrow", "Retest"),
        ("Wendel Carrow", "Send"),
    ],
)
def test_the_stages_around_the_shots(lit: Page, name: str, stage: str) -> None:
    open_lesson_of(lit, name)
    lit.get_by_role("navigation", name="Stages").get_by_role("link", name=stage).click()
    expect(lit.get_by_role("region", name=stage)).to_be_visible()
    assert violations(lit) == []


def test_the_casebook_and_the_map(lit: Page) -> None:
    lit.goto("/casebook")
    expect(lit.get_by_test_id("casebook-sum")).to_be_visible()
    assert violations(lit) == []
    lit.goto("/map")
    expect(lit.get_by_test_id("cause-map")).to_be_visible()
    assert violations(lit) == []
    lit.get_by_role("button", name="Fat", exact=True).click()
    assert violations(lit) == []
    lit.get_by_text("All causes as a list").click()
    lit.get_by_test_id("cause-late_shift").locator("summary").click()
    assert violations(lit) == []
    lit.goto("/settings")
    expect(lit.get_by_label("Heel and toe").first).to_be_visible()
    assert violations(lit) == []


SIZES = ((1180, 820), (820, 1180), (390, 844))


def test_every_page_at_the_other_sizes(lit: Page) -> None:
    day = lit.request.get("/api/day").json()
    lesson = next(x for x in day["lessons"] if x["student_name"] == "Petra Lunn")
    stages = ("listen", "shots", "look", "pressure", "decide", "drill", "retest", "send")
    pages = [
        "/", "/casebook", "/map", "/settings", f"/students/{lesson['student_id']}",
        *(f"/lessons/{lesson['id']}/{stage}" for stage in stages),
    ]  # fmt: skip
    found = {}
    for path in pages:
        lit.goto(path)
        lit.locator("main, .lesson").first.wait_for()
        lit.wait_for_timeout(300)
        for width, height in SIZES:
            lit.set_viewport_size({"width": width, "height": height})
            if wrong := violations(lit):
                found[path, width] = wrong
    assert found == {}
