"""Densities of readings and of trial blocks against SciPy's multivariate t, configuration by
configuration."""

import math
from collections.abc import Callable
from dataclasses import replace
from itertools import product

import numpy as np
import pytest
from scipy.stats import multivariate_t

from firm_footing.core.case import Block, Case, Shot
from firm_footing.core.inference.delivery_likelihood import (
    delivery_likelihood,
    expected_delivery,
    reading_of,
)
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.trial_likelihood import (
    Trial,
    branches_of,
    log_given_baseline,
    of_both,
    trials_of,
)
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.patterns import read_pattern

BEFORE = Block(
    expected_carry_m=135,
    shots=(
        Shot(start="pull", curve="push", heel_toe_mm=-14, divot_start_cm=-2, carry_m=120),
        Shot(start="pull", curve="straight", heel_toe_mm=-9, divot_start_cm=1),
        Shot(start="straight", curve="push", contact="fat", carry_m=101),
        Shot(start_deg=-3.5, curve_deg=2.5, heel_toe_mm=-20, dynamic_loft_deg=27),
    ),
)
DURING = BEFORE.model_copy(
    update={
        "kind": "trial",
        "drill": "sixty_percent",
        "shots": (
            Shot(start="push", curve="straight", heel_toe_mm=-3, divot_start_cm=2, carry_m=110),
            Shot(start="straight", curve="straight", heel_toe_mm=-6, divot_start_cm=1),
            Shot(start="straight", curve="push", heel_toe_mm=0, carry_m=105),
        ),
    }
)


def configuration_of(space: HypothesisSpace, *causes: str, stuck: bool = False) -> int:
    """The first configuration with just these causes in this mode; all of them mild."""
    index = space.knowledge.cause_index
    wanted = {index[c] for c in causes}
    for configuration in range(len(space.set_of)):
        present = set(np.flatnonzero(space.configuration_members[configuration]))
        if present == wanted and (space.stuck[configuration] > 0) == stuck:
            return configuration
    raise LookupError(causes)


STORIES = [
    (),
    ("hang_back",),
    ("weak_grip", "hang_back"),
    ("over_effort", "trail_heel_pops"),
    ("over_effort", "chest_rush", "backs_up"),
    ("aim_off", "club_fit", "ball_position"),
]


def log_t(mean: np.ndarray, cov: np.ndarray, value: np.ndarray, knowledge: Knowledge) -> float:
    """SciPy takes a scale matrix, which is the covariance times (df - 2) / df."""
    df = knowledge.numbers.delivery.person_tail_df
    return float(multivariate_t(mean, cov * (df - 2) / df, df).logpdf(value))


def unit_effects(space: HypothesisSpace, configuration: int) -> list[np.ndarray]:
    """What one more of each cause's severity would do."""
    none = len(space.effects) - 1
    return [space.unit_effects[v] for v in space.variant_of[:, configuration] if v != none]


def covariance_of(space: HypothesisSpace, configuration: int) -> np.ndarray:
    """(6, 6) of one person with these causes."""
    numbers = space.knowledge.numbers.delivery
    out = np.diag(np.array(numbers.person_sd.row()) ** 2)
    for effect in unit_effects(space, configuration):
        out += numbers.severity_within**2 * np.outer(effect, effect)
    return out


def of_people(
    space: HypothesisSpace, expected: Callable[..., np.ndarray], configuration: int
) -> tuple[np.ndarray, np.ndarray]:
    """(6,) what is expected of most people, and of those who show more in strike."""
    numbers, strike = space.knowledge.numbers.delivery, DIMENSIONS.index("heel_toe_mm")
    most = expected(space, 11)[:, configuration]
    beyond = most.copy()
    summed = space.effects[space.variant_of[:, configuration], strike].sum()
    beyond[strike] = max(numbers.strike_tail.times * summed, numbers.strike_floor_mm)
    return most, beyond


@pytest.mark.parametrize("causes", STORIES, ids="-".join)
def test_the_delivery_is_judged_as_a_multivariate_t(
    knowledge: Knowledge, causes: tuple[str, ...]
) -> None:
    space = enumerate_space(knowledge)
    configuration = configuration_of(space, *causes)
    reading = reading_of(read_pattern((BEFORE,), knowledge), knowledge)
    assert len(reading.names) == 6
    found = delivery_likelihood(reading, space, 11)
    mean, beyond = (
        reading.design @ parts for parts in of_people(space, expected_delivery, configuration)
    )
    cov = reading.design @ covariance_of(space, configuration) @ reading.design.T + reading.noise
    tail = knowledge.numbers.delivery.strike_tail

    def mixed(rest: list[int]) -> float:
        logs = [
            log_t(m[rest], cov[np.ix_(rest, rest)], reading.value[rest], knowledge)
            for m in (mean, beyond)
        ]
        return float(np.logaddexp(*(np.log([1 - tail.share, tail.share]) + logs)))

    whole = mixed(list(range(len(reading.names))))
    assert found.log[configuration] == pytest.approx(whole, abs=1e-5)  # in single precision
    for i in range(len(reading.names)):
        rest = [j for j in range(len(reading.names)) if j != i]
        given = found.given_the_others(i)[configuration]
        assert given == pytest.approx(whole - mixed(rest), abs=1e-5)


def test_severity_is_what_least_squares_makes_of_it(knowledge: Knowledge) -> None:
    """With one cause and one number read: the textbook's two normal sources of one sum."""
    space = enumerate_space(knowledge)
    configuration = configuration_of(space, "hang_back")
    block = Block(shots=(Shot(contact="fat", divot_start_cm=-22, heel_toe_mm=0),) * 6)
    reading = reading_of(read_pattern((block,), knowledge), knowledge)
    keep = [reading.names.index("low_point_cm")]
    only = type(reading)(
        ("low_point_cm",), reading.value[keep], reading.design[keep], reading.noise[keep][:, keep]
    )
    found = delivery_likelihood(only, space, 18)
    low = DIMENSIONS.index("low_point_cm")
    within = knowledge.numbers.delivery.severity_within
    effect = within * unit_effects(space, configuration)[0][low]
    off = only.value[0] - expected_delivery(space, 18)[low, configuration]
    rest = knowledge.numbers.delivery.person_sd.low_point_cm**2 + only.noise[0, 0]
    assert found.severity[0, configuration] == pytest.approx(effect * off / (effect**2 + rest))


@pytest.mark.parametrize("drill_id", ["sixty_percent", "trail_foot_back"])
@pytest.mark.parametrize("causes", STORIES, ids="-".join)
def test_a_trial_block_is_a_mixture_over_what_it_took_away(
    knowledge: Knowledge, causes: tuple[str, ...], drill_id: str
) -> None:
    """Written out for the 60 % block, which takes effort away, and with it what effort brought.

    Baseline and block are one normal vector that share person and severities; the block is judged
    given the baseline.
    """
    space, numbers = enumerate_space(knowledge), knowledge.numbers
    configuration = configuration_of(space, *causes)
    drill = knowledge.drill[drill_id]
    before, during = (read_pattern((b,), knowledge) for b in (BEFORE, DURING))
    first, second = (reading_of(p, knowledge, shared=False) for p in (before, during))
    second = of_both(first, second)
    assert len(second.names) >= 3
    possible = branches_of(drill, space, knowledge.schools.link_views(knowledge.schools.usual))
    found = log_given_baseline(drill, first, second, space, 11, during, possible)[configuration]

    mild = numbers.delivery.severity_levels[0]
    assert drill.constraint is not None
    taken = [c for c in drill.constraint.removes if c in causes]
    with_it = list(taken)
    for cause in with_it:  # grows while it is walked
        with_it += [
            c for c in knowledge.cause[cause].upstream_of if c in causes and c not in with_it
        ]
    done, goes = numbers.trial.removed_when_done, numbers.trial.goes_with_it
    mixture = [(1 - done, []), (done * goes, with_it), (done * (1 - goes), taken)]
    everyone = np.array(drill.constraint.everyone.row())
    tail = numbers.delivery.strike_tail
    people = of_people(space, expected_delivery, configuration)
    assert people[0][3] > numbers.delivery.strike_floor_mm  # nothing reaches the floor here
    ordered = [c.id for c in knowledge.causes if c.id in causes]
    effect_of = dict(zip(ordered, unit_effects(space, configuration), strict=True))
    both = np.vstack([first.design, second.design])
    n = len(first.names)
    likelihood = before_alone = 0.0
    further = np.array([1, 1, 1, tail.times, 1, 1])
    for (share, gone), more in product(mixture, (False, True)):
        start, times = people[more], further if more else np.ones(6)
        share *= tail.share if more else 1 - tail.share
        left = start + everyone - sum((mild * effect_of[c] * times for c in gone), np.zeros(6))
        mean = np.concatenate([first.design @ start, second.design @ left])
        cov = both @ np.diag(np.array(numbers.delivery.person_sd.row()) ** 2) @ both.T
        cov[:n, :n] += first.noise
        spread = np.diag((numbers.trial.everyone_spread * everyone) ** 2)
        cov[n:, n:] += second.noise + second.design @ spread @ second.design.T
        for name, effect in effect_of.items():
            seen = both @ effect * numbers.delivery.severity_within
            seen[n:] *= name not in gone
            cov += np.outer(seen, seen)
        value = np.concatenate([first.value, second.value])
        likelihood += share * math.exp(log_t(mean, cov, value, knowledge))
        alone = log_t(mean[:n], cov[:n, :n], first.value, knowledge)
        before_alone += share * math.exp(alone)
    assert during.scatter is None  # three balls say nothing about scatter
    assert found == pytest.approx(math.log(likelihood / before_alone), abs=1e-9)


def test_balls_with_which_the_drill_failed_do_not_count(knowledge: Knowledge) -> None:
    failed = DURING.shots[0].model_copy(update={"drill_ok": False, "start": "far_pull"})
    more = DURING.model_copy(update={"shots": (*DURING.shots, failed)})
    assert trials(knowledge, more) == trials(knowledge, DURING)
    none = DURING.model_copy(update={"shots": (failed,)})
    assert trials(knowledge, none) == []


def trials(knowledge: Knowledge, block: Block) -> list[Trial]:
    from_case = Case(handedness="right", blocks=(BEFORE, block))
    return trials_of(from_case, knowledge)


def test_what_was_not_seen_is_taken_as_usual_when_it_speaks_for_something_that_was(
    knowledge: Knowledge,
) -> None:
    """The balls say only path + 0.5 low point = 4: with the usual low point, path follows."""
    block = Block(shots=(Shot(start_deg=1.0, curve_deg=0.0),) * 6)
    pattern = read_pattern((block,), knowledge)
    assert pattern.delivered is not None
    row = np.zeros(7)
    row[[0, 2]] = 1.0, 0.5
    face = np.zeros(7)
    face[1] = 1.0
    said = 25.0 * np.outer(row, row) + 25.0 * np.outer(face, face)
    told = replace(pattern.delivered, information=said, vector=25.0 * 4.0 * row)
    reading = reading_of(replace(pattern, delivered=told), knowledge, shared=False)
    path = reading.value[reading.names.index("path_deg")]
    assert path == pytest.approx(4.0 - 0.5 * told.prior_mean[2], abs=0.05)


def test_what_a_whole_block_shares_does_not_average_out(knowledge: Knowledge) -> None:
    """Of more and more balls the doubt of a reading falls to that of its shared error."""
    shot = Shot(start_deg=-3.0, curve_deg=2.0, heel_toe_mm=-10, divot_start_cm=-2)
    shared = knowledge.numbers.shared_error
    doubts = {}
    for balls in (4, 64):
        pattern = read_pattern((Block(shots=(shot,) * balls),), knowledge)
        reading = reading_of(pattern, knowledge)
        alone = reading_of(pattern, knowledge, shared=False)
        for name, error in (("heel_toe_mm", shared.strike_mm), ("low_point_cm", shared.ground_cm)):
            row = reading.names.index(name)
            doubts[balls, name] = reading.noise[row, row], alone.noise[row, row]
            assert reading.noise[row, row] == pytest.approx(
                alone.noise[row, row] + error**2, rel=0.05
            )
    assert doubts[64, "heel_toe_mm"][1] < doubts[4, "heel_toe_mm"][1] / 10
    assert doubts[64, "heel_toe_mm"][0] > shared.strike_mm**2
