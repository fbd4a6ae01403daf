"""Two films beside each other, and a feel beside a film, of swings whose truth is known."""

import math

import numpy as np
import pytest

from firm_footing.core.case import Film
from firm_footing.core.film import FilmError, read_film
from firm_footing.core.film.compare import changes, laid_together
from firm_footing.core.film.felt import FeltAndSeen
from firm_footing.core.film.measures import when_it_leaves
from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed

CLUBS = ("7i", "7i")


def a_film(
    knowledge: Knowledge, again: int, camera: Camera | None = None, **causes: float
) -> tuple[Filmed, Film]:
    """One swing of the same person; `again` tells their swings apart."""
    person = np.random.default_rng(7)
    found = Filmed(
        swing(causes, person, np.random.default_rng(again)), camera or Camera("down_the_line")
    )
    return found, found.marked(knowledge.film, np.random.default_rng(100 + again))


def test_a_change_is_called_one_as_seldom_as_it_should_be_when_there_is_none(
    knowledge: Knowledge,
) -> None:
    """The same swing filmed twice: the truth of every measure is the same."""
    called = [
        c.beyond_chance
        for seed in range(30)
        for c in changes(
            a_film(knowledge, seed)[1],
            a_film(knowledge, seed)[0].marked(knowledge.film, np.random.default_rng(900 + seed)),
            CLUBS,
            knowledge,
        )
    ]
    assert len(called) == 30 * 17
    assert np.mean(called) < 0.05


def test_a_heel_that_stays_down_after_the_lesson_is_a_change(knowledge: Knowledge) -> None:
    before, after = (
        a_film(knowledge, 1, trail_heel_pops=1.5)[1],
        a_film(knowledge, 2)[1],
    )
    found = {c.before.measure.id: c for c in changes(before, after, CLUBS, knowledge)}
    heel = found["trail_heel_arm_level"]
    assert heel.beyond_chance
    assert heel.value < -3
    assert heel.sd == pytest.approx(math.hypot(heel.before.sd, heel.after.sd))
    assert "before" in heel.text
    back = {c.before.measure.id: c for c in changes(after, before, CLUBS, knowledge)}
    assert back["trail_heel_arm_level"].value == pytest.approx(-heel.value)
    same = found["trail_foot_slid"]
    assert not same.beyond_chance
    assert same.text.startswith("Trail toe moved, impact: less than the ")


def test_an_angle_that_passes_half_a_turn_changes_the_short_way(knowledge: Knowledge) -> None:
    _, film = a_film(knowledge, 3)
    read = next(r for r in read_film(film, "7i", knowledge) if r.measure.unit == "deg")
    one = type(read)(read.measure, 175.0, 1.0, {})
    other = type(read)(read.measure, -178.0, 1.0, {})
    from firm_footing.core.film.compare import MeasureChange  # noqa: PLC0415 (only this one builds it)

    assert MeasureChange(one, other).value == pytest.approx(7.0)


def test_pictures_lie_upon_each_other_feet_on_feet(knowledge: Knowledge) -> None:
    """Another height of the picture and a tilt: the same foot is at the same place in cm."""
    tilted = Camera("down_the_line", width=720, height=1280, tilt_deg=4.0)
    pair = [a_film(knowledge, 1)[1], a_film(knowledge, 1, tilted)[1]]
    laid = laid_together(pair, knowledge.film)
    feet = []
    for film, lay in zip(pair, laid, strict=True):
        (x, y), cos, sin = (
            np.subtract(film.points["trail_toe"]["address"], lay.at),
            math.cos(lay.level_rad),
            math.sin(lay.level_rad),
        )
        feet.append(lay.cm_per_px * np.array([x * cos - y * sin, x * sin + y * cos]))
    np.testing.assert_allclose(feet[0], feet[1], atol=2.5)
    assert abs(math.degrees(laid[1].level_rad - laid[0].level_rad)) == pytest.approx(4, abs=0.6)
    assert laid[1].cm_per_px / laid[0].cm_per_px == pytest.approx(pair[0].height / 1280, rel=0.03)


def test_it_is_said_from_when_on_the_heel_is_up(knowledge: Knowledge) -> None:
    def said(**causes: float) -> str | None:
        return when_it_leaves(read_film(a_film(knowledge, 1, **causes)[1], "7i", knowledge))

    early = said(trail_heel_pops=2.0)
    assert early is not None
    assert early.startswith("Trail heel off the ground from “lead arm level down” on")
    sound = said()
    assert sound is None or "impact" in sound  # a sound heel is up at the ball, and not before


def test_without_a_scale_nothing_is_compared(knowledge: Knowledge) -> None:
    _, film = a_film(knowledge, 1)
    bare = film.model_copy(update={"scale": None})
    with pytest.raises(FilmError, match="gives a scale"):
        changes(film, bare, CLUBS, knowledge)
    with pytest.raises(FilmError, match="gives a scale"):
        laid_together([film, bare], knowledge.film)


def test_a_feel_is_wrong_by_what_the_film_shows(knowledge: Knowledge) -> None:
    _, film = a_film(knowledge, 1, trail_heel_pops=1.5)
    read = next(
        r for r in read_film(film, "7i", knowledge) if r.measure.id == "trail_heel_arm_level"
    )
    wrong = FeltAndSeen(read, 0.0)
    assert wrong.beyond_chance
    assert wrong.off == pytest.approx(read.value)
    assert f"It is {read.value:.0f} cm more than felt." in wrong.text
    assert "The feel is right" in FeltAndSeen(read, read.value + 0.1).text
    assert "less than felt" in FeltAndSeen(read, read.value + 9).text
