"""The discrete part against pyAgrum, a general Bayesian-network library: random sub-networks with
links, modes and the limit on simultaneous causes, all modelled there in its own way."""

import numpy as np
import pytest

from firm_footing.core.case import Reading
from firm_footing.core.inference.check_likelihood import (
    base_rates,
    fact_probability,
    look_pieces,
    ratios_of,
)
from firm_footing.core.inference.enumeration import enumerate_stories
from firm_footing.core.inference.posterior import posterior
from firm_footing.core.inference.prior import base_weights, set_prior
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
    stories = enumerate_stories(knowledge)
    now = posterior(
        stories,
        set_prior(stories, base_weights(knowledge, ())),
        knowledge.numbers.stuck_mode.probability(HANDICAP),
        look_pieces(ratios_of(readings, knowledge), stories, base_rates(knowledge, HANDICAP, ())),
    )
    engine = infer(*oracle_of(knowledge, readings, HANDICAP))
    theirs = [engine.posterior(c.id)[1] for c in knowledge.causes]
    np.testing.assert_allclose(now.present, theirs, atol=1e-9)


def test_one_cause_alone_gives_the_stated_probability(knowledge: Knowledge) -> None:
    stories = enumerate_stories(knowledge)
    for check in knowledge.checks:
        base = check.base_rate(18)
        fact = fact_probability(stories, check.id, base)
        assert fact[0] == pytest.approx(base)
        for cause, stated in knowledge.points(check, "thrown").items():
            alone = np.flatnonzero(stories.members.sum(axis=1) == 1)
            row = next(r for r in alone if stories.members[r, knowledge.cause_index[cause]])
            its = (stories.hypotheses.set_of == row) & ~stories.hypotheses.stuck
            mild, marked = fact[its]
            assert mild < stated < marked
            assert (mild + marked) / 2 == pytest.approx(stated)
