"""What do the points that were touched measure, how sure is it, and what does it answer?"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case.film import Film
from firm_footing.core.film.formulas import FORMULAS
from firm_footing.core.film.plane import FilmError, Plane, plane_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FilmMeasure
from firm_footing.core.knowledge.limen import Limen, sure

FloatArray = NDArray[np.float64]
STEP_CM = 0.01
STEP_RAD = 1e-4
FRAME_SD = 1 / math.sqrt(12)
"""Of where within a picture's time an event lies, in pictures."""
OWN_DEPTH = 0.5
"""How much of a point's depth is another one at another event."""


@dataclass(frozen=True)
class MeasureRead:
    """One number of a film: a projection onto the picture.

    value, sd : in the measure's unit
    answers : check to how clearly its fact shows, 0 to 1
    """

    measure: FilmMeasure
    value: float
    sd: float
    answers: Mapping[str, float]

    @property
    def text(self) -> str:
        """The number in words."""
        unit = "°" if self.measure.unit == "deg" else " cm"
        return f"{self.measure.name} {self.value:.0f}{unit}, give or take {1.96 * self.sd:.0f}"


def read_film(film: Film, club: str, knowledge: Knowledge) -> list[MeasureRead]:
    """Every measure whose points were touched, in the order of the swing.

    Parameters
    ----------
    film : golfer-neutral
    club : id of the club in hand

    Raises
    ------
    FilmError
        There is no scale.

    """
    plane = plane_of(film, knowledge.film)
    return list(_read(film, plane, club, knowledge))


def _read(film: Film, plane: Plane, club: str, knowledge: Knowledge) -> Iterator[MeasureRead]:
    for measure in knowledge.film.of_view(film.view):
        touched = [film.points.get(p, {}).get(event) for p, event in measure.wants]
        if None in touched:
            continue
        nearer = [knowledge.film.point[p].nearer(film.view, e) for p, e in measure.wants]
        places = plane.place(np.array(touched, dtype=np.float64), np.array(nearer))
        value = FORMULAS[measure.formula](places)
        if math.isfinite(value):
            sd = _doubt(measure, places, plane, film.fps, knowledge)
            yield MeasureRead(measure, value, sd, _answers(measure, value, sd, club, knowledge))


def _doubt(
    measure: FilmMeasure, places: FloatArray, plane: Plane, fps: float, knowledge: Knowledge
) -> float:
    """One standard deviation of the measure, from all that can be off; each is small."""
    numbers, formula = knowledge.film, FORMULAS[measure.formula]

    def along(direction: FloatArray) -> float:
        """How the measure changes when the places move by this."""
        by = STEP_CM * direction
        gone = formula(places + by) - formula(places - by)
        if measure.unit == "deg":
            gone = (gone + 180) % 360 - 180
        return gone / (2 * STEP_CM)

    units = np.eye(2 * len(places)).reshape(-1, *places.shape)
    each = np.array([along(unit) for unit in units]).reshape(places.shape)
    own = np.full(places.shape, (numbers.doubt.point_px * plane.cm_per_px) ** 2)
    variance = float((each**2 * own).sum())
    frames_s = math.hypot(FRAME_SD, numbers.doubt.event_frames) / fps
    for moment in {event for _, event in measure.wants}:
        moving = np.array([
            numbers.point[p].speed(measure.view, e) if e == moment else (0.0, 0.0)
            for p, e in measure.wants
        ])  # fmt: skip
        variance += (along(moving) * frames_s) ** 2
    variance += (along(places) * plane.scale_sd) ** 2
    variance += (along(places @ np.array([[0.0, 1.0], [-1.0, 0.0]])) * plane.level_sd) ** 2
    for point in dict.fromkeys(measure.points):
        depth = numbers.point[point].depth_cm
        mine = [i for i, (p, _) in enumerate(measure.wants) if p == point]
        moves = [(mine, depth), *(([i], OWN_DEPTH * depth) for i in mine if len(mine) > 1)]
        for which, size in moves:
            nearer, beside = np.zeros_like(places), np.zeros_like(places)
            nearer[which] = places[which] * size / plane.distance_cm
            beside[which, 0] = size * math.tan(plane.view_sd)
            variance += along(nearer) ** 2 + along(beside) ** 2
    turned = np.zeros_like(places)
    turned[:, 0] = [numbers.point[p].nearer(measure.view, e) for p, e in measure.wants]
    variance += (along(turned) * math.tan(plane.view_sd)) ** 2
    farther = places * turned[:, :1] / plane.distance_cm * numbers.doubt.distance_part
    variance += along(farther) ** 2
    return math.sqrt(variance)


def _answers(
    measure: FilmMeasure, value: float, sd: float, club: str, knowledge: Knowledge
) -> dict[str, float]:
    if measure.usual == "ball_of_club":
        stance = knowledge.numbers.stance
        usual = stance.ball_from_lead_heel_cm - knowledge.club[club].ball_forward_cm
        value = abs(value - usual)
    found = {}
    for answer in measure.answers:
        beyond = sure(value, Limen(at=answer.at, doubt=answer.doubt), sd)
        found[answer.check] = answer.most * (1 - beyond if answer.less else beyond)
    return found


__all__ = ["FilmError", "MeasureRead", "read_film"]
