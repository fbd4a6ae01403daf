"""Run every measurement and print what was wanted beside what came out."""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

from bench import diagnosis, flight, page


def main() -> None:
    """One core, everything in one run."""
    for name, wanted, found in [*diagnosis.measure(), *flight.measure(), *page.measure()]:
        print(f"{name:58} {found:>18}   wanted {wanted}", flush=True)


main()
