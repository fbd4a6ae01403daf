"""Noisy-OR against a published worked example: the fever table of Russell & Norvig, Artificial
Intelligence: A Modern Approach, chapter on Bayesian networks (quoted from memory).

P(fever | cold, flu, malaria alone) = 0.4, 0.8, 0.9; no leak. The leak of a check cannot be zero
here, so it is made too small to matter."""

import pytest

from firm_footing.core.inference.check_likelihood import fact_probability
from firm_footing.core.inference.enumeration import enumerate_space
from tests.core.sub_knowledge import cut_down, real_files

COLD, FLU, MALARIA = "sway_off_ball", "jumps_early", "hips_slide_head_stays"
P_FEVER = {
    (): 0.0,
    (MALARIA,): 0.9,
    (FLU,): 0.8,
    (FLU, MALARIA): 0.98,
    (COLD,): 0.4,
    (COLD, MALARIA): 0.94,
    (COLD, FLU): 0.88,
    (COLD, FLU, MALARIA): 0.988,
}


@pytest.mark.parametrize("ill", P_FEVER)
def test_fever_given_its_causes(ill: tuple[str, ...]) -> None:
    files = real_files()
    files["numbers"]["pointer"] = {"weak": 0.4, "moderate": 0.8, "strong": 0.9}
    fever = files["checks"][0]
    del fever["shows"], fever["harmless"]
    files["numbers"]["delivery"]["severity_levels"] = [1.0]
    fever |= {"base": 1e-12, "points": {COLD: "weak", FLU: "moderate", MALARIA: "strong"}}
    knowledge = cut_down({COLD, FLU, MALARIA}, files)
    space = enumerate_space(knowledge)
    wanted = [1.0 if c.id in ill else 0.0 for c in knowledge.causes]
    row = next(i for i, m in enumerate(space.members) if m.tolist() == wanted)
    fact = fact_probability(space, fever["id"], 1e-12)
    assert fact[space.set_of == row] == pytest.approx(P_FEVER[ill], abs=1e-9)
