"""The block that separates two causes: what is expected, what came, and how often it tells."""

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, School, Shot
from firm_footing.core.conclusions.schools import start_by_school
from firm_footing.core.conclusions.separating import separating_blocks
from firm_footing.core.conclusions.what_if import without
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.inference import infer
from firm_footing.core.inference.intervention import OwnSizes, branches, change_of
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.knowledge.schools import LinkView
from firm_footing.simulators.student import hit_block, make_student
from tests import sizes

PULL_SLICE = Shot(
    start="pull", curve="push", contact="clean", heel_toe_mm=-14, divot_start_cm=-2, carry_m=118
)
CASE = Case(handedness="right", blocks=(Block(expected_carry_m=135, shots=(PULL_SLICE,) * 8),))
HEEL, SHOVE = "trail_heel_pops", "trail_side_shove"


ALL_LINKS = (LinkView(1.0, frozenset()),)


def blocks(case: Case, k: Knowledge):  # type: ignore[no-untyped-def]
    return separating_blocks(infer(case, k), HEEL, SHOVE)


def test_a_block_that_takes_one_away_moves_the_balls_only_if_it_is_that_one(
    knowledge: Knowledge,
) -> None:
    found = {b.drill: b for b in blocks(CASE, knowledge)}
    club = found["club_under_heel"]
    assert club.if_one.heel_toe_mm.value > 6 > 2 > abs(club.if_other.heel_toe_mm.value)
    toes = found["trail_toes_up"]
    assert toes.if_other.start_deg.value > 3 > 1 > abs(toes.if_one.start_deg.value)
    assert 0.6 <= club.tells <= 1


def test_a_constraint_that_moves_everyone_says_so_for_both(knowledge: Knowledge) -> None:
    back = next(b for b in blocks(CASE, knowledge) if b.drill == "trail_foot_back")
    assert min(back.if_one.start_deg.value, back.if_other.start_deg.value) > 2


def test_limits_withhold_a_block(knowledge: Knowledge) -> None:
    assert "trail_foot_back" in [b.drill for b in blocks(CASE, knowledge)]
    wobbly = CASE.model_copy(update={"limits": ("balance",)})
    assert "trail_foot_back" not in [b.drill for b in blocks(wobbly, knowledge)]


@pytest.mark.parametrize("truth", [HEEL, SHOVE])
def test_the_verdict_points_to_the_truth_about_as_often_as_said(
    knowledge: Knowledge, truth: str
) -> None:
    """Simulated students with one of two causes hit a block with the club under the heel.

    When the cause is the one it takes away, they hit it without that cause.
    """
    students = sizes.of(14, 60)
    other = {HEEL: SHOVE, SHOVE: HEEL}[truth]
    right, said = [], []
    for seed in range(students):
        rng = np.random.default_rng(seed)
        student = make_student([truth], 18, "thrown", knowledge, rng)
        freed = student
        if truth == HEEL:
            rows = np.array(knowledge.effects[HEEL, "thrown", None])
            freed = type(student)(
                **vars(student) | {"delivery": student.delivery - student.severity[HEEL] * rows}
            )
        base = hit_block(student, 10, "7i", 135, knowledge, rng)
        trial = hit_block(freed, 5, "7i", 135, knowledge, rng)
        done = trial.model_copy(update={"kind": "trial", "drill": "club_under_heel"})
        case = Case(handedness="right", blocks=(base,))
        expected = {b.drill: b for b in separating_blocks(infer(case, knowledge), truth, other)}
        if "club_under_heel" not in expected:
            continue
        said.append(expected["club_under_heel"].tells)
        after = infer(case.model_copy(update={"blocks": (base, done)}), knowledge)
        bits = dict(zip([p.id for p in after.pieces], after.now.bits, strict=True))["trial:1"]
        index = knowledge.cause_index
        right.append(bits[index[truth]] > bits[index[other]])
    assert len(right) > 0.66 * students
    # two standard deviations: 60 students know a share to about 6 points; the stand-in always does
    # the drill right
    assert np.mean(right) > np.mean(said) - 0.93 / students**0.5


def test_the_verdict_of_a_block_compares_the_two_that_led_without_it(knowledge: Knowledge) -> None:
    freed = PULL_SLICE.model_copy(update={"start": "push", "heel_toe_mm": -2})
    trial = Block(kind="trial", drill="club_under_heel", expected_carry_m=135, shots=(freed,) * 5)
    readings = (Reading(check="trail_heel_up_early", answer="yes"),)
    case = CASE.model_copy(update={"blocks": (*CASE.blocks, trial), "readings": readings})
    (verdict,) = diagnose(case, knowledge).trial_results
    before = diagnose(CASE.model_copy(update={"readings": readings}), knowledge)
    assert (verdict.one, verdict.other) == before.decision_status.leading
    assert verdict.came.heel_toe_mm.value == pytest.approx(12, abs=1)
    heel_first = verdict.bits if verdict.one == HEEL else -verdict.bits
    assert heel_first > 1
    piece = {
        w.evidence: w.bits
        for c in diagnose(case, knowledge).causes
        if c.id == HEEL
        for w in c.speaks_for
    }
    assert piece["trial:1"] > 1


@pytest.mark.parametrize(
    ("cause", "name", "column"),
    [
        ("trail_heel_pops", "heel_toe_mm", 3),
        ("hang_back", "low_point_cm", 2),
        ("reverse_pivot", "low_point_cm", 2),
    ],
)
def test_the_prediction_comes_nearer_than_predicting_no_change(
    knowledge: Knowledge, cause: str, name: str, column: int
) -> None:
    """Simulated students with one cause against the same person freed of it."""
    effect = knowledge.effects[cause, "thrown", None][column]
    off, change = [], []
    for seed in range(25):
        rng = np.random.default_rng([7, seed])
        student = make_student([cause], 18, "thrown", knowledge, rng)
        block = hit_block(student, 12, "7i", 135, knowledge, rng)
        case = Case(handedness="right", blocks=(block,))
        found = without(infer(case, knowledge), cause)
        then, now = getattr(found.without, name).value, getattr(found.now, name).value
        change.append(effect * student.severity[cause])
        off.append(then - now + change[-1])
    assert np.square(off).sum() < 0.5 * np.square(change).sum()


def test_carry_comes_back_with_the_strike(knowledge: Knowledge) -> None:
    found = without(infer(CASE, knowledge), HEEL)
    assert found.now.carry_pct.value == pytest.approx(100 * 118 / 135, abs=1)
    assert found.without.carry_pct.value > found.now.carry_pct.value + 2


def test_a_cause_taken_away_never_acts_backwards(knowledge: Knowledge) -> None:
    """However mild the balls make it: what is gone changes by nothing, not the other way."""
    space = enumerate_space(knowledge)
    (branch,) = branches(space, ("hang_back",), 1.0, ALL_LINKS)[-1:]
    mild = OwnSizes(np.full(branch.gone.shape, -9.0), np.ones(branch.gone.shape[1]))
    low = DIMENSIONS.index("low_point_cm")
    usual = change_of(space, branch, None, 18)[low]
    assert (change_of(space, branch, mild, 18)[low] == 0).all()
    assert usual.max() > 5  # without it the low point moves forward


def test_what_is_left_stops_at_the_floor_and_not_what_goes(knowledge: Knowledge) -> None:
    """Every configuration by hand: the delivery with and without, each stopped where it stops."""
    space, numbers = enumerate_space(knowledge), knowledge.numbers.delivery
    floors = {"low_point_cm": numbers.low_point_floor_cm, "heel_toe_mm": numbers.strike_floor_mm}
    together = 0
    for branch in branches(space, ("hang_back",), 1.0, ALL_LINKS):
        variants = space.variant_of[:, branch.configurations]
        change = change_of(space, branch, None, 18)
        for name, floor in floors.items():
            column = DIMENSIONS.index(name)
            base = numbers.cause_free_low_point_cm(18) if name == "low_point_cm" else 0.0
            whole = base + space.effects[variants, column].sum(axis=0)
            left = whole - space.effects[branch.gone, column].sum(axis=0)
            assert change[column] == pytest.approx(
                np.maximum(left, floor) - np.maximum(whole, floor), abs=1e-12
            )
            together += int((whole < floor).sum())
    assert together > 1000  # so many configurations reach beyond


def test_a_school_is_weighed_again_and_not_only_told(knowledge: Knowledge) -> None:
    """What each school starts with is what the case comes to when it is weighed under it."""
    shot = Shot(start="pull", curve="straight", heel_toe_mm=-5)
    readings = (
        Reading(check="trail_heel_deep_going_back", answer="yes"),
        Reading(check="lead_toe_up_at_impact", answer="yes"),
    )
    case = Case(handedness="right", blocks=(Block(shots=(shot,) * 8),), readings=readings)
    found = start_by_school(infer(case, knowledge))
    for question, option, first in found:
        school = School.model_validate({question: option})
        under = infer(case.model_copy(update={"school": school}), knowledge)
        assert first == knowledge.causes[int(np.argmax(under.root))].id
    assert len(found) == sum(len(q.options) - 1 for q in knowledge.schools.questions.values())
    assert len({first for _, _, first in found}) > 1
