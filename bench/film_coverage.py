"""Do a film's intervals hold the truth, whatever the camera and the hand that touches?

`python -m bench.film_coverage --swings 400`: of every condition, and of every measure in it, the
share of 95 % intervals that hold what a ruler beside the player would say. Bodies are drawn at
random; cameras, lenses, shutters and hands are estimates of ours.
"""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import argparse
import math
from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass

import numpy as np

from firm_footing.core.film.measures import read_film
from firm_footing.core.knowledge.film import VIEWS
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.film.camera import Camera, Shake
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import TOLD_CM, Filmed

LEAST, MOST = 0.90, 0.98
"""Wanted of every measure."""
ZOOM = 3.0
"""The picture comes near before a point is touched."""
OFF_FRAMES = 0.5


@dataclass(frozen=True)
class Condition:
    """How a film is taken and touched.

    off_deg : the camera past square, at least and at most, to either side; told : where it stood
    page_px : of a touch, pixels of the page
    shake_px : of a hand that holds it; followed_px : how exactly it was followed, None: it was not
    """

    off_deg: tuple[float, float] = (0.0, 2.0)
    told: bool = True
    page_px: float = 2.0
    fps: float = 240.0
    lens: float = 0.0
    readout_s: float = 0.0
    shake_px: float = 0.0
    followed_px: float | None = None


CONDITIONS = {
    "with care": Condition(),
    "3 to 8° off, told": Condition((3.0, 8.0)),
    "3 to 8° off, nobody said": Condition((3.0, 8.0), told=False),
    "touches 5 pixels of the page off": Condition(page_px=5.0),
    "touches 8 pixels of the page off": Condition(page_px=8.0),
    "60 pictures a second": Condition(fps=60.0),
    "a lens that draws 3 % in": Condition(lens=-0.03),
    "a lens that draws 2 % out": Condition(lens=0.02),
    "60 a second, read out in 12 ms": Condition(fps=60.0, readout_s=0.012),
    "in the hand, 2 px, followed": Condition(shake_px=2.0, followed_px=0.3),
    "in the hand, 6 px, followed": Condition(shake_px=6.0, followed_px=0.5),
    "in the hand, 6 px, not followed": Condition(shake_px=6.0),
    "all of it": Condition((3.0, 8.0), False, 5.0, 120.0, -0.03, 0.006, 6.0, 0.5),
}
Held = dict[str, dict[str, bool]]
"""Condition to measure to whether its interval holds the truth."""


def _one(seed: int) -> Held:
    knowledge = load_knowledge()
    found: Held = {}
    for name, how in CONDITIONS.items():
        rng = np.random.default_rng([seed, 31])
        body = swing({}, rng.spawn(1)[0], rng, anyone=True)
        off = math.radians(rng.uniform(*how.off_deg)) * rng.choice([-1.0, 1.0])
        found[name] = {}
        for view in VIEWS:
            camera = Camera(
                view, how.fps, off_line_cm=400.0 * math.tan(off), tilt_deg=float(rng.normal(0, 1)),
                lens=how.lens, readout_s=how.readout_s,
            )  # fmt: skip
            hand = Shake(how.shake_px, how.shake_px / 40, seed) if how.shake_px else None
            filmed = Filmed(body, camera, hand)
            said = camera.off_line_cm + rng.normal(0, TOLD_CM) if how.told else None
            film = filmed.marked(
                knowledge.film, rng, 2.0, page_px=how.page_px, zoom=ZOOM, told_cm=said,
                followed_px=how.followed_px, off_frames=OFF_FRAMES,
            )  # fmt: skip
            truth = filmed.truths(knowledge.film)
            for read in read_film(film, "7i", knowledge):
                miss = read.value - truth[read.measure.id]
                if read.measure.unit == "deg":
                    miss = (miss + 180) % 360 - 180
                found[name][read.measure.id] = abs(miss) <= 1.96 * read.sd
    return found


def main() -> None:
    """Print a table by condition, and every measure that is outside what is wanted."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--swings", type=int, default=400)
    with ProcessPoolExecutor() as pool:
        found = list(pool.map(_one, range(parser.parse_args().swings), chunksize=4))
    print("| the film | intervals that hold | the least of a measure | measures outside |")
    print("|---|---|---|---|")
    for name in CONDITIONS:
        shares: dict[str, list[bool]] = defaultdict(list)
        for one in found:
            for measure, holds in one[name].items():
                shares[measure].append(holds)
        of = {measure: float(np.mean(held)) for measure, held in shares.items()}
        least = min(of, key=lambda m: of[m])
        outside = [f"{m} {v:.0%}" for m, v in of.items() if not LEAST <= v <= MOST]
        all_of = np.mean(list(of.values()))
        print(f"| {name} | {all_of:.1%} | {least} {of[least]:.0%} | {', '.join(outside) or '-'} |")


if __name__ == "__main__":
    main()
