"""A film of bodies that differ: what turns, what sound golfers vary in, and what is gone at impact.

Sizes of bodies are estimates; that a pelvis turns some forty-five degrees going back is common
practice, no source.
"""

import math
from typing import get_args

import numpy as np
import pytest

from firm_footing.core.film.formulas import value_of
from firm_footing.core.film.measures import read_film
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FilmMeasure, FilmView
from firm_footing.core.knowledge.soft_threshold import SoftThreshold, probability_beyond
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed


def measure_of(knowledge: Knowledge, name: str) -> FilmMeasure:
    return next(m for m in knowledge.film.measures if m.id == name)


def sound(seed: int, view: FilmView, off_line_cm: float = 0.0, *, anyone: bool = False) -> Filmed:
    rng = np.random.default_rng([11, seed])
    found = swing({}, rng.spawn(1)[0], rng, anyone=anyone)
    return Filmed(found, Camera(view, 240.0, off_line_cm=off_line_cm))


def test_the_middle_of_both_edges_stays_when_the_pelvis_turns_and_the_buckle_does_not(
    knowledge: Knowledge,
) -> None:
    filmed = sound(1, "face_on")
    top, address = (filmed.seen_at(filmed.swing.seconds[e]) for e in ("top", "address"))
    moved = (top["hips"] - address["hips"])[0]
    edges = [(at["lead_hip"] + at["trail_hip"])[0] / 2 for at in (address, top)]
    assert edges[1] - edges[0] == pytest.approx(moved, abs=1e-9)
    aside = (top["buckle"] - address["buckle"])[0] - moved
    assert aside == pytest.approx(12 * math.sin(math.radians(-45)), abs=0.1)
    wide = [(at["lead_hip"] - at["trail_hip"])[0] for at in (address, top)]
    assert wide[1] < wide[0]  # a pelvis that has turned is narrower
    film = filmed.marked(knowledge.film, np.random.default_rng(0), off_px=0.0)
    read = {r.measure.id: r.value for r in read_film(film, "7i", knowledge)}
    assert read["hips_top"] == pytest.approx(moved, abs=0.5)


def test_a_middle_is_half_way_between_its_two_points(knowledge: Knowledge) -> None:
    shift = measure_of(knowledge, "hips_top")
    places = np.array([[10.0, 90], [-20, 90], [4, 92], [-22, 90]])  # both at address, both at top
    assert shift.wants == (
        ("lead_hip", "address"), ("trail_hip", "address"), ("lead_hip", "top"), ("trail_hip", "top")
    )  # fmt: skip
    assert value_of(shift, places) == pytest.approx(-9 - -5)
    tilt = measure_of(knowledge, "trunk_impact")
    assert value_of(tilt, np.array([[10.0, 90], [-10, 90], [-10, 100]])) == pytest.approx(-45)


def test_the_ball_is_touched_where_it_lies_before_it_is_gone(knowledge: Knowledge) -> None:
    wants = measure_of(knowledge, "lead_hip_ball").wants
    assert wants == (("lead_hip", "impact"), ("ball", "address"))


def test_a_limit_is_as_soft_as_sound_golfers_differ(knowledge: Knowledge) -> None:
    """Of every measure: the normal distribution of limit, bodies and touch together."""
    seen = 0
    for view in get_args(FilmView):
        film = sound(2, view).marked(knowledge.film, np.random.default_rng(3))
        for read in read_film(film, "7i", knowledge):
            for a in read.measure.answers:
                if read.measure.usual:
                    continue
                limit = SoftThreshold(at=a.at, sd=math.hypot(a.sd, a.body_sd))
                beyond = probability_beyond(read.value, limit, read.sd)
                said = a.most * (1 - beyond if a.less else beyond)
                assert read.answers[a.check] == pytest.approx(said, abs=1e-12)
                seen += 1
    assert seen > 20


def test_of_sound_golfers_few_looks_are_answered_yes(knowledge: Knowledge) -> None:
    """Bodies drawn at random, the camera up to some five degrees off, touches five pixels off."""
    yes, looks = 0, 0
    for seed in range(40):
        rng = np.random.default_rng([12, seed])
        for view in get_args(FilmView):
            filmed = sound(seed, view, float(rng.normal(0, 20)), anyone=True)
            best: dict[str, float] = {}
            for read in read_film(filmed.marked(knowledge.film, rng, 5.0), "7i", knowledge):
                for check, share in read.answers.items():
                    best[check] = max(best.get(check, 0.0), share)
            looks += len(best)
            yes += sum(share >= 0.75 for share in best.values())
    assert looks == 40 * 26
    assert yes / looks <= 0.06
