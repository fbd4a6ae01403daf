"""Before and after: has what two films measure changed, by more than their doubt?

The doubts of two films are taken as independent of each other. Those that both share, such as how
deep a joint usually lies, would partly cancel, so a change is rather called too small than too big.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from firm_footing.core.case.film import Film, Place
from firm_footing.core.film.measures import MeasureRead, read_film
from firm_footing.core.film.plane import plane_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FilmNumbers


@dataclass(frozen=True)
class MeasureChange:
    """One measure in two films of the same side."""

    before: MeasureRead
    after: MeasureRead

    @property
    def value(self) -> float:
        """By how much it changed, in its unit; angles the short way round."""
        by = self.after.value - self.before.value
        return (by + 180) % 360 - 180 if self.before.measure.unit == "deg" else by

    @property
    def sd(self) -> float:
        """One standard deviation of the change."""
        return math.hypot(self.before.sd, self.after.sd)

    @property
    def beyond_chance(self) -> bool:
        """Whether it changed by more than the doubt, nineteen times in twenty."""
        return abs(self.value) > 1.96 * self.sd

    @property
    def text(self) -> str:
        """In a sentence."""
        measure = self.before.measure
        unit = "°" if measure.unit == "deg" else " cm"
        name = f"{measure.name[0].upper()}{measure.name[1:]}, {measure.event.replace('_', ' ')}"
        if not self.beyond_chance:
            least = math.ceil(1.96 * self.sd)
            return f"{name}: less than the {least}{unit} of change that these films could show."
        return f"{name}: {self.before.value:.0f} before, {self.after.value:.0f}{unit} after."


def changes(
    before: Film, after: Film, clubs: tuple[str, str], knowledge: Knowledge
) -> list[MeasureChange]:
    """What both films measure, in the order of the swing.

    Parameters
    ----------
    before, after : golfer-neutral, seen from the same side
    clubs : ids of the clubs in hand

    Raises
    ------
    FilmError
        One of them has no scale.

    """
    first = {r.measure.id: r for r in read_film(before, clubs[0], knowledge)}
    return [
        MeasureChange(first[r.measure.id], r)
        for r in read_film(after, clubs[1], knowledge)
        if r.measure.id in first
    ]


@dataclass(frozen=True)
class PictureLaid:
    """How a picture is laid on another: a place of it, what a pixel is worth, and its level.

    at : in pixels, the same place of the player in both
    cm_per_px : scale; level_rad : how far level ground rises to the right in the picture
    """

    at: Place
    cm_per_px: float
    level_rad: float


def laid_together(films: Sequence[Film], numbers: FilmNumbers) -> list[PictureLaid]:
    """Pictures at one scale and level, feet upon feet where they were touched at address.

    Raises
    ------
    FilmError
        One of them has no scale.

    """
    standing = [
        p.id
        for p in numbers.points
        if p.stands and all("address" in film.points.get(p.id, {}) for film in films)
    ]
    laid = []
    for film in films:
        plane = plane_of(film, numbers)
        ground = film.ground or ((film.width / 2, film.height / 2),) * 2
        places = [film.points[p]["address"] for p in standing] or list(ground)
        x, y = np.mean(np.array(places, dtype=np.float64), axis=0)
        laid.append(PictureLaid((float(x), float(y)), plane.cm_per_px, plane.level_rad))
    return laid
