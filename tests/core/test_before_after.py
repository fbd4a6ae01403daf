"""Baseline and retest beside each other."""

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Shot
from firm_footing.core.coaching.before_after import MEASURES, compare
from firm_footing.core.coaching.retest_words import retest_said
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pattern.chance import values_of


def block(kind: str, starts: list[float], heel: float, club: str = "7i") -> Block:
    rng = np.random.default_rng(len(starts))
    shots = tuple(
        Shot(start_deg=s, curve_deg=4.0, heel_toe_mm=heel + float(rng.normal(0, 4)), carry_m=120)
        for s in starts
    )
    return Block.model_validate({"kind": kind, "club": club, "shots": shots})


BEFORE = [-5.0, -4, -6, -3, -5, -7, -4, -5]


def test_the_same_club_is_compared_and_the_primary_decides(knowledge: Knowledge) -> None:
    after = block("retest", [0.0, 1, -1, 0.5, 0], -2)
    case = Case(
        handedness="right",
        blocks=(block("baseline", BEFORE, -14), block("retest", [9.0] * 4, 0, "d"), after),
    )
    found = compare(case, "start_deg", {"start_deg": -1.0}, knowledge)
    assert found is not None
    assert (found.club, found.primary, found.fixed) == ("7i", "start_deg", True)
    start = next(m for m in found.measures if m.name == "start_deg")
    assert start.before == tuple(BEFORE)
    assert start.change is not None
    assert start.change.by == pytest.approx(np.mean([0, 1, -1, 0.5, 0]) - np.mean(BEFORE))
    assert start.predicted == -1.0
    assert found.verdict is not None
    assert found.verdict.state == "real"
    assert [m.name for m in found.measures] == list(MEASURES)


def test_the_proposed_measure_is_what_the_prediction_moves_most(knowledge: Knowledge) -> None:
    case = Case(handedness="right", blocks=(block("baseline", BEFORE, -14),))
    moved = {"start_deg": -4.0, "heel_toe_mm": 0.0}
    found = compare(case, None, moved, knowledge)
    assert found is not None
    assert (found.primary, found.fixed) == ("heel_toe_mm", False)
    assert found.verdict is not None
    assert found.verdict.state == "too_few"
    assert compare(Case(handedness="right"), None, {}, knowledge) is None


def test_words_count_by_their_middle_and_shanks_by_their_strike_alone(
    knowledge: Knowledge,
) -> None:
    shots = (Shot(start="pull", curve="push"), Shot(start="far_push", contact="hosel"))
    found = values_of([Block(shots=shots)], knowledge.numbers)
    assert found["start_deg"] == (-4.0,)
    assert found["curve_deg"] == (4.0,)


@pytest.mark.parametrize(("hand", "side"), [("right", "right"), ("left", "left")])
def test_what_became_of_it_is_one_line(hand: Handedness, side: str, knowledge: Knowledge) -> None:
    def said(primary: str, after: Block) -> str:
        blocks = (block("baseline", BEFORE, -14), after)
        found = compare(Case(handedness=hand, blocks=blocks), primary, {}, knowledge)
        return retest_said(found, hand)

    mended = block("retest", [0.0, 1, -1, 0.5, 0], -2)
    assert said("start_deg", mended) == f"Real: the start 5° further {side}."
    assert said("heel_toe_mm", mended).startswith("Real: the strike 1")
    assert said("heel_toe_mm", mended).endswith("mm nearer the toe.")
    same = block("retest", [-6.0, -4, -5.5], -14)
    assert said("start_deg", same).startswith("Not yet more than chance: the start 0° further")
    assert said("start_deg", block("retest", [0.0, 1], -2)) == ""
    assert retest_said(None, hand) == ""
