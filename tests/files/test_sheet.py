"""The page that goes home: its drawing, its words, its PDF and its calendar."""

import re
from datetime import UTC, date, datetime
from typing import Any

import pytest
from icalendar import Calendar

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.coaching import Situation
from firm_footing.core.coaching.cards import cards_for
from firm_footing.core.coaching.practice import plan_practice
from firm_footing.core.coaching.setup_gate import setup_changes
from firm_footing.core.coaching.sheet import Sheet, miss_words, sheet_of
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pattern import Pattern, read_pattern
from firm_footing.files.calendar_files import practice_calendar
from firm_footing.files.sheet.drawing import PARTS, WIDTH, plan_svg
from firm_footing.files.sheet.page import SheetPage, as_html, as_pdf

ON = date(2026, 11, 26)
BEFORE_LESSON = Case(
    handedness="right",
    blocks=(Block(), Block(kind="retest")),
    readings=(
        Reading(check="aim_off_line", answer="partly"),
        Reading(check="grip_weak", answer="yes"),
        Reading(check="grip_strong", answer="no"),
        Reading(check="lead_foot_square", answer="yes", block=1),
        Reading(check="hands_flip", answer="yes"),
    ),
)


@pytest.fixture
def pattern(knowledge: Knowledge) -> Pattern:
    shot = Shot(start="pull", curve="push", heel_toe_mm=-14)
    return read_pattern([Block(shots=(shot,) * 8)], knowledge, 15)


def a_sheet(pattern: Pattern, knowledge: Knowledge, **more: Any) -> Sheet:
    given = {"event_in": None, "minor": False} | more
    drills = ["club_under_heel", "trail_foot_back"]
    return sheet_of("trail_heel_pops", pattern, drills, "Heavy heel.", knowledge=knowledge, **given)


def ends(svg: str) -> list[tuple[float, float]]:
    """Where the flight is drawn to."""
    (curve,) = re.findall(r'd="M160.0 222.0Q(.*?)"', svg)
    numbers = [float(v) for v in curve.split()]
    return [(numbers[0], numbers[1]), (numbers[2], numbers[3])]


@pytest.mark.parametrize("hand", ["right", "left"])
def test_the_drawing_is_the_student_s_own_miss(hand: Handedness) -> None:
    svg = plan_svg(hand, "trail_toe", -4.0, 6.0)
    bend, end = ends(svg)
    assert bend[0] < 160 < end[0]  # starts on the pull side, comes down on the push side
    assert (f"translate({WIDTH} 0) scale(-1 1)" in svg) == (hand == "left")
    assert svg.count("fill-opacity") == 1


@pytest.mark.parametrize("place", [*PARTS, "hips", "chest", "hands", "club", "ball", "aim"])
def test_every_place_of_a_cause_is_marked(place: Any) -> None:
    svg = plan_svg("right", place, None, None)
    lit, ringed = svg.count("fill-opacity"), svg.count('stroke-width="4"')
    assert lit == len(PARTS.get(place, ()))
    assert ringed == (place not in PARTS)
    assert "Q" not in svg  # no ball was seen: no flight


def test_every_cause_can_be_drawn(knowledge: Knowledge) -> None:
    for cause in knowledge.causes:
        svg = plan_svg("right", cause.place, -2.0, 0.0)
        assert "fill-opacity" in svg or svg.count('stroke-width="4"') == 2, cause.id


def test_the_page_is_whole_in_itself_and_escapes_what_is_typed(
    pattern: Pattern, knowledge: Knowledge
) -> None:
    sheet = a_sheet(pattern, knowledge, event_in=4)
    html = as_html(SheetPage("<Oda & co>", "right", ON, sheet, pattern), knowledge)
    assert "&lt;Oda &amp; co&gt;" in html
    assert html.count("data:font/woff2") == 2
    assert re.findall(r"(?:src|href)=", html) == []
    assert "Mon 30 Nov" in html
    assert "the event: nothing new" in html
    assert html.count("Heavy heel.") == 1  # a thought that is the cue is not said twice
    pdf = as_pdf(html)
    assert pdf.startswith(b"%PDF")


def test_the_calendar_has_a_day_for_every_day(knowledge: Knowledge) -> None:
    days = plan_practice(4, True, knowledge.numbers.coaching.practice)
    at = datetime(2026, 11, 26, 12, tzinfo=UTC)
    text = practice_calendar("L", ON, days, "Heavy heel.", at)
    assert text == practice_calendar("L", ON, days, "Heavy heel.", at)
    entries = Calendar.from_ical(text).walk("VEVENT")
    assert [e["dtstart"].dt.day for e in entries] == [27, 28, 29, 30, 1]
    assert [str(e["summary"]) for e in entries][-2:] == [
        "Event: nothing new",
        "Check in with the instructor",
    ]
    assert [("description" in e) for e in entries] == [True, False, False, False, False]


@pytest.mark.parametrize(
    ("shot", "words"),
    [
        ({"start": "pull", "curve": "push", "heel_toe_mm": -14}, "struck toward the heel"),
        ({"start": "straight", "curve": "straight", "heel_toe_mm": 15}, "struck toward the toe"),
        ({"start": "pull", "contact": "fat", "divot_start_cm": -14}, "the ground before the ball"),
    ],
)
def test_a_miss_is_said_as_the_student_would(
    shot: dict[str, Any], words: str, knowledge: Knowledge
) -> None:
    block = Block(shots=(Shot.model_validate(shot),) * 8, surface="turf")
    assert words in miss_words(read_pattern([block], knowledge, 15))


def test_without_a_ball_there_is_no_miss_to_name(knowledge: Knowledge) -> None:
    assert miss_words(read_pattern([], knowledge, 15)) == ""


def test_a_set_up_that_is_off_comes_first(knowledge: Knowledge) -> None:
    grip, aim = setup_changes(BEFORE_LESSON, knowledge)
    assert (grip.check, grip.drill, grip.tried) == ("grip_weak", "grip_reset", False)
    assert (aim.check, aim.drill) == ("aim_off_line", "aim_sticks")
    hit = Block(kind="trial", drill="grip_reset", shots=(Shot(start="straight"),) * 3)
    tried = BEFORE_LESSON.model_copy(update={"blocks": (*BEFORE_LESSON.blocks, hit)})
    assert [s.tried for s in setup_changes(tried, knowledge)] == [True, False]


def test_cards_say_why_and_name_what_replaces_a_withheld_one(knowledge: Knowledge) -> None:
    here = Situation(limits=("balance",), path_deg=9.0)
    cards = {c.drill: c for c in cards_for("hang_back", knowledge, here)}
    kept_back = {name for name, card in cards.items() if card.withheld is not None}
    assert "step_past" in kept_back
    assert all("balance" in knowledge.drill[name].limits for name in kept_back)
    assert all(cards[name].instead not in kept_back for name in kept_back)
    assert "made for this cause" in cards["line_and_divots"].pros
    nothing_left = cards_for("trail_knee_fires", knowledge, here)
    assert {c.drill for c in nothing_left} == {
        d.id for d in knowledge.drills if "trail_knee_fires" in d.targets
    }
