"""What is drawn of a lesson along time, held against NumPy."""

import numpy as np
import pytest

from firm_footing.core.case import Block, Shot
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import read_pattern
from firm_footing.core.patterns.along_time import landing_bearings, strips_of

NOTED = [(-4.0, 3.0, -9), (-2.0, 4.0, -12), (-5.0, 6.0, -4), (-3.0, 2.0, -15)]
BLOCK = Block(
    expected_carry_m=135.0,
    shots=tuple(Shot(start_deg=s, curve_deg=c, heel_toe_mm=h) for s, c, h in NOTED),
)


def test_each_matter_has_its_doubt_and_its_balls(knowledge: Knowledge) -> None:
    pattern = read_pattern((BLOCK,), knowledge, 15)
    found = strips_of((BLOCK,), pattern, [61.0, 66.0, 59.0], knowledge.numbers)
    assert found["heel_toe_mm"].balls == (-9, -12, -4, -15)
    assert pattern.heel_toe_mm is not None
    assert found["heel_toe_mm"].value == pattern.heel_toe_mm.value
    landed = np.array([s + c for s, c, _ in NOTED])
    assert landing_bearings((BLOCK,), knowledge.numbers) == pytest.approx(landed)
    assert found["dispersion_deg"].value == pytest.approx(landed.std(ddof=1))
    lead = np.array([61.0, 66.0, 59.0])
    assert found["lead_at_impact_pct"].value == pytest.approx(lead.mean())
    assert found["lead_at_impact_pct"].se == pytest.approx(lead.std(ddof=1) / np.sqrt(3))
    assert "low_point_cm" not in found  # no divot was noted


def test_the_doubt_of_a_dispersion_is_what_simulation_makes_of_it(knowledge: Knowledge) -> None:
    rng = np.random.default_rng(3)
    found, said = [], []
    for _ in range(300):
        balls = tuple(Shot(start_deg=float(s), curve_deg=0.0) for s in rng.normal(0, 3, 12))
        block = Block(shots=balls)
        strip = strips_of((block,), read_pattern((block,), knowledge), [], knowledge.numbers)
        found.append(strip["dispersion_deg"].value)
        said.append(strip["dispersion_deg"].se)
    assert np.mean(said) == pytest.approx(np.std(found), rel=0.15)


def test_one_swing_has_no_doubt_to_draw(knowledge: Knowledge) -> None:
    found = strips_of((), read_pattern((), knowledge), [58.0], knowledge.numbers)
    assert (found["lead_at_impact_pct"].value, found["lead_at_impact_pct"].se) == (58, None)
    assert found.keys() == {"lead_at_impact_pct"}
