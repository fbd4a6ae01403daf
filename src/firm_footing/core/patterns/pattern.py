"""Which pattern does a block of balls show, and which delivery does it imply?

    start, curve, divot, strike, carry  ->  path, face to path, low point, strike, loft, club speed

Each with its standard error; what was not seen is None. Every number is golfer-neutral.
"""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Final

import numpy as np

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.inverse import Delivered, read_delivery
from firm_footing.core.estimation.readings import (
    NotedValue,
    as_reading,
    curve_deg,
    notes_of,
    start_deg,
)
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.patterns.chance import carry_lost_pct, values_of
from firm_footing.core.patterns.no_miss import no_miss
from firm_footing.core.patterns.shape import is_two_way, shape_name
from firm_footing.core.physics.forward import FACE_TO_PATH, LOFT, LOW_POINT, PATH, SPEED, STRIKE

KNOWN_SE: Final = dict(zip(DIMENSIONS, (5.0, 5.0, 10.0, 20.0, 6.0, 8.0), strict=True))
"""A quantity whose standard error, from the balls alone, is larger counts as not known."""

TOGETHER: Final = ((PATH, FACE_TO_PATH), (LOW_POINT,), (STRIKE,), (LOFT, SPEED))
"""Quantities that make one thing together: neither is fixed where only that thing was seen."""

TOLD_BY: Final = {
    "low_point_cm": {"low_point", "attack"},
    "heel_toe_mm": {"strike", "contact_strike", "axis"},
}
"""What must have been noted to speak of these: a ball called clean shows neither."""

MARKED: Final = (LOW_POINT, STRIKE)
"""What leaves a mark, on the turf and on the face."""

STRIKE_MEASURED: Final = TOLD_BY["heel_toe_mm"] - {"contact_strike"}
"""A word alone is an interval without a far end: where in it, what is usual says."""

WINSOR_PER_READING = 6.0
"""Squared distance per reading beyond which a ball says no more about ordinary scatter."""

FLAT = 1e-9
"""Precision of no opinion at all."""


@dataclass(frozen=True)
class Estimate:
    """A value and its standard error, in the unit its name gives."""

    value: float
    se: float


@dataclass(frozen=True)
class Scatter:
    """How far the balls lie from their middle, against what is usual.

    sum2 : sum of squared standardised distances, about `freedom` for an ordinary player
    freedom : readings minus what was fitted
    own_share : part of the readings' variance that is the player's own scatter, 0 to 1
    """

    sum2: float
    freedom: int
    own_share: float


@dataclass(frozen=True)
class Pattern:
    """What a student's baseline balls show and the delivery they imply.

    delivered : the whole reading, ball by ball; None without balls
    values : measure to what each ball that shows it was noted with; see `chance.NOTED`
    low_point_cm : from the ball, + ahead; None where no divot, brush mark or attack angle was noted
    ball_forward_cm : how far ahead of an iron's place the balls lay on average
    two_way : None with fewer balls than could show it
    contacts : each word of contact and how many balls it was noted of, the most frequent first
    contact_says : whether words of contact say something of the low point
    strike_in_words : whether words of contact are all that tells of the strike
    no_miss : probability that there is no miss to explain; None where flight or strike is unknown
    """

    balls: int
    delivered: Delivered | None = None
    start_deg: Estimate | None = None
    curve_deg: Estimate | None = None
    path_deg: Estimate | None = None
    face_to_path_deg: Estimate | None = None
    low_point_cm: Estimate | None = None
    ball_forward_cm: float = 0.0
    heel_toe_mm: Estimate | None = None
    dynamic_loft_deg: Estimate | None = None
    club_speed_pct: Estimate | None = None
    carry_lost_pct: Estimate | None = None
    scatter: Scatter | None = None
    values: Mapping[str, tuple[float, ...]] = field(default_factory=dict)
    shape: str | None = None
    two_way: bool | None = None
    contacts: Mapping[str, int] = field(default_factory=dict)
    contact_says: bool = False
    strike_in_words: bool = False
    no_miss: float | None = None


def read_pattern(
    blocks: Sequence[Block], knowledge: Knowledge, handicap: float | None = None
) -> Pattern:
    """The pattern of all balls of these blocks together.

    Parameters
    ----------
    blocks : sequence of Block
        Golfer-neutral blocks; the caller leaves out those hit with something changed.
    knowledge : Knowledge
        For the clubs and the numbers.
    handicap : float, optional
        Of the student, for what can be expected of them.

    """
    left_out = knowledge.numbers.handicap_left_out
    return _read_pattern(tuple(blocks), knowledge, left_out if handicap is None else handicap)


@lru_cache(maxsize=40)  # the ranking and the range ask for the same
def _read_pattern(blocks: tuple[Block, ...], knowledge: Knowledge, handicap: float) -> Pattern:
    numbers = knowledge.numbers
    balls = [(shot, block) for block in blocks for shot in block.shots]
    if not balls:
        return Pattern(balls=0)
    delivered = read_delivery(blocks, knowledge, handicap)
    noted = {
        name
        for shot, block in balls
        for name in notes_of(shot, block, knowledge.club[block.club], numbers)
    }
    flown = [shot if shot.contact != "hosel" else Shot() for shot, _ in balls]
    starts = [start_deg(shot, numbers) for shot in flown]
    curves = [curve_deg(shot, numbers, begun) for shot, begun in zip(flown, starts, strict=True)]
    floor = numbers.chance.floor
    forward = float(np.mean([knowledge.club[b.club].ball_forward_cm for _, b in balls]))
    in_words = "contact_strike" in noted and not noted & STRIKE_MEASURED
    marked = (LOW_POINT,) if in_words else MARKED
    start = _middle(_values(starts, numbers), delivered, floor.start_deg)
    curve = _middle(_values(curves, numbers), delivered, floor.curve_deg)
    return Pattern(
        balls=len(balls),
        delivered=delivered,
        start_deg=start,
        curve_deg=curve,
        carry_lost_pct=_middle(
            [carry_lost_pct(s, b) for s, b in balls], delivered, floor.carry_lost_pct
        ),
        values=values_of(blocks, numbers),
        scatter=_scatter(delivered, numbers),
        shape=_shape(start, curve, numbers),
        two_way=_two_way(starts, curves, numbers),
        no_miss=no_miss(balls, numbers),
        contacts=dict(Counter(s.contact for s, _ in balls if s.contact).most_common()),
        contact_says="contact_low_point" in noted,
        ball_forward_cm=forward,
        strike_in_words=in_words,
        **_known(delivered, forward, marked, knowledge)
        | {name: None for name, notes in TOLD_BY.items() if not noted & notes},
    )


def _known(
    delivered: Delivered, ball_forward_cm: float, marked: tuple[int, ...], knowledge: Knowledge
) -> dict[str, Estimate | None]:
    """The delivery, None where the balls do not fix it.

    What is marked is what turf and face show; path, face, loft and speed nobody sees: they
    are worked out, with what is usual. Loft and speed both make carry: speed counts as known when
    the balls and what is usual together fix it better than what is usual alone.
    """
    now_se = np.sqrt(np.diag(delivered.covariance))
    usual = knowledge.numbers.delivery.prior_sd.row()
    known: dict[str, Estimate | None] = {}
    for group in TOGETHER:
        shown, shown_se = _shown(group, delivered)
        for i in group:
            name = DIMENSIONS[i]
            fixed = shown_se[i] <= KNOWN_SE[name]
            if i == SPEED:
                fixed = delivered.speed_named and (fixed or now_se[i] < 0.8 * usual[i])
            mean, se = (shown, shown_se) if i in marked else (delivered.mean, now_se)
            value = float(mean[i]) - (ball_forward_cm if i == LOW_POINT else 0.0)
            known[name] = Estimate(value, float(se[i])) if fixed else None
    return known


def _shown(group: tuple[int, ...], delivered: Delivered) -> tuple[FloatArray, FloatArray]:
    """(7,) value and standard error of what the balls say with no opinion on this group."""
    opinion = np.diag(delivered.prior).copy()
    opinion[list(group)] = FLAT
    covariance = np.linalg.inv(delivered.information + np.diag(opinion))
    shown = covariance @ (delivered.vector + opinion * delivered.prior_mean)
    return shown, np.sqrt(np.diag(covariance))


def _values(notes: Sequence[NotedValue | None], numbers: Numbers) -> list[float | None]:
    return [None if note is None else as_reading(note, numbers).value for note in notes]


def _middle(values: Sequence[float | None], delivered: Delivered, floor: float) -> Estimate | None:
    """Mean of what the eye saw, wild balls weighing less; single balls scatter by the floor."""
    pairs = zip(delivered.weights.tolist(), values, strict=True)
    made = [(w, value) for w, value in pairs if value is not None]
    if not made:
        return None
    total = sum(w for w, _ in made)
    mean = sum(w * value for w, value in made) / total
    spread2 = sum(w * (value - mean) ** 2 for w, value in made) / total
    sample2 = spread2 * len(made) / max(1, len(made) - 1)
    return Estimate(mean, max(sample2, floor**2) ** 0.5 / len(made) ** 0.5)


def _shape(start: Estimate | None, curve: Estimate | None, numbers: Numbers) -> str | None:
    if start is None or curve is None:
        return None
    return shape_name(start.value, curve.value, numbers.shape)


def _two_way(
    starts: Sequence[NotedValue | None], curves: Sequence[NotedValue | None], numbers: Numbers
) -> bool | None:
    both = zip(_values(starts, numbers), _values(curves, numbers), strict=True)
    pairs = [(a, b) for a, b in both if a is not None and b is not None]
    if len(pairs) < 2 * numbers.two_way.least_each:
        return None
    return is_two_way(pairs, numbers.two_way)


def _scatter(delivered: Delivered, numbers: Numbers) -> Scatter | None:
    """All balls' distances from their middle together; wild ones count as merely far."""
    counted = delivered.counted
    if len(counted) < numbers.delivery.scatter_least_balls:
        return None
    fitted = int((np.diag(delivered.information) > 1e-4).sum())
    freedom = int(counted.sum()) - fitted
    capped = np.minimum(delivered.distances2, WINSOR_PER_READING * counted)
    return Scatter(float(capped.sum()), freedom, delivered.own_share) if freedom > 0 else None
