"""What became of a decision: retest, signs, what came back, and where they disagree."""

from typing import Literal

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.coaching.before_after import Comparison, compare
from firm_footing.core.inference.inference import infer
from firm_footing.core.inference.posterior import normalised
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.casebook import Fate, KnownBy
from firm_footing.core.learning.fates import (
    SignFate,
    fate_of_retest,
    measured_fates,
    outcome_of,
    retest_as_baseline,
    what_became_of_signs,
)
from firm_footing.core.learning.reliability import reliability
from firm_footing.core.learning.told import bits_told


def retested(
    knowledge: Knowledge,
    after: list[float],
    predicted: float = 6.0,
    primary: str | None = "start_deg",
) -> Comparison | None:
    before = [-7.0, -6, -5, -8, -6, -7, -6, -5]
    blocks = (
        Block(shots=tuple(Shot(start_deg=s) for s in before)),
        Block(kind="retest", shots=tuple(Shot(start_deg=s) for s in after)),
    )
    case = Case(handedness="right", blocks=blocks)
    return compare(case, primary, {"start_deg": predicted}, knowledge)


@pytest.mark.parametrize(
    ("after", "predicted", "fate"),
    [
        ([0.0, 1, -1, 0, 0, 1], 6.0, "confirmed"),
        ([0.0, 1, -1, 0, 0, 1], -1.0, "partly"),  # better, but something else was predicted
        ([-14.0, -15, -13, -14, -15, -14], 6.0, "rejected"),
        ([-6.0, -7, -5, -8, -6, -7, -6, -5, -6, -7], 6.0, "rejected"),  # enough balls, no change
        ([-6.0, -7, -5, -6], 6.0, None),  # too few to say so
        ([0.0, 1], 6.0, None),
        ([0.0, 1, -1, 0, -7, -8, -6, -9, -7, -6, -8, -7], 6.0, None),  # it did not hold
    ],
)
def test_a_retest_confirms_or_rejects(
    knowledge: Knowledge, after: list[float], predicted: float, fate: Fate | None
) -> None:
    assert fate_of_retest(retested(knowledge, after, predicted), knowledge) == fate


def test_a_retest_whose_measure_was_not_fixed_says_nothing(knowledge: Knowledge) -> None:
    assert fate_of_retest(retested(knowledge, [0.0] * 8, primary=None), knowledge) is None
    assert fate_of_retest(None, knowledge) is None


def said(share: float) -> list[Reading]:
    return [Reading(check="loads_late", answer="partly", source="mat", share=share)]


@pytest.mark.parametrize(
    ("then", "now", "sign"),
    [
        (0.95, 0.05, "confirmed"),
        (0.95, 0.5, "partly"),
        (0.95, 0.95, "still_there"),
        (0.5, 0.05, None),  # it was never clearly there
    ],
)
def test_a_sign_that_went_is_told_from_one_that_stayed(
    knowledge: Knowledge, then: float, now: float, sign: SignFate | None
) -> None:
    before, after = ({"loads_late": said(share)} for share in (then, now))
    assert what_became_of_signs(before, after, "late_shift", knowledge) == sign
    assert what_became_of_signs(before, after, "hang_back", knowledge) is None
    assert what_became_of_signs(before, {}, "late_shift", knowledge) is None


def test_balls_say_nothing_of_a_cause_that_is_still_there() -> None:
    assert measured_fates("rejected", "still_there", None) == {}
    assert measured_fates("confirmed", "still_there", None) == {"retest": "confirmed"}
    assert measured_fates("rejected", "confirmed", None) == {
        "retest": "rejected",
        "trace": "confirmed",
    }


@pytest.mark.parametrize(
    ("fates", "fate", "known_by"),
    [
        ({}, None, ()),
        ({"follow_up": "partly"}, "partly", ("follow_up",)),
        ({"retest": "confirmed", "follow_up": "confirmed"}, "confirmed", ("retest", "follow_up")),
        ({"retest": "rejected", "follow_up": "confirmed"}, None, ()),  # .80 against .75
        (
            {"retest": "confirmed", "trace": "confirmed", "follow_up": "rejected"},
            "confirmed",
            ("trace",),
        ),
        ({"retest": "confirmed", "follow_up": "partly"}, "confirmed", ("retest", "follow_up")),
        ({"word": "rejected"}, "rejected", ("word",)),
    ],
)
def test_what_outweighs_is_named_no_stronger_than_it_is(
    knowledge: Knowledge,
    fates: dict[KnownBy, Fate],
    fate: Fate | None,
    known_by: tuple[KnownBy, ...],
) -> None:
    found = outcome_of("late_shift", fates, knowledge.casebook)
    assert (found.fate if found else None, found.known_by if found else ()) == (fate, known_by)


def test_the_retest_stands_where_the_baseline_stood(knowledge: Knowledge) -> None:
    kinds: tuple[Literal["baseline", "trial", "retest"], ...] = ("baseline", "trial", "retest")
    case = Case(handedness="right", blocks=tuple(Block(kind=k, drill=None) for k in kinds))
    turned = retest_as_baseline(case)
    assert [b.kind for b in turned.blocks] == ["retest", "trial", "baseline"]


def test_bits_told_are_the_divergence_from_the_lesson_without_that_look(
    knowledge: Knowledge,
) -> None:
    """Against the two posteriors, each weighed by itself."""
    looks = ("trail_heel_up_early", "seat_leaves_line")
    readings = tuple(Reading(check=c, answer="yes", source="film") for c in looks)
    fat = Block(shots=tuple(Shot(contact="fat", start_deg=-4.0) for _ in range(5)))
    case = Case(handedness="right", blocks=(fat,), readings=readings)
    whole, without = (
        infer(case.model_copy(update={"readings": r}), knowledge) for r in (readings, readings[:1])
    )
    prior = whole.prior[whole.space.hypotheses.set_of]
    p, q = (normalised(i.now.log, prior) for i in (whole, without))
    direct = float(np.sum(p * np.log2(p / q)))
    assert bits_told(whole)[looks[1]] == pytest.approx(direct, abs=1e-9)
    assert direct > 0.02


def test_bands_hold_what_was_said_and_what_came_true() -> None:
    bands = reliability([(0.7, True), (0.79, False), (0.8, True), (1.0, True), (0.0, False)])
    assert [(b.low, b.high, b.share.came, b.share.of) for b in bands] == [
        (0.0, 0.2, 0, 1),
        (0.6, 0.8, 1, 2),
        (0.8, 1.0, 2, 2),
    ]
    assert bands[1].said == pytest.approx(0.745)
