"""From balls to the delivery: a table that reads as the specification, and an arithmetic check."""

import pytest

from firm_footing.core.ball import read_pattern
from firm_footing.core.ball.shape import shape_name
from firm_footing.core.case import Block, Shot
from firm_footing.core.knowledge import Knowledge

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
    """Start = path + share (face - path), curve in proportion to face - path: two equations."""
    club = knowledge.club["7i"]
    path, face_to_path = -4.0, 2.0
    shot = Shot(
        start_deg=path + club.start_face_share * face_to_path,
        curve_deg=club.curve_per_deg * face_to_path,
    )
    found = read_pattern([block(*[shot] * 10)], knowledge)
    assert found.path_deg is not None
    assert found.face_to_path_deg is not None
    assert found.path_deg.value == pytest.approx(path)
    assert found.face_to_path_deg.value == pytest.approx(face_to_path)


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
    few = read_pattern([block(*[shot] * 3)], knowledge)
    many = read_pattern([block(*[shot] * 12)], knowledge)
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
    assert with_shanks.path_deg == without.path_deg


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


def test_blocks_and_hooks_are_a_two_way_miss(knowledge: Knowledge) -> None:
    miss = [Shot(start="push", curve="straight")] * 3 + [Shot(start="push", curve="far_pull")] * 3
    assert read_pattern([block(*miss)], knowledge).two_way is True
    one_way = [Shot(start="push", curve="push")] * 6
    assert read_pattern([block(*one_way)], knowledge).two_way is False


def test_lost_carry_is_against_what_was_expected(knowledge: Knowledge) -> None:
    found = read_pattern([block(Shot(carry_m=120), expected_carry_m=150)], knowledge)
    assert found.carry_lost_pct is not None
    assert found.carry_lost_pct.value == pytest.approx(20)
