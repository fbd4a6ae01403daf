"""What an instructor does, in a real browser, on the application as it is started."""

import re

import pytest
from playwright.sync_api import Locator, Page, Route, expect
from pytest_playwright import CreateContextCallback

from firm_footing.core.knowledge import Knowledge
from tests.browser.choosing import choose
from tests.browser.conftest import Finger

# Parts of the drawings: the range, then the turf strip within the ground, then the face.
PULL_STARTS = [0.40, 0.38, 0.43, 0.38, 0.40, 0.36, 0.40, 0.38]
LANDINGS = [0.50, 0.48, 0.52, 0.50, 0.45, 0.48, 0.52, 0.48]
TURF_X, TURF_Y = 0.85, [0.55, 0.50, 0.58, 0.52, 0.56, 0.50, 0.54, 0.57]
HEEL_X = [0.62, 0.66, 0.70, 0.64, 0.68, 0.61, 0.72, 0.66]


def new_lesson(page: Page, name: str, words: str = "New lesson") -> None:
    """Begin one; it starts with listening, and these journeys go on to the shots."""
    if words != "New lesson":
        page.get_by_role("searchbox", name="Find a student").fill(name)
    page.get_by_role("button", name=words, exact=True).tap()
    expect(page.get_by_role("region", name="Listen")).to_be_visible()
    expect(page.get_by_role("link", name=name)).to_be_visible()
    page.get_by_role("navigation", name="Stages").get_by_role("link", name="Shots").tap()
    expect(page.get_by_test_id("range")).to_be_visible()


def newest_lesson_of(page: Page, name: str) -> str:
    return lessons_of(page, name)[0]


def lessons_of(page: Page, name: str) -> list[str]:
    """Ids, the newest first; the demo's own are the last ones."""
    anew = {"Connection": "close"}  # one that was kept may be let go of just then
    students = page.request.get("/api/day", headers=anew).json()["students"]
    student = next(s["id"] for s in students if s["name"] == name)
    lessons = page.request.get(f"/api/students/{student}/lessons", headers=anew)
    return [str(lesson["id"]) for lesson in lessons.json()]


def own_copy_of(page: Page, name: str) -> None:
    """A demo lesson taken in again as a case file, so that no journey meets another's work."""
    case = page.request.get(f"/api/lessons/{newest_lesson_of(page, name)}/case").body()
    page.goto("/")
    page.get_by_label("Case file").set_input_files(
        {"name": "copied.case.json", "mimeType": "application/json", "buffer": case}
    )
    expect(page.get_by_test_id("range")).to_be_visible()


def open_lesson_of(page: Page, name: str, stage: str = "shots") -> None:
    """The newest lesson of someone of the demo, wherever it stands in the day's list."""
    page.goto(f"/lessons/{newest_lesson_of(page, name)}/{stage}")


def block(page: Page) -> Locator:
    return page.locator(".choose-one", has_text="Block")


def look(page: Page, question: str, answer: str) -> None:
    page.get_by_role("group", name=question).get_by_role("button", name=answer, exact=True).tap()


def saved(page: Page) -> None:
    expect(page.get_by_test_id("saved")).to_have_text("Saved")


def new_block(page: Page, kind: str) -> None:
    """Begin another block of this kind."""
    page.get_by_role("button", name="New block").tap()
    page.get_by_role("region", name="New block").get_by_role("button", name=kind).tap()


def first_cause(page: Page) -> str:
    return page.get_by_test_id("causes").locator("li .name").first.inner_text()


def test_eight_balls_by_touch_and_five_looks(page: Page, finger: Finger) -> None:
    page.goto("/")
    page.get_by_role("button", name="New student").tap()
    page.get_by_label("Name").fill("Ruth Tamsin")
    page.get_by_label("Handicap").fill("19")
    page.get_by_role("button", name="Add student").tap()
    new_lesson(page, "Ruth Tamsin")
    expect(page.get_by_test_id("pattern")).to_contain_text("No balls yet")
    for i in range(8):  # the third touch fills what is filled already: it begins the next ball
        finger.drag("range", (PULL_STARTS[i], 0.4), (LANDINGS[i], 0.35))
        finger.tap("ground", (TURF_X, TURF_Y[i]))
        finger.tap("face", (HEEL_X[i], 0.55))
    expect(page.get_by_role("list", name="Balls").get_by_role("button")).to_have_count(8)
    expect(page.get_by_test_id("pattern")).to_contain_text(re.compile("Pull.*to the heel"))
    page.get_by_role("link", name="Look").tap()
    look(page, "Does the trail heel lift before the arms are down?", "Yes")
    look(page, "Is the club on plane until late and then off its way?", "Yes")
    look(page, "Does the trail knee drive out at the ball?", "No")
    look(page, "Is there a gap between the knees at impact?", "No")
    look(page, "Does the backside leave its line toward the ball?", "No")
    saved(page)
    heel = page.get_by_test_id("cause-trail_heel_pops")
    expect(heel).to_contain_text("Start here")
    expect(heel).to_contain_text("Seen")
    expect(page.get_by_test_id("standing")).to_contain_text("“trail heel leaves the ground early”")
    assert first_cause(page) == "Trail heel leaves the ground early"
    page.reload()
    expect(heel).to_contain_text("Start here")
    expect(page.get_by_role("link", name="Look, begun")).to_be_visible()
    page.get_by_role("link", name="Shots, begun").tap()
    expect(page.locator(".flight")).to_have_count(8)
    expect(page.locator(".divot")).to_have_count(8)
    # well ahead and seen, so it stands open of itself; one touch decides
    expect(heel.get_by_test_id("explains")).to_be_visible()
    expect(heel.get_by_test_id("ball-next")).to_be_visible()
    heel.get_by_role("button", name="Decide on this cause").tap()
    expect(heel).to_contain_text("Decided")


def test_a_left_hander_wholly_by_keyboard(page: Page) -> None:
    page.goto("/")
    keys = page.keyboard
    page.get_by_role("button", name="New student").focus()
    keys.press("Enter")
    expect(page.get_by_label("Name")).to_be_focused()
    keys.type("Corin Yelland")
    keys.press("Tab")
    page.get_by_role("button", name="Left-handed").focus()
    keys.press("Enter")
    keys.press("Tab")
    keys.type("24")
    page.get_by_role("button", name="Add student").focus()
    keys.press("Enter")
    page.get_by_role("button", name="New lesson", exact=True).focus()
    keys.press("Enter")
    expect(page.get_by_role("region", name="Listen")).to_be_visible()
    keys.press("]")
    expect(page.get_by_test_id("range")).to_be_visible()
    for _ in range(8):
        for key in ("3", "e", "s", "c", *[","] * 16):  # straight, fat, divot 15 cm behind
            keys.press(key)
        keys.press("Enter")
    expect(page.get_by_role("list", name="Balls").get_by_role("button")).to_have_count(8)
    for key in ("4", "e"):  # one ball starts right: a left-hander's pull
        keys.press(key)
    expect(page.get_by_role("button", name="Ball 9: starts right")).to_be_visible()
    keys.press("Delete")
    expect(page.get_by_role("list", name="Balls").get_by_role("button")).to_have_count(8)
    asked = page.get_by_test_id("next-look").locator(".question")
    for _ in range(7):
        before = asked.inner_text()
        keys.press("y" if re.search("at impact|ahead", before) else "n")
        expect(asked).not_to_have_text(before)
    saved(page)
    start = page.locator("[data-testid^=cause-]", has_text="Start here")
    expect(start).to_have_attribute("data-testid", re.compile("hang_back|late_shift"))
    page.reload()
    expect(page.get_by_role("link", name="Look, begun")).to_be_visible()
    expect(page.locator(".flight")).to_have_count(8)
    assert page.locator(".labels .start").first.text_content() == "Lead"
    keys.press("?")
    expect(page.get_by_test_id("keys")).to_be_visible()
    keys.press("Escape")
    expect(page.get_by_test_id("keys")).to_be_hidden()


def test_undo_edit_and_delete_a_ball(page: Page, finger: Finger) -> None:
    page.goto("/")
    new_lesson(page, "Bastian Roe", "New lesson with Bastian Roe")
    tape = page.get_by_role("list", name="Balls").get_by_role("button")
    finger.drag("range", (0.40, 0.4), (0.50, 0.35))
    expect(tape).to_have_count(1)
    saved(page)
    page.get_by_role("button", name="Fat").tap()
    expect(
        page.get_by_role("button", name="Ball 1: starts left, curves right, fat")
    ).to_be_visible()
    saved(page)
    page.get_by_test_id("undo").tap()
    expect(page.get_by_role("button", name="Ball 1: starts left, curves right")).to_be_visible()
    page.get_by_test_id("redo").tap()
    tape.first.tap()
    page.get_by_role("button", name="By number").tap()
    details = page.get_by_test_id("details")
    choose(details, "Start", "far left")
    details.get_by_label("Carry").fill("120")
    details.get_by_label("Carry").press("Tab")
    details.get_by_label("Carry").fill("a lot")
    details.get_by_label("Carry").press("Tab")
    expect(details.get_by_label("Carry")).to_have_value("120")
    expect(details.get_by_label("Carry")).to_be_focused()  # the message takes one back to it
    said = details.get_by_label("Carry").evaluate("input => input.validationMessage")
    assert said == "“a lot” is not a number that fits here; 120 was kept."
    expect(page.get_by_role("button", name="Ball 1: starts far left")).to_be_visible()
    details.get_by_role("button", name="Close the numbers").tap()
    expect(details).to_be_hidden()
    page.get_by_role("button", name="Delete", exact=False).tap()
    expect(tape).to_have_count(0)
    saved(page)
    page.get_by_test_id("undo").tap()
    expect(tape).to_have_count(1)


def left_of(place: Locator) -> float:
    box = place.bounding_box()
    assert box is not None
    return box["x"]


def test_what_arrives_late_moves_nothing_from_under_the_finger(page: Page) -> None:
    late: list[Route] = []
    for what in ("**/clock", "**/ListenStage-*.js"):
        page.route(what, lambda route: late.append(route))
    open_lesson_of(page, "Hedda Rill", "listen")
    places = [
        page.get_by_role("navigation", name="Stages").get_by_role("link", name="Shots"),
        page.get_by_role("complementary", name="Decision"),
    ]
    expect(page.get_by_test_id("next-look")).to_be_visible()
    expect(page.get_by_test_id("clock")).to_be_hidden()
    expect(page.get_by_role("region", name="Listen")).to_be_hidden()
    before = [left_of(place) for place in places]
    for route in late:
        route.continue_()
    expect(page.get_by_test_id("clock")).to_be_visible()
    expect(page.get_by_role("region", name="Listen")).to_be_visible()
    assert [left_of(place) for place in places] == pytest.approx(before, abs=2)
    page.unroute_all()


def call_feet(page: Page, words: str) -> None:
    page.goto("/settings")
    with page.expect_response("**/api/instructors/mine"):
        page.get_by_role("group", name="Feet and sides").get_by_role("button", name=words).tap()


def test_feet_are_called_left_and_right_on_every_device_where_that_was_chosen(
    page: Page, new_context: CreateContextCallback
) -> None:
    call_feet(page, "Left, right")
    elsewhere = new_context().new_page()
    open_lesson_of(elsewhere, "Jory Pask")  # left-handed: the right leg leads
    standing = elsewhere.get_by_test_id("standing")
    expect(standing).to_have_text("Start with “rushes onto the right leg”.")
    expect(elsewhere.get_by_test_id("causes")).to_contain_text("Rushes onto the right leg")
    call_feet(page, "Lead, trail")


def test_a_cause_opens_its_evidence_and_lights_its_chain(page: Page) -> None:
    open_lesson_of(page, "Oda Brack")
    cause = page.get_by_test_id("causes").locator("li.cause").nth(1)
    cause.get_by_role("button").first.tap()
    expect(cause).to_contain_text("Speaks for it")
    expect(cause.get_by_test_id("explains")).to_be_visible()
    expect(page.get_by_role("list", name="Chain from cause to ball")).to_be_visible()
    expect(page.get_by_test_id("chain").locator("circle").first).to_be_visible()


def test_why_not_the_other(page: Page) -> None:
    open_lesson_of(page, "Oda Brack")
    cause = page.get_by_test_id("cause-trail_heel_pops")
    cause.get_by_role("button").first.tap()
    choose(cause, "Why not another cause?", "toes coming down")
    separates = cause.get_by_test_id("why-not")
    expect(separates).to_contain_text("trail foot does not roll in: yes")
    expect(separates).to_contain_text("Would tell them apart")


def test_a_lesson_saves_as_a_case_file_and_opens_again(page: Page) -> None:
    open_lesson_of(page, "Ines Vollard")
    page.get_by_role("button", name="This lesson").tap()
    with page.expect_download() as got:
        page.get_by_role("link", name="Save as case file").tap()
    path = got.value.path()
    page.goto("/")
    page.get_by_label("Case file").set_input_files(
        {"name": "borrowed.case.json", "mimeType": "application/json", "buffer": path.read_bytes()}
    )
    expect(page.get_by_role("link", name="borrowed")).to_be_visible()
    expect(page.get_by_role("list", name="Balls").get_by_role("button")).to_have_count(10)
    page.goto("/")
    page.get_by_label("Case file").set_input_files(
        {"name": "notes.json", "mimeType": "application/json", "buffer": b"not a case"}
    )
    expect(page.get_by_role("alert")).to_contain_text("Nothing was changed")


@pytest.mark.offline
def test_without_connection_entries_wait_and_arrive(page: Page, finger: Finger) -> None:
    page.goto("/")
    new_lesson(page, "Jory Pask", "New lesson with Jory Pask")
    page.route("**/api/lessons/**", lambda route: route.fulfill(status=503, body="gone"))
    page.get_by_role("button", name="Thin").tap()
    expect(page.get_by_test_id("saved")).to_contain_text("No connection: 1 change kept here")
    expect(page.get_by_role("list", name="Balls").get_by_role("button")).to_have_count(1)
    page.unroute("**/api/lessons/**")
    saved(page)
    page.reload()
    expect(page.get_by_role("button", name="Ball 1: thin")).to_be_visible()


def test_an_ambiguous_case_is_settled_by_the_suggested_looks(
    page: Page, knowledge: Knowledge
) -> None:
    """Answered as they would be for a heel that leaves early."""
    own_copy_of(page, "Oda Brack")
    standing = page.get_by_test_id("standing")
    expect(standing).to_contain_text("Open between")
    asked = page.get_by_test_id("next-look").locator(".question")
    by_question = {c.question: c for c in knowledge.checks}
    for _ in range(8):
        if standing.inner_text().startswith("Start with"):
            break
        question = asked.inner_text()
        strength = by_question[question].pointers("thrown").get("trail_heel_pops")
        answer = "Yes" if strength in ("strong", "moderate") else "No"
        page.get_by_test_id("next-look").get_by_role("button", name=answer).tap()
        expect(asked).not_to_have_text(question)
        saved(page)
    expect(standing).to_have_text("Start with “trail heel leaves the ground early”.")
    expect(page.get_by_test_id("cause-trail_heel_pops")).to_contain_text("Start here")


def test_a_round_of_looks_is_answered_in_its_order(page: Page) -> None:
    own_copy_of(page, "Oda Brack")
    page.get_by_role("button", name="Three minutes").tap()
    looks = page.get_by_test_id("look-round").locator("li")
    expect(looks.first).to_have_class(re.compile("now"))
    count = looks.count()
    assert 2 <= count <= 5
    for i in range(count):
        expect(looks.nth(i)).to_have_class(re.compile("now"))
        page.keyboard.press("n")  # the key answers what the round asks
        expect(looks.nth(i)).to_have_class(re.compile("done"))
    expect(page.get_by_role("button", name="Another round")).to_be_visible()


def test_separating_balls_are_predicted_hit_and_judged(page: Page, finger: Finger) -> None:
    own_copy_of(page, "Oda Brack")
    page.get_by_role("button", name="A few balls").tap()
    box = page.get_by_test_id("separating")
    expect(box).to_contain_text("tells right about")
    expect(box.locator("dd")).to_have_count(2)  # what each of the two would show
    expect(page.get_by_test_id("verdict")).to_have_count(0)
    box.get_by_role("button", name="Hit these 5 balls").tap()
    expect(block(page)).to_contain_text(re.compile("Trial · [a-z]"))
    for x in (0.46, 0.48, 0.45):
        finger.drag("range", (0.51, 0.5), (0.52, 0.3))
        finger.tap("face", (x, 0.55))
        page.get_by_role("button", name="Next ball").tap()
    saved(page)
    expect(box).to_contain_text("3 balls hit")
    expect(box).to_contain_text("nearer the toe")
    verdict = page.get_by_test_id("verdict")
    expect(verdict).to_have_text(re.compile(r"times likelier with .* than with .*\."))
    # evidence like any other: it can be found under the cause it speaks for
    first = page.get_by_test_id("causes").locator("li.cause").first
    if "open" not in (first.get_attribute("class") or ""):
        first.get_by_role("button").first.tap()
    expect(first).to_contain_text("3 balls with")
    choose(page, "Block", "Baseline · 7 iron")
    expect(page.get_by_test_id("next-look")).to_be_visible()


def test_what_it_would_be_without_the_cause_is_drawn_and_kept_for_the_retest(page: Page) -> None:
    own_copy_of(page, "Oda Brack")
    cause = page.get_by_test_id("cause-toes_in_downswing")
    cause.get_by_role("button").first.tap()
    expect(cause.get_by_test_id("without")).to_contain_text("Without this cause")
    flight = page.get_by_test_id("predicted-flight")
    expect(flight).to_be_visible()
    cause.get_by_role("button", name="Decide on this cause").tap()
    cause.get_by_label("Why this one").fill("I saw it on film.")  # another one stands first
    cause.get_by_test_id("decide-anyway").tap()
    expect(cause).to_contain_text("Decided")
    cause.get_by_role("button").first.tap()
    expect(flight).to_have_count(0)  # the cause is closed
    new_block(page, "Retest")  # still without balls
    expect(flight).to_be_visible()  # what was predicted when it was decided
    expect(page.get_by_test_id("predicted-strike")).to_be_visible()


def test_looks_that_could_not_be_told_are_asked_again_in_a_round(page: Page) -> None:
    own_copy_of(page, "Oda Brack")
    page.get_by_role("button", name="Three minutes").tap()
    first = page.get_by_test_id("look-round").locator("li").first
    page.keyboard.press("u")
    expect(first).to_have_class(re.compile("done"))
    page.get_by_role("button", name="One look").tap()
    page.get_by_role("button", name="Three minutes").tap()
    expect(page.get_by_test_id("look-round").locator("li.now")).to_have_count(1)
