"""Which measure of a film should be touched next?

The one that tells most about where to start for each touch that it still needs. A look that was
answered already, by hand or by another measure, is not measured again for its own sake.
"""

from dataclasses import dataclass

from firm_footing.core.case import Film
from firm_footing.core.conclusions.next_check import next_checks
from firm_footing.core.inference.inference import Inference
from firm_footing.core.knowledge.film import FilmMeasure


@dataclass(frozen=True)
class NextMeasure:
    """A measure that a film could still have.

    gain_bits : about the cause to start with, of the looks that it would answer; 0: next to nothing
    touches : points that are still to be touched for it
    """

    measure: FilmMeasure
    gain_bits: float
    touches: int


def next_measures(inference: Inference, film: Film) -> list[NextMeasure]:
    """Every measure of this side that still wants points, what tells most for a touch first.

    Those that tell next to nothing come last, in the order of the swing.
    """
    numbers = inference.knowledge.film
    gains = {c.id: c.gain_bits for c in next_checks(inference)}
    found = []
    for measure in numbers.of_view(film.view):
        missing = {w for w in measure.wants if w[1] not in film.points.get(w[0], {})}
        if missing:
            gain = sum(gains.get(a.check, 0.0) * (2 * a.most - 1) for a in measure.answers)
            found.append(NextMeasure(measure, gain, len(missing)))
    return sorted(found, key=lambda m: -m.gain_bits / m.touches)
