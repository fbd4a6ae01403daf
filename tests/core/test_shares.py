"""A share of few cases, held against SciPy's Wilson interval."""

import pytest
from scipy.stats import binomtest

from firm_footing.core.patterns.shares import share_of


@pytest.mark.parametrize(("came", "of"), [(0, 1), (1, 1), (3, 7), (11, 12), (40, 90)])
def test_the_interval_is_wilson_s(came: int, of: int) -> None:
    found = share_of(came, of)
    theirs = binomtest(came, of).proportion_ci(0.8, method="wilson")
    assert (found.low, found.high) == pytest.approx((theirs.low, theirs.high), abs=1e-9)


def test_of_none_nothing_is_known() -> None:
    assert share_of(0, 0) == (0, 0, 0.0, 1.0)
