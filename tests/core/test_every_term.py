"""Terms that hardly move a ranking: each is missed when it is gone.

`scripts/mutations.py` takes each away and runs these and the other tests.
"""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.stats import norm

from firm_footing.core.conclusions.what_if import expected_change
from firm_footing.core.estimation import inverse
from firm_footing.core.estimation.observations import Observations
from firm_footing.core.estimation.readings import READINGS
from firm_footing.core.film.formulas import value_of
from firm_footing.core.film.plane import Plane, touched_sd
from firm_footing.core.film.uncertainty import (
    FilmPlanes,
    PointsTouched,
    planes_of,
    points_touched,
    sd_of,
)
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.intervention import only_itself
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pressure import events
from firm_footing.core.pressure.events import Event
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed


@pytest.mark.parametrize("cause", ["trail_heel_pops", "hang_back", "reverse_pivot"])
def test_a_change_is_as_unsure_as_the_severity_of_what_goes(
    knowledge: Knowledge, cause: str
) -> None:
    """Of one configuration alone: nothing but its cause's own severity can differ."""
    space = enumerate_space(knowledge)
    alone = [s for s in space.alone if space.configuration_members[s, knowledge.cause_index[cause]]]
    weights = np.zeros(len(space.set_of))
    weights[alone[0]] = 1.0
    change = expected_change(space, weights, only_itself(space, cause), None, 18)
    effect = space.unit_effects[space.variant_of[0, alone[0]]]
    within = knowledge.numbers.delivery.severity_within
    assert np.abs(effect).max() > 0
    assert change.covariance == pytest.approx(within**2 * np.outer(effect, effect), abs=1e-9)


@pytest.mark.parametrize("bent2", [0.0, 0.5, 6.0])
def test_an_interval_is_as_doubtful_as_its_limits_and_what_bends_leave_over(
    monkeypatch: pytest.MonkeyPatch, bent2: float
) -> None:
    """Expectation propagation: mean and variance of the tilted density, by quadrature."""
    mean, variance, least, most, sd = 2.5, 5.0, 2.0, 6.0, 0.7
    shape, column = (1, len(READINGS)), 0
    flags = np.zeros(shape, dtype=bool)
    flags[0, column] = True
    full = np.full(shape, 1.0)
    noted = Observations(
        0 * full, 1e9 * full, least * full, most * full, sd**2 * full, flags, flags
    )
    reading = object.__new__(inverse._Inverse)  # only its sites are looked at
    reading.noted, reading.left_over = noted, bent2 * full
    reading.value, reading.variance = noted.value.copy(), noted.variance.copy()
    slopes = np.zeros((*shape, 1))
    slopes[0, column, 0] = 1.0
    reading._fit_intervals(0 * full, slopes, np.array([[mean]]), np.array([[[variance]]]))
    site2 = reading.variance[0, column] + bent2
    found2 = 1 / (1 / variance + 1 / site2)
    found = found2 * (mean / variance + reading.value[0, column] / site2)

    wide = math.hypot(sd, math.sqrt(bent2))

    def tilted(x: float) -> float:
        inside = norm.cdf((most - x) / wide) - norm.cdf((least - x) / wide)
        return float(norm.pdf(x, mean, math.sqrt(variance)) * inside)

    area, first, second = (
        quad(lambda x, n=n: x**n * tilted(x), -20, 25, limit=200)[0] for n in range(3)
    )
    assert found == pytest.approx(first / area, abs=1e-5)
    assert found2 == pytest.approx(second / area - (first / area) ** 2, rel=1e-4)


def test_the_top_is_the_mean_of_tempo_and_dip_by_their_precision(
    knowledge: Knowledge, monkeypatch: pytest.MonkeyPatch
) -> None:
    timing = knowledge.traces.timing
    monkeypatch.setattr(events, "_dip", lambda *_: -0.22)
    address, impact = Event(-1.0, "estimated", 0.3), Event(0.0, "given", 0.0)
    found = events._top(None, address, impact, {}, timing)  # type: ignore[arg-type]
    guesses = np.array([-1 / (1 + timing.tempo), -0.22])
    sd = np.array([timing.tempo_sd_s + 0.3 / (1 + timing.tempo), timing.dip_sd_s])
    assert abs(sd[0] - sd[1]) > 0.01
    assert found.t_s == pytest.approx(np.average(guesses, weights=sd**-2), abs=1e-12)
    assert found.sd_s == pytest.approx((sd**-2).sum() ** -0.5, abs=1e-12)


def test_an_angle_on_film_is_as_doubtful_as_the_level_besides(knowledge: Knowledge) -> None:
    measure = next(m for m in knowledge.film.measures if m.formula == "slope")
    places = np.array([[0.0, 0.0], [40.0, 90.0]])[: len(measure.wants)]

    def limit_variance(level_sd: float) -> float:
        plane = Plane(0.2, 0.02, 0.0, level_sd, 400.0, 0.0, 0.05, (0.0, 0.0))
        each = len(places)
        points = PointsTouched(places, np.zeros(each), np.full(each, 2.0), np.zeros(each))
        return sd_of(measure, points, FilmPlanes(plane, plane), 120.0, knowledge.film) ** 2

    tilt = math.radians(1.5)
    assert limit_variance(tilt) - limit_variance(0.0) == pytest.approx(
        math.degrees(tilt) ** 2, rel=1e-3
    )


def test_a_touch_on_a_small_picture_is_less_exact_by_its_page_pixels(knowledge: Knowledge) -> None:
    errors = knowledge.film.errors
    for zoom in (0.2, 1.0, 4.0):
        more = touched_sd(zoom, errors.point_px, errors) ** 2 - errors.point_px**2
        assert more == pytest.approx((errors.touch_px / zoom) ** 2)
    assert touched_sd(None, errors.point_px, errors) == errors.point_px


def test_a_camera_whose_place_nobody_said_makes_a_slope_less_sure(knowledge: Knowledge) -> None:
    """By what three degrees do to it, ground and scale touched as they were."""
    numbers = knowledge.film
    swung = swing({}, np.random.default_rng(1), np.random.default_rng(2))
    film = Filmed(swung, Camera("face_on")).marked(numbers, np.random.default_rng(3), 0.0)
    measure = next(m for m in numbers.measures if m.id == "shoulders_impact")
    points = points_touched(film, measure, numbers)
    assert points is not None

    def variance(off_line_cm: float) -> float:
        errors = numbers.errors.model_copy(update={"off_line_cm": off_line_cm})
        here = numbers.model_copy(update={"errors": errors})
        planes = planes_of(film, here)
        places = planes.now.place(points.pixels, points.nearer_cm)
        turned = planes.turned.place(points.pixels, points.nearer_cm)
        by.append(value_of(measure, turned) - value_of(measure, places))
        aside = replace(planes, now=replace(planes.now, turned_sd=0.0))
        return sd_of(measure, points, aside, 120.0, here) ** 2

    by: list[float] = []
    more = variance(20.0) - variance(0.001)
    assert abs(by[0]) > 0.3
    assert more == pytest.approx(by[0] ** 2, rel=0.05)
