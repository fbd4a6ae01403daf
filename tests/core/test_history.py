"""Earlier lessons of the same student: closed forms, and what they do to a ranking."""

import math

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Shot
from firm_footing.core.case.past import DecisionOutcome, PastDecision
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.history_likelihood import log_ratio_of_fate
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.casebook import Fate, KnownBy

SLICE = Block(shots=tuple(Shot(start="pull", curve="push", contact="clean") for _ in range(8)))


def past(
    cause: str, fate: Fate = "confirmed", days: float = 16.0, *by: KnownBy, held: bool | None = None
) -> PastDecision:
    return PastDecision(
        decided=cause, fate=fate, known_by=by or ("retest",), days_ago=days, held=held
    )


def present(knowledge: Knowledge, cause: str, *history: PastDecision) -> float:
    """P(the cause is there) with nothing else known."""
    found = infer(Case(handedness="right", history=history), knowledge)
    return float(found.now.present[knowledge.cause_index[cause]])


def test_a_confirmed_cause_is_there_again_as_often_as_it_stays(knowledge: Knowledge) -> None:
    """By Bayes on two nodes, then and today, worked out by hand."""
    numbers = knowledge.casebook
    b = present(knowledge, "late_shift")
    odds = numbers.known_by["retest"] / (1 - numbers.known_by["retest"]) * numbers.decided
    fades = 0.5 ** (16 / numbers.half_life_days)
    stays = b + (numbers.stays - b) * fades
    then_and_today = b * odds * stays  # it was there then, the fate was found, and it is there
    then_not_today = b * odds * (1 - stays)
    new_today = b * (1 - stays)  # as common today as then
    never = 1 - b - b * (1 - stays)
    by_hand = (then_and_today + new_today) / (then_and_today + then_not_today + new_today + never)
    assert present(knowledge, "late_shift", past("late_shift")) == pytest.approx(by_hand, abs=1e-9)
    assert by_hand > 3 * b


def test_what_is_known_of_the_past_fades(knowledge: Knowledge) -> None:
    found = [
        present(knowledge, "late_shift", past("late_shift", days=d)) for d in (0, 90, 400, 4e4)
    ]
    assert found == sorted(found, reverse=True)
    assert found[-1] == pytest.approx(present(knowledge, "late_shift"), abs=1e-6)


def test_a_fate_says_as_much_as_what_it_is_known_by(knowledge: Knowledge) -> None:
    numbers = knowledge.casebook
    word, retest, three, partly, rejected = (
        log_ratio_of_fate(
            DecisionOutcome(decided="late_shift", fate=fate, known_by=by), numbers
        )
        for fate, by in (
            ("confirmed", ("word",)), ("confirmed", ("retest",)),
            ("confirmed", ("trace", "film", "retest")), ("partly", ("retest",)),
            ("rejected", ("retest",)),
        )
    )  # fmt: skip
    assert retest == pytest.approx(math.log(numbers.known_by["retest"] / 0.2))
    assert word <= retest / 4.9
    assert three == pytest.approx(math.log(numbers.most_right / (1 - numbers.most_right)))
    assert partly == pytest.approx(numbers.partly * retest)
    assert rejected == pytest.approx(-retest)


@pytest.mark.parametrize(
    ("history", "way"),
    [
        ((past("late_shift"),), 1),
        ((past("late_shift", "partly"),), 1),
        ((past("late_shift", "rejected"),), -1),
        ((past("late_shift", held=True),), -1),
    ],
)
def test_which_way_the_past_speaks(
    history: tuple[PastDecision, ...], way: int, knowledge: Knowledge
) -> None:
    change = present(knowledge, "late_shift", *history) - present(knowledge, "late_shift")
    assert math.copysign(1, change) == way
    assert abs(change) > 1e-3


def test_a_cause_that_came_back_is_likelier_than_one_found_once(knowledge: Knowledge) -> None:
    once = present(knowledge, "late_shift", past("late_shift"))
    twice = present(knowledge, "late_shift", past("late_shift"), past("late_shift", days=90))
    assert twice > once


def test_the_past_is_a_line_of_evidence_like_any_other(knowledge: Knowledge) -> None:
    """Its bits are those of the odds with it and without it."""
    case = Case(handedness="right", blocks=(SLICE,), history=(past("chest_rush"),))
    found = {c.id: c for c in diagnose(case, knowledge).causes}["chest_rush"]
    without = {
        c.id: c for c in diagnose(case.model_copy(update={"history": ()}), knowledge).causes
    }["chest_rush"]
    (line,) = [e for e in found.speaks_for if e.evidence == "history:0"]
    odds = [p.probability / (1 - p.probability) for p in (found, without)]
    assert line.bits == pytest.approx(math.log2(odds[0] / odds[1]), abs=1e-6)
    assert line.text == "“chest first” confirmed 16 days ago, by the retest"


def test_how_common_is_nothing_when_nothing_was_learned(knowledge: Knowledge) -> None:
    case = Case(handedness="right", blocks=(SLICE,))
    ones = tuple((c.id, 1.0) for c in knowledge.causes)
    plain, same = (
        infer(c, knowledge) for c in (case, case.model_copy(update={"how_common": ones}))
    )
    np.testing.assert_allclose(same.now.present, plain.now.present, atol=1e-12)
    np.testing.assert_allclose(same.root, plain.root, atol=1e-12)
    more = infer(case.model_copy(update={"how_common": (("chest_rush", 3.0),)}), knowledge)
    at = knowledge.cause_index["chest_rush"]
    assert more.now.present[at] > 1.5 * plain.now.present[at]
