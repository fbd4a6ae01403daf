"""Do the worlds differ in what they say they differ in?"""

import numpy as np
import pytest

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.physics.forward import PARTS
from firm_footing.simulators.measure import CHANNELS, draw_student, lacking
from firm_footing.simulators.student import answer, hit_block, make_student
from firm_footing.simulators.worlds import WORLDS, PlainBalls, World

MANY = 600


def delivery(**parts: float) -> np.ndarray:
    return np.array([[parts.get(name, 0.0) for name in PARTS]])


def test_plain_balls_follow_their_rules_of_thumb(knowledge: Knowledge) -> None:
    plain, iron = PlainBalls(), knowledge.club["7i"]
    flown = plain.fly(delivery(path_deg=-4.0, face_to_path_deg=4.0), iron, 100.0)
    assert flown.start_deg[0] == pytest.approx(-4.0 + 0.75 * 4.0)
    assert flown.curve_deg[0] == pytest.approx(0.95 * 4.0)
    assert flown.carry_m[0] == pytest.approx(100.0 - 0.06 * 16)
    heel, toe = (
        plain.fly(delivery(heel_toe_mm=mm), iron, 100.0).carry_m[0] for mm in (-12.0, 12.0)
    )
    assert heel == toe == pytest.approx(100 - 0.035 * 144)
    free = PlainBalls(heel_costs=False)
    assert free.fly(delivery(heel_toe_mm=-12.0), iron, 100.0).carry_m[0] == 100.0
    assert free.fly(delivery(heel_toe_mm=12.0), iron, 100.0).carry_m[0] == pytest.approx(toe)


@pytest.mark.parametrize("name", WORLDS)
def test_students_have_as_many_causes_as_their_world_says(knowledge: Knowledge, name: str) -> None:
    world = WORLDS[name]
    met = {len(draw_student(seed, knowledge, world)[0].causes) for seed in range(60)}
    assert met == set(world.causes_at_work)


def test_effects_vary_one_by_one_where_the_world_says_so(knowledge: Knowledge) -> None:
    """Path and strike of one cause go together in one world and not in the other."""

    def together(world: World) -> float:
        rng = np.random.default_rng(5)
        people = [
            make_student(["trail_knee_fires"], 18, "thrown", knowledge, rng, world).delivery
            for _ in range(MANY)
        ]
        return float(np.corrcoef(np.array(people)[:, [0, 3]].T)[0, 1])

    assert together(WORLDS["a"]) > 0.25
    assert abs(together(WORLDS["b"])) < 0.12


def test_the_carry_told_is_off_by_as_much_as_stated(knowledge: Knowledge) -> None:
    rng = np.random.default_rng(6)
    student = make_student([], 18, "thrown", knowledge, rng, WORLDS["b"])
    told = [hit_block(student, 1, "7i", 135.0, knowledge, rng) for _ in range(MANY)]
    off = np.log([b.expected_carry_m or 0.0 for b in told]) - np.log(135.0)
    assert off.std() == pytest.approx(0.05, abs=0.005)
    exact = make_student([], 18, "thrown", knowledge, rng)
    assert hit_block(exact, 1, "7i", 135.0, knowledge, rng).expected_carry_m == 135.0


def test_eyes_err_as_their_world_says(knowledge: Knowledge) -> None:
    def yes(world: World, check: str) -> float:
        rng = np.random.default_rng(7)
        sound = [make_student([], 18, "thrown", knowledge, rng, world) for _ in range(MANY)]
        return sum(answer(s, check, knowledge, rng).answer == "yes" for s in sound) / MANY

    assert yes(WORLDS["d"], "grip_weak") > yes(WORLDS["a"], "grip_weak") + 0.08
    assert yes(WORLDS["e"], "hips_static_down") > yes(WORLDS["a"], "hips_static_down") + 0.08
    assert yes(WORLDS["e"], "grip_weak") <= yes(WORLDS["a"], "grip_weak")


@pytest.mark.parametrize("channel", CHANNELS)
def test_a_channel_that_is_taken_away_is_gone_and_the_rest_is_not(
    knowledge: Knowledge, channel: str
) -> None:
    _, case, _ = draw_student(3, knowledge)
    less = lacking(case, (channel,))
    for before, after in zip(case.blocks[0].shots, less.blocks[0].shots, strict=True):
        gone = set(CHANNELS[channel])
        assert all(getattr(after, field) is None for field in gone)
        assert after.model_dump(exclude=gone) == before.model_dump(exclude=gone)
    assert lacking(case, ()) == case
