"""When does the evidence carry a decision? The table is the specification."""

from typing import Literal

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.reasoning import diagnose, weigh
from firm_footing.core.reasoning.next_check import NextCheck, Turn, turns_of
from firm_footing.core.reasoning.standing import Roots, where_it_stands

# balls, answers, first root, second root -> kind
TABLE = [
    (0, 0, 0.10, 0.08, "too_little"),
    (4, 2, 0.90, 0.02, "too_little"),
    (5, 0, 0.90, 0.02, "settled"),
    (0, 3, 0.60, 0.20, "settled"),
    (10, 6, 0.55, 0.40, "open"),
    (10, 6, 0.30, 0.25, "open"),
    (10, 6, 0.30, 0.10, "unclear"),
    (10, 6, 0.20, 0.18, "unclear"),
    (10, 6, 0.49, 0.10, "unclear"),
]


@pytest.mark.parametrize(("balls", "answers", "first", "second", "kind"), TABLE)
def test_where_a_decision_stands(
    knowledge: Knowledge, balls: int, answers: int, first: float, second: float, kind: str
) -> None:
    root = np.full(len(knowledge.causes), 0.01)
    root[[7, 3]] = first, second
    found = where_it_stands(Roots(np.full_like(root, 0.05), root), balls, answers, [], knowledge)
    assert found.kind == kind
    assert found.enough == (kind == "settled")
    assert found.leading == (knowledge.causes[7].id, knowledge.causes[3].id)
    assert f"{balls} ball" in found.reason
    assert f"{answers} answer" in found.reason


def test_what_is_missing_is_counted(knowledge: Knowledge) -> None:
    root = np.linspace(0.1, 0.01, len(knowledge.causes))
    roots = Roots(np.full_like(root, 0.05), root)
    found = where_it_stands(roots, 4, 2, [], knowledge)
    assert (found.balls_missing, found.answers_missing) == (1, 1)
    assert found.reason.startswith("4 balls, 2 answers: wants 1 more ball or 1 more answer")
    enough = where_it_stands(roots, 5, 2, [], knowledge)
    assert (enough.balls_missing, enough.answers_missing) == (0, 0)


def test_bits_gathered_are_the_rise_of_the_first_roots_odds(knowledge: Knowledge) -> None:
    root = np.full(len(knowledge.causes), 0.01)
    root[4] = 0.8  # odds 4; from odds 1/19 that is log2(76)
    found = where_it_stands(Roots(np.full_like(root, 0.05), root), 10, 6, [], knowledge)
    assert found.bits == pytest.approx(np.log2(4 * 19))
    assert found.margin == pytest.approx(0.79)


@pytest.mark.parametrize(("chance", "kind"), [(0.29, "settled"), (0.31, "open")])
def test_a_look_that_would_easily_turn_it_keeps_it_open(
    knowledge: Knowledge, chance: float, kind: str
) -> None:
    root = np.full(len(knowledge.causes), 0.01)
    root[4] = 0.6
    turn = Turn("grip_weak", "yes", chance, "weak_grip")
    roots = Roots(np.full_like(root, 0.05), root)
    found = where_it_stands(roots, 10, 6, [turn], knowledge)
    assert found.kind == kind
    assert found.turn == turn
    assert (f"{chance:.0%}" in found.reason) == (kind == "settled")
    assert ("would put weak grip first" in found.reason.lower()) == (kind == "open")


def test_what_a_look_could_turn_is_what_happens_when_it_is_answered_so(
    knowledge: Knowledge,
) -> None:
    """The tried-out answer against the diagnosis with that answer given."""
    shots = (Shot(start="pull", curve="push", heel_toe_mm=-12),) * 6
    case = Case(handedness="right", blocks=(Block(shots=shots),))
    before = diagnose(case, knowledge)
    turns = []
    for look in before.next_checks[::4]:
        weighing = weigh(case, knowledge)
        (turn,) = turns_of(weighing.stories, weighing.now, weighing.bases, [look])
        after = {
            given: diagnose(
                case.model_copy(update={"readings": (answered(look, given),)}),
                knowledge,
            ).start_with
            for given in ("yes", "no")
        }
        if turn.answer is None:
            assert set(after.values()) == {before.start_with}
        else:
            assert after[turn.answer] == turn.then_first != before.start_with
        turns.append(turn.answer)
    assert {None, "yes"} <= set(turns)  # both kinds were met


def answered(look: NextCheck, given: Literal["yes", "no"]) -> Reading:
    return Reading(check=look.id, answer=given, source=look.source)
