"""How much does a film help the ranking, and does it harm any cause?

`python -m bench.film_ranking --students 1000`: ten balls noted in words and no look; then the same
student filmed from both sides, with care and with the care that is usual. Bodies are drawn at
random and the camera stands beside its place (`simulators/film/marking.py`); in half of the films
it is said where it stood.
"""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import argparse
from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from typing import NamedTuple

import numpy as np

from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.film.marking import CAREFUL, USUAL, Care, with_films
from firm_footing.simulators.measure import StudentRanked, draw_student, outcome, summarise

CARES: dict[str, Care | None] = {"no film": None, "careful": CAREFUL, "usual": USUAL}
FIRST_SEED = 5_000_000
LOWER_SD = 2.0
"""A cause is lower with a film than without when it is so by more than chance."""


class Filmed(NamedTuple):
    """One student: the true causes, and what was ranked with each care."""

    causes: tuple[str, ...]
    ranked: dict[str, StudentRanked]


def _one(seed: int) -> Filmed:
    knowledge = load_knowledge()
    student, case, _ = draw_student(FIRST_SEED + seed, knowledge)
    ranked = {}
    for name, care in CARES.items():
        rng = np.random.default_rng([seed, 2])
        seen = with_films(student, case, knowledge, rng, anyone=True, care=care) if care else case
        ranked[name] = outcome(diagnose(seen, knowledge), student.causes, knowledge, 0)
    return Filmed(student.causes, ranked)


def main() -> None:
    """Print a table by care, and the causes that a film makes lower."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--students", type=int, default=1000)
    with ProcessPoolExecutor() as pool:
        found = list(pool.map(_one, range(parser.parse_args().students), chunksize=8))
    print("| | true start first | among the first three | calibration error |")
    print("|---|---|---|---|")
    for name in CARES:
        of = summarise([f.ranked[name] for f in found])
        print(f"| {name} | {of.start:.1%} | {of.in_three:.1%} | {of.calibration_error:.3f} |")
    gains = defaultdict(list)
    for f in found:
        for cause in f.causes:
            gains[cause].append(f.ranked["usual"].start - f.ranked["no film"].start)
    lower = {
        cause: (float(np.mean(g)), len(g))
        for cause, g in gains.items()
        if np.mean(g) < -LOWER_SD * np.std(g) / np.sqrt(len(g))
    }
    print(f"Causes lower with the usual film than without, beyond chance: {lower or 'none'}")


if __name__ == "__main__":
    main()
