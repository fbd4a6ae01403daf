"""What the ground shows of the club's arc."""

import math

import numpy as np
import pytest

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.inverse import read_delivery
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import read_pattern
from firm_footing.core.patterns.block import read_block
from firm_footing.core.physics.forward import LOW_POINT
from firm_footing.core.physics.turf import (
    attack_deg,
    cm_to_attack,
    cm_to_turn,
    divot_deg,
    is_teed,
    low_point,
    speed_lost_pct,
)


def test_the_low_point_lies_half_a_divot_beyond_its_start(knowledge: Knowledge) -> None:
    turf = knowledge.numbers.turf
    measured = low_point(Shot(divot_start_cm=-2, divot_length_cm=12), turf)
    assert measured is not None
    assert measured.cm == 4
    assert measured.sd_cm == pytest.approx(math.hypot(turf.start_sd_cm, 12 * turf.deepest_sd_share))
    guessed = [low_point(Shot(divot_start_cm=-2, divot_depth=d), turf) for d in ("shallow", "deep")]
    assert guessed[0] is not None
    assert guessed[1] is not None
    assert guessed[0].cm < measured.cm < guessed[1].cm
    assert guessed[0].sd_cm > measured.sd_cm
    brushed = low_point(Shot(brush_start_cm=1), turf)
    assert brushed is not None
    assert brushed.cm == 1 + turf.half_length_cm.normal
    assert low_point(Shot(contact="thin"), turf) is None


def test_the_arc_s_slopes_are_those_of_a_tilted_circle(knowledge: Knowledge) -> None:
    """On a circle of radius r tilted by p the way at a small distance s from the low point rises by
    s sin(p) / r and turns by s cos(p) / r; against a circle walked step by step."""
    turf = knowledge.numbers.turf
    r, p = turf.arc_radius_m, math.radians(turf.plane_deg)

    def place(s: float) -> tuple[float, float, float]:
        """Along, up, toward the player."""
        angle = s / r
        return (
            r * math.sin(angle),
            r * (1 - math.cos(angle)) * math.sin(p),
            r * (1 - math.cos(angle)) * math.cos(p),
        )

    for cm in (-8, -3, 4, 10):
        before, after = place(-cm / 100 - 1e-5), place(-cm / 100 + 1e-5)
        along, up, toward = (b - a for a, b in zip(before, after, strict=True))
        rises, turns = math.degrees(math.atan2(up, along)), math.degrees(math.atan2(toward, along))
        assert -cm * cm_to_attack(turf) == pytest.approx(rises, abs=0.06)
        assert -cm * cm_to_turn(turf) == pytest.approx(turns, abs=0.06)


def test_behind_the_ball_is_up_and_out_ahead_is_down_and_in(knowledge: Knowledge) -> None:
    turf = knowledge.numbers.turf
    assert attack_deg(5.0, turf) < 0 < attack_deg(-5.0, turf)
    assert attack_deg(3.3, turf) == pytest.approx(-3.3 * cm_to_attack(turf))
    # with the low point ahead, the divot points further to the pull side than the path at the ball
    assert divot_deg(0.0, 8.0, turf) < 0


def test_every_club_reads_one_low_point_from_its_ball(knowledge: Knowledge) -> None:
    """Closed form, both ways: on a tilted circle the attack is minus low point / radius × sin.

    A divot, an attack angle and a word of contact speak of the same place, whatever lies where.
    """
    turf = knowledge.numbers.turf
    per_cm = math.degrees(0.01 / turf.arc_radius_m) * math.sin(math.radians(turf.plane_deg))
    for club in knowledge.clubs:
        for cm in (-6.0, 0.0, 3.0, 8.0):
            marks = Block(club=club.id, teed=False, shots=(Shot(low_point_cm=cm),) * 4)
            tracked = Block(club=club.id, teed=False, shots=(Shot(attack_deg=-cm * per_cm),) * 4)
            for block in (marks, tracked):
                read = read_block(block, knowledge, 18)
                low, attack = read.pattern.low_point_cm, read.attack_deg
                assert low is not None
                assert attack is not None
                assert low.value == pytest.approx(cm, abs=0.02), club.id
                assert attack.value == pytest.approx(-cm * per_cm, abs=0.01), club.id
                assert all(
                    b.attack_deg == pytest.approx(-b.delivery[LOW_POINT] * per_cm)
                    for b in read.balls
                )


def test_clubs_of_one_swing_share_its_low_point(knowledge: Knowledge) -> None:
    """A wood whose ball lies 3 cm ahead bottoms out 3 cm less ahead of it: no other swing."""
    iron = Block(club="7i", shots=(Shot(low_point_cm=4.0),) * 6)
    wood = Block(club="3w", shots=(Shot(low_point_cm=1.0),) * 6)
    alone, both = read_delivery((iron,), knowledge, 18), read_delivery((iron, wood), knowledge, 18)
    assert both.distances2 == pytest.approx(np.full(12, both.distances2[0]), rel=1e-4)
    assert abs(both.mean[LOW_POINT] - 4) < abs(alone.mean[LOW_POINT] - 4)
    seen = read_pattern((iron, wood), knowledge, 18).low_point_cm
    assert seen is not None
    assert seen.value == pytest.approx(2.5)  # from the ball, on average


def test_the_ground_costs_speed_only_before_the_ball_and_only_unteed(knowledge: Knowledge) -> None:
    turf = knowledge.numbers.turf
    cost = speed_lost_pct(np.array([-5.0, 0.0, 5.0]), False, turf)
    assert cost.tolist() == [5 * turf.speed_lost_pct_per_cm, 0, 0]
    assert speed_lost_pct(np.array([-5.0]), True, turf).tolist() == [0]
    driver, iron = knowledge.club["d"], knowledge.club["7i"]
    assert is_teed(Block(club="d"), driver)
    assert not is_teed(Block(club="d", teed=False), driver)
    assert not is_teed(Block(), iron)
