"""How a trace is judged, school by school: built traces whose signs are known.

The limits are common practice, no source, unless the knowledge says that they are estimates.
"""

from collections import Counter

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Shot, Trace
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.frame import neutral_feet
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.soft_threshold import in_a_word
from firm_footing.core.pressure.recorded import TraceError
from firm_footing.core.pressure.trace import TraceRead, read_trace
from firm_footing.simulators.pressing import habit_of, press
from firm_footing.simulators.student import make_student
from tests.core.swings import SOUND, swing

RATES = (50.0, 200.0, 2000.0)
HALF = "half_or_more_trail_at_impact"
FAT_AND_THIN = Block(
    surface="turf",
    shots=tuple(Shot(start="straight", contact=c) for c in ("fat", "thin", "fat", "thin", "fat")),
)
EVEN = (50.0,) * 8
# at address, shaft level back, lead arm level back, top, lead arm down, delivery, impact, finish
INTO_THE_TOES = (50, 80, 86, 70, 55, 55, 60, 80)
INTO_THE_HEEL = (50, 24, 18, 30, 45, 50, 60, 85)
HEEL_THEN_TOES = (50, 24, 10, 58, 92, 92, 80, 90)
IN_THE_HEELS = (18, 25, 35, 45, 50, 50, 50, 60)


def at_impact(share: float, school: str = "recentre", rate: float = 200.0) -> Trace:
    down = {"lead_arm_level_down": 70, "shaft_level_down": 82} if school == "recentre" else {}
    kept = {name: min(value, share) for name, value in down.items()}
    return swing(school, {**kept, "impact": share}, rate_hz=rate)


def chance(case: Case, cause: str, knowledge: Knowledge) -> float:
    return next(c.probability for c in diagnose(case, knowledge).causes if c.id == cause)


@pytest.mark.parametrize("rate", RATES)
@pytest.mark.parametrize(
    ("share", "word"), [(88, "no"), (65, "partly"), (58, "partly"), (54, "yes"), (48, "yes")]
)
def test_too_little_at_impact_is_graded(
    share: float, word: str, rate: float, knowledge: Knowledge
) -> None:
    read = read_trace(at_impact(share, rate=rate), "recentre", knowledge)
    assert in_a_word(read.judged.answers[HALF]) == word
    assert ("weak" in read.signs) == (word != "no")


def test_too_little_at_impact_speaks_for_hanging_back(knowledge: Knowledge) -> None:
    """58 per cent once said 'no sign of trouble' and spoke against it."""
    balls = Case(handedness="right", blocks=(FAT_AND_THIN,))
    alone = chance(balls, "hang_back", knowledge)
    found = [
        chance(balls.model_copy(update={"traces": (at_impact(s),)}), "hang_back", knowledge)
        for s in (88, 70, 58, 51)
    ]
    assert found == sorted(found)
    assert found[0] < 0.2 < alone < found[2] < found[3]


def test_what_rises_after_the_ball_still_was_too_little_at_it(knowledge: Knowledge) -> None:
    late = swing(changed={"lead_arm_level_down": 45, "shaft_level_down": 48, "impact": 51})
    assert in_a_word(read_trace(late, "recentre", knowledge).judged.answers[HALF]) == "yes"


@pytest.mark.parametrize(("above", "there"), [(-2, False), (1, False), (5, True), (12, True)])
@pytest.mark.parametrize("school", SOUND)
def test_rushing_is_clear_five_points_above_the_corridor(
    school: str, above: float, there: bool, knowledge: Knowledge
) -> None:
    high = knowledge.corridors.lead_pct[school]["lead_arm_level_down"][1]
    read = read_trace(swing(school, {"lead_arm_level_down": high + above}), school, knowledge)
    assert ("rush" in read.signs) == (there or (school == "recentre" and above > 0))


@pytest.mark.parametrize(
    ("school", "there"), [("recentre", True), ("steady", True), ("stay_lead", False)]
)
def test_eighty_before_the_lead_arm_is_level_is_a_rush_unless_one_stays_there(
    school: str, there: bool, knowledge: Knowledge
) -> None:
    read = read_trace(swing(school, {"top": 55, "lead_arm_level_down": 81}), school, knowledge)
    assert ("rush" in read.signs) == there


def early_then_back() -> Trace:
    changed = {"top": 50, "lead_arm_level_down": 80, "shaft_level_down": 72, "impact": 57}
    return swing(changed=changed)


@pytest.mark.parametrize("blocks", [(), (FAT_AND_THIN,)])
def test_early_then_back_up_is_both_a_rush_and_a_retreat(
    blocks: tuple[Block, ...], knowledge: Knowledge
) -> None:
    trace = early_then_back()
    assert {"rush", "retreat", "weak"} <= set(read_trace(trace, "recentre", knowledge).signs)
    case = Case(handedness="right", blocks=blocks, traces=(trace,))
    order = [c.id for c in diagnose(case, knowledge).causes]
    assert "backs_up" in order[:2]
    assert "backs_up" in knowledge.cause["early_lead_rush"].upstream_of
    without = case.model_copy(update={"traces": ()})
    rush = chance(case, "early_lead_rush", knowledge)
    assert rush > 2 * chance(without, "early_lead_rush", knowledge)


def by_school(trace: Trace, knowledge: Knowledge) -> dict[str, TraceRead]:
    return {
        school.id: read_trace(trace, "recentre", knowledge, heel_toe=school.id)
        for school in knowledge.schools.heel_toe.options
    }


@pytest.mark.parametrize("rate", RATES)
def test_toes_going_back(rate: float, knowledge: Knowledge) -> None:
    trace = swing(rate_hz=rate, feet={"lead": EVEN, "trail": INTO_THE_TOES})
    for read in by_school(trace, knowledge).values():
        assert "toes_back" in read.signs
        assert in_a_word(read.judged.answers["toes_going_back"]) == "yes"


@pytest.mark.parametrize("rate", RATES)
def test_a_deep_trail_heel_is_a_fault_by_school(rate: float, knowledge: Knowledge) -> None:
    check = "trail_heel_deep_going_back"
    deep = by_school(swing(rate_hz=rate, feet={"lead": EVEN, "trail": INTO_THE_HEEL}), knowledge)
    assert {s for s, read in deep.items() if "heel_back" in read.signs} == {"mid_foot", "forefoot"}
    assert check not in deep["heels"].judged.answers
    assert check not in deep["undecided"].judged.answers  # deep, and nothing follows: neither way
    sound = by_school(swing(rate_hz=rate, feet={"lead": EVEN, "trail": EVEN}), knowledge)
    assert in_a_word(sound["undecided"].judged.answers[check]) == "no"
    followed = by_school(
        swing(rate_hz=rate, feet={"lead": EVEN, "trail": HEEL_THEN_TOES}), knowledge
    )
    assert {s for s, read in followed.items() if "heel_back" in read.signs} == {
        "mid_foot", "forefoot", "undecided",
    }  # fmt: skip


def test_sitting_in_the_heels_at_address(knowledge: Knowledge) -> None:
    read = read_trace(
        swing(feet={"lead": IN_THE_HEELS, "trail": IN_THE_HEELS}), "recentre", knowledge
    )
    assert "heels_address" in read.signs
    assert in_a_word(read.judged.answers["sitting_in_heels"]) == "yes"
    sound = read_trace(swing(feet={"lead": EVEN, "trail": EVEN}), "recentre", knowledge)
    assert in_a_word(sound.judged.answers["sitting_in_heels"]) == "no"


def test_a_path_that_crosses_itself_is_a_figure_of_eight(knowledge: Knowledge) -> None:
    eight = by_school(swing(feet={"lead": EVEN, "trail": HEEL_THEN_TOES}), knowledge)
    assert "figure_eight" in eight["mid_foot"].signs
    assert "figure_eight" not in eight["heels"].signs
    straight = by_school(
        swing(feet={"lead": EVEN, "trail": (50, 45, 42, 45, 50, 52, 55, 80)}), knowledge
    )
    assert all("figure_eight" not in read.signs for read in straight.values())


@pytest.mark.parametrize("hand", ["right", "left"])
def test_feet_are_the_same_for_both_hands(hand: str, knowledge: Knowledge) -> None:
    trace = swing(feet={"lead": EVEN, "trail": HEEL_THEN_TOES})
    trail, lead = ("right", "left") if hand == "right" else ("left", "right")
    names = tuple(c.replace("lead", lead).replace("trail", trail) for c in trace.columns)
    back = trace.model_copy(update={"columns": neutral_feet(names, hand)})
    assert back == trace
    assert (
        read_trace(back, "recentre", knowledge).signs
        == read_trace(trace, "recentre", knowledge).signs
    )


@pytest.mark.parametrize(
    ("sideways", "turning", "up", "there"),
    [(-0.2, -0.12, -0.07, False), (-0.1, -0.16, -0.07, True), (-0.2, -0.1, -0.18, True)],
)
def test_forces_have_an_order(
    sideways: float, turning: float, up: float, there: bool, knowledge: Knowledge
) -> None:
    trace = swing(sideways_s=sideways, turning_s=turning, jump_s=up)
    read = read_trace(trace, "recentre", knowledge)
    assert ("out_of_order" in read.signs) == there
    assert read.measures.peaks["sideways"].t_s == pytest.approx(sideways, abs=0.01)
    assert "out_of_order" not in read_trace(swing(), "recentre", knowledge).signs  # not recorded


TYPED = {"address": 50.0, "top": 46.0, "lead_arm_level_down": 70.0, "shaft_level_down": 82.0}


@pytest.mark.parametrize("impact", [88.0, 65.0, 52.0])
def test_five_typed_numbers_are_judged_like_the_trace_they_were_read_from(
    impact: float, knowledge: Knowledge
) -> None:
    typed = Trace(typed_pct={**TYPED, "impact": impact})
    read = read_trace(typed, "recentre", knowledge)
    whole = read_trace(swing(changed={"impact": impact}), "recentre", knowledge)
    assert set(read.signs) == {s for s in whole.signs if s != "late"}
    for check, share in read.judged.answers.items():
        assert share == pytest.approx(whole.judged.answers[check], abs=0.2)
    assert {name: read.measures.lead_pct[name] for name in typed.typed_pct} == pytest.approx(
        dict(typed.typed_pct), abs=0.05
    )  # what was typed is what is said
    assert "shift_starts_after_top" not in read.judged.answers  # five numbers cannot tell
    assert not read.maybe_swapped


def test_all_eight_events_can_be_typed(knowledge: Knowledge) -> None:
    """Loaded as the shaft gets level, and turning as the lead arm does, going back."""
    back = {"shaft_level_back": 40.0, "lead_arm_level_back": 30.0}
    typed = {**TYPED, **back, "impact": 85.0, "finish": 90.0}
    read = read_trace(Trace(typed_pct=typed), "recentre", knowledge)
    assert {e: read.measures.lead_pct[e] for e in typed} == pytest.approx(typed, abs=0.05)


@pytest.mark.parametrize(
    "typed",
    [{"impact": 80.0}, {"address": 50.0, "top": 40.0, "shaft_level_down": 70.0}],
)
def test_typed_numbers_that_say_too_little(typed: dict[str, float], knowledge: Knowledge) -> None:
    with pytest.raises(TraceError):
        read_trace(Trace(typed_pct=typed), "recentre", knowledge)


@pytest.mark.parametrize("school", ["recentre", "steady", "stay_lead"])
@pytest.mark.parametrize("heel_toe", ["undecided", "mid_foot", "heels", "forefoot"])
def test_sound_swings_of_the_stand_in_are_quiet(
    school: str, heel_toe: str, knowledge: Knowledge
) -> None:
    """Of forty people without a cause hardly any shows a sign, whoever judges them."""
    seen: Counter[str] = Counter()
    for seed in range(40):
        rng = np.random.default_rng(seed)
        student = make_student((), 8.0, "thrown", knowledge, rng)
        trace = press(student, habit_of(student, rng), school, knowledge, rng, name_events=True)  # type: ignore[arg-type]
        seen.update(read_trace(trace, school, knowledge, heel_toe=heel_toe).signs)
    assert max(seen.values(), default=0) <= 4, seen
    assert sum(seen.values()) <= 8, seen
