"""A film under the ruler, in a real browser: events found, points touched, the ranking moved."""

import json
import math
import re
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from playwright.sync_api import Page, expect
from typer.testing import CliRunner

from firm_footing.cli.main import app
from firm_footing.core.case import Film
from firm_footing.core.knowledge import Knowledge
from tests.browser.choosing import choose_containing
from tests.browser.odd_films import write_bad, write_odd
from tests.browser.test_accessibility import violations
from tests.browser.test_journeys import newest_lesson_of, own_copy_of

FINDS_MS = 90_000


def rendered(out: Path, *what: str) -> Path:
    done = CliRunner().invoke(
        app, ["film", "--out", str(out), "--height", "640", "--seed", "5", *what]
    )
    assert done.exit_code == 0, done.output
    return out


@pytest.fixture(scope="module")
def films(tmp_path_factory: pytest.TempPathFactory) -> Path:
    return tmp_path_factory.mktemp("film")


@pytest.fixture(scope="module")
def swing(films: Path) -> Path:
    """Someone whose trail heel pops up, seen down the line at 60 pictures a second."""
    return rendered(films / "swing.mp4", "--cause", "trail_heel_pops", "--fps", "60")


@pytest.fixture(scope="module")
def face_on(films: Path) -> Path:
    """The same swing from the front, twice as fast."""
    what = ("--cause", "trail_heel_pops", "--fps", "120", "--view", "face_on")
    return rendered(films / "front.mp4", *what)


@pytest.fixture(scope="module")
def sound(films: Path) -> Path:
    """The same player without the cause."""
    return rendered(films / "sound.mp4", "--fps", "60")


def ruler_of(page: Page, name: str) -> None:
    page.goto(f"/lessons/{newest_lesson_of(page, name)}/look")
    expect(page.get_by_test_id("next-look")).to_be_visible()
    page.get_by_role("group", name="By eye or on film").get_by_role("button", name="Film").tap()


def touch(page: Page, place: list[float], size: dict[str, Any]) -> int:
    """Touch a place once its picture is there, nearer first where it is small; the touches."""
    wanted = page.get_by_test_id("film-frame").inner_text().split()[0]
    expect(page.locator(".picture")).to_have_attribute("data-shown", wanted)
    pane, picture = page.locator(".pane"), page.get_by_test_id("film-picture")
    for touches in (1, 2, 3):
        box, room = picture.bounding_box(), pane.bounding_box()
        assert box
        assert room
        x = box["x"] + place[0] / size["width"] * box["width"]
        y = box["y"] + place[1] / size["height"] * box["height"]
        if not (0 < x - room["x"] < room["width"] and 0 < y - room["y"] < room["height"]):
            page.get_by_role("button", name="Whole picture").tap()
            continue
        is_exact = pane.get_attribute("data-exact") == "true"
        page.mouse.click(x, y)
        if is_exact:
            return touches
    raise AssertionError(place)


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
    # the stick lies on the ground: that is level too
    expect(page.get_by_role("button", name="Ground again")).to_be_visible()
    ids = {p.ask: p.id for p in knowledge.film.points}
    asked = page.get_by_test_id("film-asked")
    # a point belongs to its own picture: on another one a touch is nothing
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    page.wait_for_timeout(1000)
    own = shown.inner_text().split()[0]
    page.get_by_role("button", name="One picture on").tap()
    expect(asked).to_contain_text("Next, on another picture")
    touch(page, marks["scale"]["start"], marks)
    expect(page.get_by_test_id("film-point")).to_have_count(0)
    page.get_by_role("button", name="Show it").tap()
    expect(shown).to_contain_text(f"{own} · ")
    # what tells most is asked for first, until it is enough
    touches = 0
    for _ in range(12):
        expect(page.get_by_test_id("saved")).to_have_text("Saved")
        page.wait_for_timeout(300)
        said = asked.inner_text()
        if said not in ids:
            break
        frame = int(shown.inner_text().split()[0])
        touches += touch(page, truth["points"][ids[said]][frame], marks)
    assert touches >= 2
    measured = page.get_by_test_id("film-measures")
    row = measured.get_by_role("listitem").filter(has_text="trail heel off the ground, arm level")
    expect(row).to_contain_text("trail heel up early: yes")
    # what tells nothing is measured all the same when that is asked for, and taken back
    page.get_by_role("button", name="Measure trail heel off the ground, top").tap()
    expect(asked).to_have_text(knowledge.film.point["trail_heel"].ask)
    touch(page, truth["points"]["trail_heel"][int(shown.inner_text().split()[0])], marks)
    at_top = measured.get_by_role("listitem").filter(has_text="trail heel off the ground, top")
    expect(at_top).to_contain_text("±")
    page.get_by_test_id("undo").tap()
    expect(at_top.get_by_role("button", name=re.compile("Measure"))).to_be_visible()
    # the decision comes back once nothing is touched any more
    expect(page.get_by_test_id("causes")).to_have_count(0)
    use(page, "Before and after")
    expect(page.get_by_test_id("causes")).to_contain_text("Trail heel leaves the ground early")
    use(page, "Measure")
    # what was touched wrongly is dragged to where it is; the same file goes on where it was left
    events.get_by_role("button", name="Address").tap()
    mark = page.get_by_test_id("film-point").first.locator("circle")
    mark.scroll_into_view_if_needed()  # once it stands still: the picture may still be laid out
    before = mark.bounding_box()
    assert before
    page.mouse.move(before["x"] + before["width"] / 2, before["y"] + before["height"] / 2)
    page.mouse.down()
    page.mouse.move(before["x"] + 40, before["y"] + 30, steps=4)
    page.mouse.up()
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    after = mark.bounding_box()
    assert after
    assert after["x"] - before["x"] > 15
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
    assert violations(page) == {}
    page.get_by_role("slider", name="Picture").press("ArrowRight")
    expect(shown).to_contain_text("1 · ")
    length = page.get_by_label("Its length, cm")
    length.press("ArrowRight")
    expect(shown).to_contain_text("1 · ")
    for wrong in ("5000", "a yard", "0"):  # what does not fit is said, and what was there stays
        length.fill(wrong)
        length.press("Enter")
        expect(length).to_have_value("100")
        expect(length).to_have_js_property(
            "validationMessage", f"“{wrong}” is not a number from 0.1 to 1000; 100 was kept."
        )


def test_on_a_phone_what_is_to_be_touched_comes_into_sight(page: Page, sound: Path) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    ruler_of(page, "Bastian Roe")
    page.locator("input[type=file]").set_input_files(sound)
    expect(page.get_by_test_id("film-frame")).to_contain_text("0 · ", timeout=20_000)
    page.get_by_text("Save the file").scroll_into_view_if_needed()
    picture, asked = page.get_by_test_id("film-picture"), page.get_by_test_id("film-asked")
    expect(picture).not_to_be_in_viewport()
    page.get_by_role("button", name="Touch the scale").tap()
    expect(asked).to_have_text("Touch one end of what gives the scale.")
    for thing in (asked, picture):
        expect(thing).to_be_in_viewport(ratio=0.95)


def test_what_is_no_film_says_so_and_nothing_is_lost(page: Page, tmp_path: Path) -> None:
    words = tmp_path / "notes.mp4"
    words.write_text("no film at all")
    ruler_of(page, "Wendel Carrow")
    page.locator("input[type=file]").set_input_files(words)
    expect(page.get_by_role("alert")).to_contain_text("cannot play this file", timeout=20_000)
    expect(page.get_by_text("Where did the camera stand?")).to_be_visible()


def test_of_two_films_brought_at_once_the_first_opens_and_the_other_is_named(
    page: Page, sound: Path, tmp_path: Path
) -> None:
    other = tmp_path / "other.mp4"
    other.write_bytes(sound.read_bytes())
    words = tmp_path / "notes.mp4"
    words.write_text("no film at all")
    ruler_of(page, "Wendel Carrow")
    page.locator("input[type=file]").set_input_files([words, other])
    problem = page.get_by_role("alert")
    expect(problem).to_contain_text("“notes.mp4”: This browser cannot play", timeout=20_000)
    expect(problem).to_contain_text("Open “other.mp4” by itself.")
    page.locator("input[type=file]").set_input_files([sound, other])
    expect(page.get_by_test_id("film-frame")).to_contain_text("0 · ", timeout=20_000)
    waits = page.get_by_role("region", name="Film").get_by_role("status")
    expect(waits.first).to_contain_text(f"“{sound.name}” is open.")
    expect(waits.first).to_contain_text("then open “other.mp4”")


def test_films_marked_before_are_listed(page: Page) -> None:
    ruler_of(page, "Corin Abbot")
    expect(page.get_by_role("region", name="Film")).to_contain_text("17 measures")
    expect(page.get_by_role("region", name="Film")).to_contain_text("15 measures")
    assert violations(page) == {}


def marked(page: Page, lesson: str, film: Path) -> str:
    """The film's marks kept with a lesson, all of them, as if touched; the film's id."""
    truth = json.loads(film.with_suffix(".truth.json").read_text())
    film_id = str(uuid4())
    body = {"marks": {**truth["marks"], "block": None}, "name": film.name}
    answer = page.request.post(
        f"/api/lessons/{lesson}/changes", data={"kind": "film", "id": film_id, "body": body}
    )
    assert answer.ok, answer.text()
    return film_id


def opened(page: Page, film: Path) -> None:
    """The film under the ruler; it goes on with the marks that it has."""
    page.locator("input[type=file]").first.set_input_files(film)
    expect(page.get_by_test_id("film-frame")).to_be_visible()


def use(page: Page, what: str) -> None:
    uses = page.get_by_role("group", name="What the film is for")
    uses.get_by_role("button", name=what, exact=True).tap()


@pytest.mark.parametrize("hand", ["right", "left"])
def test_a_camera_held_in_the_hand_is_followed(page: Page, films: Path, hand: str) -> None:
    """Where it looked goes along with what is touched next, and is what the simulator did."""
    film = rendered(films / f"{hand}.mp4", "--fps", "60", "--shake", "4", "--hand", hand)
    real = Film.model_validate(json.loads(film.with_suffix(".truth.json").read_text())["marks"])
    truth = real.mirrored() if hand == "left" else real
    name = {"right": "Wendel Carrow", "left": "Jory Pask"}[hand]
    lesson, film_id = newest_lesson_of(page, name), str(uuid4())
    untouched = {"moves": {}, "held": None, "points": {}, "scale": None, "ground": None}
    bare = truth.model_copy(update=untouched)
    body = {"marks": bare.model_dump(mode="json"), "name": film.name}
    change = {"kind": "film", "id": film_id, "body": body}
    assert page.request.post(f"/api/lessons/{lesson}/changes", data=change).ok
    ruler_of(page, name)
    opened(page, film)
    said = page.get_by_test_id("film-held")
    expect(said).to_contain_text("every number will allow for that", timeout=60_000)
    assert kept(page, lesson, film_id).moves == {}  # nothing was touched
    page.get_by_role("button", name="Touch the scale").tap()
    assert real.scale is not None
    for end in (real.scale.start, real.scale.end):
        touch(page, list(end), {"width": real.width, "height": real.height})
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    expect(said).to_contain_text("that is taken out of every number")
    found = kept(page, lesson, film_id)
    assert found.held
    assert set(found.moves) >= {"top", "impact"}
    assert max(math.hypot(m.right, m.down) for m in truth.moves.values()) > 5.0
    for event, move in found.moves.items():
        there = truth.moves[event]
        assert math.hypot(move.right - there.right, move.down - there.down) < 1.0, event
        assert abs(move.turned_deg - there.turned_deg) < 0.15, event


def kept(page: Page, lesson: str, film_id: str) -> Film:
    rows = page.request.get(f"/api/lessons/{lesson}/films").json()
    return Film.model_validate(next(r for r in rows if r["id"] == film_id)["marks"])


def test_on_a_stand_nothing_is_said_of_a_hand(page: Page, swing: Path) -> None:
    marked(page, newest_lesson_of(page, "Ines Vollard"), swing)
    ruler_of(page, "Ines Vollard")
    opened(page, swing)
    camera = page.get_by_role("region", name="How the camera was held")
    expect(camera).to_contain_text("stood still while the student swung", timeout=60_000)


def test_two_films_and_a_trace_are_scrubbed_as_one(page: Page, swing: Path, face_on: Path) -> None:
    lesson = newest_lesson_of(page, "Ines Vollard")
    truth = json.loads(swing.with_suffix(".truth.json").read_text())
    for film in (swing, face_on):
        marked(page, lesson, film)
    ruler_of(page, "Ines Vollard")
    opened(page, swing)
    use(page, "With film and pressure")
    choose_containing(page, "Second film", "face on")
    opened(page, face_on)
    expect(page.get_by_test_id("film-other")).to_be_visible()
    page.get_by_role("slider", name="Picture").press("Home")
    for _ in range(3):
        page.get_by_role("button", name="One picture on").tap()
    expect(page.get_by_test_id("film-frame")).to_contain_text("before impact")
    use(page, "Measure")
    page.get_by_role("group", name="Events of the swing").get_by_role("button", name="Top").tap()
    use(page, "With film and pressure")
    # the same moment in both films: as long before impact in the one as in the other
    other_truth = json.loads(face_on.with_suffix(".truth.json").read_text())
    early = (truth["events"]["impact"] - truth["events"]["top"]) / truth["fps"]
    wanted = other_truth["events"]["impact"] - early * other_truth["fps"]
    other = page.get_by_test_id("film-other")
    near = "|".join(str(round(wanted) + by) for by in (-1, 0, 1))
    expect(other).to_have_attribute("data-shown", re.compile(f"^({near})$"))
    # the pressure under the picture is that of the same moment
    at_top = page.get_by_text(re.compile(r"Lead \d+ %")).first.text_content() or ""
    page.get_by_role("slider", name="Picture").press("Home")
    expect(page.get_by_text(re.compile(r"Lead \d+ %")).first).not_to_have_text(at_top)
    # it plays, both at the speed of the swing
    page.get_by_role("button", name="Play the film").tap()
    expect(page.get_by_role("button", name="Pause")).to_be_visible()
    expect(page.get_by_test_id("film-frame")).not_to_contain_text(re.compile(r"^0 · "))
    assert other.locator("video").evaluate("v => v.playbackRate") == 0.25
    page.get_by_role("button", name="Pause").tap()
    page.get_by_role("button", name="Top", exact=True).last.tap()
    expect(page.get_by_test_id("film-frame")).to_contain_text("top")


def test_before_and_after_and_feel_against_real(page: Page, swing: Path, sound: Path) -> None:
    lesson = newest_lesson_of(page, "Bastian Roe")
    before, after = marked(page, lesson, swing), marked(page, lesson, sound)
    assert before != after
    ruler_of(page, "Bastian Roe")
    opened(page, sound)
    use(page, "Before and after")
    choose_containing(page, "Compared with", swing.name)
    opened_beside = page.locator("input[type=file]").first
    opened_beside.set_input_files(swing)
    expect(page.locator("figure.before video")).to_be_attached()
    changes = page.get_by_test_id("film-changes")
    expect(changes).to_contain_text("Trail heel off the ground, impact")
    # at one scale and level the feet of both lie on one place
    boxes = [page.locator(f"figure.{side} .window").bounding_box() for side in ("before", "after")]
    assert all(boxes)
    page.get_by_role("button", name="Outlines, one upon the other").tap()
    ink = "c => c.getContext('2d').getImageData(0, 0, c.width, c.height).data.some(v => v > 0)"
    for side in ("before", "after"):
        expect(page.locator(f"figure.{side} .window > canvas")).to_be_visible()
        page.wait_for_timeout(800)
        assert page.locator(f"figure.{side} .window > canvas").evaluate(ink)
    # the student points first: only then is the picture shown
    use(page, "Feel and real")
    expect(page.get_by_text("The picture is shown once the student has pointed.")).to_be_visible()
    figure = page.get_by_test_id("felt-figure").bounding_box()
    assert figure
    page.touchscreen.tap(
        figure["x"] + figure["width"] * 0.38, figure["y"] + figure["height"] * 0.80
    )
    expect(page.get_by_test_id("felt-asked")).to_contain_text("cm less than felt")
    page.get_by_role("button", name="Keep this picture").tap()
    page.get_by_role("button", name="The student agrees").tap()
    kept = page.get_by_test_id("still")
    expect(kept).to_have_count(1)
    expect(kept.get_by_role("img")).to_have_js_property("complete", True)
    assert kept.get_by_role("img").evaluate("i => i.naturalWidth") > 100
    kept.get_by_label("On the sheet").check()
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    assert page.request.get(f"/api/lessons/{lesson}").json()["stills"][0]["on_sheet"]
    assert violations(page) == {}
    kept.get_by_role("button", name=re.compile("Delete still")).tap()
    kept.get_by_role("button", name="Delete it for good").tap()
    expect(kept).to_have_count(0)
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    assert page.request.get(f"/api/lessons/{lesson}").json()["stills"] == []


def test_a_film_is_recorded_kept_for_a_week_and_opened_again(page: Page) -> None:
    """Chromium's own moving test picture stands in for a camera."""
    ruler_of(page, "Wendel Carrow")
    page.get_by_role("button", name="Film with this device").tap()
    page.get_by_role("group", name="Begins after").get_by_role("button", name="3 s").tap()
    page.get_by_role("group", name="Stops after").get_by_role("button", name="4 s").tap()
    page.get_by_role("button", name="Film a swing").tap()
    expect(page.get_by_role("timer")).to_have_text("3")
    expect(page.get_by_text("Filming")).to_be_visible()
    shown = page.get_by_test_id("film-frame")
    expect(shown).to_contain_text("0 · ", timeout=60_000)
    seconds = page.get_by_test_id("film-picture").locator("xpath=..").locator("video")
    assert 2.5 < seconds.evaluate("v => v.duration") < 6
    page.get_by_role("button", name="One picture on").tap()
    expect(shown).to_contain_text("1 · ")
    # another stage is opened, and it is there again
    stages = page.get_by_role("navigation", name="Stages")
    stages.get_by_role("link", name="Shots").click()
    expect(page.get_by_test_id("range")).to_be_visible()
    stages.get_by_role("link", name="Look").click()
    page.get_by_role("group", name="By eye or on film").get_by_role("button", name="Film").tap()
    expect(shown).to_contain_text("0 · ", timeout=60_000)
    # it is nowhere else: one touch does not throw it away
    page.get_by_role("button", name="Put this film away").tap()
    expect(page.get_by_text("filmed here and is nowhere else")).to_be_visible()
    choose_containing(page, "Keep the film on this device", "for a week")
    expect(page.get_by_test_id("film-kept")).to_contain_text("It is kept here until")
    expect(page.get_by_text("filmed here and is nowhere else")).to_be_hidden()
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    page.reload()
    page.get_by_role("group", name="By eye or on film").get_by_role("button", name="Film").tap()
    page.get_by_role("button", name=re.compile("Open swing")).tap()
    expect(shown).to_contain_text("0 · ", timeout=60_000)
    choose_containing(page, "Keep the film on this device", "until this page is closed")
    expect(page.get_by_test_id("film-kept")).to_be_hidden()


def test_a_second_film_of_the_same_camera_takes_scale_and_ground_from_the_first(
    page: Page, swing: Path, sound: Path
) -> None:
    own_copy_of(page, "Hedda Rill")
    lesson = page.url.split("/lessons/")[1].split("/")[0]
    marked(page, lesson, swing)
    page.goto(f"/lessons/{lesson}/look")
    page.get_by_role("group", name="By eye or on film").get_by_role("button", name="Film").tap()
    opened(page, sound)
    page.get_by_role("button", name=f"As in “{swing.name}”").tap()
    expect(page.get_by_role("button", name="Scale again")).to_be_visible()
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    films = page.request.get(f"/api/lessons/{lesson}/films").json()
    one, other = (next(f["marks"] for f in films if f["name"] == x.name) for x in (swing, sound))
    assert (other["scale"], other["ground"]) == (one["scale"], one["ground"])
    # where the camera stood is asked in the open, in steps to either side
    steps = page.get_by_role("group", name="Beside its line, cm")
    steps.get_by_role("button", name="40 right").tap()
    expect(page.get_by_role("region", name="Where the camera stood")).to_contain_text(
        "It stood 40 cm to the right of it."
    )
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    films = page.request.get(f"/api/lessons/{lesson}/films").json()
    assert next(f["marks"]["off_line_cm"] for f in films if f["name"] == sound.name) == 40


def test_events_that_are_sought_stay_with_their_film(page: Page, swing: Path, sound: Path) -> None:
    """Put away while they are sought: the film opened next has none of them."""
    ruler_of(page, "Wendel Carrow")
    shown, files = page.get_by_test_id("film-frame"), page.locator("input[type=file]")
    files.set_input_files(sound)
    expect(shown).to_contain_text("0 · ", timeout=60_000)
    page.get_by_role("button", name="Find the events").tap()
    page.get_by_role("button", name="Put this film away").tap()
    files.set_input_files(swing)
    expect(shown).to_contain_text("0 · ", timeout=60_000)
    find = page.get_by_role("button", name="Find the events")
    expect(find).to_be_enabled()
    page.wait_for_timeout(4_000)  # longer than the first is looked through
    expect(page.get_by_role("button", name=re.compile(r"^Impact \d"))).to_have_count(0)
    find.tap()
    expect(page.get_by_role("button", name=re.compile(r"^Impact \d"))).to_be_visible(timeout=60_000)


def test_a_point_is_placed_without_a_finger(page: Page, sound: Path) -> None:
    ruler_of(page, "Wendel Carrow")
    opened(page, sound)
    page.get_by_role("button", name="Touch the ground").tap()
    picture = page.get_by_test_id("film-picture")
    picture.press("ArrowDown")
    expect(page.get_by_test_id("film-cross")).to_be_visible()
    picture.press("Enter")
    for _ in range(5):
        picture.press("ArrowRight")
    picture.press("Shift+ArrowRight")
    picture.press("Enter")
    expect(page.get_by_test_id("saved")).to_have_text("Saved")
    lesson = newest_lesson_of(page, "Wendel Carrow")
    films = page.request.get(f"/api/lessons/{lesson}/films").json()
    (ground,) = [f["marks"]["ground"] for f in films if f["name"] == sound.name]
    assert ground[1][0] - ground[0][0] == 101  # five leaps of twenty pixels and a step of one


@pytest.mark.parametrize(
    ("made", "said"),
    [
        ("one picture", "too short to hold a swing"),
        ("no picture", "no picture in this file"),
        ("empty", "This file is empty"),
        ("cut off", "cannot play this file"),
        ("hevc", "packed as HEVC, which does not play here. Record in the most compatible format"),
    ],
)
def test_bad_films_say_what_is_wrong(page: Page, tmp_path: Path, made: str, said: str) -> None:
    bad = tmp_path / "bad.mp4"
    write_bad(made, bad)
    ruler_of(page, "Wendel Carrow")
    page.locator("input[type=file]").first.set_input_files(bad)
    expect(page.get_by_role("alert")).to_contain_text(said)
    expect(page.get_by_text("Where did the camera stand?")).to_be_visible()


BAR_AT = """() => {
    const [sheet, video] = ['canvas', 'video'].map((e) => document.querySelector(`.picture > ${e}`))
    const isOnSheet = sheet.style.display !== 'none'
    const canvas = document.createElement('canvas')
    ;[canvas.width, canvas.height] = [video.videoWidth, 1]
    const pen = canvas.getContext('2d')
    const [wide, high] = [video.videoWidth, video.videoHeight]
    pen.drawImage(isOnSheet ? sheet : video, 0, high / 2, wide, 1, 0, 0, wide, 1)
    const { data } = pen.getImageData(0, 0, canvas.width, 1)
    const bright = []
    for (let x = 0; x < canvas.width; x++) if (data[4 * x] > 180) bright.push(x)
    return [isOnSheet, bright]
}"""
"""Columns of the bar that goes to the right by four pixels a picture."""


NO_DECODER = "delete globalThis.VideoDecoder"
"""As in pages over an open network: every picture is sought in the playing film."""


@pytest.mark.parametrize("how", ["decoded", "sought"])
@pytest.mark.parametrize("made", ["uneven", "238.1 a second", "from 30 to 60"])
def test_every_picture_is_stepped_to_whenever_it_is_shown(
    page: Page, tmp_path: Path, made: str, how: str
) -> None:
    odd = tmp_path / "odd.mp4"
    write_odd(made, odd)
    if how == "sought":
        page.add_init_script(NO_DECODER)
    ruler_of(page, "Wendel Carrow")
    page.locator("input[type=file]").first.set_input_files(odd)
    shown = page.get_by_test_id("film-frame")
    expect(shown).to_contain_text("0 · ")
    expect(page.get_by_text("come at uneven times")).to_have_count(0)
    last = {"uneven": 89, "238.1 a second": 479, "from 30 to 60": 104}[made]
    slider, region = (
        page.get_by_role("slider", name="Picture"),
        page.get_by_role("region", name="Film"),
    )
    wrong = []
    for start in (0, last // 2, last - 6):
        slider.press("Home")
        for _ in range(start // 10):
            region.press("PageDown")
        for _ in range(6):
            region.press("ArrowRight")
            frame = shown.inner_text().split()[0]
            expect(page.locator(".picture")).to_have_attribute("data-shown", frame)
            left = (4 * int(frame)) % 180
            for _ in range(20):  # what is drawn may be a moment behind what was sought
                on_sheet, columns = page.evaluate(BAR_AT)
                assert on_sheet == (how == "decoded")
                at = min(columns)
                if left > 160 or abs(at - left) <= 1:
                    break
                page.wait_for_timeout(50)
            else:
                wrong.append((frame, at, left))
    assert wrong == []
    slider.press("End")
    expect(shown).to_contain_text(f"{last} · ")


@pytest.mark.parametrize("how", ["decoded", "sought"])
def test_a_damaged_film_says_which_pictures_are_gone_and_shows_the_others(
    page: Page, films: Path, how: str
) -> None:
    damaged = rendered(films / "damaged.mp4", "--fps", "60", "--noise", "8")
    data = bytearray(damaged.read_bytes())
    middle = slice(len(data) // 2, len(data) // 2 + len(data) // 20)
    data[middle] = bytes(255 - byte for byte in data[middle])
    damaged.write_bytes(data)
    if how == "sought":
        page.add_init_script(NO_DECODER)
    ruler_of(page, "Wendel Carrow")
    opened(page, damaged)
    region, picture = page.get_by_role("region", name="Film"), page.locator(".picture")
    said = picture.get_by_role("alert")
    gone = []
    for frame in range(0, 120, 10):
        if frame > 0:
            region.press("PageDown")
        shown = page.locator(f".picture[data-shown='{frame}']")
        expect(shown.or_(said).first).to_be_visible(timeout=15_000)
        if shown.count() == 0:
            expect(said).to_contain_text("the file is damaged")
            gone.append(frame)
    assert 0 < len(gone) < 8
    page.get_by_role("slider", name="Picture").press("Home")
    expect(picture).to_have_attribute("data-shown", "0")
    expect(said).to_have_count(0)
    page.get_by_role("button", name="Find the events").tap()
    expect(region).to_contain_text("part of the film cannot be read", timeout=FINDS_MS)


ON_SHEET_AND_SOUGHT = """async () => {
    const [sheet, video] = ['canvas', 'video'].map((e) => document.querySelector(`.picture > ${e}`))
    const there = new Promise((done) => video.addEventListener('seeked', done, { once: true }))
    video.currentTime = 30.5 / 60
    await there
    await new Promise((done) => setTimeout(done, 300))
    const seen = (picture) => {
        const canvas = document.createElement('canvas')
        ;[canvas.width, canvas.height] = [48, 48]
        const pen = canvas.getContext('2d')
        pen.drawImage(picture, 0, 0, 48, 48)
        return [...pen.getImageData(0, 0, 48, 48).data]
    }
    const [one, other] = [seen(sheet), seen(video)]
    return one.reduce((sum, value, i) => sum + Math.abs(value - other[i]), 0) / one.length
}"""
"""How far a decoded picture is from the same one as the browser plays it, mean grey levels."""


@pytest.mark.parametrize("made", ["turned", "ten bits"])
def test_a_decoded_picture_is_the_one_that_is_played(page: Page, tmp_path: Path, made: str) -> None:
    odd = tmp_path / "odd.mp4"
    write_odd(made, odd)
    ruler_of(page, "Wendel Carrow")
    opened(page, odd)
    for _ in range(3):
        page.get_by_role("region", name="Film").press("PageDown")
    expect(page.locator(".picture")).to_have_attribute("data-shown", "30")
    assert page.evaluate(ON_SHEET_AND_SOUGHT) < 2.0


@pytest.mark.parametrize("made", ["uneven", "turned", "ten bits"])
def test_odd_films_open_all_the_same(page: Page, tmp_path: Path, made: str) -> None:
    odd = tmp_path / "odd.mp4"
    write_odd(made, odd)
    ruler_of(page, "Wendel Carrow")
    opened(page, odd)
    video = page.locator(".picture video")
    wide, high = video.evaluate("v => [v.videoWidth, v.videoHeight]")
    assert (wide > high) == (made == "turned")
    box = page.locator(".picture").bounding_box()
    assert box
    assert abs(box["width"] / box["height"] - wide / high) < 0.02
    beside = page.get_by_role("group", name="Events of the swing").bounding_box()
    assert beside
    assert box["x"] + box["width"] <= beside["x"]  # a film that lies covers nothing
    page.get_by_role("button", name="One picture on").tap()
    expect(page.get_by_test_id("film-frame")).to_contain_text("1 · ")
