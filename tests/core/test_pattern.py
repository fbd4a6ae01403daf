"""From balls to the delivery: a table that reads as the specification, and an arithmetic check."""

import numpy as np
import pytest

from firm_footing.core.case import Block, Shot
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import read_pattern
from firm_footing.core.patterns.shape import shape_name
from firm_footing.core.physics.forward import FACE_TO_PATH, PATH, Setting, play
from firm_footing.simulators.student import hit_block, make_student

# Common practice, no source: shapes from start and curve, golfer-neutral degrees.
SHAPES = [
    (-3.1, 4.0, "pull-slice"),
    (0.0, 0.0, "straight"),
    (-4.0, 0.5, "pull"),
    (4.0, 0.0, "push"),
    (-2.0, -3.0, "pull-draw"),
    (0.5, -7.0, "hook"),
    (1.0, 3.0, "fade"),
    (3.0, 5.0, "push-slice"),
    (3.0, -3.0, "push-draw"),
    (1.4, 1.9, "straight"),
]


@pytest.mark.parametrize(("start", "curve", "name"), SHAPES)
def test_shapes_have_the_trades_names(
    knowledge: Knowledge, start: float, curve: float, name: str
) -> None:
    assert shape_name(start, curve, knowledge.numbers.shape) == name


def block(*shots: Shot, club: str = "7i", **values: object) -> Block:
    return Block.model_validate({"club": club, "shots": shots, **values})


def test_start_and_curve_give_path_and_face(knowledge: Knowledge) -> None:
    """Deliveries are flown; from start and curve alone their middle is found again."""
    club = knowledge.club["7i"]
    usual = knowledge.numbers.delivery
    parts = np.random.default_rng(4).normal(
        (-4.0, 2.0, 3.5, 0.0, 0.0, 0.0, 0.0),
        (*usual.ball_sd.row(), usual.ball_height_sd_mm),
        (60, 7),
    )
    flown = play(parts, Setting(club, 35.0, False, knowledge.numbers.turf))
    shots = [
        Shot(start_deg=start, curve_deg=curve)
        for start, curve in zip(
            flown.launch.direction_deg.tolist(), flown.curve_deg.tolist(), strict=True
        )
    ]
    found = read_pattern([block(*shots)], knowledge)
    middle = parts[:, [PATH, FACE_TO_PATH]].mean(axis=0)
    assert found.path_deg is not None
    assert found.face_to_path_deg is not None
    off = np.array([found.path_deg.value, found.face_to_path_deg.value]) - middle
    assert np.abs(off).max() < 0.5
    assert max(found.path_deg.se, found.face_to_path_deg.se) < 1.0


def test_what_was_not_seen_is_missing(knowledge: Knowledge) -> None:
    found = read_pattern([block(Shot(start="pull"))], knowledge)
    assert found.start_deg is not None
    assert found.path_deg is None
    assert found.low_point_cm is None
    assert found.carry_lost_pct is None
    assert found.shape is None
    assert read_pattern([], knowledge).balls == 0


def test_more_balls_narrow_the_estimate(knowledge: Knowledge) -> None:
    shot = Shot(start="pull", curve="push", heel_toe_mm=-10)
    few = read_pattern([block(*[shot] * 4)], knowledge)
    many = read_pattern([block(*[shot] * 16)], knowledge)
    for name in ("path_deg", "face_to_path_deg", "heel_toe_mm"):
        assert getattr(many, name).se < 0.7 * getattr(few, name).se


def test_one_wild_ball_among_ten_does_not_turn_the_pattern(knowledge: Knowledge) -> None:
    ordinary = [Shot(start_deg=-3.0, curve_deg=3.0, heel_toe_mm=-10)] * 9
    wild = Shot(start_deg=25.0, curve_deg=-20.0, heel_toe_mm=30)
    found = read_pattern([block(*ordinary, wild)], knowledge)
    plain_mean = (9 * -3.0 + 25.0) / 10
    assert found.start_deg is not None
    assert abs(found.start_deg.value - -3.0) < 0.2 * abs(plain_mean - -3.0)
    assert found.shape == "pull-fade"


def test_a_shank_is_information_about_the_strike_only(knowledge: Knowledge) -> None:
    sound = [Shot(start="straight", curve="straight", heel_toe_mm=0)] * 8
    shanks = [Shot(start="far_push", curve="push", contact="hosel")] * 2
    with_shanks = read_pattern([block(*sound, *shanks)], knowledge)
    without = read_pattern([block(*sound)], knowledge)
    assert with_shanks.heel_toe_mm is not None
    assert with_shanks.heel_toe_mm.value < -5
    assert with_shanks.path_deg is not None
    assert without.path_deg is not None
    assert with_shanks.path_deg.value == pytest.approx(without.path_deg.value, abs=0.1)
    assert with_shanks.path_deg.se == pytest.approx(without.path_deg.se, rel=0.06)


def test_the_low_point_lies_half_a_divot_ahead_of_its_start(knowledge: Knowledge) -> None:
    measured = read_pattern([block(Shot(divot_start_cm=1, divot_length_cm=12))], knowledge)
    assumed = read_pattern([block(Shot(divot_start_cm=1))], knowledge)
    brushed = read_pattern([block(Shot(brush_start_cm=1), surface="mat")], knowledge)
    for found in (measured, assumed, brushed):
        assert found.low_point_cm is not None
        assert found.low_point_cm.value == pytest.approx(7)


def test_measured_wins_over_words_and_a_teed_ball_says_nothing_of_turf(
    knowledge: Knowledge,
) -> None:
    both = read_pattern([block(Shot(start="push", start_deg=-3.0))], knowledge)
    assert both.start_deg is not None
    assert both.start_deg.value == -3.0
    teed = read_pattern([block(Shot(contact="thin"), club="d")], knowledge)
    assert teed.low_point_cm is None


def test_a_side_and_a_carry_make_a_curve(knowledge: Knowledge) -> None:
    """asin and atan differ by under 0.1 degrees at these angles; 7 m at 100 m is 4 degrees."""
    shot = Shot(start_deg=1.0, side_m=7.0, carry_m=100.0)
    found = read_pattern([block(shot)], knowledge)
    assert found.curve_deg is not None
    assert found.curve_deg.value == pytest.approx(3.0, abs=0.1)


def test_pushes_and_hooks_are_a_two_way_miss(knowledge: Knowledge) -> None:
    miss = [Shot(start="push", curve="straight")] * 3 + [Shot(start="push", curve="far_pull")] * 3
    assert read_pattern([block(*miss)], knowledge).two_way is True
    one_way = [Shot(start="push", curve="push")] * 6
    assert read_pattern([block(*one_way)], knowledge).two_way is False
    few = miss[1:5] + [Shot(start="straight", curve="straight")] * 10  # 2 and 2 of 14
    assert read_pattern([block(*few)], knowledge).two_way is False


@pytest.mark.parametrize("balls", [10, 20, 40])
def test_more_balls_of_a_sound_player_are_no_more_two_way(knowledge: Knowledge, balls: int) -> None:
    """Without a cause and noted in words: a few of forty go either way, and that is scatter."""
    called = []
    for seed in range(60):
        rng = np.random.default_rng([28, seed])
        student = make_student([], 15, "thrown", knowledge, rng)
        hit = hit_block(student, balls, "7i", 135, knowledge, rng)
        called.append(read_pattern([hit], knowledge, 15).two_way)
    assert np.mean(called) <= 0.12


def test_lost_carry_is_against_what_was_expected(knowledge: Knowledge) -> None:
    found = read_pattern([block(Shot(carry_m=120), expected_carry_m=150)], knowledge)
    assert found.carry_lost_pct is not None
    assert found.carry_lost_pct.value == pytest.approx(20)
