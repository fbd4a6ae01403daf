"""The discrete part against pyAgrum, a general Bayesian-network library: random sub-networks with
links, modes and the limit on simultaneous causes, all modelled there in its own way."""

import numpy as np
import pytest

from firm_footing.core.case import Reading
from firm_footing.core.inference.check_likelihood import (
    base_rates,
    check_pieces,
    fact_probability,
    ratios_of,
)
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.posterior import posterior
from firm_footing.core.inference.prior import PriorView, prior_view, set_prior
from firm_footing.core.knowledge import Knowledge
from tests.core.bayesian_oracle import infer, oracle_of
from tests.core.sub_knowledge import cut_down, real_files, without_discounts

HANDICAP = 10.0
EVERY_CAUSE = [c["id"] for c in real_files()["causes"] if not c.get("sides")]


@pytest.mark.parametrize("seed", range(12))
def test_posteriors_agree_on_random_sub_networks(seed: int) -> None:
    rng = np.random.default_rng(seed)
    files = real_files()
    without_discounts(files)
    files["numbers"]["prior"]["link_strength"] = float(rng.uniform(0.1, 0.9))
    chosen = set(rng.choice(EVERY_CAUSE, size=int(rng.integers(5, 9)), replace=False).tolist())
    files["schools"]["heel_or_knee"]["default"] = str(rng.choice(["heel_first", "knee_first"]))
    knowledge = cut_down(chosen, files)
    asked = rng.choice(
        [c.id for c in knowledge.checks], size=min(6, len(knowledge.checks)), replace=False
    )
    readings = {
        str(name): [
            Reading(check=str(name), answer=a, source=s)
            for a, s in zip(
                rng.choice(["yes", "no", "partly"], size=2),
                rng.choice(["film", "feel", "mat"], size=2),
                strict=True,
            )
        ]
        for name in asked
    }
    space = enumerate_space(knowledge)
    now = posterior(
        space,
        set_prior(space, as_they_stand(knowledge)),
        knowledge.numbers.stuck_mode.probability(HANDICAP),
        check_pieces(ratios_of(readings, knowledge), space, base_rates(knowledge, HANDICAP, ())),
    )
    engine = infer(*oracle_of(knowledge, readings, HANDICAP))
    theirs = [engine.posterior(c.id)[1] for c in knowledge.causes]
    np.testing.assert_allclose(now.present, theirs, atol=1e-9)


def as_they_stand(knowledge: Knowledge) -> PriorView:
    """Causes as common as they are by themselves, with the usual view of their links."""
    usual = prior_view(knowledge, knowledge.schools.usual)
    return usual._replace(weights=tuple(c.base_weight for c in knowledge.causes))


def test_one_cause_alone_gives_the_stated_probability(knowledge: Knowledge) -> None:
    space = enumerate_space(knowledge)
    for check in knowledge.checks:
        base = check.base_rate(18)
        fact = fact_probability(space, check.id, base)
        assert fact[0] == pytest.approx(base)
        for cause, stated in knowledge.points(check, "thrown").items():
            alone = np.flatnonzero(space.members.sum(axis=1) == 1)
            row = next(r for r in alone if space.members[r, knowledge.cause_index[cause]])
            its = (space.hypotheses.set_of == row) & ~space.hypotheses.stuck
            mild, marked = fact[its]
            assert mild < stated < marked
            assert (mild + marked) / 2 == pytest.approx(stated)
