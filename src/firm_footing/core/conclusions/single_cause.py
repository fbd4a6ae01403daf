"""What would each piece of evidence say of a cause alone, against no cause at all?

Beside other causes a piece can turn round: a heel strike that fits a cause counts against it once
another explains it better. What it says alone is its sign on the screen.
"""

from dataclasses import replace

import numpy as np

from firm_footing.core.conclusions.attribution import Attribution
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.delivery_likelihood import (
    CONTACT,
    DeliveryReading,
    log_of_delivery,
)
from firm_footing.core.inference.inference import Inference, log_in_set


def single_cause_log2_lr(inference: Inference) -> FloatArray:
    """(pieces, causes) log2 likelihood ratio of each piece, the cause alone against none."""
    space = inference.space
    weight = log_in_set(space, inference.handicap)
    here, hypothesis = space.alone, space.hypothesis_of[space.alone]
    of_balls = {p.id: p.log_likelihood[here] for p in inference.balls.with_sides}
    if inference.balls.delivery is not None:
        reading = inference.balls.delivery.reading
        for row, name in enumerate(reading.names):
            one = _one(reading, row)
            of_balls[f"pattern.{name}"] = log_of_delivery(one, space, inference.handicap, here)
    logs = [of_balls.get(p.id, p.log_likelihood[hypothesis]) for p in inference.pieces]
    found = [space.alone_against_none(log, weight) for log in logs]
    shape = len(found), len(inference.knowledge.causes)
    out: FloatArray = np.array(found).reshape(shape) / np.log(2)
    return out


def _one(reading: DeliveryReading, row: int) -> DeliveryReading:
    """One number of a reading by itself."""
    here = slice(row, row + 1)
    return replace(
        reading,
        names=reading.names[here],
        value=reading.value[here],
        design=reading.design[here],
        noise=reading.noise[here, here],
    )


def explains_better(
    inference: Inference,
    row: int,
    single_cause: FloatArray,
    cause: str,
    attribution: Attribution,
) -> str | None:
    """The likeliest cause that this piece by itself speaks for at least half as much.

    Of causes likelier than `cause` alone, and of a number of the balls only of those that account
    for more of it: no two explain the same thing better, each than the other, and what stands
    beside it says the same. None where there is none.

    row : of the piece among the pieces
    single_cause : (pieces, causes) bits of each cause alone
    """
    knowledge = inference.knowledge
    index, present = knowledge.cause_index[cause], inference.now.present
    name = inference.pieces[row].id.removeprefix("pattern.")
    number = "low_point_cm" if name == CONTACT else name
    whole = attribution.deviation.get(number, 0.0)
    part = np.array([attribution.causes[c.id].get(number, 0.0) * whole for c in knowledge.causes])
    fits = (single_cause[row] >= single_cause[row, index] / 2) & (present > present[index])
    if whole:
        fits &= part > part[index]
    best = int(np.argmax(np.where(fits, present, -1.0)))
    return knowledge.causes[best].id if fits[best] else None


LEAST_BITS = 0.1
"""Evidence that says less says nothing."""
