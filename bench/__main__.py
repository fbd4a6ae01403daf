"""Run every measurement and print what was wanted beside what came out."""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

from bench import crowd, diagnosis, finder, flight, memory, page, size, trace


def main() -> None:
    """One core, everything in one run."""
    parts = (diagnosis, flight, finder, trace, size, memory, crowd, page)
    for name, wanted, found in (row for part in parts for row in part.measure()):
        print(f"{name:58} {found:>18}   wanted {wanted}", flush=True)


main()
