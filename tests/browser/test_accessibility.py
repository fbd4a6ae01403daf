"""axe finds nothing on any page, in the sun and in the bay."""

from collections.abc import Sequence
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_journeys import lessons_of, open_lesson_of
from tests.sizes import WHOLE

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"

STILL = """() => new Promise((done) => {
    const until = performance.now() + 600
    const fades = () => document.getAnimations().some((a) => a.playState === 'running')
    const look = () =>
        fades() && performance.now() < until ? requestAnimationFrame(look) : setTimeout(done, 50)
    setTimeout(look, 100)
})"""
"""Vuetify fades in: colours are judged once they are there."""


LIGHTS = {
    "sun": "{ resultTypes: ['violations'] }",
    "bay": "{ resultTypes: ['violations'], runOnly: ['color-contrast', 'link-in-text-block'] }",
}
"""What is looked for in each: another light changes nothing but colours."""
LIT = """(light) => {
    const { $pinia } = document.querySelector('#app').__vue_app__.config.globalProperties
    $pinia.state.value.settings.mode = light
}"""
Size = tuple[int, int] | None


def violations(page: Page, sizes: Sequence[Size] = (None,)) -> dict[tuple[str, Size], list[Any]]:
    """What axe finds in either light, at each size; None is the size as it is."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text(encoding="utf-8") + "; null")  # not as the page's own script
    found = {}
    for light, looked_for in LIGHTS.items():
        page.evaluate(LIT, light)
        assert page.locator(f".v-application.v-theme--{light}").count() == 1
        for size in sizes:
            if size is not None:
                page.set_viewport_size({"width": size[0], "height": size[1]})
            page.evaluate(STILL)
            wrong = page.evaluate(f"axe.run({looked_for}).then((result) => result.violations)")
            if wrong:
                found[light, size] = [
                    (v["id"], [n["target"] for n in v["nodes"]][:4]) for v in wrong
                ]
    return found


def open_lesson(page: Page, name: str) -> None:
    open_lesson_of(page, name)
    expect(page.get_by_test_id("causes")).to_be_visible()


def test_the_day_and_a_new_student(page: Page) -> None:
    page.goto("/")
    expect(page.get_by_role("heading", name="Students")).to_be_visible()
    assert violations(page) == {}
    page.get_by_role("button", name="New student").click()
    expect(page.get_by_label("Name")).to_be_visible()
    assert violations(page) == {}


def test_a_student(page: Page) -> None:
    page.goto("/")
    page.get_by_role("searchbox", name="Find a student").fill("wend")
    page.get_by_role("region", name="Students").get_by_role("link", name="Wendel Carrow").click()
    expect(page.get_by_role("heading", name="Wendel Carrow")).to_be_visible()
    assert violations(page) == {}


def test_the_shots_of_a_lesson(page: Page) -> None:
    open_lesson(page, "Oda Brack")
    page.get_by_test_id("causes").locator("li.cause").first.get_by_role("button").first.click()
    assert violations(page) == {}
    page.get_by_role("list", name="Balls").get_by_role("button").first.click()
    assert violations(page) == {}
    page.keyboard.press("?")
    assert violations(page) == {}


def test_the_looks_of_a_lesson(page: Page) -> None:
    open_lesson(page, "Jory Pask")
    page.get_by_role("link", name="Look").click()
    expect(page.get_by_role("heading", name="Set-up")).to_be_visible()
    assert violations(page) == {}


def test_the_lesson_as_a_whole_and_the_settings(page: Page) -> None:
    open_lesson(page, "Oda Brack")
    page.get_by_role("button", name="This lesson").click()
    expect(page.get_by_role("link", name="Save as case file")).to_be_visible()
    assert violations(page) == {}
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Settings").click()
    expect(page.get_by_text("Distances")).to_be_visible()
    assert violations(page) == {}


def test_an_address_that_leads_nowhere(page: Page) -> None:
    page.goto("/no/such/page")
    expect(page.get_by_text("There is no such page.")).to_be_visible()
    assert violations(page) == {}


def test_what_the_balls_show(page: Page) -> None:
    open_lesson(page, "Wendel Carrow")
    page.get_by_role("button", name="Read", exact=True).click()
    expect(page.get_by_test_id("lost")).to_be_visible()
    assert violations(page) == {}
    page.get_by_role("button", name="Ball 3").click()
    expect(page.get_by_test_id("lost")).to_contain_text("Ball 3:")
    assert violations(page) == {}


def test_a_table_of_balls(page: Page) -> None:
    open_lesson(page, "Bastian Roe")
    page.get_by_role("button", name="This lesson").click()
    page.get_by_role("button", name="Bring in balls from a table").click()
    expect(page.get_by_role("dialog")).to_be_visible()
    assert violations(page) == {}
    table = "Carry [yd];Start [deg];Face\n120;2;1\nbad;1;1\n"
    page.get_by_label("Table of balls").set_input_files(
        {"name": "t.csv", "mimeType": "text/csv", "buffer": table.encode()}
    )
    expect(page.get_by_test_id("would")).to_be_visible()
    assert violations(page) == {}


def test_pressure_with_a_mat_and_without(page: Page) -> None:
    page.goto(f"/lessons/{lessons_of(page, 'Jory Pask')[-1]}/pressure")  # another test may add one
    expect(page.get_by_test_id("pressure-curve")).to_be_visible()
    assert violations(page) == {}
    page.get_by_label("Ask the feel first").check()
    expect(page.get_by_test_id("cover")).to_be_visible()
    assert violations(page) == {}
    page.get_by_role("button", name="No mat").click()
    expect(page.get_by_test_id("feel-pads")).to_be_visible()
    assert violations(page) == {}


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
def test_the_stages_around_the_shots(page: Page, name: str, stage: str) -> None:
    open_lesson_of(page, name)
    page.get_by_role("navigation", name="Stages").get_by_role("link", name=stage).click()
    expect(page.get_by_role("region", name=stage)).to_be_visible()
    assert violations(page) == {}


def test_the_casebook_and_the_map(page: Page) -> None:
    page.goto("/casebook")
    expect(page.get_by_role("row").nth(1)).to_be_visible()
    assert violations(page) == {}
    for part, shown in (
        ("Am I right?", "By ball flight"),
        ("What pays", "Minutes, on average"),
        ("What was learned", "Rankings and drills use what your lessons taught"),
    ):
        page.get_by_role("link", name=part).click()
        expect(page.get_by_text(shown)).to_be_visible()
        assert violations(page) == {}
    page.goto("/map")
    expect(page.get_by_test_id("cause-map")).to_be_visible()
    assert violations(page) == {}
    page.get_by_role("button", name="Fat", exact=True).click()
    assert violations(page) == {}
    page.get_by_text("All causes as a list").click()
    page.get_by_test_id("cause-late_shift").locator("summary").click()
    assert violations(page) == {}
    page.goto("/settings")
    expect(page.get_by_label("Heel and toe").first).to_be_visible()
    assert violations(page) == {}


SIZES = ((1180, 820), (820, 1180), (390, 844))


@pytest.mark.parametrize("half", [0, 1])
def test_every_page_at_the_other_sizes(page: Page, half: int) -> None:
    """On a phone and on a tablet held either way; in part: every page at one of them."""
    day = page.request.get("/api/day").json()
    lesson = next(x for x in day["lessons"] if x["student_name"] == "Petra Lunn")
    stages = ("listen", "shots", "look", "pressure", "decide", "drill", "retest", "send")
    pages = [
        "/", "/casebook", "/map", "/settings", f"/students/{lesson['student_id']}",
        *(f"/lessons/{lesson['id']}/{stage}" for stage in stages),
    ]  # fmt: skip
    found = {}
    for i, path in enumerate(pages[half::2]):
        sizes = SIZES if WHOLE else (SIZES[(half + i) % 3],)
        page.goto(path)
        page.locator("main, .lesson").first.wait_for()
        page.wait_for_timeout(300)
        if wrong := violations(page, sizes):
            found[path] = wrong
    assert found == {}
