"""Is what is read of a block as near to the truth as it says, whatever was noted of the balls?

Of students whose delivery is known, with as few and as many balls as there may be, each number's
distance from the truth is held against its stated doubt.
"""

from collections.abc import Mapping
from typing import Final, NamedTuple

import numpy as np
import pytest

from firm_footing.core.case import Block, Case
from firm_footing.core.estimation.expected import setting_of
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.delivery_likelihood import reading_of
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import read_pattern
from firm_footing.core.physics.forward import play
from firm_footing.core.text.evidence_lines import noted
from firm_footing.core.text.sheet import miss_words
from firm_footing.simulators.measure import TEN_IRONS, Baseline, draw_student, without_fields
from firm_footing.simulators.noting import measured
from firm_footing.simulators.student import swing
from tests import sizes

STUDENTS: Final = sizes.of(24, 120)
MARKS: Final = ("heel_toe_mm", "low_high_mm", "divot_start_cm", "divot_direction_deg")
CLUB: Final = ("path_deg", "face_deg", "attack_deg", "dynamic_loft_deg", "club_speed_mps")


class Noted(NamedTuple):
    """How a block is noted: by a monitor or in words, without which fields, with a mark or not."""

    monitor: bool = False
    without: tuple[str, ...] = ()
    mark: bool = True
    baseline: Baseline = TEN_IRONS


BLOCKS: Final[Mapping[str, Noted]] = {
    "words and marks": Noted(),
    "scatters half as widely": Noted(baseline=TEN_IRONS._replace(wide=0.5)),
    "words and marks of a driver": Noted(baseline=Baseline(club="d", carry_m=200.0)),
    "no mark for the carry": Noted(mark=False),
    "words alone": Noted(without=(*MARKS, "carry_m")),
    "start, curve and carry": Noted(without=(*MARKS, "contact")),
    "a monitor": Noted(monitor=True),
    "a monitor and no mark": Noted(monitor=True, mark=False),
    "a monitor of the ball alone": Noted(monitor=True, without=CLUB),
}


class Read(NamedTuple):
    """Of one block: names of the numbers, how far each is off, and the covariance of the doubt."""

    names: tuple[str, ...]
    off: FloatArray
    noise: FloatArray

    @property
    def standardised(self) -> float:
        """Mean square of how far the numbers are off in standard deviations; 1 where it is true."""
        return float(self.off @ np.linalg.solve(self.noise, self.off)) / len(self.names)


def read(seed: int, noted: Noted, balls: int, knowledge: Knowledge) -> Read:
    """One student's block, as the ranking reads it."""
    baseline = noted.baseline._replace(balls=balls)
    student, case, rng = draw_student(seed, knowledge, baseline=baseline)
    (block,) = case.blocks
    if noted.monitor:
        parts, setting = swing(student, balls, knowledge, rng), setting_of(block, knowledge)
        shots = measured(parts, play(parts, setting), setting, knowledge, rng)
        block = block.model_copy(update={"shots": shots})
    block = without_fields(block, noted.without)
    if not noted.mark:
        block = block.model_copy(update={"expected_carry_m": None})
    found = reading_of(read_pattern((block,), knowledge, case.handicap), knowledge)
    return Read(found.names, found.value - found.design @ student.delivery, found.noise)


@pytest.mark.parametrize("name", BLOCKS)
def test_what_is_read_is_as_near_as_it_says_however_many_balls(
    knowledge: Knowledge, name: str
) -> None:
    """No loft out of forty carries, no speed out of one's own, no shank out of one ball."""
    for balls in (10, 40):
        found = [read(seed, BLOCKS[name], balls, knowledge) for seed in range(STUDENTS)]
        assert np.mean([r.standardised for r in found]) < 1.35, balls


def test_the_more_balls_the_nearer(knowledge: Knowledge) -> None:
    """Path, face and strike; of the low point the ground's own error stays."""

    def off(balls: int) -> FloatArray:
        found = [read(seed, Noted(), balls, knowledge) for seed in range(STUDENTS)]
        return np.sqrt(np.mean([r.off[[0, 1, 3]] ** 2 for r in found], axis=0))

    few, many = off(5), off(40)
    assert (many < 0.8 * few).all(), (few, many)


def test_own_balls_say_nothing_of_how_fast_one_could_swing(knowledge: Knowledge) -> None:
    with_mark = read(3, BLOCKS["a monitor"], 10, knowledge)
    assert "club_speed_pct" in with_mark.names
    own = read(3, BLOCKS["a monitor and no mark"], 10, knowledge)
    assert "club_speed_pct" not in own.names
    assert set(with_mark.names) - {"club_speed_pct"} == set(own.names)


def test_clean_balls_are_no_shanks(knowledge: Knowledge) -> None:
    """One shank among nine clean balls: the block is not struck off the hosel."""
    contacts = ["hosel", *["clean"] * 9]
    shots = tuple({"start": "straight", "curve": "straight", "contact": c} for c in contacts)
    block = Block.model_validate({"club": "7i", "shots": shots})
    found = read_pattern((block,), knowledge, 18.0)
    strike = found.heel_toe_mm
    assert found.strike_in_words
    assert miss_words(found) == "straight, 1 of 10 off the hosel"
    inference = infer(Case(handedness="right", blocks=(block,)), knowledge)
    assert noted(inference, "pattern.heel_toe_mm") == "1 of 10 off the hosel"
    assert strike is not None
    assert -16.0 < strike.value < -1.0
    marked = block.shots[1].model_copy(update={"heel_toe_mm": -8.0})
    one_mark = block.model_copy(update={"shots": (*block.shots[:1], marked, *block.shots[2:])})
    assert not read_pattern((one_mark,), knowledge, 18.0).strike_in_words
    clean = block.model_copy(update={"shots": block.shots[1:]})
    assert read_pattern((clean,), knowledge, 18.0).heel_toe_mm is None, "nobody spoke of the strike"
