"""How well does each story predict the delivery that the balls imply?

A story's mean is the player's cause-free delivery plus the effects of its causes; its covariance is
what differs between people, the severity of each cause (one for all that the cause does, half its
size), and the doubt of what was read; its tails are heavy, as people's are. One `Piece` for each
number, so that each can be taken away again.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.ball.forward import (
    FACE_TO_PATH,
    HEIGHT,
    LOFT,
    LOW_POINT,
    PATH,
    SPEED,
    STRIKE,
)
from firm_footing.core.delivery.inverse import Delivered
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.pattern import Pattern
from firm_footing.core.pattern.pattern import Scatter
from firm_footing.core.reasoning.evidence import Piece, restoring
from firm_footing.core.reasoning.joint import Joint, judge
from firm_footing.core.reasoning.stories import Stories

FloatArray = NDArray[np.float64]

NOT_SEEN = 2e-3
"""An information so small that the quantity was not seen at all: 1 over 22 degrees or per cent."""
NEARLY_ALONE = 0.99
"""A direction with this much of one quantity is that quantity."""
COMBINED = ("start_deg", "carry_lost_pct")
"""What a pair is called of which only a combination was seen."""
FLAT = 1e-9
"""Precision of no opinion at all."""

SCATTER_NODES, _NODE_WEIGHTS = np.polynomial.hermite_e.hermegauss(7)
"""Gauss-Hermite nodes for how widely different people scatter (probabilists' form)."""
LOG_NODE_WEIGHTS = np.log(_NODE_WEIGHTS / _NODE_WEIGHTS.sum())


@dataclass(frozen=True, eq=False)
class DeliveryReading:
    """What was read of the delivery, as n linear readings of its six numbers.

    names : (n,) of each reading
    value : (n,)
    design : (n, 6) what each reads, order of DIMENSIONS
    noise : (n, n) covariance of the doubt
    """

    names: tuple[str, ...]
    value: FloatArray
    design: FloatArray
    noise: FloatArray


def reading_of(pattern: Pattern, knowledge: Knowledge) -> DeliveryReading:
    """What the balls say of the delivery; no reading of what they do not.

    Two pairs are read together, for often only a combination of them was seen: path and face to
    path (the start), loft and club speed (the carry).
    """
    if pattern.delivered is None:
        nothing = np.zeros((0, len(DIMENSIONS)))
        return DeliveryReading((), np.zeros(0), nothing, np.zeros((0, 0)))
    said, pull = _of_dimensions(pattern.delivered, knowledge)
    usual = 1 / np.array(knowledge.numbers.delivery.prior_sd.row()) ** 2
    seen = {name for name in DIMENSIONS if getattr(pattern, name) is not None}
    opinion = np.where([name in seen for name in DIMENSIONS], FLAT, usual)
    named: dict[str, FloatArray] = _pair((PATH, FACE_TO_PATH), COMBINED[0], said, opinion)
    for name in ("low_point_cm", "heel_toe_mm"):
        if name in seen:
            named[name] = np.eye(len(DIMENSIONS))[DIMENSIONS.index(name)]
    named |= _pair((LOFT, SPEED), COMBINED[1], said, opinion)
    rows = np.array(list(named.values())).reshape(len(named), len(DIMENSIONS))
    beside = _opinion_beside(rows, usual)
    covariance = np.linalg.inv(said + beside)
    value = covariance @ (pull + beside @ pattern.delivered.prior_mean[: len(DIMENSIONS)])
    return DeliveryReading(tuple(named), rows @ value, rows, rows @ covariance @ rows.T)


def _of_dimensions(delivered: Delivered, knowledge: Knowledge) -> tuple[FloatArray, FloatArray]:
    """(6, 6), (6,) what the balls say, the height on the face at what is usual.

    So is the speed where nobody named a carry to hold it against: it may lie anywhere.
    """
    numbers = knowledge.numbers
    said, pull = delivered.said.copy(), delivered.pull.copy()
    if not delivered.speed_named:
        said[SPEED, SPEED] += 1 / numbers.expected.spread_pct**2
        said, pull = _without(SPEED, said, pull)
    said[HEIGHT, HEIGHT] += 1 / numbers.delivery.ball_height_sd_mm**2
    said, pull = _without(HEIGHT, said, pull)
    return said[:HEIGHT, :HEIGHT], pull[:HEIGHT]


def _without(part: int, said: FloatArray, pull: FloatArray) -> tuple[FloatArray, FloatArray]:
    """What is said of the others, whatever this part may be; nothing is said of it any more."""
    across = said[:, part].copy()
    own = across[part]
    out, moved = said - np.outer(across, across) / own, pull - across * pull[part] / own
    out[part], out[:, part], moved[part] = 0.0, 0.0, 0.0
    return out, moved


def _pair(
    pair: tuple[int, int], together: str, said: FloatArray, opinion: FloatArray
) -> dict[str, FloatArray]:
    """Rows that read a pair: both of it, one combination, or none. The rest is as is usual."""
    rest = [i for i in range(len(DIMENSIONS)) if i not in pair]
    inner = np.linalg.inv(said[np.ix_(rest, rest)] + np.diag(opinion[rest]))
    across = said[np.ix_(pair, rest)]
    known, ways = np.linalg.eigh(said[np.ix_(pair, pair)] - across @ inner @ across.T)
    rows = np.zeros((2, len(DIMENSIONS)))
    if known[0] > NOT_SEEN:
        rows[[0, 1], pair] = 1.0
        return dict(zip((DIMENSIONS[i] for i in pair), rows, strict=True))
    if known[1] <= NOT_SEEN:
        return {}
    rows[0, pair] = ways[:, 1]
    alone = np.abs(ways[:, 1]) > NEARLY_ALONE
    name = DIMENSIONS[pair[int(np.argmax(alone))]] if alone.any() else together
    return {name: rows[0]}


def _opinion_beside(rows: FloatArray, usual: FloatArray) -> FloatArray:
    """(6, 6) what is usual, of what no row reads; no opinion on the rest.

    Rows are of length one and stand upright on each other.
    """
    beside = np.eye(len(usual)) - rows.T @ rows
    return beside * usual @ beside + FLAT * np.eye(len(usual))


@lru_cache(maxsize=64)
def expected_delivery(stories: Stories, handicap: float) -> FloatArray:
    """(6, stories) mean delivery under every story."""
    numbers = stories.knowledge.numbers.delivery
    mean = stories.shift.copy()
    mean[LOW_POINT] += numbers.cause_free_low_point_cm(handicap)
    mean[LOW_POINT] = np.maximum(mean[LOW_POINT], numbers.low_point_floor_cm)
    mean[STRIKE] = np.maximum(mean[STRIKE], numbers.strike_floor_mm)
    return mean


def judge_delivery(reading: DeliveryReading, stories: Stories, handicap: float) -> Joint:
    """The reading judged by every story."""
    numbers = stories.knowledge.numbers.delivery
    person = np.array(numbers.person_sd.row()) ** 2
    return judge(
        off=reading.value[:, None] - reading.design @ expected_delivery(stories, handicap),
        spreads=numbers.effect_spread * stories.effects @ reading.design.T,
        listed=stories.variant_of,
        base=reading.design * person @ reading.design.T + reading.noise,
        tail_df=numbers.person_tail_df,
    )


def delivery_pieces(
    pattern: Pattern, stories: Stories, handicap: float
) -> tuple[list[Piece], FloatArray | None]:
    """Evidence of the pattern, number by number, and how severe it makes each cause.

    What the numbers say together is one density; each piece adds an equal part of it, and taking
    one away takes its density given the others. Severities as in `Joint`, None without balls.
    """
    reading = reading_of(pattern, stories.knowledge)
    pieces: list[Piece] = []
    severity = None
    if reading.names:
        found = judge_delivery(reading, stories, handicap)
        severity = found.severity
        part = found.log / len(reading.names)
        pieces = [
            _piece(name, part, lost=found.given_the_others(i))
            for i, name in enumerate(reading.names)
        ]
    if pattern.scatter is not None:
        pieces.append(_piece("scatter", _scatter(pattern.scatter, stories)))
    if pattern.two_way is not None:
        pieces.append(_piece("two_way", _two_way(pattern.two_way, stories)))
    return pieces, severity


def _scatter(scatter: Scatter, stories: Stories) -> FloatArray:
    spread = stories.knowledge.numbers.delivery.scatter_spread
    return scatter_says(scatter, stories.scatter_factor, spread)


def _piece(name: str, adds: FloatArray, lost: FloatArray | None = None) -> Piece:
    """A piece of the pattern; `lost` where it is not what the piece adds."""
    return Piece(f"pattern.{name}", adds, restoring(adds if lost is None else lost))


def scatter_says(scatter: Scatter, factor: FloatArray, spread: float) -> FloatArray:
    """(stories,) wider scatter than usual speaks for causes that widen it.

    sum2 is chi-square distributed times the factor squared (its own-scatter share of it); the
    factor differs between people log-normally, which is integrated out.

    Parameters
    ----------
    factor : (stories,) how much wider the balls scatter under each story
    spread : of the factor between people, log

    """
    factors, which = np.unique(factor, return_inverse=True)
    size2 = (factors[:, None] * np.exp(spread * SCATTER_NODES)) ** 2
    wide = scatter.own_share * size2 + 1 - scatter.own_share
    log_density = -0.5 * (scatter.freedom * np.log(wide) + scatter.sum2 / wide)
    by_factor = np.logaddexp.reduce(log_density + LOG_NODE_WEIGHTS, axis=1)
    out: FloatArray = by_factor[which]
    return out


@lru_cache(maxsize=8)
def _two_way(seen: bool, stories: Stories) -> FloatArray:
    """A two-way miss points to a stuck club, whatever got it stuck."""
    numbers = stories.knowledge.numbers.two_way
    stuck = stories.working_through(numbers.mechanism)
    yes = np.where(stuck, numbers.stuck, numbers.ordinary)
    return np.log(yes if seen else 1.0 - yes)
