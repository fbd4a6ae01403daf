"""A film under the ruler, in a real browser: events found, points touched, the ranking moved."""

import json
import re
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect
from typer.testing import CliRunner

from firm_footing.cli.main import app
from firm_footing.core.knowledge import Knowledge
from tests.browser.test_accessibility import violations

pytestmark = pytest.mark.browser
FINDS_MS = 90_000


@pytest.fixture(scope="module")
def swing(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Someone whose trail heel pops up, seen down the line at 60 pictures a second."""
    out = tmp_path_factory.mktemp("film") / "swing.mp4"
    what = ["--cause", "trail_heel_pops", "--fps", "60", "--height", "640", "--seed", "5"]
    done = CliRunner().invoke(app, ["film", "--out", str(out), *what])
    assert done.exit_code == 0, done.output
    return out


def ruler_of(page: Page, name: str) -> None:
    day = page.request.get("/api/day").json()
    lesson = next(x["id"] for x in day["lessons"] if x["student_name"] == name)
    page.goto(f"/lessons/{lesson}/look")
    expect(page.get_by_test_id("next-look")).to_be_visible()
    page.get_by_role("group", name="By eye or on film").get_by_role("button", name="Film").tap()


def touch(page: Page, place: list[float], size: dict[str, Any]) -> None:
    box = page.get_by_test_id("film-picture").bounding_box()
    assert box
    x = box["x"] + place[0] / size["width"] * box["width"]
    page.mouse.click(x, box["y"] + place[1] / size["height"] * box["height"])


def test_a_film_is_measured_picture_by_picture(
    page: Page, swing: Path, knowledge: Knowledge
) -> None:
    truth = json.loads(swing.with_suffix(".truth.json").read_text())
    marks = truth["marks"]
    ruler_of(page, "Bastian Roe")
    page.locator("input[type=file]").set_input_files(swing)
    shown = page.get_by_test_id("film-frame")
    expect(shown).to_contain_text("0 · 0.000 s", timeout=20_000)
    page.get_by_role("button", name="One picture on").tap()
    page.get_by_role("region", name="Film").press("PageDown")
    expect(shown).to_contain_text("11 · 0.183 s")
    page.get_by_role("button", name="Find the events").tap()
    events = page.get_by_role("group", name="Events of the swing")
    impact = events.get_by_role("button", name="Impact")
    expect(impact).to_contain_text(re.compile(r"\d"), timeout=FINDS_MS)
    found = int(re.findall(r"\d+", impact.inner_text())[0])
    assert abs(found - truth["events"]["impact"]) <= 2
    page.get_by_role("button", name="Touch the scale").tap()
    for end in (marks["scale"]["start"], marks["scale"]["end"]):
        touch(page, end, marks)
    page.get_by_role("button", name="Touch the ground").tap()
    for end in marks["ground"]:
        touch(page, end, marks)
    ids = {p.ask: p.id for p in knowledge.film.points}
    asked = page.get_by_test_id("film-asked")
    for _ in range(6):
        said = asked.inner_text()
        frame = int(shown.inner_text().split()[0])
        touch(page, truth["points"][ids[said]][frame], marks)
        expect(page.get_by_test_id("saved")).to_have_text("Saved")
    page.get_by_role("button", name="Measure trail heel off the ground, arm level down").tap()
    expect(asked).to_have_text(knowledge.film.point["trail_heel"].ask)
    touch(page, truth["points"]["trail_heel"][int(shown.inner_text().split()[0])], marks)
    measured = page.get_by_test_id("film-measures")
    row = measured.get_by_role("listitem").filter(has_text="trail heel off the ground, arm level")
    expect(row).to_contain_text("trail heel up early: yes")
    expect(page.get_by_test_id("causes")).to_contain_text("Trail heel leaves the ground early")
    page.get_by_test_id("undo").tap()
    expect(row.get_by_role("button", name=re.compile("Measure"))).to_be_visible()
    # what was touched wrongly is dragged to where it is; the same file goes on where it was left
    events.get_by_role("button", name="Address").tap()
    mark = page.get_by_test_id("film-point").first.locator("circle")
    before = mark.bounding_box()
    assert before
    page.mouse.move(before["x"] + before["width"] / 2, before["y"] + before["height"] / 2)
    page.mouse.down()
    page.mouse.move(before["x"] + 40, before["y"] + 30, steps=4)
    page.mouse.up()
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    after = mark.bounding_box()
    assert after
    assert after["x"] - before["x"] > 25
    page.get_by_role("button", name="Put this film away").tap()
    page.locator("input[type=file]").set_input_files(swing)
    expect(impact).to_contain_text(str(found), timeout=20_000)
    page.get_by_role("button", name="Put this film away").tap()
    page.get_by_role("button", name="Delete marks of swing.mp4").tap()
    expect(page.get_by_text("Marked already")).to_be_hidden()


def test_nothing_hinders_a_reader_and_a_field_has_its_own_arrows(page: Page, swing: Path) -> None:
    ruler_of(page, "Bastian Roe")
    page.locator("input[type=file]").set_input_files(swing)
    shown = page.get_by_test_id("film-frame")
    expect(shown).to_contain_text("0 · ", timeout=20_000)
    assert violations(page) == []
    page.get_by_role("slider", name="Picture").press("ArrowRight")
    expect(shown).to_contain_text("1 · ")
    page.get_by_label("Its length, cm").press("ArrowRight")
    expect(shown).to_contain_text("1 · ")


def test_what_is_no_film_says_so_and_nothing_is_lost(page: Page, tmp_path: Path) -> None:
    words = tmp_path / "notes.mp4"
    words.write_text("no film at all")
    ruler_of(page, "Wendel Carrow")
    page.locator("input[type=file]").set_input_files(words)
    expect(page.get_by_role("alert")).to_contain_text("cannot play this file", timeout=20_000)
    expect(page.get_by_text("Where did the camera stand?")).to_be_visible()


def test_films_marked_before_are_listed(page: Page) -> None:
    ruler_of(page, "Corin Abbot")
    expect(page.get_by_role("region", name="Film")).to_contain_text("16 measures")
    expect(page.get_by_role("region", name="Film")).to_contain_text("14 measures")
    assert violations(page) == []
