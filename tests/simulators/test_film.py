"""The simulated camera writes films that play, with their truth; the finder sees their events."""

import json
from itertools import islice
from pathlib import Path

import av
import numpy as np
import pytest
from bench.finder import films
from typer.testing import CliRunner

from firm_footing.cli.main import app
from firm_footing.core.case import Case, Film
from firm_footing.core.film import read_film
from firm_footing.core.film.finder import MotionError, find_swing, rates_that_fit
from firm_footing.core.frame import Handedness
from firm_footing.core.inference.film_answers import answers_of, read_films
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FilmView
from firm_footing.simulators.film.around import KINDS, moves_of
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.drawing import Quality
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed, with_films
from firm_footing.simulators.student import make_student
from tests import sizes

VIEWS: tuple[FilmView, ...] = ("down_the_line", "face_on")


def motion(
    filmed: Filmed, hand: Handedness, rng: np.random.Generator
) -> tuple[list[float], list[float]]:
    change, down = moves_of(filmed, hand, Quality(), rng)
    return change.tolist(), down.tolist()


def test_the_finder_is_within_two_pictures_of_top_and_impact(knowledge: Knowledge) -> None:
    """In nine of ten of 40 swings (or 10): rates, sides, hands, causes and a tilted camera."""
    names, near = [c.id for c in knowledge.causes], []
    for seed in range(sizes.of(10, 40)):
        rng = np.random.default_rng([3, seed])
        causes = {str(c): 1.0 for c in rng.choice(names, int(rng.integers(0, 3)), replace=False)}
        rate = (30.0, 60.0, 120.0, 240.0)[seed // 2 % 4]
        camera = Camera(
            VIEWS[seed % 2], rate, width=198, height=352, tilt_deg=float(rng.normal(0, 2))
        )
        again = np.random.default_rng([seed, 2])
        filmed = Filmed(swing(causes, np.random.default_rng([seed, 1]), again), camera)
        hand: Handedness = "left" if seed % 5 == 0 else "right"
        moved = motion(filmed, hand, rng)
        found = find_swing(*moved, rate, knowledge)
        if rate == 240:
            assert find_swing(*moved, 30, knowledge) == found  # a file that plays in slow motion
        near += [abs(found[e].frame - filmed.frame_of(e)) <= 2 for e in ("top", "impact")]
        frames = [p.frame for p in found.values()]
        assert frames == sorted(frames)
    assert np.mean(near) >= 0.9


COMMON = ("shaft_steep_down", "lead_hip_not_ahead", "gap_between_knees_at_impact", "side_bend_lost")


def test_people_without_a_cause_have_habits_as_often_as_the_trade_says(
    knowledge: Knowledge,
) -> None:
    """Films of 60 sound swings show common signs about as often as their base rates."""
    shown: dict[str, list[float]] = {name: [] for name in COMMON}
    for seed in range(60):
        rng = np.random.default_rng([7, seed])
        student = make_student([], 16, "thrown", knowledge, rng)
        case = with_films(student, Case(handedness="right"), knowledge, rng, anyone=True)
        for _, measures in read_films(case, knowledge):
            for name, share in answers_of(measures).items():
                if name in shown:
                    shown[name].append(share)
    said = [knowledge.check[name].base_rate(16.0) for name in COMMON]
    found = [np.mean(shares) for shares in shown.values()]
    assert abs(np.mean(found) - np.mean(said)) < 0.08  # 240 answers: three standard errors
    assert min(found) > 0.03


def test_a_film_in_which_nothing_swings_says_so(knowledge: Knowledge) -> None:
    with pytest.raises(MotionError, match="Nothing moves"):
        find_swing([0.0] * 200, [0.5] * 200, 60, knowledge)
    with pytest.raises(MotionError, match="Nothing moves"):
        find_swing([1.0, 2.0], [0.5, 0.5], 60, knowledge)
    starts_late = [9.0, 8.0, *[0.0] * 100]
    with pytest.raises(MotionError, match="begins or ends within the swing"):
        find_swing(starts_late, [0.9] * 102, 60, knowledge)
    walk = 1 + 0.2 * np.sin(np.arange(300))
    with pytest.raises(MotionError, match=r"enough like a swing|could be the swing"):
        find_swing(walk.tolist(), [0.6] * 300, 60, knowledge)


def test_of_two_swings_it_asks_which_and_finds_the_one_that_is_shown(
    knowledge: Knowledge,
) -> None:
    rng = np.random.default_rng(5)
    camera = Camera("face_on", 60.0, width=198, height=352)
    filmed = Filmed(swing({}, np.random.default_rng(1), np.random.default_rng(2)), camera)
    one = motion(filmed, "right", rng)
    pause = ([0.0] * 60, [0.5] * 60)
    change, down = (list(a) + p + list(a) for a, p in zip(one, pause, strict=True))
    later = len(one[0]) + 60
    with pytest.raises(MotionError, match=r"the one at 1\.2 s and the one at 4\.2 s"):
        find_swing(change, down, 60, knowledge)
    for begins in (0, later):
        impact = begins + filmed.frame_of("impact")
        found = find_swing(change, down, 60, knowledge, around=impact - 5)
        assert abs(found["impact"].frame - impact) <= 2
        assert abs(found["top"].frame - begins - filmed.frame_of("top")) <= 2


@pytest.mark.parametrize("kind", list(KINDS))
def test_whatever_else_moves_it_is_right_or_says_so(kind: str, knowledge: Knowledge) -> None:
    """Six films of each kind; `python -m bench.finder` has a hundred."""
    wrong = 0
    for moves, events, fps in islice(films(kind, knowledge), 6):
        try:
            found = find_swing(*moves, fps, knowledge)
        except MotionError:
            continue
        wrong += any(
            abs(found[e].frame - at) > 2.5 * found[e].sd_frames for e, at in events.items()
        )
    assert wrong <= 1


@pytest.mark.parametrize(
    ("frames", "file_fps", "rates"),
    [(30, 120, [120]), (60, 30, [240]), (7, 30, [30]), (2, 30, []), (1000, 30, [])],
)
def test_a_downswing_says_how_fast_it_was_filmed(
    frames: int, file_fps: float, rates: list[float], knowledge: Knowledge
) -> None:
    """A downswing lasts 0.20 to 0.30 s; common practice, no source."""
    assert rates_that_fit(frames, file_fps, knowledge)[: len(rates) or 1] == rates


@pytest.mark.parametrize(("name", "hand"), [("a.mp4", "right"), ("b.webm", "left")])
def test_a_film_plays_and_its_truth_measures_itself(
    name: str, hand: Handedness, tmp_path: Path, knowledge: Knowledge
) -> None:
    out = tmp_path / name
    args = ["film", "--out", str(out), "--cause", "trail_heel_pops", "--fps", "30"]
    done = CliRunner().invoke(app, [*args, "--hand", hand, "--height", "640", "--tilt", "2"])
    assert done.exit_code == 0, done.output
    truth = json.loads(out.with_suffix(".truth.json").read_text())
    with av.open(str(out)) as film:
        shown = [frame.to_ndarray(format="rgb24") for frame in film.decode(video=0)]
    assert len(shown) == truth["frames"] == len(truth["points"]["hands"])
    assert shown[0].shape == (640, 360, 3)
    top = truth["events"]["top"]
    x, y = (int(v) for v in truth["points"]["ball"][top])
    assert shown[top][y, x].min() > 150  # the ball is where it is said to be, and it is white
    assert shown[-1][y, x].min() < 130  # and gone in the end
    marks = Film.model_validate(truth["marks"])
    neutral = marks.mirrored() if hand == "left" else marks
    for read in read_film(neutral, "7i", knowledge):
        assert read.value == pytest.approx(truth["measures"][read.measure.id], abs=3.2 * read.sd)


def test_what_cannot_be_filmed_is_said(tmp_path: Path) -> None:
    run = CliRunner()
    wrong = run.invoke(app, ["film", "--out", str(tmp_path / "a.gif")])
    assert wrong.exit_code == 2
    assert "ends in .mp4 or .webm" in wrong.output
    nobody = run.invoke(app, ["film", "--out", str(tmp_path / "a.mp4"), "--cause", "nothing"])
    assert nobody.exit_code == 2
    assert "no cause 'nothing'" in nobody.output
