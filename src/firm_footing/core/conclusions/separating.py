"""Which short block would tell two causes apart, and what did it say once it was hit?

A constraint that takes one of the two away should change the balls if it is that one, and not if it
is the other. What is expected under each is said before the balls are hit.
"""

from collections.abc import Collection
from dataclasses import dataclass
from statistics import NormalDist

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.conclusions.what_if import DeliveryChange, Seen, change_seen, expected_change
from firm_footing.core.inference.delivery_likelihood import DeliveryReading, reading_of
from firm_footing.core.inference.inference import Weighing
from firm_footing.core.inference.intervention import branches
from firm_footing.core.inference.trial_likelihood import Trial, of_everyone
from firm_footing.core.knowledge import Drill
from firm_footing.core.knowledge.vocabulary import Limit
from firm_footing.core.patterns import Estimate, read_pattern

FloatArray = NDArray[np.float64]


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
    if_one: Seen
    if_other: Seen


@dataclass(frozen=True)
class Verdict:
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
    if_one: Seen
    if_other: Seen
    came: Seen


def separating_blocks(weighing: Weighing, one: str, other: str) -> tuple[SeparatingBlock, ...]:
    """Blocks that would tell `one` from `other`, the best per second first.

    Those that the student's limits forbid, and those that would hardly tell, are left out.
    """
    trial = weighing.knowledge.numbers.trial
    reading = reading_of(weighing.pattern, weighing.knowledge, shared=False)
    if not reading.names:
        return ()
    found = []
    for drill in weighing.knowledge.drills:
        if drill.constraint is None or _forbidden(drill, weighing.case.limits):
            continue
        tells = _tells(weighing, drill, one, other, reading)
        if tells >= trial.worth_hitting:
            if_one, if_other = _expected(weighing, drill, one, other)
            found.append(
                SeparatingBlock(
                    drill=drill.id,
                    one=one,
                    other=other,
                    balls=trial.balls,
                    seconds=trial.balls * trial.seconds_per_ball,
                    tells=tells,
                    if_one=change_seen(if_one, weighing),
                    if_other=change_seen(if_other, weighing),
                )
            )
    return tuple(sorted(found, key=lambda b: -b.tells))


def verdicts(weighing: Weighing) -> tuple[Verdict, ...]:
    """What each trial block said about the two causes that led when it was not there."""
    found = []
    for trial in weighing.trials:
        piece = next(p for p in weighing.pieces if p.id == trial.evidence)
        before = weighing.now.hypothesis * piece.restores
        one, other = _leading(weighing, before)
        only_one, only_other = _exactly_one(weighing, one, other)

        def log2_odds(
            weights: FloatArray, a: FloatArray = only_one, b: FloatArray = only_other
        ) -> float:
            return float(np.log2((weights @ a) / (weights @ b)))

        if_one, if_other = _expected(weighing, trial.drill, one, other)
        found.append(
            Verdict(
                block=trial.number,
                drill=trial.drill.id,
                one=one,
                other=other,
                balls=len(trial.block.shots),
                bits=log2_odds(weighing.now.hypothesis) - log2_odds(before),
                if_one=change_seen(if_one, weighing),
                if_other=change_seen(if_other, weighing),
                came=_came(weighing, trial),
            )
        )
    return tuple(found)


def _expected(
    weighing: Weighing, drill: Drill, one: str, other: str
) -> tuple[DeliveryChange, DeliveryChange]:
    """The change expected under each cause when the block is done and works."""
    everyone, spread2 = of_everyone(drill, weighing.knowledge)
    changes = _changes(weighing, drill, one, other, removed=1.0)
    if_one, if_other = (
        DeliveryChange(c.mean + everyone, c.covariance + np.diag(spread2)) for c in changes
    )
    return if_one, if_other


def _tells(
    weighing: Weighing, drill: Drill, one: str, other: str, reading: DeliveryReading
) -> float:
    """How often the balls of this block point to the right one of two causes.

    Both expected changes taken as normal with their mean covariance: Φ(d / 2), d their distance.
    """
    trial = weighing.knowledge.numbers.trial
    a, b = _changes(weighing, drill, one, other, trial.removed_when_done)
    _, spread2 = of_everyone(drill, weighing.knowledge)
    more = weighing.pattern.balls / trial.balls  # balls of the baseline for each of the block
    design = reading.design
    covariance = (a.covariance + b.covariance) / 2 + np.diag(spread2)
    covariance = design @ covariance @ design.T + reading.noise * (1 + more)
    apart = design @ (a.mean - b.mean)
    return NormalDist().cdf(float(apart @ np.linalg.solve(covariance, apart)) ** 0.5 / 2)


def _changes(
    weighing: Weighing, drill: Drill, one: str, other: str, removed: float
) -> list[DeliveryChange]:
    """What the constraint changes under each cause alone, taking away its own this often."""
    stories = weighing.stories
    possible = branches(stories, drill.constraint.removes if drill.constraint else (), removed)
    return [
        expected_change(
            stories,
            weighing.story * mark[stories.hypothesis_of],
            possible,
            weighing.severity,
            weighing.handicap,
        )
        for mark in _exactly_one(weighing, one, other)
    ]


def _exactly_one(weighing: Weighing, one: str, other: str) -> tuple[FloatArray, FloatArray]:
    """(hypotheses,) 1.0 where `one` is present without `other`, and the other way round."""
    index, members = weighing.knowledge.cause_index, weighing.stories.hypotheses.present
    first, second = members[:, index[one]], members[:, index[other]]
    return first * (1 - second), second * (1 - first)


def _leading(weighing: Weighing, hypothesis: FloatArray) -> tuple[str, str]:
    root = weighing.stories.to_sets(hypothesis) @ weighing.starts
    first, second = np.argsort(-root, kind="stable")[:2]
    return weighing.knowledge.causes[first].id, weighing.knowledge.causes[second].id


def _came(weighing: Weighing, trial: Trial) -> Seen:
    """The change that came, for the eye: middles of the two blocks as they were seen."""
    during = read_pattern((trial.block,), weighing.knowledge, weighing.handicap)
    before = weighing.pattern
    return Seen(
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
