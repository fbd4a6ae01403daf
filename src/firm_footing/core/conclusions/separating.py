"""Which short block would tell two causes apart, and what did it say once it was hit?

A constraint that takes one of the two away should change the balls if it is that one, and not if it
is the other. What is expected under each is said before the balls are hit.
"""

from collections.abc import Collection
from dataclasses import dataclass
from statistics import NormalDist

import numpy as np

from firm_footing.core.conclusions.what_if import (
    DeliveryShift,
    SeenBall,
    change_seen,
    expected_change,
)
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.delivery_likelihood import DeliveryReading, reading_of
from firm_footing.core.inference.inference import Inference
from firm_footing.core.inference.intervention import branches
from firm_footing.core.inference.start import root_of
from firm_footing.core.inference.trial_likelihood import Trial, of_everyone
from firm_footing.core.knowledge import Drill
from firm_footing.core.knowledge.vocabulary import Limit
from firm_footing.core.patterns import Estimate, read_pattern


@dataclass(frozen=True)
class SeparatingBlock:
    """A block worth hitting.

    drill : the constraint in force
    balls, seconds : what it takes
    tells : how often it would point to the right one of the two, 0.5 to 1
    if_one, if_other : the change to be expected if the cause is `one`, if it is `other`
    """

    drill: str
    one: str
    other: str
    balls: int
    seconds: int
    tells: float
    if_one: SeenBall
    if_other: SeenBall


@dataclass(frozen=True)
class TrialResult:
    """What a block that was hit says about the two causes it was to separate.

    block : its number among the blocks of the case
    balls : that counted
    bits : toward `one` (+) or toward `other` (-)
    came : the change that came
    """

    block: int
    drill: str
    one: str
    other: str
    balls: int
    bits: float
    if_one: SeenBall
    if_other: SeenBall
    came: SeenBall


def separating_blocks(inference: Inference, one: str, other: str) -> tuple[SeparatingBlock, ...]:
    """Blocks that would tell `one` from `other`, the best per second first.

    Those that the student's limits forbid, and those that would hardly tell, are left out.
    """
    trial = inference.knowledge.numbers.trial
    reading = reading_of(inference.pattern, inference.knowledge, shared=False)
    if not reading.names:
        return ()
    found = []
    for drill in inference.knowledge.drills:
        if drill.constraint is None or _forbidden(drill, inference.case.limits):
            continue
        tells = _tells(inference, drill, one, other, reading)
        if tells >= trial.worth_hitting:
            if_one, if_other = _expected(inference, drill, one, other)
            found.append(
                SeparatingBlock(
                    drill=drill.id,
                    one=one,
                    other=other,
                    balls=trial.balls,
                    seconds=trial.balls * trial.seconds_per_ball,
                    tells=tells,
                    if_one=change_seen(if_one, inference),
                    if_other=change_seen(if_other, inference),
                )
            )
    return tuple(sorted(found, key=lambda b: -b.tells))


def trial_results(inference: Inference) -> tuple[TrialResult, ...]:
    """What each trial block said about the two causes that led when it was not there."""
    found = []
    for trial in inference.trials:
        piece = next(p for p in inference.pieces if p.id == trial.evidence)
        before = inference.now.hypothesis * piece.leave_one_out_weight
        one, other = _leading(inference, before)
        only_one, only_other = _exactly_one(inference, one, other)

        def log2_odds(
            weights: FloatArray, a: FloatArray = only_one, b: FloatArray = only_other
        ) -> float:
            return float(np.log2((weights @ a) / (weights @ b)))

        if_one, if_other = _expected(inference, trial.drill, one, other)
        found.append(
            TrialResult(
                block=trial.number,
                drill=trial.drill.id,
                one=one,
                other=other,
                balls=len(trial.block.shots),
                bits=log2_odds(inference.now.hypothesis) - log2_odds(before),
                if_one=change_seen(if_one, inference),
                if_other=change_seen(if_other, inference),
                came=_came(inference, trial),
            )
        )
    return tuple(found)


def _expected(
    inference: Inference, drill: Drill, one: str, other: str
) -> tuple[DeliveryShift, DeliveryShift]:
    """The change expected under each cause when the block is done and works."""
    everyone, spread2 = of_everyone(drill, inference.knowledge)
    changes = _changes(inference, drill, one, other, removed=1.0)
    if_one, if_other = (
        DeliveryShift(c.mean + everyone, c.covariance + np.diag(spread2)) for c in changes
    )
    return if_one, if_other


def _tells(
    inference: Inference, drill: Drill, one: str, other: str, reading: DeliveryReading
) -> float:
    """How often the balls of this block point to the right one of two causes.

    Both expected changes taken as normal with their mean covariance: Φ(d / 2), d their distance.
    """
    trial = inference.knowledge.numbers.trial
    a, b = _changes(inference, drill, one, other, trial.removed_when_done)
    _, spread2 = of_everyone(drill, inference.knowledge)
    more = inference.pattern.balls / trial.balls  # balls of the baseline for each of the block
    design = reading.design
    covariance = (a.covariance + b.covariance) / 2 + np.diag(spread2)
    covariance = design @ covariance @ design.T + reading.noise * (1 + more)
    apart = design @ (a.mean - b.mean)
    return NormalDist().cdf(float(apart @ np.linalg.solve(covariance, apart)) ** 0.5 / 2)


def _changes(
    inference: Inference, drill: Drill, one: str, other: str, removed: float
) -> list[DeliveryShift]:
    """What the constraint changes under each cause alone, taking away its own this often."""
    space = inference.space
    removes = drill.constraint.removes if drill.constraint else ()
    possible = branches(space, removes, removed, inference.schools.views)
    return [
        expected_change(
            space,
            inference.configuration * mark[space.hypothesis_of],
            possible,
            inference.own_sizes,
            inference.handicap,
        )
        for mark in _exactly_one(inference, one, other)
    ]


def _exactly_one(inference: Inference, one: str, other: str) -> tuple[FloatArray, FloatArray]:
    """(hypotheses,) 1.0 where `one` is present without `other`, and the other way round."""
    index, members = inference.knowledge.cause_index, inference.space.hypotheses.present
    first, second = members[:, index[one]], members[:, index[other]]
    return first * (1 - second), second * (1 - first)


def _leading(inference: Inference, hypothesis: FloatArray) -> tuple[str, str]:
    space = inference.space
    root = root_of(space, space.to_sets(hypothesis), inference.starts)
    first, second = np.argsort(-root, kind="stable")[:2]
    return inference.knowledge.causes[first].id, inference.knowledge.causes[second].id


def _came(inference: Inference, trial: Trial) -> SeenBall:
    """The change that came, for the eye: middles of the two blocks as they were seen."""
    during = read_pattern((trial.block,), inference.knowledge, inference.handicap)
    before = inference.pattern
    return SeenBall(
        start_deg=_difference(before.start_deg, during.start_deg),
        curve_deg=_difference(before.curve_deg, during.curve_deg),
        low_point_cm=_difference(before.low_point_cm, during.low_point_cm),
        heel_toe_mm=_difference(before.heel_toe_mm, during.heel_toe_mm),
        carry_pct=_carry_came(before.carry_lost_pct, during.carry_lost_pct),
    )


def _difference(before: Estimate | None, during: Estimate | None) -> Estimate | None:
    if before is None or during is None:
        return None
    return Estimate(during.value - before.value, float(np.hypot(before.se, during.se)))


def _carry_came(before: Estimate | None, during: Estimate | None) -> Estimate | None:
    """Points of the expected carry won."""
    lost = _difference(before, during)
    return lost and Estimate(-lost.value, lost.se)


def _forbidden(drill: Drill, limits: Collection[Limit]) -> bool:
    return any(limit in limits for limit in drill.limits)
