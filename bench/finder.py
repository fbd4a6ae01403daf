"""How often does the finder have top and impact within its stated doubt, by kind of film?

A hundred films of seven kinds (`simulators/film/around.py`); where it refuses it is asked again
around a picture near to impact, as an instructor would.
"""

from collections.abc import Iterator, Mapping

import numpy as np

from firm_footing.core.film.finder import MotionError, Proposed, find_swing
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import VIEWS, FilmEvent
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.film.around import KINDS, Moves, moves_of
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.drawing import Quality
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed

FILMS = 15
"""Of each kind."""
JUDGED: tuple[FilmEvent, ...] = ("address", "top", "impact")


def films(kind: str, knowledge: Knowledge) -> Iterator[tuple[Moves, dict[FilmEvent, int], float]]:
    """Of one kind: what moves, where the events are, and pictures a second as the file says."""
    names = [c.id for c in knowledge.causes]
    for number in range(FILMS):
        rng = np.random.default_rng([21, list(KINDS).index(kind), number])
        causes = {str(c): 1.0 for c in rng.choice(names, int(rng.integers(0, 3)), replace=False)}
        fps = (30.0, 60.0, 120.0, 240.0)[number % 4]
        if kind == "slow motion written at 30":
            fps = (120.0, 240.0)[number % 2]
        camera = Camera(VIEWS[number % 2], fps, width=198, height=352)
        filmed = Filmed(swing(causes, rng.spawn(1)[0], rng, anyone=True), camera)
        own = moves_of(filmed, "right", Quality(noise=1), rng)
        moves = KINDS[kind](own, fps, rng)
        later = len(moves[0]) - len(own[0])
        if kind == "another golfer behind":
            later = round(1.0 * fps)
        events = {e: filmed.frame_of(e) + later for e in JUDGED}
        yield moves, events, 30.0 if kind.startswith("slow") else fps


def measure() -> Iterator[tuple[str, str, str]]:
    """Rows of name, wanted, found."""
    knowledge = load_knowledge()
    for kind in KINDS:
        refused, within, again, films_of = 0, 0, 0, 0
        for moves, events, fps in films(kind, knowledge):
            films_of += 1
            try:
                within += _within(_found(moves, fps, knowledge), events)
            except MotionError:
                refused += 1
                shown = events["impact"]
                try:
                    found = _found(moves, fps, knowledge, shown)
                    again += _within(found, events)
                except MotionError:
                    pass
        yield (
            f"finder, {kind}",
            "95 % within or refused",
            f"{within} within, {refused} refused ({again} found around), of {films_of}",
        )


def _found(
    moves: Moves, fps: float, knowledge: Knowledge, around: int | None = None
) -> Mapping[FilmEvent, Proposed]:
    change, down = (part.tolist() for part in moves)
    return find_swing(change, down, fps, knowledge, around)


def _within(found: Mapping[FilmEvent, Proposed], events: Mapping[FilmEvent, int]) -> bool:
    """Within two and a half standard deviations of each."""
    return all(abs(found[e].frame - events[e]) <= 2.5 * found[e].sd_frames for e in JUDGED)


def main() -> None:
    """Print the rows."""
    for name, wanted, found in measure():
        print(f"{name:42} {found:>50}   wanted {wanted}", flush=True)


if __name__ == "__main__":
    main()
