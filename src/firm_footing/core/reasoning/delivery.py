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

from firm_footing.core.ball import Pattern
from firm_footing.core.ball.pattern import Scatter
from firm_footing.core.knowledge import DIMENSIONS
from firm_footing.core.reasoning.evidence import Piece, restoring
from firm_footing.core.reasoning.joint import Joint, judge
from firm_footing.core.reasoning.stories import Stories

FloatArray = NDArray[np.float64]

PATH, FACE_TO_PATH, LOW_POINT, STRIKE = (
    DIMENSIONS.index(d) for d in ("path_deg", "face_to_path_deg", "low_point_cm", "heel_toe_mm")
)
SINGLE = ("low_point_cm", "heel_toe_mm", "dynamic_loft_deg", "club_speed_pct")
NOT_SEEN = 1e-6
"""An information (per degree squared) so small that the direction was not seen at all."""

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


def reading_of(pattern: Pattern) -> DeliveryReading:
    """What the balls say of the delivery; no reading of what they do not."""
    names, values, rows, noise = _directions(pattern)
    each = np.eye(len(DIMENSIONS))
    variances = []
    for name in SINGLE:
        estimate = getattr(pattern, name)
        if estimate is not None:
            names.append(name)
            values.append(estimate.value)
            rows.append(each[DIMENSIONS.index(name)])
            variances.append(estimate.se**2)
    whole = np.zeros((len(names), len(names)))
    seen = len(noise)
    whole[:seen, :seen] = noise
    whole[range(seen, len(names)), range(seen, len(names))] = variances
    design = np.array(rows).reshape(len(names), len(DIMENSIONS))
    return DeliveryReading(tuple(names), np.array(values), design, whole)


def _directions(pattern: Pattern) -> tuple[list[str], list[float], list[FloatArray], FloatArray]:
    """Path and face to path; only one combination of the two where no more was seen."""
    if pattern.directions is None:
        return [], [], [], np.zeros((0, 0))
    middle, precision = pattern.directions
    known, ways = np.linalg.eigh(precision)
    rows = np.zeros((2, len(DIMENSIONS)))
    if known[0] > NOT_SEEN:
        rows[[0, 1], [PATH, FACE_TO_PATH]] = 1.0
        noise = np.linalg.inv(precision).astype(np.float64)
        both = ["path_deg", "face_to_path_deg"]
        return both, [float(m) for m in middle], list(rows), noise
    rows[0, [PATH, FACE_TO_PATH]] = ways[:, 1]
    named = {"path_deg": pattern.path_deg, "face_to_path_deg": pattern.face_to_path_deg}
    name = next((n for n, e in named.items() if e is not None), "start_deg")
    return [name], [float(ways[:, 1] @ middle)], [rows[0]], np.array([[1 / known[1]]])


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
    reading = reading_of(pattern)
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
