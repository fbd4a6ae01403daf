"""Film read as numbers: closed forms, OpenCV's camera, and swings whose truth is known."""

import math
from collections.abc import Iterator

import cv2
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from firm_footing.core.case import Block, Case, Film, Reading, ScaleSeen, from_file, to_file
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.film import FilmError, plane_of, read_film
from firm_footing.core.film.formulas import FORMULAS
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FilmMeasure, FilmView
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed

VIEWS: tuple[FilmView, ...] = ("down_the_line", "face_on")


def filmed(camera: Camera, seed: int = 0, **causes: float) -> Filmed:
    person, again = np.random.default_rng([seed, 1]), np.random.default_rng([seed, 2])
    return Filmed(swing(causes, person, again), camera)


def measured(
    found: Filmed, knowledge: Knowledge, off_px: float = 2.0, seed: int = 3
) -> dict[str, float]:
    film = found.marked(knowledge.film, np.random.default_rng(seed), off_px)
    return {r.measure.id: r.value for r in read_film(film, "7i", knowledge)}


# --- Against closed forms ---


@given(
    angle=st.floats(-89, 269), length=st.floats(1, 100), x=st.floats(-50, 50), y=st.floats(-50, 50)
)
def test_the_slope_of_a_line_is_the_angle_it_was_drawn_at(
    angle: float, length: float, x: float, y: float
) -> None:
    way = np.array([math.cos(math.radians(angle)), math.sin(math.radians(angle))])
    line = np.array([[x, y], [x, y] + length * way])
    assert FORMULAS["slope"](line) == pytest.approx(angle, abs=1e-6)
    upright = (90 - angle + 180) % 360 - 180
    assert FORMULAS["tilt"](line) == pytest.approx(upright, abs=1e-6)


@given(corner=st.floats(1, 179), turn=st.floats(0, 360), a=st.floats(5, 60), b=st.floats(5, 60))
def test_a_corner_is_the_angle_between_its_sides(
    corner: float, turn: float, a: float, b: float
) -> None:
    one, other = math.radians(turn), math.radians(turn + corner)
    places = np.array(
        [
            [a * math.cos(one), a * math.sin(one)],
            [0, 0],
            [b * math.cos(other), b * math.sin(other)],
        ]
    )
    assert FORMULAS["corner"](places) == pytest.approx(corner, abs=1e-6)


def test_a_foot_turned_out_by_thirty_degrees_is_half_as_wide() -> None:
    """Sine of 30 degrees."""
    assert FORMULAS["turned_out"](np.array([[0.0, 0], [15.0, 0]])) == pytest.approx(30)


# --- Against OpenCV ---


@pytest.mark.parametrize("view", VIEWS)
@pytest.mark.parametrize(("off_line", "tilt"), [(0, 0), (30, 0), (-20, 3), (10, -4)])
def test_the_simulated_camera_is_opencvs(view: FilmView, off_line: float, tilt: float) -> None:
    """`cv2.projectPoints` with the same rotation, translation and focal length."""
    camera = Camera(view, off_line_cm=off_line, tilt_deg=tilt)
    places = np.random.default_rng(1).uniform([-60, -40, 0], [60, 100, 190], (50, 3))
    place, right, up, forward = camera.axes
    roll = math.radians(tilt)
    rolled = np.array(
        [[math.cos(roll), math.sin(roll), 0], [-math.sin(roll), math.cos(roll), 0], [0, 0, 1]]
    )
    rotation = rolled @ np.stack([right, -up, forward])
    matrix = np.array(
        [[camera.focal_px, 0, camera.width / 2], [0, camera.focal_px, camera.height / 2], [0, 0, 1]]
    )
    # Left-handed for a right-hander: turned over, as `projectPoints` wants a rotation proper.
    over = np.diag([1.0, 1.0, np.linalg.det(rotation)])
    by_opencv, _ = cv2.projectPoints(
        (places - place) @ over, rotation @ over, np.zeros(3), matrix, np.zeros(5)
    )
    assert camera.picture(places) == pytest.approx(by_opencv[:, 0], abs=1e-6)


def test_a_camera_a_foot_beside_its_line_turns_what_it_sees_by_four_degrees(
    knowledge: Knowledge,
) -> None:
    """30 cm at 4 m: from geometry."""
    film = filmed(Camera("down_the_line")).marked(knowledge.film, np.random.default_rng(0))
    beside = film.model_copy(update={"off_line_cm": 30.0, "distance_cm": 400.0})
    plane = plane_of(beside, knowledge.film)
    assert math.degrees(plane.turned_rad) == pytest.approx(4.29, abs=0.01)
    assert math.degrees(plane.turned_sd) == pytest.approx(1.0, abs=0.01)
    mirrored = plane_of(beside.mirrored(), knowledge.film)
    assert mirrored.turned_rad == pytest.approx(-plane.turned_rad)


# --- Against swings whose truth is known ---


def forty_swings(knowledge: Knowledge, right: bool = False) -> Iterator[tuple[Filmed, Film]]:
    """Both sides, four rates, one or two causes; camera and events a little off unless `right`."""
    names = [c.id for c in knowledge.causes]
    for seed in range(40):
        rng = np.random.default_rng([7, seed])
        chosen = rng.choice(names, int(rng.integers(0, 3)), replace=False)
        causes = {str(c): float(rng.gamma(4, 0.25)) for c in chosen}
        off, tilt = (0.0, 0.0) if right else (float(rng.normal(0, 30)), float(rng.normal(0, 2)))
        rate = 240.0 if right else (30.0, 60.0, 120.0, 240.0)[seed // 2 % 4]
        camera = Camera(VIEWS[seed % 2], rate, off_line_cm=off, tilt_deg=tilt)
        found = filmed(camera, seed, **causes)
        yield found, found.marked(knowledge.film, rng, off_frames=0.0 if right else 0.6)


def errors(found: Filmed, film: Film, knowledge: Knowledge) -> Iterator[tuple[FilmMeasure, float]]:
    truth = found.truths(knowledge.film)
    for read in read_film(film, "7i", knowledge):
        off = read.value - truth[read.measure.id]
        off = (off + 180) % 360 - 180 if read.measure.unit == "deg" else off
        yield read.measure, off / read.sd


def test_the_stated_doubt_holds_the_truth_as_often_as_it_should(knowledge: Knowledge) -> None:
    inside = [
        abs(in_sd) <= 1.96
        for found, film in forty_swings(knowledge)
        for _, in_sd in errors(found, film, knowledge)
    ]
    assert len(inside) == 20 * (17 + 15)
    assert 0.90 <= np.mean(inside) <= 0.98


def test_a_camera_that_stands_right_measures_to_a_centimetre_and_a_half(
    knowledge: Knowledge,
) -> None:
    cm, degrees = [], []
    for found, film in forty_swings(knowledge, right=True):
        truth = found.truths(knowledge.film)
        for read in read_film(film, "7i", knowledge):
            off = read.value - truth[read.measure.id]
            if read.measure.unit == "cm":
                cm.append(off)
            else:
                degrees.append((off + 180) % 360 - 180)
    assert np.sqrt(np.mean(np.square(cm))) <= 1.5
    assert np.sqrt(np.mean(np.square(degrees))) <= 2.0


@pytest.mark.parametrize("view", VIEWS)
def test_a_tilted_camera_is_levelled_by_the_ground(view: FilmView, knowledge: Knowledge) -> None:
    straight = measured(filmed(Camera(view)), knowledge, off_px=0.0)
    tilted = measured(filmed(Camera(view, tilt_deg=4)), knowledge, off_px=0.0)
    assert tilted == pytest.approx(straight, abs=0.05)


def test_twice_as_near_measures_the_same(knowledge: Knowledge) -> None:
    near = measured(filmed(Camera("face_on", distance_cm=300)), knowledge, off_px=0.0)
    far = measured(filmed(Camera("face_on", distance_cm=600)), knowledge, off_px=0.0)
    for name in ("hips_top", "head_top", "stance_width"):
        assert near[name] == pytest.approx(far[name], abs=1.0)


# --- What it answers ---


@pytest.mark.parametrize(
    ("cause", "view", "check"),
    [
        ("trail_heel_pops", "down_the_line", "trail_heel_up_early"),
        ("toes_in_downswing", "down_the_line", "seat_leaves_line"),
        ("reach_to_ball", "down_the_line", "hands_far_from_body"),
        ("sway_off_ball", "face_on", "hips_drift_trail_going_back"),
        ("static_hips", "face_on", "hips_static_down"),
        ("early_release", "face_on", "angle_lost_early"),
    ],
)
def test_a_cause_is_seen_where_it_shows_and_only_there(
    cause: str, view: FilmView, check: str, knowledge: Knowledge
) -> None:
    def share(**causes: float) -> float:
        film = filmed(Camera(view), 5, **causes).marked(knowledge.film, np.random.default_rng(4))
        return max(r.answers.get(check, 0.0) for r in read_film(film, "7i", knowledge))

    assert share(**{cause: 1.3}) > 0.8
    assert share() < 0.25


def case_of(*films: Film, readings: tuple[Reading, ...] = (), hand: str = "right") -> Case:
    blocks = (Block(kind="baseline"), Block(kind="trial", drill="bottle_guard"))
    return Case(handedness=hand, blocks=blocks, films=films, readings=readings)  # type: ignore[arg-type]


def a_film(knowledge: Knowledge, seed: int = 5, **causes: float) -> Film:
    found = filmed(Camera("down_the_line"), seed, **causes)
    return found.marked(knowledge.film, np.random.default_rng(4))


def test_films_answer_together_and_a_film_with_a_drill_does_not(knowledge: Knowledge) -> None:
    film = a_film(knowledge, trail_heel_pops=1.3)
    plain, with_film = infer(case_of(), knowledge), infer(case_of(film), knowledge)
    pops = knowledge.cause_index["trail_heel_pops"]
    assert with_film.now.present[pops] > 3 * plain.now.present[pops]
    assert [p.id for p in with_film.pieces] == ["film:0"]
    in_trial = film.model_copy(update={"block": 1})
    assert not infer(case_of(in_trial), knowledge).pieces
    again = infer(case_of(film, film), knowledge).now.present[pops]
    assert again == pytest.approx(with_film.now.present[pops])


def test_the_instructors_own_answer_stands_above_the_film(knowledge: Knowledge) -> None:
    film = a_film(knowledge, trail_heel_pops=1.3)
    no = Reading(check="trail_heel_up_early", answer="no", source="film")
    found = diagnose(case_of(film, readings=(no,)), knowledge)
    assert "trail_heel_up_early" in found.contradictions
    assert infer(case_of(film, readings=(no,)), knowledge).seen["trail_heel_pops"] == "no"
    yes = no.model_copy(update={"answer": "yes"})
    assert diagnose(case_of(film, readings=(yes,)), knowledge).contradictions == ()


def test_a_left_handers_film_is_mirrored_in_a_file_and_measures_the_same(
    knowledge: Knowledge,
) -> None:
    film = a_film(knowledge)
    case = case_of(film, hand="left")
    file = to_file(case)
    real = file.films[0]
    assert real.points["hands"]["top"][0] == pytest.approx(
        film.width - film.points["hands"]["top"][0]
    )
    again = read_film(from_file(file).films[0], "7i", knowledge)
    before = read_film(film, "7i", knowledge)
    assert [r.value for r in again] == pytest.approx([r.value for r in before])


# --- What cannot be measured ---


def test_without_a_scale_it_says_what_is_missing(knowledge: Knowledge) -> None:
    film = a_film(knowledge)
    with pytest.raises(FilmError, match="gives a scale"):
        read_film(film.model_copy(update={"scale": None}), "7i", knowledge)
    nothing = ScaleSeen(by="known", start=(0, 0), end=(100, 0))
    with pytest.raises(FilmError, match="how long"):
        read_film(film.model_copy(update={"scale": nothing}), "7i", knowledge)
    on_one_another = ScaleSeen(by="ball", start=(5, 5), end=(5, 6))
    with pytest.raises(FilmError, match="lie on one another"):
        read_film(film.model_copy(update={"scale": on_one_another}), "7i", knowledge)


def test_a_measure_waits_for_its_points(knowledge: Knowledge) -> None:
    film = a_film(knowledge)
    points = {"seat": film.points["seat"]}
    found = read_film(film.model_copy(update={"points": points}), "7i", knowledge)
    assert {r.measure.id for r in found} == {"seat_top", "seat_impact"}


def test_events_out_of_their_order_are_told(knowledge: Knowledge) -> None:
    film = a_film(knowledge)
    assert film.out_of_order is None
    late = {**film.events, "top": film.events["impact"] + 1}
    assert film.model_copy(update={"events": late}).out_of_order == ("top", "lead_arm_level_down")


def test_every_look_by_film_that_has_points_names_a_look(knowledge: Knowledge) -> None:
    answered = {a.check for m in knowledge.film.measures for a in m.answers}
    groups = [g for g in knowledge.numbers.dependent_checks.groups if g.measured]
    assert answered == {check for g in groups for check in g.checks}
    assert len(answered) == 26
