"""What do the points that were touched measure, how sure is it, and what does it answer?"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from firm_footing.core.case.film import Film
from firm_footing.core.film.formulas import value_of
from firm_footing.core.film.other_hand import shows_other_hand
from firm_footing.core.film.plane import FilmError
from firm_footing.core.film.uncertainty import FilmPlanes, planes_of, points_touched, sd_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FilmMeasure
from firm_footing.core.knowledge.soft_threshold import SoftThreshold, probability_beyond


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
        There is no scale, or the picture shows the other hand.

    """
    if shows_other_hand(film, knowledge.film):
        raise FilmError("The student stands the other way round in this picture.")
    return list(_read(film, planes_of(film, knowledge.film), club, knowledge))


def when_it_leaves(measures: list[MeasureRead]) -> str | None:
    """From which event on something is surely off the ground, in a sentence; None: it is not.

    measures : in the order of the swing, as `read_film` has them
    """
    for read in measures:
        if read.measure.formula == "rise" and read.value > 1.96 * read.sd:
            name, event = read.measure.name, read.measure.event.replace("_", " ")
            return f"{name[0].upper()}{name[1:]} from “{event}” on, as far as it is measured."
    return None


def _read(film: Film, planes: FilmPlanes, club: str, knowledge: Knowledge) -> Iterator[MeasureRead]:
    for measure in knowledge.film.of_view(film.view):
        points = points_touched(film, measure, knowledge.film)
        if points is None:
            continue
        value = value_of(measure, planes.now.place(points.pixels, points.nearer_cm))
        if math.isfinite(value):
            sd = sd_of(measure, points, planes, film.fps, knowledge.film)
            yield MeasureRead(measure, value, sd, _answers(measure, value, sd, club, knowledge))


def _answers(
    measure: FilmMeasure, value: float, sd: float, club: str, knowledge: Knowledge
) -> dict[str, float]:
    if measure.usual == "ball_of_club":
        stance = knowledge.numbers.stance
        usual = stance.ball_from_lead_heel_cm - knowledge.club[club].ball_forward_cm
        value = abs(value - usual)
    found = {}
    for answer in measure.answers:
        limit = SoftThreshold(at=answer.at, sd=math.hypot(answer.sd, answer.body_sd))
        beyond = probability_beyond(value, limit, sd)
        found[answer.check] = answer.most * (1 - beyond if answer.less else beyond)
    return found
