"""How well does each configuration predict the delivery that the balls imply?

A configuration's mean is the player's cause-free delivery plus the effects of its causes; its
covariance is what differs between people, the severity of each cause (one for all that the cause
does, half its size), and the doubt of what was read; its tails are heavy, as people's are. One
`Piece` for each number, so that each can be taken away again.
"""

from dataclasses import dataclass
from typing import Any

import numpy as np

from firm_footing.core.estimation.inverse import Delivered
from firm_footing.core.frame.arrays import FloatArray, IntArray
from firm_footing.core.inference.caching import kept
from firm_footing.core.inference.delivery_density import (
    JointDensity,
    MoreIn,
    joint_density,
    log_density,
    mixed,
)
from firm_footing.core.inference.evidence import Piece, leave_one_out_weight_of
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.patterns import Pattern
from firm_footing.core.patterns.pattern import Scatter
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    HEIGHT,
    LOFT,
    LOW_POINT,
    PATH,
    SPEED,
    STRIKE,
)

NOT_SEEN = 2e-3
"""An information so small that the quantity was not seen at all: 1 over 22 degrees or per cent."""
NEARLY_ALONE = 0.99
"""A direction with this much of one quantity is that quantity."""
COMBINED = ("start_deg", "carry_lost_pct")
"""What a pair is called of which only a combination was seen."""
STRIKE_NAME = DIMENSIONS[STRIKE]
CONTACT = "contact"
"""What the low point is called where only words of contact tell it."""
FLAT = 1e-9
"""Precision of no opinion at all."""

SCATTER_NODES = np.linspace(-4.0, 4.0, 161)
"""How widely different people scatter, standard deviations: as close together as many balls need,
which know a scatter to a few per cent."""
LOG_NODE_WEIGHTS = -0.5 * SCATTER_NODES**2 - np.log(np.exp(-0.5 * SCATTER_NODES**2).sum())


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


def reading_of(pattern: Pattern, knowledge: Knowledge, shared: bool = True) -> DeliveryReading:
    """What the balls say of the delivery; no reading of what they do not.

    Two pairs are read together, for often only a combination of them was seen: path and face to
    path (the start), loft and club speed (the carry). A low point that only words of contact tell
    is called by them.

    Parameters
    ----------
    shared : whether the errors that a block's balls share count; they do not where two blocks are
        compared that share them

    """
    if pattern.delivered is None:
        nothing = np.zeros((0, len(DIMENSIONS)))
        return DeliveryReading((), np.zeros(0), nothing, np.zeros((0, 0)))
    information, vector = _of_dimensions(pattern.delivered, knowledge, shared)
    usual = 1 / np.array(knowledge.numbers.delivery.prior_sd.row()) ** 2
    called = {name: name for name in DIMENSIONS if getattr(pattern, name) is not None}
    if "low_point_cm" not in called and pattern.contact_says:
        called["low_point_cm"] = CONTACT
    opinion = np.where([name in called for name in DIMENSIONS], FLAT, usual)
    named: dict[str, FloatArray] = _pair((PATH, FACE_TO_PATH), COMBINED[0], information, opinion)
    for name in ("low_point_cm", "heel_toe_mm"):
        if name in called:
            named[called[name]] = np.eye(len(DIMENSIONS))[DIMENSIONS.index(name)]
    named |= _pair((LOFT, SPEED), COMBINED[1], information, opinion)
    rows = np.array(list(named.values())).reshape(len(named), len(DIMENSIONS))
    beside = _opinion_beside(rows, usual)
    covariance = np.linalg.inv(information + beside)
    value = covariance @ (vector + beside @ pattern.delivered.prior_mean[: len(DIMENSIONS)])
    return DeliveryReading(tuple(named), rows @ value, rows, rows @ covariance @ rows.T)


def _of_dimensions(
    delivered: Delivered, knowledge: Knowledge, shared: bool
) -> tuple[FloatArray, FloatArray]:
    """(6, 6), (6,) information of the balls; height on the face and shared errors marginalised."""
    if not shared:
        information, vector = delivered.information.copy(), delivered.vector
    else:
        information, vector = delivered.with_shared.copy(), delivered.vector_with_shared
        sd = delivered.shared_sd
        errors = np.arange(len(information) - len(sd), len(information))
        information[errors, errors] += 1 / sd**2
        for error in errors[::-1]:
            information, vector = _marginalised(error, information, vector)
    height = knowledge.numbers.delivery.ball_height_sd_mm
    information[HEIGHT, HEIGHT] += 1 / height**2
    information, vector = _marginalised(HEIGHT, information, vector)
    return information[:HEIGHT, :HEIGHT], vector[:HEIGHT]


def _marginalised(
    part: int, information: FloatArray, vector: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Information of the others, this part marginalised; its own row and column become zero."""
    across = information[:, part].copy()
    own = across[part]
    out = information - np.outer(across, across) / own
    moved = vector - across * vector[part] / own
    out[part], out[:, part], moved[part] = 0.0, 0.0, 0.0
    return out, moved


def _pair(
    pair: tuple[int, int], together: str, information: FloatArray, opinion: FloatArray
) -> dict[str, FloatArray]:
    """Rows that read a pair: both of it, one combination, or none. The rest is as is usual."""
    rest = [i for i in range(len(DIMENSIONS)) if i not in pair]
    inner = np.linalg.inv(information[np.ix_(rest, rest)] + np.diag(opinion[rest]))
    across = information[np.ix_(pair, rest)]
    known, ways = np.linalg.eigh(information[np.ix_(pair, pair)] - across @ inner @ across.T)
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

    Rows are orthonormal.
    """
    beside = np.eye(len(usual)) - rows.T @ rows
    return beside * usual @ beside + FLAT * np.eye(len(usual))


@kept(megabytes=6)
def expected_delivery(space: HypothesisSpace, handicap: float) -> FloatArray:
    """(6, configurations) mean delivery under every configuration; not to be written to."""
    return stopped(cause_free(space, handicap)[:, None] + space.shift, space)


@kept(megabytes=1)
def strike_beyond(space: HypothesisSpace) -> FloatArray:
    """(configurations,) mm that some players' strike lies beyond the mean strike; - heel.

    Those in whom the causes move the strike more; not to be written to.
    """
    numbers = space.knowledge.numbers.delivery
    shift, floor = space.shift[STRIKE], numbers.strike_floor_mm
    beyond = np.maximum(numbers.strike_tail.times * shift, floor)
    out: FloatArray = beyond - np.maximum(shift, floor)
    return out


def cause_free(space: HypothesisSpace, handicap: float) -> FloatArray:
    """(6,) mean delivery of a player of this handicap without causes."""
    mean = np.zeros(len(DIMENSIONS))
    mean[LOW_POINT] = space.knowledge.numbers.delivery.cause_free_low_point_cm(handicap)
    return mean


def stopped(delivery: FloatArray, space: HypothesisSpace) -> FloatArray:
    """(6, n) the same, low point and strike stopped where they stop however much adds up."""
    numbers = space.knowledge.numbers.delivery
    out = delivery.copy()
    out[LOW_POINT] = np.maximum(out[LOW_POINT], numbers.low_point_floor_cm)
    out[STRIKE] = np.maximum(out[STRIKE], numbers.strike_floor_mm)
    return out


@dataclass(frozen=True, eq=False)
class DeliveryLikelihood:
    """A reading and its judgement by every configuration."""

    reading: DeliveryReading
    joint: JointDensity


@dataclass(frozen=True, eq=False)
class BaselineLikelihood:
    """Evidence of the baseline's pattern, number by number; `delivery` is None without balls."""

    pieces: tuple[Piece, ...]
    delivery: DeliveryLikelihood | None


def delivery_likelihood(
    reading: DeliveryReading, space: HypothesisSpace, handicap: float
) -> JointDensity:
    """The reading judged by every configuration."""
    forms, single = space.forms, np.float32  # to 1e-5 of a log, in half the time
    expected = expected_delivery(space, handicap)
    off = (reading.value[:, None] - reading.design @ expected).astype(single)
    people = _people(reading, space)
    people["spreads"] = people["spreads"].astype(single)
    more = None
    if STRIKE_NAME in reading.names:
        tail = space.knowledge.numbers.delivery.strike_tail
        beyond = strike_beyond(space).astype(single)
        more = MoreIn(reading.names.index(STRIKE_NAME), tail.share, beyond)
    return joint_density(off, listed=forms.variant_of, form_of=forms.of, more_in=more, **people)


def log_of_delivery(
    reading: DeliveryReading, space: HypothesisSpace, handicap: float, only: IntArray
) -> FloatArray:
    """(only,) log density of the reading under these configurations."""
    forms = space.forms
    expected = expected_delivery(space, handicap)[:, only]
    off = reading.value[:, None] - reading.design @ expected
    listed = forms.variant_of[:, forms.of[only]]
    each = np.arange(len(only))
    people = _people(reading, space)
    plain = log_density(off, listed=listed, form_of=each, **people)
    if STRIKE_NAME not in reading.names:
        return plain
    off[reading.names.index(STRIKE_NAME)] -= strike_beyond(space)[only]
    beyond = log_density(off, listed=listed, form_of=each, **people)
    return mixed(plain, beyond, space.knowledge.numbers.delivery.strike_tail.share)


def _people(reading: DeliveryReading, space: HypothesisSpace) -> dict[str, Any]:
    """What people differ by, as `joint_density` takes it."""
    numbers = space.knowledge.numbers.delivery
    person = np.array(numbers.person_sd.row()) ** 2
    return {
        "spreads": numbers.severity_within * space.forms.unit_effects @ reading.design.T,
        "base": reading.design * person @ reading.design.T + reading.noise,
        "tail_df": numbers.person_tail_df,
    }


def ball_likelihoods(
    pattern: Pattern, space: HypothesisSpace, handicap: float
) -> BaselineLikelihood:
    """Evidence of the pattern.

    What the numbers say together is one density; each piece adds an equal part of it, and taking
    one away takes its density given the others.
    """
    reading = reading_of(pattern, space.knowledge)
    pieces: list[Piece] = []
    judged = None
    if reading.names:
        judged = DeliveryLikelihood(reading, delivery_likelihood(reading, space, handicap))
        part = judged.joint.log / len(reading.names)
        pieces = [
            _piece(name, part, lost=judged.joint.given_the_others(i))
            for i, name in enumerate(reading.names)
        ]
    if pattern.scatter is not None:
        pieces.append(_piece("scatter", _scatter(pattern.scatter, space)))
    if pattern.no_miss is not None:
        pieces.append(_piece("no_miss", _no_miss(pattern.no_miss, space)))
    return BaselineLikelihood(tuple(pieces), judged)


def _no_miss(probability: float, space: HypothesisSpace) -> FloatArray:
    """(configurations,) a cause at work is behind a miss: without a miss, none hardly is."""
    seldom = space.knowledge.numbers.no_miss.although_at_work
    some = space.sizes[space.set_of] > 0
    return np.where(some, np.log(1.0 - probability * (1.0 - seldom)), 0.0)


def _scatter(scatter: Scatter, space: HypothesisSpace) -> FloatArray:
    spread = space.knowledge.numbers.delivery.scatter_spread
    factors, of = space.scatter_factors
    return scatter_says(scatter, factors, spread)[of]


def _piece(name: str, log_likelihood: FloatArray, lost: FloatArray | None = None) -> Piece:
    """A piece of the pattern; `lost` where it is not what the piece adds."""
    return Piece(
        f"pattern.{name}",
        log_likelihood,
        leave_one_out_weight_of(log_likelihood if lost is None else lost),
    )


def scatter_says(scatter: Scatter, factor: FloatArray, spread: float) -> FloatArray:
    """(factors,) wider scatter than usual speaks for causes that widen it.

    sum2 is chi-square distributed times the factor squared (its own-scatter share of it); the
    factor differs between people log-normally, which is integrated out.

    Parameters
    ----------
    factor : (factors,) how much wider the balls scatter
    spread : of the factor between people, log

    """
    few, of = np.unique(factor, return_inverse=True)
    size2 = (few[:, None] * np.exp(spread * SCATTER_NODES)) ** 2
    wide = scatter.own_share * size2 + 1 - scatter.own_share
    log_normal = -0.5 * (scatter.freedom * np.log(wide) + scatter.sum2 / wide)
    out: FloatArray = np.logaddexp.reduce(log_normal + LOG_NODE_WEIGHTS, axis=1)[of]
    return out
