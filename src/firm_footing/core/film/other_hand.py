"""Does the picture show a right-hander in a left-hander's lesson, or the other way round?

From where a known point lies beside another one at address: a film may be mirrored, as some front
cameras do, or be another student's.
"""

from firm_footing.core.case.film import Film
from firm_footing.core.knowledge.film import FilmNumbers

CLEARLY_PX = 8.0
"""Points nearer to each other than this say nothing."""


def shows_other_hand(film: Film, numbers: FilmNumbers) -> bool:
    """Whether points lie on the wrong side of each other; `film` golfer-neutral."""
    for right, left in numbers.sides.get(film.view, ()):
        places = [film.points.get(point, {}).get("address") for point in (right, left)]
        if places[0] is not None and places[1] is not None:
            return places[0][0] < places[1][0] - CLEARLY_PX
    return False
