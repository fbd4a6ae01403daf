"""The ladder of a drill, and the days until the check-in."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from firm_footing.core.case import Block, Case, Shot
from firm_footing.core.coaching.cues import cues_for
from firm_footing.core.coaching.ladder import Result, climb
from firm_footing.core.coaching.practice import near_event, plan_practice
from firm_footing.core.conclusions.reported_miss import as_if_hit
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.cues import Leg, Way
from firm_footing.core.patterns import read_pattern
from firm_footing.core.text.sheet import NOTHING_NEW, rescue_for, sheet_of
from firm_footing.files.knowledge_files import load_knowledge

P, E, L = "pass", "early", "late"


@pytest.mark.parametrize(
    ("results", "at", "row", "said"),
    [
        ([], 0, 0, "begin"),
        ([P] * 4, 0, 4, "stay"),
        ([P] * 5, 1, 0, "up"),
        ([P] * 4 + [E] + [P] * 4, 0, 4, "stay"),
        ([P] * 5 + [E, L], 0, 0, "down"),
        ([E, E], 0, 0, "reopen"),
        ([P] * 15, 3, 0, "up"),
        ([P] * 20, 3, 0, "done"),
        ([P] * 15 + [E, P, E, P], 3, 1, "stay"),
    ],
)
def test_runs_of_passes_and_fails_move_the_ladder(
    results: list[Result], at: int, row: int, said: str, knowledge: Knowledge
) -> None:
    usual = knowledge.drill["hip_stick"]  # without steps of its own
    found = climb(results, usual, knowledge.numbers.coaching.ladder)
    assert (found.at, found.in_a_row, found.said) == (at, row, said)
    assert found.passes + found.fails == len(results)


def test_a_drill_without_balls_ends_at_slow_swings(knowledge: Knowledge) -> None:
    found = climb([P] * 10, knowledge.drill["hammer_tee"], knowledge.numbers.coaching.ladder)
    assert (found.at, found.said) == (1, "done")
    assert not any(step.ball for step in found.steps)


def test_a_drill_has_its_own_steps_with_their_speed_and_how_many(knowledge: Knowledge) -> None:
    """Common practice: a third of full speed, half, 60 to 70 yards, 80 without a ball."""
    numbers = knowledge.numbers.coaching.ladder
    cushions = climb([P] * 5, knowledge.drill["cushions"], numbers)
    assert (cushions.at, cushions.in_a_row) == (0, 5)  # six in a row there
    assert climb([P] * 6, knowledge.drill["cushions"], numbers).at == 1
    for drill in knowledge.drills:
        steps = climb([], drill, numbers).steps
        speeds = [s.speed_pct for s in steps]
        assert speeds == sorted(speeds) or drill.id in ("sixty_percent", "bottle_guard")
    bottle = climb([], knowledge.drill["bottle_guard"], numbers).steps
    assert [(s.speed_pct, s.ball) for s in bottle] == [(80, False), (40, False), (50, True)]


@given(results=st.lists(st.sampled_from([P, E, L]), max_size=60))
def test_one_repetition_moves_by_one_step_at_most(
    results: list[Result], knowledge: Knowledge
) -> None:
    numbers = knowledge.numbers.coaching.ladder
    drill = knowledge.drill["hip_stick"]
    steps = [climb(results[:n], drill, numbers).at for n in range(len(results) + 1)]
    assert all(abs(b - a) <= 1 for a, b in pairwise(steps))


@given(event_in=st.one_of(st.none(), st.integers(-3, 40)), balls=st.booleans())
def test_every_day_has_something_until_the_check_in(
    event_in: int | None, balls: bool, knowledge: Knowledge
) -> None:
    numbers = knowledge.numbers.coaching.practice
    days = plan_practice(event_in, balls, numbers)
    assert [d.day for d in days] == list(range(1, len(days) + 1))
    assert [d.what for d in days].count("check_in") == 1
    assert days[-1].what == "check_in"
    assert len(days) <= numbers.check_in_days + 1
    assert balls or all(d.balls == 0 for d in days)
    if event_in is not None and 0 < event_in < len(days):
        what = {d.day: d.what for d in days}
        assert what[event_in] == "event"
        before = [event_in - 1 - i for i in range(numbers.setup_only_days)]
        assert all(what[day] == "setup_only" for day in before if day > 0)


def test_an_event_is_near_or_not(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers.coaching.practice
    assert [near_event(d, numbers) for d in (-1, 0, 2, 3)] == [False, True, True, False]
    assert not near_event(None, numbers)


@pytest.mark.parametrize(
    ("drills", "rehearsal", "ball"),
    [
        (["mirror_press", "start_trail_go_lead"], "mirror_press", "start_trail_go_lead"),
        (["start_trail_go_lead"], "start_trail_go_lead", "start_trail_go_lead"),
        (["trail_toes_up"], "trail_toes_up", "trail_toes_up"),  # hit with balls: begun dry
        (["trail_foot_back", "bottle_guard"], "bottle_guard", "trail_foot_back"),
        (["cushions"], "cushions", None),
        ([], None, None),
    ],
)
def test_what_is_planned_without_a_ball_is_on_the_sheet(
    drills: list[str], rehearsal: str | None, ball: str | None, knowledge: Knowledge
) -> None:
    pattern = read_pattern([], knowledge, 15)
    sheet = sheet_of("late_shift", pattern, drills, "", None, False, knowledge)
    assert (sheet.rehearsal, sheet.ball_drill) == (rehearsal, ball)
    assert any(d.balls for d in sheet.days) == (ball is not None)


def test_the_sheet_has_one_of_each_and_nothing_new_before_an_event(knowledge: Knowledge) -> None:
    pattern = read_pattern(
        [Block(shots=tuple(Shot(start="pull", curve="push", heel_toe_mm=-14) for _ in range(8)))],
        knowledge,
        15,
    )
    drills = ["club_under_heel", "trail_foot_back"]
    cue = cues_for("trail_heel_pops", {"jump": "moved"}, None, knowledge)[0]
    sheet = sheet_of("trail_heel_pops", pattern, drills, cue, None, True, knowledge)
    assert (sheet.rehearsal, sheet.ball_drill) == ("club_under_heel", "trail_foot_back")
    assert "struck toward the heel" in sheet.miss
    assert sheet.thought == sheet.cue
    assert any("guardian" in c for c in sheet.cautions)
    assert "balance" in sheet.cautions[0]
    near = sheet_of("trail_heel_pops", pattern, drills, cue, 1, False, knowledge)
    assert near.thought == NOTHING_NEW
    told = sheet_of(
        "trail_heel_pops", pattern, drills, cue, None, False, knowledge, misses=["shank", "slice"]
    )
    shank = next(m for m in knowledge.misses if m.id == "shank")
    assert (told.rescue, sheet.rescue, near.rescue) == (shank.rescues[0].say, "", "")
    assert not any("guardian" in c for c in near.cautions)
    grip = sheet_of("reach_to_ball", pattern, ["distance_reset"], "x", 1, False, knowledge)
    assert grip.thought == knowledge.cues.causes["reach_to_ball"].say


@pytest.mark.parametrize(
    ("drills", "usual", "near"),
    [
        (["hip_stick"], "the cue", NOTHING_NEW),
        (["sixty_percent"], "sixty_percent", NOTHING_NEW),  # it goes on through the swing
        (["lead_toes_down"], "lead_toes_down", "lead_toes_down"),  # set, then forgotten
        (["toes_curled"], "toes_curled", "toes_curled"),
        (["sixty_percent", "grip_reset"], "grip_reset", "grip_reset"),
    ],
)
def test_the_thought_is_finished_at_set_up_where_one_is(
    drills: list[str], usual: str, near: str, knowledge: Knowledge
) -> None:
    said = {d.id: d.on_course.say for d in knowledge.drills if d.on_course} | {"the cue": "Lead."}
    pattern = read_pattern([], knowledge, 15)
    for event_in, wanted in ((None, usual), (1, near)):
        sheet = sheet_of("lead_toe_lifts", pattern, drills, "Lead.", event_in, False, knowledge)
        assert sheet.thought == said.get(wanted, wanted)


def test_cues_speak_the_student_s_language(knowledge: Knowledge) -> None:
    said = knowledge.cues.sentences["lateral"]
    felt: dict[str, Way] = {"jump": "pushing", "one_leg_hop": "pushing", "hop_to_target": "moved"}
    # what was felt in the test of this very force goes first, else what was said more often
    assert cues_for("no_lateral_shift", felt, None, knowledge)[0] == said["trail"]["moved"]
    del felt["hop_to_target"]
    pushing = cues_for("no_lateral_shift", felt, None, knowledge)
    assert pushing[0] == said["trail"]["pushing"]
    moved = cues_for("no_lateral_shift", {"hop_to_target": "moved"}, "lead", knowledge)
    assert moved[:2] == (said["trail"]["moved"], said["lead"]["moved"])
    assert moved[-1] == knowledge.cues.images["lateral"][-1]  # a picture of it comes last
    assert all(cues_for(c.id, {}, None, knowledge) for c in knowledge.causes)
    assert knowledge.cautions.force_tests[0].component == "dominance"  # asked first


@pytest.mark.parametrize("dominant", [None, "lead", "trail"])
def test_no_cue_feeds_its_own_fault(dominant: Leg | None, knowledge: Knowledge) -> None:
    """Common practice, no source: who rushes forward waits, whose foot slides does not push."""
    said = knowledge.cues.sentences
    forward = {s for by_way in said["lateral"].values() for s in by_way.values()}
    assert not forward & set(cues_for("early_lead_rush", {}, dominant, knowledge))
    heel_away = set(said["rotational"]["trail"].values())
    assert not heel_away & set(cues_for("trail_side_shove", {}, dominant, knowledge))
    assert not heel_away & set(cues_for("deep_trail_heel", {}, dominant, knowledge))
    own = knowledge.cues.causes["early_lead_rush"]
    assert cues_for("early_lead_rush", {"jump": "moved"}, dominant, knowledge) == (
        own.moved,
        own.pushing,
    )


def test_a_miss_that_is_told_orders_the_looks_until_a_ball_is_hit(knowledge: Knowledge) -> None:
    empty = Case(handedness="right")
    plain = [c.id for c in diagnose(empty, knowledge).next_checks]
    told = as_if_hit(empty, ("shank", "heel"), knowledge)
    heard = [c.id for c in diagnose(told, knowledge).next_checks]
    assert heard[:5] != plain[:5]
    hit = Case(handedness="right", blocks=(Block(shots=(Shot(start="pull"),)),))
    assert as_if_hit(hit, ("shank",), knowledge) is hit
    for miss in knowledge.misses:
        assert as_if_hit(empty, (miss.id,), knowledge).blocks[0].shots


@pytest.mark.parametrize("cause", [c.id for c in load_knowledge().causes])
def test_no_rescue_does_what_the_cause_forbids(cause: str, knowledge: Knowledge) -> None:
    forbidden = set(knowledge.cues.causes[cause].forbids)
    for miss in knowledge.misses:
        said = rescue_for(cause, [miss.id], knowledge)
        chosen = next(r for r in miss.rescues if r.say == said)
        assert not forbidden & set(chosen.does)


@pytest.mark.parametrize(
    ("cause", "miss", "never", "says"),
    [
        ("reach_to_ball", "heel", "further from the ball", "hang under your shoulders"),
        ("early_lead_rush", "push", "onto your lead foot before", "Stay in the trail foot"),
        ("static_hips", "pull", "arms drop before", "hips go before the arms"),
        ("lead_toe_lifts", "pull", "arms drop", "Lead toes down, lead shoulder high"),
        ("aim_off", "slice", "Aim for the slice", "one club more"),
    ],
)
def test_the_rescue_is_chosen_by_cause_as_well_as_by_miss(
    cause: str, miss: str, never: str, says: str, knowledge: Knowledge
) -> None:
    """Common practice, no source."""
    said = rescue_for(cause, [miss], knowledge)
    assert never not in said
    assert says in said


def test_a_cue_that_loads_a_painful_leg_is_not_the_first(knowledge: Knowledge) -> None:
    usual = cues_for("hang_back", {}, None, knowledge)
    spared = cues_for("hang_back", {}, None, knowledge, hurt={"lead"})
    loading = set(knowledge.cues.sentences["lateral"]["lead"].values())
    assert usual[0] in loading
    assert spared[0] not in loading
    assert sorted(spared) == sorted(usual)  # none is withheld
    own = cues_for("backs_up", {}, None, knowledge, hurt={"lead"})
    assert own[0].startswith("A pause at the top")


def test_minutes_of_practice_can_be_set(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers.coaching.practice
    usual = plan_practice(None, True, numbers)
    short = plan_practice(None, True, numbers, 5)
    assert {d.minutes for d in short} == {0, 5}
    assert [(d.day, d.what, d.balls) for d in short] == [(d.day, d.what, d.balls) for d in usual]
