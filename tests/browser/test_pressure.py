"""Pressure on the screen: a trace comes in, an event is dragged, the mat is live, feel first."""

import re
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.browser.choosing import choose
from tests.browser.conftest import ROOT, Finger
from tests.browser.test_balls import lesson_of
from tests.browser.test_journeys import open_lesson_of, own_copy_of, saved
from tests.core.swings import SEEN, swing


def table(sign: str, folder: Path) -> Path:
    """A left foot's share with decimal commas, a column nobody knows and a slip in row 42."""
    rows = np.array(swing(changed=SEEN[sign], named=(), rate_hz=100).samples)
    lines = [f"{t * 1000:.0f};{share:.1f};9".replace(".", ",") for t, share in rows]
    lines[40] = "-1200;slip;9"
    path = folder / "swing.csv"
    path.write_text("time_ms;left_pct;battery\n" + "\n".join(lines), encoding="utf-8-sig")
    return path


def bring_in(page: Page, path: Path) -> None:
    page.get_by_role("link", name="Pressure").tap()
    page.get_by_label("Table of samples").set_input_files(path)
    preview = page.get_by_test_id("trace-preview")
    expect(preview).to_contain_text("241 samples · 100 a second · 2.4 s · not read: battery")
    expect(preview).to_contain_text("Line 42, left_pct “slip”: not a number")
    page.get_by_test_id("keep-trace").tap()
    expect(preview).to_have_count(0)
    expect(page.get_by_test_id("pressure-curve")).to_be_visible()


def test_an_event_is_dragged_and_the_sign_goes(page: Page, finger: Finger, tmp_path: Path) -> None:
    own_copy_of(page, "Bastian Roe")
    bring_in(page, table("retreat", tmp_path))
    signs = page.get_by_test_id("signs")
    expect(signs).to_contain_text(
        re.compile(r"Backs up before impact: falls from 7\d to 6\d % before impact")
    )
    expect(page.get_by_test_id("causes").locator("li").first).not_to_be_empty()
    curve, handle = (
        page.get_by_test_id(name).bounding_box() for name in ("pressure-curve", "event-impact")
    )
    assert curve
    assert handle
    impact = (handle["x"] + handle["width"] / 2 - curve["x"]) / curve["width"]
    finger.drag("pressure-curve", (impact, 0.5), (impact - 0.1, 0.5))
    expect(signs).not_to_contain_text("Backs up before impact")
    saved(page)
    page.get_by_test_id("undo").click()  # Chromium now and then swallows a tap right after a drag
    expect(signs).to_contain_text("Backs up before impact")
    # by keyboard: five thousandths of a second for each press
    page.get_by_test_id("event-impact").focus()
    page.keyboard.press("ArrowLeft")
    expect(page.get_by_test_id("event-impact")).to_have_attribute("aria-valuenow", "-0.005")
    expect(page.get_by_test_id("event-impact")).to_have_attribute("aria-label", "Impact, given")


def test_every_drawing_shows_the_same_moment(page: Page, tmp_path: Path) -> None:
    own_copy_of(page, "Bastian Roe")
    bring_in(page, table("retreat", tmp_path))
    curve, impact = (
        page.get_by_test_id(name).bounding_box() for name in ("pressure-curve", "event-impact")
    )
    assert curve
    assert impact
    middle = impact["x"] + impact["width"] / 2
    page.mouse.click(middle - 14, curve["y"] + curve["height"] - 8)
    at = float(page.get_by_test_id("moment").inner_text().split()[0].replace("−", "-"))
    assert -0.03 < at < 0
    page.get_by_test_id("event-impact").press("ArrowRight")  # moves impact, not the moment
    saved(page)
    lead = page.get_by_test_id("footprints").get_attribute("aria-label")
    assert lead is not None
    share = int(lead.split()[0])
    rows = np.array(swing(changed=SEEN["retreat"], named=(), rate_hz=100).samples)
    assert share == pytest.approx(np.interp(at, rows[:, 0], rows[:, 1]), abs=3)
    expect(page.get_by_test_id("footprints")).to_contain_text(f"Lead {share} %")
    before = page.get_by_test_id("moment").inner_text()
    page.get_by_test_id("play").tap()
    expect(page.get_by_test_id("moment")).not_to_have_text(before)


def test_the_simulated_mat_is_seen_live(page: Page, base_url: str) -> None:
    own_copy_of(page, "Oda Brack")
    page.get_by_role("link", name="Pressure").tap()
    expect(page.get_by_text("No pressure trace yet.")).to_be_visible()
    command = [
        sys.executable, "-m", "firm_footing", "mat", "--url", base_url, "--swings", "3",
        "--every", "0.1", "--cause", "backs_up", "--lesson", lesson_of(page)["id"],
    ]  # fmt: skip
    said = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=True)
    assert "swing 3:" in said.stdout
    tape = page.get_by_role("group", name="Traces").get_by_role("button")
    expect(tape).to_have_count(3)
    expect(page.get_by_role("link", name="Pressure, begun")).to_be_visible()
    expect(page.get_by_test_id("signs")).to_contain_text("Backs up before impact")
    expect(page.get_by_test_id("trace-answers")).to_contain_text("lead pressure peaks")
    tape.first.tap()
    choose(page, "Laid under", "swing 2")
    expect(page.get_by_test_id("under")).to_have_count(1)


def test_the_feel_comes_first_and_the_trace_shows_where_it_differs(
    page: Page, tmp_path: Path
) -> None:
    own_copy_of(page, "Bastian Roe")
    page.get_by_role("link", name="Pressure").tap()
    page.get_by_label("Ask the feel first").check()
    page.get_by_label("Table of samples").set_input_files(table("never_left", tmp_path))
    page.get_by_test_id("keep-trace").tap()
    cover = page.get_by_test_id("cover")
    expect(cover).to_be_visible()
    expect(page.get_by_test_id("pressure-curve")).to_have_count(0)
    expect(page.get_by_test_id("uncover")).to_have_text("Show it unasked")
    half = cover.get_by_role("group", name="At the ball, which foot carried more?")
    half.get_by_role("button", name="Lead foot").tap()
    expect(page.get_by_test_id("uncover")).to_have_text("Show the trace")
    page.get_by_test_id("uncover").tap()
    expect(page.get_by_test_id("signs")).to_contain_text("Pressure stays on the trail foot")
    expect(page.get_by_test_id("trace-answers")).to_contain_text("feel says otherwise")


def test_without_a_mat_there_are_feel_tests_and_some_are_kept_back(page: Page) -> None:
    open_lesson_of(page, "Wendel Carrow", "pressure")
    page.get_by_role("button", name="No mat").tap()
    expect(page.get_by_test_id("feel-halved_balls")).to_contain_text(
        "Not for this student: balance flagged"
    )
    pads = page.get_by_test_id("feel-pads")
    expect(pads).to_contain_text("Lay one pad under the lead toes")
    pads.get_by_role("group").first.get_by_role("button", name="Yes").tap()
    saved(page)
    answers = {(a["check_id"], a["source"], a["answer"]) for a in lesson_of(page)["answers"]}
    assert ("toes_going_back", "feel", "yes") in answers
    page.get_by_test_id("undo").tap()
    saved(page)
    assert not any(a["source"] == "feel" for a in lesson_of(page)["answers"])
