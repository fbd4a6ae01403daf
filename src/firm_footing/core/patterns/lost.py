"""Where did the distance go? Expected carry minus actual, item by item.

The delivery is put right in parts, one item at a time, in every order, and flown; an item's share
is the mean of what putting it right brings (Shapley 1953: the only fair division that adds up).
What the physics does not account for is the remainder.
"""

from dataclasses import dataclass
from itertools import product
from math import factorial
from typing import Final

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.numbers import LostDistance
from firm_footing.core.physics.flight import Launch
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    HEIGHT,
    LOFT,
    LOW_POINT,
    PARTS,
    SPEED,
    STRIKE,
    Setting,
    clear_of_ground_cm,
    deliver,
    from_ball_cm,
)
from firm_footing.core.physics.impact import strike
from firm_footing.core.physics.turf import speed_lost_pct

ITEMS: Final = ("club_speed", "strike", "loft_and_spin", "glancing", "ground")
"""Club speed; the place on the face; loft and angle of attack, which make the spin; the face
across the path; ground before the ball."""
CHOICES: Final = np.array(list(product((False, True), repeat=len(ITEMS))))
"""(32, 5) every choice of items left as they were hit; the others put right."""


@dataclass(frozen=True)
class Lost:
    """One ball's account, in metres: `expected_m - actual_m` is the sum of all items and the rest.

    items : by `ITEMS`, + lost, - won
    remainder_m : what the physics leaves over
    measured : whether the actual carry was noted; else it is the computed one
    adds_up : whether the items account for most of it; if not, something was noted wrong
    """

    expected_m: float
    actual_m: float
    items: dict[str, float]
    remainder_m: float
    measured: bool
    adds_up: bool


def lost_of(
    flown: FloatArray,
    carries: list[float | None],
    expected_m: float,
    limits: LostDistance,
) -> tuple[Lost, ...]:
    """The account of every ball.

    Parameters
    ----------
    flown : (32, n) carry of every ball under every choice, of what `would_be` launches
    carries : (n,) noted, in metres, None where not
    expected_m : carry of a square blow at the setting's club speed

    """
    shares = _shares(flown)
    found = []
    for ball, carry in enumerate(carries):
        computed = float(flown[-1, ball])
        actual = computed if carry is None else carry
        items = dict(zip(ITEMS, shares[:, ball].tolist(), strict=True))
        found.append(_account(expected_m, actual, items, carry is not None, limits))
    return tuple(found)


def together(accounts: tuple[Lost, ...], limits: LostDistance) -> Lost | None:
    """The mean account of a block; adds up as its balls do. None without balls."""
    if not accounts:
        return None
    n = len(accounts)
    return _account(
        sum(a.expected_m for a in accounts) / n,
        sum(a.actual_m for a in accounts) / n,
        {item: sum(a.items[item] for a in accounts) / n for item in ITEMS},
        all(a.measured for a in accounts),
        limits,
    )


def _account(
    expected_m: float,
    actual_m: float,
    items: dict[str, float],
    measured: bool,
    limits: LostDistance,
) -> Lost:
    size = sum(abs(item) for item in items.values())
    rest = expected_m - actual_m - sum(items.values())
    far = abs(rest) > limits.left_over_pct / 100 * expected_m
    adds_up = not (far and abs(rest) > limits.left_over_part * size)
    return Lost(expected_m, actual_m, items, rest, measured, adds_up)


def would_be(parts: FloatArray, setting: Setting) -> Launch:
    """(32 n,) how every ball would leave under every choice of what is as it was and what is right.

    Parameters
    ----------
    parts : (n, 7) deliveries, order of `PARTS`

    """
    right = np.zeros(len(PARTS))
    right[LOW_POINT] = clear_of_ground_cm(setting)
    speed, place, loft, glancing, ground = (
        CHOICES[:, [i]].repeat(len(parts), axis=1) for i in range(len(ITEMS))
    )
    mixed = np.tile(right, (*speed.shape, 1))
    for part, kept in (
        (SPEED, speed),
        (STRIKE, place),
        (HEIGHT, place),
        (LOFT, loft),
        (LOW_POINT, loft),
        (FACE_TO_PATH, glancing),
    ):
        mixed[:, :, part] = np.where(kept, parts[:, part], right[part])
    low_point_cm = from_ball_cm(parts[:, LOW_POINT], setting.club)
    lost = np.where(ground, speed_lost_pct(low_point_cm, setting.teed, setting.turf), 0.0)
    mixed[:, :, SPEED] -= lost
    flat = mixed.reshape(-1, len(PARTS))
    delivery = deliver(flat, setting._replace(teed=True))
    return strike(delivery, setting.club)


def _shares(flown: FloatArray) -> FloatArray:
    """(5, n) what each item costs, + lost."""
    size = CHOICES.sum(axis=1)
    number = {tuple(choice): row for row, choice in enumerate(CHOICES.tolist())}
    items = len(ITEMS)
    shares = np.zeros((items, flown.shape[1]))
    for item in range(items):
        for row in np.flatnonzero(~CHOICES[:, item]):
            with_it = CHOICES[row].copy()
            with_it[item] = True
            k = int(size[row])
            weight = factorial(k) * factorial(items - 1 - k) / factorial(items)
            shares[item] += weight * (flown[row] - flown[number[tuple(with_it.tolist())]])
    return shares
