"""How much of this student's deviation does each cause account for?

For each number of the delivery: what was read, minus what is usual for a player without causes, is
the sum of what the causes do, what is the person's own, and what is left over (the doubt of the
reading). All are posterior means over every configuration: given the configuration, severities and
person are normal and so is their mean a linear function of what was read (`joint.py`).
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.inference import Inference
from firm_footing.core.knowledge import DIMENSIONS
from firm_footing.core.knowledge.numbers import SpokenNumbers
from firm_footing.core.physics.forward import STRIKE

EXPLAINED = ("path_deg", "face_to_path_deg", "low_point_cm", "heel_toe_mm", "club_speed_pct")
"""The numbers that are accounted for."""


@dataclass(frozen=True)
class Attribution:
    """An account of the delivery's deviation; every mapping by the names of `EXPLAINED` read.

    deviation : what was read minus what is usual without causes
    causes : cause id to its part
    person : the student's own part
    left_over : what nothing accounts for
    """

    deviation: Mapping[str, float]
    causes: Mapping[str, Mapping[str, float]]
    person: Mapping[str, float]
    left_over: Mapping[str, float]


@dataclass(frozen=True)
class Unexplained:
    """What no cause seen so far accounts for.

    name, left : the number, and how much of its deviation is left, never more than all of it
    """

    name: str
    left: float


def attribution_of(inference: Inference) -> Attribution:
    """The account of all causes; empty without balls."""
    ids = [c.id for c in inference.knowledge.causes]
    delivery = inference.balls.delivery
    if delivery is None:
        return Attribution({}, {name: {} for name in ids}, {}, {})
    of_causes, person = _means(inference)
    deviation = _deviation(inference)
    rest = {d: _at(of_causes.sum(axis=0) + person, d) for d in deviation}
    return Attribution(
        deviation=deviation,
        causes={
            name: {d: _at(row, d) for d in deviation}
            for name, row in zip(ids, of_causes, strict=True)
        },
        person={d: _at(person, d) for d in deviation},
        left_over={d: value - rest[d] for d, value in deviation.items()},
    )


def _at(row: FloatArray, dimension: str) -> float:
    return float(row[DIMENSIONS.index(dimension)])


def _means(inference: Inference) -> tuple[FloatArray, FloatArray]:
    """(causes, 6) and (6,) posterior mean of what each cause does, and of the person."""
    space, numbers = inference.space, inference.knowledge.numbers.delivery
    delivery = inference.balls.delivery
    own = inference.own_sizes
    assert delivery is not None
    assert own is not None
    size_of, strike_of = np.zeros(len(space.effects)), np.zeros(len(space.effects))
    for row, z in zip(space.variant_of, own.severity, strict=True):
        size = np.maximum(0.0, space.variant_severity[row] + numbers.severity_within * z)
        size *= inference.configuration
        size_of += np.bincount(row, size, len(size_of))
        strike_of += np.bincount(row, size * own.strike, len(size_of))
    each = size_of[:, None] * space.unit_effects
    each[:, STRIKE] = strike_of * space.unit_effects[:, STRIKE]
    out = np.zeros((len(inference.knowledge.causes) + 1, len(DIMENSIONS)))
    np.add.at(out, space.variant_cause, each)
    variance = np.array(numbers.person_sd.row()) ** 2
    person = variance * (
        delivery.reading.design.T @ (delivery.joint.pulled @ inference.configuration)
    )
    return out[:-1], person


def _deviation(inference: Inference) -> dict[str, float]:
    """The pattern minus what is usual without causes, of the numbers that are known.

    The pattern's own numbers, so that the same number stands everywhere.
    """
    found = {}
    for name in EXPLAINED:
        estimate = getattr(inference.pattern, name)
        if estimate is not None:
            usual = inference.usual_low_point_cm if name == "low_point_cm" else 0.0
            found[name] = float(estimate.value) - usual
    return found


def words_of(
    parts: Mapping[str, float], deviation: Mapping[str, float], spoken: SpokenNumbers
) -> dict[str, str]:
    """How much of each deviation a cause's parts account for; what is no miss is left out."""
    return {
        name: _word(part / deviation[name], spoken)
        for name, part in parts.items()
        if is_miss(name, deviation[name], spoken)
    }


def explains_nothing(cause: str, attribution: Attribution, spoken: SpokenNumbers) -> bool:
    """Whether balls miss and a cause accounts for next to nothing of any number of it."""
    words = words_of(attribution.causes[cause], attribution.deviation, spoken)
    return bool(words) and set(words.values()) == {"hardly"}


def is_miss(name: str, deviation: float, spoken: SpokenNumbers) -> bool:
    """Whether a deviation is large enough to need explaining; speed gained never is."""
    size = -deviation if name == "club_speed_pct" else abs(deviation)
    return size >= spoken.least[name]


def _word(share: float, spoken: SpokenNumbers) -> str:
    if share >= spoken.strongly_from:
        return "strongly"
    return "partly" if share >= spoken.partly_from else "hardly"


def unexplained(inference: Inference, attribution: Attribution) -> Unexplained | None:
    """The number of which most is left when the causes seen or likely have had their part.

    None where no number is farther off than people differ without causes.
    """
    knowledge = inference.knowledge
    likely = knowledge.numbers.decision.nearly_root
    known = [
        c.id
        for c, p in zip(knowledge.causes, inference.now.present, strict=True)
        if p >= likely or inference.seen.get(c.id) in ("yes", "partly")
    ]
    usual = dict(zip(DIMENSIONS, knowledge.numbers.delivery.person_sd.row(), strict=True))
    rest = {
        d: value - sum(attribution.causes[c][d] for c in known)
        for d, value in attribution.deviation.items()
    }
    sizes = {
        d: abs(value) / usual[d]
        for d, value in rest.items()
        if value * attribution.deviation[d] > 0 and is_miss(d, value, knowledge.numbers.spoken)
    }
    worst = max(sizes, key=lambda d: sizes[d], default=None)
    if worst is None or sizes[worst] < FAR_OFF:
        return None
    most = attribution.deviation[worst]  # others may pull the other way: what is seen is that much
    return Unexplained(worst, min(rest[worst], most, key=abs))


FAR_OFF = 1.25
"""Standard deviations of people without causes."""
