"""Find the levels of a retest's looks at two means: rows for `knowledge/numbers.yaml`.

A retest is looked at after every ball. Unchanged students with normal balls are simulated, the
floor of the measure a third of their scatter or half of it; from look to look the p-value is found
below which just so many of those not yet called changed are called so now, that all looks together
come to the level. How much of it is spent by each look follows Lan & DeMets (1983, from memory),
the kind that resembles Pocock's. Of balls with heavy tails, and of balls noted in words, it is told
how often they are called changed. Deterministic; a minute.
"""

import argparse
import sys

import numpy as np
from numpy.random import Generator
from scipy.special import stdtr

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.files.knowledge_files import load_knowledge

BALLS = (2, 3, 4, 5, 6, 7, 8, 10, 12, 15, 20, 25, 30, 40, 60)
"""Of the baseline; between them levels are read off a straight line in one over the balls."""


KINDS = ("normal, low floor", "normal, high floor", "heavy tails", "words")
FITTED = 2
"""Of the kinds, that the levels are found for."""


def students(kind: str, count: int, balls: int, rng: Generator) -> tuple[FloatArray, float]:
    """(count, balls) of unchanged students, and the floor of the measure's scatter."""
    if kind == "heavy tails":
        return rng.standard_t(4, (count, balls)), 0.3
    if kind == "words":
        return np.round(rng.normal(0, 3, (count, balls)) / 4) * 4, 1.2
    return rng.normal(0, 1, (count, balls)), 0.3 if kind == KINDS[0] else 0.5


def p_values(made: FloatArray, before: int, first: int, looks: int, floor: float) -> FloatArray:
    """(students, looks) Welch's p-value after each look from the first on."""
    base, after = made[:, :before], made[:, before:]
    was, mean = np.maximum(base.var(axis=1, ddof=1), floor**2), base.mean(axis=1)
    columns = []
    for hit in range(first, looks + 1):
        now = np.maximum(after[:, :hit].var(axis=1, ddof=1), floor**2)
        parts = was / before, now / hit
        freedom = (parts[0] + parts[1]) ** 2 / (
            parts[0] ** 2 / (before - 1) + parts[1] ** 2 / (hit - 1)
        )
        t = (after[:, :hit].mean(axis=1) - mean) / np.sqrt(parts[0] + parts[1])
        columns.append(2 * stdtr(freedom, -np.abs(t)))
    return np.stack(columns, axis=1)


def levels(made: FloatArray, level: float) -> list[float]:
    """One p-value for each look of (students, looks)."""
    looks = made.shape[1]
    share = np.arange(1, looks + 1) / looks
    spent = level * np.log1p((np.e - 1) * share)
    going = np.ones(len(made), dtype=bool)
    found = []
    for look in range(looks):
        called = (~going).mean()
        left = np.sort(made[going, look])
        wanted = int((spent[look] - called) * len(made))
        found.append(float(f"{left[wanted - 1] if wanted > 0 else 0.0:.2g}"))
        going &= made[:, look] > found[-1]
    return found


def main() -> None:
    """Print the rows."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--students", type=int, default=60_000, help="of each kind")
    count = options.parse_args().students
    numbers = load_knowledge().numbers.coaching.retest
    for before in BALLS:
        rng = np.random.default_rng([8, before])
        kinds = []
        for kind in KINDS:
            made, floor = students(kind, count, before + numbers.looks, rng)
            kinds.append(p_values(made, before, numbers.first_look, numbers.looks, floor))
        found = levels(np.concatenate(kinds[:FITTED]), numbers.level)
        alarms = [f"{(k <= np.array(found)).any(axis=1).mean():.3f}" for k in kinds]
        sys.stderr.write(f"{before}: false alarms {', '.join(alarms)}\n")
        sys.stdout.write(f"      {before}: [{', '.join(f'{p:g}' for p in found)}]\n")


if __name__ == "__main__":
    main()
