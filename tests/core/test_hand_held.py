"""A camera held in the hand: where it looked is put right, and what is not known of it is doubted.

How a hand moves a camera is an estimate of the simulator's.
"""

import math
from dataclasses import replace

import numpy as np
import pytest

from firm_footing.core.case import Film
from firm_footing.core.film.measures import read_film
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import VIEWS
from firm_footing.simulators.film.camera import Camera, Shake
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed


def held(seed: int, px: float) -> Filmed:
    rng = np.random.default_rng([21, seed])
    body = swing({}, rng.spawn(1)[0], rng, anyone=True)
    camera = Camera(VIEWS[seed % 2], 240.0)
    return Filmed(body, camera, Shake(px, px / 40, seed))


def values(film: Film, knowledge: Knowledge) -> dict[str, float]:
    return {r.measure.id: r.value for r in read_film(film, "7i", knowledge)}


@pytest.mark.parametrize("seed", [0, 1])
def test_followed_exactly_it_is_as_if_the_camera_had_stood(seed: int, knowledge: Knowledge) -> None:
    """Of the camera as it was at address."""
    filmed = held(seed, 30.0)
    nothing = np.random.default_rng(0)
    film = filmed.marked(knowledge.film, nothing, 0.0, followed_px=0.0)
    first = filmed.seconds(filmed.frame_of("address"))
    for point, touched in film.points.items():
        for event, place in touched.items():
            at = filmed.seen_at(filmed.seconds(filmed.frame_of(event)))[point]
            stood = filmed.picture(at, first)
            assert film.steadied(place, event) == pytest.approx(tuple(stood), abs=1e-6)
    stand = replace(filmed, shake=None).marked(knowledge.film, nothing, 0.0)
    turned = math.degrees(filmed.shake.pose(first)[1]) if filmed.shake else 0.0
    assert abs(turned) < 2
    read, true = values(film, knowledge), values(stand, knowledge)
    assert max(abs(read[m] - true[m]) for m in true) < 3.0  # the ground levels the camera
    assert max(abs(values(shaken(film), knowledge)[m] - true[m]) for m in true) > 5.0


def shaken(film: Film) -> Film:
    """The same, and nobody followed it."""
    return film.model_copy(update={"moves": {}})


def test_a_film_in_a_mirror_is_put_right_in_the_mirror(knowledge: Knowledge) -> None:
    film = held(3, 12.0).marked(knowledge.film, np.random.default_rng(1), followed_px=0.3)
    other = film.mirrored()
    for event in ("top", "impact"):
        x, y = film.steadied((200.0, 900.0), event)
        assert other.steadied((film.width - 200.0, 900.0), event) == pytest.approx(
            (film.width - x, y)
        )
    back = other.mirrored().moves["top"]
    assert (back.right, back.turned_deg) == pytest.approx(
        (film.moves["top"].right, film.moves["top"].turned_deg)
    )


def covered(knowledge: Knowledge, px: float, followed_px: float | None) -> tuple[float, float]:
    """Share of 95 % intervals that hold the truth, of measures across pictures; their mean sd."""
    inside, sds = [], []
    for seed in range(40):
        filmed = held(seed, px)
        rng = np.random.default_rng([22, seed])
        film = filmed.marked(knowledge.film, rng, 2.0, followed_px=followed_px)
        truth = filmed.truths(knowledge.film)
        for read in read_film(film, "7i", knowledge):
            if read.measure.since is None:
                continue
            inside.append(abs(read.value - truth[read.measure.id]) <= 1.96 * read.sd)
            sds.append(read.sd)
    return float(np.mean(inside)), float(np.mean(sds))


@pytest.mark.parametrize(("px", "followed_px"), [(2.0, 0.3), (6.0, 0.5), (6.0, 3.0), (6.0, None)])
def test_the_intervals_hold_the_truth_followed_or_not(
    px: float, followed_px: float | None, knowledge: Knowledge
) -> None:
    share, _ = covered(knowledge, px, followed_px)
    assert 0.90 <= share <= 0.995


def test_following_makes_a_film_surer(knowledge: Knowledge) -> None:
    _, followed = covered(knowledge, 6.0, 0.3)
    _, not_followed = covered(knowledge, 6.0, None)
    assert followed < 0.8 * not_followed


def test_what_following_may_be_off_is_a_doubt_of_its_own(knowledge: Knowledge) -> None:
    """Closed form of a shift between two pictures: each one's error, in centimetres, is added."""
    film = held(1, 5.0).marked(knowledge.film, np.random.default_rng(2), followed_px=0.0)
    moves = {e: m.model_copy(update={"sd_px": 7.0}) for e, m in film.moves.items()}
    surer, less = (
        {r.measure.id: r for r in read_film(f, "7i", knowledge)}
        for f in (film, film.model_copy(update={"moves": moves}))
    )
    assert film.scale is not None
    per_px = 100.0 / math.dist(film.scale.start, film.scale.end)
    shifts = [r for r in less.values() if r.measure.formula in ("shift", "rise")]
    assert len(shifts) > 3
    for read in shifts:
        before = surer[read.measure.id].sd
        pictures = sum(e != "address" for e in (read.measure.event, read.measure.since))
        assert read.sd**2 - before**2 == pytest.approx(pictures * (7.0 * per_px) ** 2, rel=0.05)
    # of points in one picture nothing changes: they lie aside together
    for read in (r for r in less.values() if r.measure.formula == "corner"):
        assert read.sd == pytest.approx(surer[read.measure.id].sd, rel=1e-6)


def test_a_film_on_a_stand_is_as_sure_as_before(knowledge: Knowledge) -> None:
    film = replace(held(1, 5.0), shake=None).marked(knowledge.film, np.random.default_rng(2))
    in_hand = film.model_copy(update={"held": True})
    pairs = zip(read_film(film, "7i", knowledge), read_film(in_hand, "7i", knowledge), strict=True)
    surer = [one.sd < other.sd for one, other in pairs if one.measure.since is not None]
    assert surer
    assert all(surer)
