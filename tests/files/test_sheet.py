"""The page that goes home: its drawing, its words, its PDF and its calendar."""

import re
from dataclasses import replace
from datetime import UTC, date, datetime
from typing import Any
from xml.etree import ElementTree

import pytest
from icalendar import Calendar
from weasyprint import HTML

from firm_footing.core.case import Block, Case, Reading, Shot, Stance
from firm_footing.core.coaching import Situation
from firm_footing.core.coaching.cards import cards_for
from firm_footing.core.coaching.cautions import without_a_drill
from firm_footing.core.coaching.compare_traces import TracesCompared, lay_over
from firm_footing.core.coaching.cues import cues_for
from firm_footing.core.coaching.practice import plan_practice
from firm_footing.core.coaching.setup_gate import setup_changes
from firm_footing.core.conclusions.chain import EFFECT_WORDS, chain_alone, shown_by
from firm_footing.core.frame import Handedness, in_words
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import Pattern, read_pattern
from firm_footing.core.pressure.trace import read_trace
from firm_footing.core.text.chain import END_WORDS, link_words
from firm_footing.core.text.sheet import Sheet, miss_words, sheet_of
from firm_footing.files.calendar_files import practice_calendar
from firm_footing.files.sheet.drawing import PARTS, PX_PER_CM, TRAIL, links_of, plan_svg
from firm_footing.files.sheet.figure import figure_svg
from firm_footing.files.sheet.page import SheetPage, SheetStill, as_html, as_pdf
from firm_footing.files.sheet.traces import _x, _y
from tests.api.asking import picture
from tests.core.swings import swing

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


def flight(svg: str) -> list[float]:
    """Where the flight bends and where it ends, across the drawing from the ball."""
    (curve,) = re.findall(r'd="M524.0 226.0Q(.*?)"', svg)
    numbers = [float(v) for v in curve.split()]
    return [numbers[0] - 524, numbers[2] - 524]


@pytest.mark.parametrize(("hand", "side"), [("right", 1), ("left", -1)])
def test_the_drawing_is_the_student_s_own_miss(
    hand: Handedness, side: int, knowledge: Knowledge
) -> None:
    links = links_of(("toes_in_downswing", "hands_blocked", "path_minus"), knowledge)
    svg = plan_svg(hand, links, None, -4.0, 6.0)
    bend, end = flight(svg)
    assert side * bend < 0 < side * end  # starts on the pull side, lands on the push side
    assert svg.count("scale(-1 1)") == (2 if hand == "left" else 0)
    assert re.findall(r">(\d)</text>", svg) == ["1", "2", "3"]
    (x1, x2) = (float(v) for v in re.findall(r'class="way".*?x1="(.*?)".*?x2="(.*?)"', svg)[0])
    assert side * (x2 - x1) < 0  # across the ball toward the pull side


def test_the_stance_is_the_measured_one() -> None:
    usual = plan_svg("right", (), None, None, None)
    turned = plan_svg("right", (), Stance(lead_flare_deg=30, trail_drop_cm=10), None, None)
    assert "rotate(-14.0)" in usual
    assert "rotate(-30.0)" in turned
    assert f"translate({TRAIL[0] - 10 * PX_PER_CM} " in turned
    assert "Q" not in re.sub(r'd="M-58.*?"', "", turned)  # no ball was seen: no flight


def test_every_cause_and_link_can_be_drawn_and_said(knowledge: Knowledge) -> None:
    for cause in knowledge.causes:
        for name in (cause.id, *(w.mechanism for w in cause.workings)):
            svg = plan_svg("left", links_of((name,), knowledge), None, -2.0, 0.0)
            assert len(re.findall(r">\d</text>", svg)) == 1, name
            for word in ("lead foot", "trail foot", "ball", "target"):
                assert f">{word}</text>" in svg
            assert ("fill-opacity" in svg) == (links_of((name,), knowledge)[0].place in PARTS)
    ends = [end for pair in EFFECT_WORDS.values() for end in pair]
    assert set(ends) == set(END_WORDS)
    assert all(link_words((end,), knowledge)[0] != end for end in ends)


@pytest.mark.parametrize(
    ("text", "hand", "said"),
    [
        (
            "Press the lead foot, trail heel heavy.",
            "right",
            "Press the left foot, right heel heavy.",
        ),
        ("Trail heel; leading; pull side.", "left", "Left heel; leading; right side."),
        ("Lead and push side.", "right", "Left and right side."),
    ],
)
def test_feet_are_called_as_was_chosen(text: str, hand: Handedness, said: str) -> None:
    assert in_words(text, hand, "left_right") == said
    feet_kept = in_words(text, hand, "lead_trail")
    assert feet_kept.split()[0] == text.split()[0]
    assert "pull side" not in feet_kept


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
    one = replace(sheet, ball_drill=sheet.rehearsal)
    once = as_html(SheetPage("Oda", "right", ON, one, pattern), knowledge)
    assert "Without a ball, then with one: Club under the heel" in once
    assert once.count("Right when:") == 1 < html.count("Right when:")
    assert as_pdf(html).startswith(b"%PDF")
    assert len(HTML(string=html).render().pages) == 1
    plain = HTML(string=html).write_pdf(uncompressed_pdf=True)
    fonts = set(re.findall(rb"/FontName /([\w+-]+)", plain))
    assert {name.split(b"+")[-1] for name in fonts} == {b"Sheet", b"Sheet-Bold"}
    assert plain.count(b"/FontFile") == len(fonts)


def test_where_no_drill_serves_the_cue_is_rehearsed(pattern: Pattern, knowledge: Knowledge) -> None:
    left = knowledge.cautions.without_a_drill.sentence
    sheet = sheet_of("early_lead_rush", pattern, [], "Let it fall.", None, False, knowledge)
    assert (sheet.rehearsal, sheet.ball_drill, sheet.without_a_drill) == (None, None, left)
    assert {d.balls for d in sheet.days} == {0}
    html = as_html(SheetPage("Oda", "right", ON, sheet, pattern), knowledge)
    assert left in html
    assert "Right when:" not in html
    assert a_sheet(pattern, knowledge).without_a_drill == ""


def compared(knowledge: Knowledge) -> TracesCompared:
    before, after = (
        [read_trace(swing(changed=changed), "recentre", knowledge)]
        for changed in ({"impact": 57}, {})
    )
    found = lay_over(before, after, knowledge.numbers)
    assert found is not None
    return found


def test_before_and_after_are_on_it(pattern: Pattern, knowledge: Knowledge) -> None:
    sheet = a_sheet(pattern, knowledge, misses=["heel"])
    said = "Real: the strike 9 mm nearer the toe."
    page = SheetPage(
        "Oda", "left", ON, sheet, pattern, sides="left_right", retest=said,
        traces=compared(knowledge),
    )  # fmt: skip
    html = as_html(page, knowledge)
    assert f"<strong>The retest:</strong> {said}" in html
    assert "% on the right foot" in html
    assert sheet.rescue
    assert sheet.rescue in html
    lines = re.findall(r'd="M(.*?)"', html[html.index('class="traces"') :])[:2]
    at_ball = [
        min(line.split("L"), key=lambda p: abs(float(p.split()[0]) - _x(0))) for line in lines
    ]
    before, after = (float(point.split()[1]) for point in at_ball)
    assert before - after == pytest.approx(_y(57) - _y(88), abs=2)  # 31 points higher
    bare = as_html(SheetPage("Oda", "right", ON, a_sheet(pattern, knowledge), pattern), knowledge)
    assert 'class="traces"' not in bare
    assert "The retest" not in bare


def test_the_longest_sheets_fit_one_page(knowledge: Knowledge) -> None:
    """The longest plan, every caution, and the three causes with most to say."""
    sheets = []
    shot = Shot(start="pull", curve="far_push", heel_toe_mm=-14, contact="fat", divot_start_cm=-9)
    pattern = read_pattern([Block(shots=(shot,) * 8)], knowledge, 15)
    for cause in knowledge.causes:
        drills = [d.id for d in knowledge.drills if cause.id in d.targets]
        cue = cues_for(cause.id, {}, None, knowledge)[0]
        sheet = sheet_of(cause.id, pattern, drills, cue, 9, True, knowledge, misses=["fat"])
        chain = chain_alone(cause, knowledge)
        page = SheetPage(
            "Aurelia Featherstone-Holloway", "left", ON, sheet, pattern, chain,
            complaint="Everything goes short and fat since the spring, and I have no idea why.",
            retest="Not yet more than chance: the low point 5 cm further forward.",
            traces=compared(knowledge),
        )  # fmt: skip
        sheets.append(as_html(page, knowledge))
    for html in sorted(sheets, key=len)[-3:]:
        assert len(HTML(string=html).render().pages) == 1


def test_stills_stand_on_it_with_their_words_and_take_a_page_of_their_own_where_it_is_full(
    pattern: Pattern, knowledge: Knowledge
) -> None:
    said = "Trail heel off the ground: felt 0 cm, the film shows 6, give or take 2."
    stills = (SheetStill(picture(270, 480), said), SheetStill(picture(270, 480), ""))
    sheet = a_sheet(pattern, knowledge, misses=["heel"])
    page = SheetPage("Oda", "right", ON, sheet, pattern, stills=stills)
    html = as_html(page, knowledge)
    assert said in html
    assert html.count("<img") == 2
    full = replace(page, traces=compared(knowledge), retest="Real: the strike nearer the toe.")
    for one in (html, as_html(full, knowledge)):
        assert 1 <= len(HTML(string=one).render().pages) <= 2


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
        ({"start": "pull", "contact": "fat", "divot_start_cm": -14}, "8 of 8 fat"),
        ({"start": "pull", "divot_start_cm": -14}, "the ground before the ball"),
        ({"contact": "hosel"}, "8 of 8 off the hosel"),
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
    assert without_a_drill(cards.keys() - kept_back, knowledge) == ""
    alone = cards_for("early_lead_rush", knowledge, here)
    assert {c.instead for c in alone} == {None}  # the only drill for it asks for balance
    assert all(c.withheld for c in alone)
    assert "cue alone" in without_a_drill([], knowledge)
    assert "made for this cause" in cards["line_and_divots"].pros
    nothing_left = cards_for("trail_knee_fires", knowledge, here)
    assert {c.drill for c in nothing_left} == {
        d.id for d in knowledge.drills if "trail_knee_fires" in d.targets
    }


def test_only_links_that_the_balls_show_are_on_it(knowledge: Knowledge) -> None:
    """A player of square pulls is not told of an open face and a path to the right."""
    pull = Shot(start="far_pull", curve="straight", contact="clean", heel_toe_mm=0)
    pattern = read_pattern([Block(shots=(pull,) * 8)], knowledge, 15)
    chain = ("static_hips", "over_the_top", "path_minus", "face_open", "heel_strike", "loft_added")
    shown = shown_by(chain, pattern, 3.0, knowledge)
    assert shown == ("static_hips", "over_the_top", "path_minus")
    push = Shot(start="far_push", curve="straight", contact="clean", heel_toe_mm=0)
    right = read_pattern([Block(shots=(push,) * 8)], knowledge, 15)
    assert shown_by(chain, right, 3.0, knowledge) == ("static_hips",)


def test_the_page_speaks_to_the_student(pattern: Pattern, knowledge: Knowledge) -> None:
    for cause in knowledge.causes:
        assert re.match(r"(You|Your|Both your|The) ", cause.you), cause.id
        drills = [d.id for d in knowledge.drills if cause.id in d.targets]
        cue = cues_for(cause.id, {}, None, knowledge)[0]
        sheet = sheet_of(cause.id, pattern, drills, cue, 9, True, knowledge, misses=["fat"])
        html = as_html(SheetPage("Oda", "right", ON, sheet, pattern), knowledge)
        assert "before any drill" not in html
        assert "the player" not in sheet.cause
        assert re.search(r"\byour?\b", sheet.cause, re.IGNORECASE) or cause.id == "ball_position"
        assert not re.search(r"<h2>[^<]*</h2>\s*(<h2|</body)", html)  # no heading without text
        for drill in {sheet.rehearsal, sheet.ball_drill} - {None}:
            for step in knowledge.drill[drill or ""].steps:
                assert step.split(",")[0][:20].replace("'", "&#39;") in html


def test_a_drill_is_drawn_as_it_is_when_right(knowledge: Knowledge) -> None:
    """Every drill whose figure stands; a left-hander's is mirrored."""
    drawn = 0
    for drill in knowledge.drills:
        svg = figure_svg(drill.id, "right", knowledge)
        if svg:
            drawn += 1
            ElementTree.fromstring(svg)
            mirrored = figure_svg(drill.id, "left", knowledge)
            assert mirrored.replace(' transform="translate(100 0) scale(-1 1)"', "", 1) == svg
    assert drawn >= 30
