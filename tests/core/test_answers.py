"""One fact, one limit; and an answer tried out is the answer given."""

import math

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, Shot, Stance
from firm_footing.core.inference.check_likelihood import (
    Given,
    LogRatios,
    check_pieces,
    fact_probability,
)
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.figure import swing as filmed_swing
from firm_footing.simulators.film.marking import Filmed
from tests.core.swings import SEEN, swing

BALLS = Block(shots=(Shot(start="pull", curve="push", heel_toe_mm=-12, contact="fat"),) * 6)
STANCE = Stance(hands_to_body_cm=14.0, lead_flare_deg=11.0)


def a_case(knowledge: Knowledge, *readings: Reading, severity: float = 0.5) -> Case:
    """Balls, a stance between right and wrong, a trace, and a film of a mild fault."""
    person, again = np.random.default_rng([5, 1]), np.random.default_rng([5, 2])
    film = Filmed(
        filmed_swing({"trail_heel_pops": severity}, person, again), Camera("down_the_line")
    ).marked(knowledge.film, np.random.default_rng(4))
    return Case(
        handedness="right",
        blocks=(BALLS.model_copy(update={"stance": STANCE}),),
        readings=readings,
        traces=(swing(changed=SEEN["late"]), swing(changed=SEEN["late"])),
        films=(film,),
    )


def log_of_fact(odds: float, fact: np.ndarray) -> np.ndarray:
    """(hypotheses,) log-likelihood of answers that make the fact so many times as likely."""
    return np.log(fact + (1 - fact) / odds)


@pytest.mark.parametrize("heard", [(1.7,), (1.7, 1.7), (3.5, 3.5), (3.4, 3.4, -3.0), (9.0,)])
def test_one_fact_has_one_limit_whoever_speaks_of_it(
    knowledge: Knowledge, heard: tuple[float, ...]
) -> None:
    """An eye, a trace and a film on one look: their odds multiply, up to 99 to 1 together."""
    check, space = "shift_starts_after_top", enumerate_space(knowledge)
    owners = (check, "trace:0", "film:0")
    given = tuple(Given(o, ratio) for o, ratio in zip(owners, heard, strict=False))
    pieces = check_pieces({check: LogRatios(given, None)}, space, {check: 0.15})
    limit = knowledge.numbers.answers_saturate
    odds = min(math.exp(sum(heard)), (1 - limit) / limit)
    wanted = log_of_fact(odds, fact_probability(space, check, 0.15))
    assert len(pieces) == len(heard)
    assert sum(p.log_likelihood for p in pieces) == pytest.approx(wanted, abs=1e-12)


def test_a_look_seen_and_traced_is_no_surer_than_either_repeated(knowledge: Knowledge) -> None:
    """The whole way: a hundred more answers by eye beside the trace change nothing."""
    check = "shift_starts_after_top"
    case = Case(handedness="right", traces=(swing(changed=SEEN["late"]),))
    roots = []
    for times in (3, 100):
        said = (Reading(check=check, answer="yes", source="look"),) * times
        inference = infer(case.model_copy(update={"readings": said}), knowledge)
        assert {r.trace for r in inference.counted[check]} == {None, 0}
        roots.append(inference.root)
    np.testing.assert_allclose(roots[0], roots[1], atol=1e-12)


def test_what_an_answer_would_change_is_what_it_changes(knowledge: Knowledge) -> None:
    """Each look of a case in which film, trace and numbers say much of it, and partly."""
    inference = infer(a_case(knowledge), knowledge)
    kinds = set()
    for check, readings in inference.counted.items():
        owner = "hand" if readings[0].by_hand else "trace"
        owner = "film" if readings[0].film is not None else owner
        kinds.add((owner, readings[0].answer))
        for answer in ("yes", "no"):
            for source in knowledge.check[check].sources[:2]:
                reading = Reading(check=check, answer=answer, source=source)  # type: ignore[arg-type]
                again = infer(a_case(knowledge, reading), knowledge)
                tried = inference.root_with(reading)
                np.testing.assert_allclose(tried, again.root, atol=1e-9, err_msg=check)
    assert {("film", "partly"), ("hand", "partly"), ("trace", "yes")} <= kinds
