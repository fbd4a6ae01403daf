"""What one block shows: two swings or one, change, lost distance, flights as drawn."""

from dataclasses import replace

import numpy as np
import pytest
from scipy.stats import kendalltau

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.expected import setting_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import Estimate, Pattern
from firm_footing.core.patterns.block import read_block
from firm_footing.core.patterns.chance import NOTED
from firm_footing.core.patterns.compare import moved_since
from firm_footing.core.patterns.drift import drifts_of, trend_chance
from firm_footing.core.patterns.lost import ITEMS, lost_of, together, would_be
from firm_footing.core.physics.flight import fly
from firm_footing.core.physics.forward import LOW_POINT, STRIKE, play
from firm_footing.simulators.student import hit_block, make_student
from tests import sizes

STUDENTS = sizes.of(60, 150)


def test_two_swings_are_told_from_one_that_scatters(knowledge: Knowledge) -> None:
    """Simulated: ten balls of one swing, and seven with three of its opposite."""
    wrongly = found = right = 0
    for seed in range(STUDENTS):
        rng = np.random.default_rng([9, seed])
        student = make_student(["trail_knee_fires"], 16, "thrown", knowledge, rng)
        student = replace(student, delivery=np.array([-6.0, 5.0, 3.0, -4.0, 0.0, 0.0]))
        other = replace(student, delivery=np.array([7.0, -6.0, 3.0, -4.0, 0.0, 0.0]))
        one = hit_block(student, 10, "7i", 135.0, knowledge, rng)
        few = hit_block(other, 3, "7i", 135.0, knowledge, rng)
        wrongly += bool(read_block(one, knowledge, 16).groups)
        mixed = one.model_copy(update={"shots": (*one.shots[:7], *few.shots)})
        groups = read_block(mixed, knowledge, 16).groups
        found += bool(groups)
        right += bool(groups) and len({*groups[1].balls} & {7, 8, 9}) >= 2
    assert wrongly <= 0.05 * STUDENTS + 2
    assert found >= 0.95 * STUDENTS - 1
    assert right >= 0.85 * STUDENTS


def test_the_trend_test_is_the_standard_one() -> None:
    """SciPy's Kendall tau by its normal approximation; ours corrects for whole numbers besides."""
    rng = np.random.default_rng(4)
    for _ in range(20):
        values = (np.arange(14) * 0.15 + rng.normal(0, 1, 14)).round(1).tolist()
        theirs = kendalltau(range(14), values, method="asymptotic").pvalue
        assert theirs <= trend_chance(values) < theirs + 0.12
    assert trend_chance([3.0] * 9) == 1.0


def test_a_block_that_tires_is_said_and_scatter_is_not(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers.block
    rng = np.random.default_rng(5)
    falls = [140 - 3 * i + float(rng.normal(0, 2)) for i in range(10)]
    (drift,) = drifts_of({"carry_m": falls, "start_deg": [1.0] * 10}, numbers)
    assert drift.what == "carry_m"
    assert drift.change == pytest.approx(-27, abs=5)
    said = sum(
        bool(drifts_of({str(q): rng.normal(0, 1, 10).tolist() for q in range(6)}, numbers))
        for _ in range(300)
    )
    assert said <= 0.05 * 300 + 8
    assert drifts_of({"carry_m": falls[:5]}, numbers) == ()


@pytest.mark.parametrize("club", ["d", "7i", "pw"])
def test_the_items_add_up_and_name_what_was_wrong(knowledge: Knowledge, club: str) -> None:
    block = Block(club=club, expected_carry_m=120.0)
    setting = setting_of(block, knowledge)
    square = np.zeros((3, 7))
    square[:, LOW_POINT] = 3.0
    square[1, STRIKE] = -18.0
    square[2, LOW_POINT] = -8.0
    limits = knowledge.numbers.lost_distance
    carried = fly(would_be(square, setting)).carry_m.reshape(-1, 3)
    found = lost_of(carried, [120.0, None, 90.0], 120.0, limits)
    for account in found:
        total = sum(account.items.values()) + account.remainder_m
        assert total == pytest.approx(account.expected_m - account.actual_m, abs=1e-9)
    assert all(abs(v) < 0.3 for v in found[0].items.values())
    flown = play(square, setting).flight.carry_m
    assert found[1].items["strike"] == pytest.approx(flown[0] - flown[1], abs=1e-6)
    assert not found[1].measured
    assert found[1].remainder_m == pytest.approx(0, abs=0.5)
    ground = found[2].items["ground"]
    assert ground == pytest.approx(0, abs=1e-9) if club == "d" else ground > 5
    mean = together(found, limits)
    assert mean is not None
    for item in ITEMS:
        assert mean.items[item] == pytest.approx(np.mean([a.items[item] for a in found]))


def test_an_account_that_does_not_add_up_says_so(knowledge: Knowledge) -> None:
    """Strikes noted on the edge of the face, and yet the balls came nearly all the way."""
    edge, heel = (Shot(heel_toe_mm=mm, start_deg=0, curve_deg=0) for mm in (-31, -18))
    wrong = Block(expected_carry_m=135.0, shots=(edge.model_copy(update={"carry_m": 133.0}),) * 6)
    found = read_block(wrong, knowledge, 16).lost
    assert found.items["strike"] > 20
    assert found.remainder_m < -20
    assert not found.adds_up
    short = (heel.model_copy(update={"carry_m": 118.0}),) * 6
    assert read_block(wrong.model_copy(update={"shots": short}), knowledge, 16).lost.adds_up
    sound = Shot(heel_toe_mm=0, start_deg=0, curve_deg=0, carry_m=131.0)
    assert read_block(Block(expected_carry_m=135.0, shots=(sound,) * 6), knowledge).lost.adds_up


def test_flights_are_drawn_from_where_they_start_to_where_they_landed(
    knowledge: Knowledge,
) -> None:
    shots = tuple(
        Shot(start_deg=s, curve_deg=5.0, carry_m=c, heel_toe_mm=-5)
        for s, c in ((-4.0, 120.0), (-2.0, 110.0), (-3.0, 125.0))
    )
    read = read_block(Block(expected_carry_m=135.0, shots=shots), knowledge, 16)
    for ball, shot in zip(read.balls, shots, strict=True):
        along, up, side = ball.track[-1]
        assert np.hypot(along, side) == pytest.approx(shot.carry_m, rel=1e-3)
        assert np.degrees(np.arctan2(side, along)) == pytest.approx(
            (shot.start_deg or 0) + 5, abs=0.05
        )
        assert up == pytest.approx(0, abs=0.3)
        assert ball.apex_m > 8
    assert read.lost.expected_m == 135.0


def test_one_far_ball_among_ten_is_called_wild(knowledge: Knowledge) -> None:
    ordinary = tuple(
        Shot(start_deg=-3.0 + d, curve_deg=3.0 - d, heel_toe_mm=-10 + 4 * d)
        for d in (-2, -1, 0, 1, 2, -1, 0, 1, 0)
    )
    block = Block(shots=(*ordinary, Shot(start_deg=20.0, curve_deg=-20.0, heel_toe_mm=30)))
    wild = [b.wild for b in read_block(block, knowledge, 16).balls]
    assert wild == [False] * 9 + [True]


def test_what_moved_is_sure_only_beyond_its_doubt(knowledge: Knowledge) -> None:
    def shown(path: float, strikes: tuple[float, ...]) -> Pattern:
        return Pattern(
            balls=10,
            path_deg=Estimate(path, 0.8),
            heel_toe_mm=Estimate(float(np.mean(strikes)), 4.0),
            values={name: strikes if name == "heel_toe_mm" else () for name in NOTED},
        )

    then, now = shown(-5.0, (-2.0, -12.0, -22.0)), shown(-1.0, (2.0, -8.0, -18.0))
    moved = {m.name: m for m in moved_since(then, now, knowledge.numbers)}
    assert set(moved) == {"path_deg", "heel_toe_mm"}
    assert moved["path_deg"].difference.value == pytest.approx(4.0)
    assert moved["path_deg"].sure
    assert not moved["heel_toe_mm"].sure
