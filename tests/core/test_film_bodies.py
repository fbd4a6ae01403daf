"""A film of bodies that differ: what turns, what sound golfers vary in, and what is gone at impact.

Sizes of bodies are estimates; that a pelvis turns some forty-five degrees going back is common
practice, no source.
"""

import math
from typing import get_args

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, ScaleSeen, Shot
from firm_footing.core.conclusions.next_check import next_checks
from firm_footing.core.conclusions.next_touch import next_measures
from firm_footing.core.film import FilmError, plane_of
from firm_footing.core.film.formulas import value_of
from firm_footing.core.film.measures import read_film
from firm_footing.core.film.other_hand import shows_other_hand
from firm_footing.core.inference.inference import infer
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


# --- Where the camera stood, and how large the picture was ---


def coverage(
    knowledge: Knowledge, off_deg: float, told: bool, page_px: float = 2.0, zoom: float = 1.0
) -> tuple[float, float]:
    """Share of 95 % intervals that hold the truth, and the mean square error in sd's of before."""
    inside, squares = [], []
    for seed in range(24):
        rng = np.random.default_rng([13, seed])
        off = 400.0 * math.tan(math.radians(off_deg)) * (-1) ** (seed // 2)
        filmed = sound(seed, get_args(FilmView)[seed % 2], off, anyone=True)
        said = off + rng.normal(0, 7) if told else None
        film = filmed.marked(
            knowledge.film, rng, 2.0, page_px=page_px, zoom=zoom, told_cm=said, off_frames=0.6
        )
        truth = filmed.truths(knowledge.film)
        for read in read_film(film, "7i", knowledge):
            miss = read.value - truth[read.measure.id]
            if read.measure.unit == "deg":
                miss = (miss + 180) % 360 - 180
            inside.append(abs(miss) <= 1.96 * read.sd)
            squares.append(miss**2)
    return float(np.mean(inside)), float(np.mean(squares))


@pytest.mark.parametrize("off_deg", [0.0, 3.0, 6.0, 8.0])
def test_where_the_camera_is_said_to_stand_is_put_right(
    off_deg: float, knowledge: Knowledge
) -> None:
    covered, _ = coverage(knowledge, off_deg, told=True)
    assert 0.90 <= covered <= 0.995


def test_telling_where_the_camera_stood_makes_a_film_truer(knowledge: Knowledge) -> None:
    _, untold = coverage(knowledge, 6.0, told=False)
    _, told = coverage(knowledge, 6.0, told=True)
    assert told < 0.75 * untold


@pytest.mark.parametrize(("page_px", "zoom"), [(2.0, 0.2), (2.0, 1.0), (2.0, 3.0)])
def test_a_small_picture_makes_every_measure_less_sure_and_no_less_true(
    page_px: float, zoom: float, knowledge: Knowledge
) -> None:
    covered, _ = coverage(knowledge, 2.0, told=True, page_px=page_px, zoom=zoom)
    assert 0.90 <= covered <= 0.995


def test_the_ground_is_level_although_the_camera_stands_beside_its_place(
    knowledge: Knowledge,
) -> None:
    """A stick of a metre at 92 cm below a camera 6° off seems to slope by 1.4°: from geometry."""
    off = 400 * math.tan(math.radians(6))
    film = sound(3, "face_on", off).marked(knowledge.film, np.random.default_rng(0), 0.0)
    assert film.ground is not None
    (x0, y0), (x1, y1) = film.ground
    seems = math.degrees(math.atan2(y0 - y1, x1 - x0))
    assert seems == pytest.approx(-math.degrees(92 / 400 * math.sin(math.radians(6))), abs=0.05)
    told = film.model_copy(update={"off_line_cm": off})
    assert math.degrees(plane_of(told, knowledge.film).level_rad) == pytest.approx(0.0, abs=0.02)
    assert math.degrees(plane_of(film, knowledge.film).level_rad) == pytest.approx(seems, abs=0.01)


def test_a_shoe_seen_end_on_gives_no_scale(knowledge: Knowledge) -> None:
    shoe = ScaleSeen(by="shoe", start=(500, 1700), end=(560, 1700))
    down, on = (
        sound(4, view).marked(knowledge.film, np.random.default_rng(0))
        for view in get_args(FilmView)
    )
    assert plane_of(down.model_copy(update={"scale": shoe}), knowledge.film).cm_per_px > 0
    with pytest.raises(FilmError, match="end-on"):
        plane_of(on.model_copy(update={"scale": shoe}), knowledge.film)


def test_side_bend_is_looked_for_when_the_arms_are_level_after_impact(
    knowledge: Knowledge,
) -> None:
    """55 to 60 degrees is sound; common practice, no source."""

    def read(**causes: float) -> float:
        rng = np.random.default_rng([14, 1])
        filmed = Filmed(swing(causes, rng.spawn(1)[0], rng), Camera("face_on", 240.0))
        film = filmed.marked(knowledge.film, np.random.default_rng(1))
        return {r.measure.id: r.value for r in read_film(film, "7i", knowledge)}[
            "shoulders_through"
        ]

    assert 50 <= read() <= 62
    assert read(lead_toe_lifts=1.5) < 45


# --- The other hand, and what to touch next ---


def test_a_mirrored_film_is_noticed_and_measures_nothing_until_that_is_said(
    knowledge: Knowledge,
) -> None:
    for view in get_args(FilmView):
        film = sound(6, view).marked(knowledge.film, np.random.default_rng(0))
        assert not shows_other_hand(film, knowledge.film)
        other = film.mirrored()
        assert shows_other_hand(other, knowledge.film)
        with pytest.raises(FilmError, match="other way round"):
            read_film(other, "7i", knowledge)
        said = other.mirrored().model_copy(update={"other_hand": True})
        assert [r.value for r in read_film(said, "7i", knowledge)] == pytest.approx(
            [r.value for r in read_film(film, "7i", knowledge)]
        )


def test_a_fault_at_address_is_no_film_of_the_other_hand(knowledge: Knowledge) -> None:
    """The ball ahead of the lead heel, the lead foot turned in."""
    film = sound(6, "face_on").marked(knowledge.film, np.random.default_rng(0))
    heel, toe, ball = (film.points[p]["address"] for p in ("lead_heel", "lead_toe", "ball"))
    moved = {
        "lead_toe": {"address": (heel[0] - 40.0, toe[1])},
        "ball": {"address": (heel[0] + 60.0, ball[1])},
        "lead_heel": {"address": heel},
    }
    odd = film.model_copy(update={"points": moved})
    read = {r.measure.id: r for r in read_film(odd, "7i", knowledge)}
    assert read["ball_inside_lead_heel"].value < 0 > read["lead_foot_out"].value


def test_what_tells_most_for_a_touch_is_touched_first(knowledge: Knowledge) -> None:
    film = sound(7, "down_the_line").marked(knowledge.film, np.random.default_rng(0))
    bare = film.model_copy(update={"points": {}})
    fat = Block(kind="baseline", shots=tuple(Shot(contact="fat") for _ in range(8)))
    inference = infer(Case(handedness="right", blocks=(fat,)), knowledge)
    found = next_measures(inference, bare)
    assert {n.measure.id for n in found} == {m.id for m in knowledge.film.of_view("down_the_line")}
    worth = [n.gain_bits / n.touches for n in found]
    assert worth == sorted(worth, reverse=True)
    assert worth[0] > 0.0 == worth[-1]
    gains = {c.id: c.gain_bits for c in next_checks(inference)}
    for n in found:
        said = sum(gains.get(a.check, 0.0) * (2 * a.most - 1) for a in n.measure.answers)
        assert n.gain_bits == pytest.approx(said)
        assert n.touches == len(set(n.measure.wants))
    # one of its points touched: it wants one less, and comes nearer to the front
    first, point = found[0], found[0].measure.wants[0]
    one = bare.model_copy(update={"points": {point[0]: {point[1]: (1.0, 1.0)}}})
    again = next(n for n in next_measures(inference, one) if n.measure == first.measure)
    assert again.touches == first.touches - 1


def test_a_look_that_was_answered_is_not_measured_for_its_own_sake(knowledge: Knowledge) -> None:
    film = sound(7, "down_the_line").marked(knowledge.film, np.random.default_rng(0))
    bare = film.model_copy(update={"points": {}})
    case = Case(handedness="right")
    before = next_measures(infer(case, knowledge), bare)
    best = next(n for n in before if len(n.measure.answers) == 1)
    seen = Reading(check=best.measure.answers[0].check, answer="no", source="look")
    after = next_measures(infer(case.model_copy(update={"readings": (seen,)}), knowledge), bare)
    assert next(n.gain_bits for n in after if n.measure == best.measure) == 0.0
