"""How many trajectories a second, against SciPy's integrator flying them one by one?"""

import time
from collections.abc import Iterator

import numpy as np
from tests.core.test_flight import landing_by_scipy

from firm_footing.core.physics.flight import Air, Launch, fly

Row = tuple[str, str, str]
MANY, ONE_BY_ONE = 20_000, 20


def measure() -> Iterator[Row]:
    """Rows of name, wanted, found."""
    rng = np.random.default_rng(3)
    launch = Launch(
        rng.uniform(30, 75, MANY),
        rng.uniform(8, 30, MANY),
        rng.uniform(-5, 5, MANY),
        rng.uniform(2000, 9000, MANY),
        rng.uniform(-20, 20, MANY),
    )
    fly(launch)
    started = time.perf_counter()
    fly(launch)
    ours = MANY / (time.perf_counter() - started)
    started = time.perf_counter()
    for ball in range(ONE_BY_ONE):
        landing_by_scipy(launch, ball, Air())
    theirs = ONE_BY_ONE / (time.perf_counter() - started)
    yield "trajectories a second in a batch", "at least 20,000", f"{ours:,.0f}"
    yield "ratio to solve_ivp one by one, to 1e-10", "-", f"{ours / theirs:,.0f} x"
