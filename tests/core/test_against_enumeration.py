"""The whole diagnosis against a plain enumeration in scalar Python on the real knowledge: other
code, configuration by configuration, no shortcuts.

The balls are judged in single precision: the tolerance is SINGLE."""

import math
from dataclasses import dataclass, field
from functools import cache
from itertools import combinations, product

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.inference.delivery_likelihood import (
    DeliveryReading,
    ball_likelihoods,
    delivery_likelihood,
    reading_of,
)
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.evidence import marginalise_sides
from firm_footing.core.inference.inference import infer
from firm_footing.core.inference.posterior import posterior
from firm_footing.core.inference.prior import prior_view, set_prior
from firm_footing.core.knowledge import DIMENSIONS, Check, Knowledge
from firm_footing.core.patterns import read_pattern

SINGLE = 5e-6
CASE = Case(
    handedness="right",
    handicap=11,
    blocks=(
        Block(
            club="7i",
            expected_carry_m=135,
            shots=(
                Shot(start="pull", curve="push", heel_toe_mm=-14, divot_start_cm=-2, carry_m=120),
                Shot(start="pull", curve="straight", heel_toe_mm=-9, divot_start_cm=1),
                Shot(start="straight", curve="push", contact="fat", carry_m=101),
                Shot(start_deg=-3.5, curve_deg=2.5, heel_toe_mm=-20, dynamic_loft_deg=27),
            ),
        ),
    ),
    readings=(
        Reading(check="trail_heel_up_early", answer="yes"),
        Reading(check="hands_out_first", answer="partly"),
        Reading(check="club_stuck_behind", answer="no"),
        Reading(check="finish_falls_to_toes", answer="no"),
        Reading(check="trail_heel_up_early", answer="no", source="feel"),
    ),
)


def log_t(distance2: float, log_det: float, size: int, df: float) -> float:
    """Log density of a multivariate t of this covariance, but for a constant."""
    return -0.5 * log_det - (df + size) / 2 * math.log(1 + distance2 / (df - 2))


@cache
def rate(alone: float, base: float, levels: tuple[float, ...]) -> float:
    """By bisection: over all severities the fact shows with probability `alone`."""
    low, high = 0.0, 100.0
    for _ in range(80):
        middle = (low + high) / 2
        absent = sum((1 - base) * math.exp(-middle * s) for s in levels) / len(levels)
        low, high = (middle, high) if 1 - absent < alone else (low, middle)
    return low


def log_ratio(readings: list[Reading], check: Check, k: Knowledge) -> float:
    """Log of P(answers | so) over P(answers | not so), kept within its limit."""
    total = 0.0
    for r in readings:
        source = r.source or check.sources[0]
        error = k.numbers.reading_error.of(source, check.read_as)
        share = {"yes": 1.0, "no": 0.0, "partly": k.numbers.partly.yes_share}[r.answer]
        so = share * (1 - error) + (1 - share) * error
        total += math.log(so / (1 - so))
    most = math.log((1 - k.numbers.answers_saturate) / k.numbers.answers_saturate)
    return max(-most, min(most, total))


@dataclass
class Enumerated:
    """Sums over all configurations, each divided by the total at the end."""

    present: dict[str, float] = field(default_factory=dict)
    root: dict[str, float] = field(default_factory=dict)
    outside_feet: float = 0.0
    parts: np.ndarray = field(default_factory=lambda: np.zeros(0))
    person: np.ndarray = field(default_factory=lambda: np.zeros(6))


HEEL_FIRST = {("trail_knee_fires", "trail_heel_pops")}
KNEE_FIRST = {("trail_heel_pops", "trail_knee_fires")}
"""Links that each school drops; undecided, both schools count half."""


def prior_of_sets(
    k: Knowledge, sets: list[tuple[str, ...]], dropped: set[tuple[str, str]]
) -> dict[tuple[str, ...], float]:
    """Which came by themselves is summed over; the others were added by links."""
    n = k.numbers.prior
    ids = [c.id for c in k.causes]
    # the default schools: both matters undecided
    school = {"deep_trail_heel": 0.5, "lead_toe_lifts": 0.7}
    weight = {c.id: c.base_weight * school.get(c.id, 1) for c in k.causes}
    all_of_size = [
        sum(math.prod(weight[c] for c in s) for s in combinations(ids, size)) for size in range(4)
    ]

    def above(c: str, chosen: tuple[str, ...]) -> int:
        return sum(u in chosen and (u, c) not in dropped for u in k.upstream[c])

    def raw(chosen: tuple[str, ...]) -> float:
        kept = {c: (1 - n.link_strength) ** above(c, chosen) for c in ids}
        p = 0.0
        for size in range(len(chosen) + 1):
            for own in combinations(chosen, size):
                came = n.causes_present[size] / all_of_size[size]
                came *= math.prod(weight[c] for c in own)
                p += came * math.prod(1 - kept[c] for c in chosen if c not in own)
        return p * math.prod(kept[c] for c in ids if c not in chosen)

    found = {s: raw(s) for s in sets}
    return {s: p / sum(found.values()) for s, p in found.items()}


def enumerated(case: Case, k: Knowledge) -> Enumerated:
    """By visiting every configuration one by one."""
    n = k.numbers
    pattern = read_pattern(case.baselines, k, case.handicap)
    reading = reading_of(pattern, k)
    handicap = case.handicap if case.handicap is not None else n.handicap_left_out
    stuck = n.stuck_mode.probability(handicap)
    ids = [c.id for c in k.causes]
    sets = [s for size in range(4) for s in combinations(ids, size)]
    views = [prior_of_sets(k, sets, dropped) for dropped in (HEEL_FIRST, KNEE_FIRST)]
    prior_of = {s: sum(view[s] for view in views) / 2 for s in sets}
    given: dict[str, list[Reading]] = {}
    for r in case.readings:
        given.setdefault(r.check, []).append(r)
    group_of = {c: g.id for g in n.dependent_checks.groups for c in g.checks if not g.sources}
    size_of = {
        g: sum(group_of.get(c) == g for c in given) for g in {group_of.get(c) for c in given}
    }
    ratios = {c: log_ratio(readings, k.check[c], k) for c, readings in given.items()}
    person2 = np.array(n.delivery.person_sd.row()) ** 2

    def weight_of(check: str) -> float:
        group = group_of.get(check)
        return 1 / (1 + n.dependent_checks.discount * (size_of[group] - 1)) if group else 1.0

    def of_balls(
        chosen: tuple[str, ...], mode: str | None, effects: list[np.ndarray], sizes: list[float]
    ) -> tuple[float, np.ndarray, np.ndarray]:
        """Log-likelihood; (causes, 6) and (6,) posterior means of causes and person."""
        within, tail = n.delivery.severity_within, n.delivery.strike_tail
        plain = of_people(effects, sizes, 1.0)
        beyond = of_people(effects, sizes, tail.times)
        log = float(np.logaddexp(np.log(1 - tail.share) + plain[0], np.log(tail.share) + beyond[0]))
        share = tail.share * math.exp(beyond[0] - log)
        pull = (1 - share) * plain[1] + share * beyond[1]
        if pattern.no_miss is not None and chosen:
            log += math.log(1 - pattern.no_miss * (1 - n.no_miss.although_at_work))
        further = np.ones(6)
        further[DIMENSIONS.index("heel_toe_mm")] += share * (tail.times - 1)
        parts = [
            max(0.0, s + within**2 * float(e @ pull)) * e * further
            for s, e in zip(sizes, effects, strict=True)
        ]
        return log, np.array(parts).reshape(len(parts), 6), person2 * pull

    def of_people(
        effects: list[np.ndarray], sizes: list[float], times: float
    ) -> tuple[float, np.ndarray]:
        """Of those whose causes move the strike so many times as far: log density; (6,) pull."""
        within = n.delivery.severity_within
        mean = sum((s * e for s, e in zip(sizes, effects, strict=True)), np.zeros(6))
        mean[DIMENSIONS.index("heel_toe_mm")] *= times
        low, heel = DIMENSIONS.index("low_point_cm"), DIMENSIONS.index("heel_toe_mm")
        mean[low] += n.delivery.cause_free_low_point_cm(handicap)
        mean[low] = max(mean[low], n.delivery.low_point_floor_cm)
        mean[heel] = max(mean[heel], n.delivery.strike_floor_mm)
        cov = np.diag(person2)
        for e in effects:  # one severity for all that a cause does
            cov = cov + within**2 * np.outer(e, e)
        design = reading.design
        whole = design @ cov @ design.T + reading.noise
        off = reading.value - design @ mean
        solved = np.linalg.solve(whole, off)
        log = log_t(
            float(off @ solved), np.linalg.slogdet(whole)[1], len(off), n.delivery.person_tail_df
        )
        return log, design.T @ solved

    def of_looks(mode: str | None, severity: dict[str, float]) -> float:
        log = 0.0
        for check_id, ratio in ratios.items():
            check = k.check[check_id]
            base = check.base_rate(handicap)
            absent = 1 - base
            for c, strength in check.pointers(mode).items():  # type: ignore[arg-type]
                if c in severity:
                    alone = n.pointer_shown
                    if c != check.shows and strength != "by_nature":
                        beside = n.pointer if check.shows is None else n.pointer_beside
                        alone = beside[strength]
                    absent *= math.exp(-rate(alone, base, n.delivery.severity_levels) * severity[c])
            without, with_fact = math.exp(min(0.0, -ratio)), math.exp(min(0.0, ratio))
            log += weight_of(check_id) * math.log(absent * without + (1 - absent) * with_fact)
        return log

    weights: dict[tuple[str, ...], float] = dict.fromkeys(sets, 0.0)
    balls_alone: dict[tuple[str, ...], float] = dict.fromkeys(sets, 0.0)
    found = Enumerated(parts=np.zeros((len(ids), 6)))
    total = 0.0
    levels = n.delivery.severity_levels
    for chosen in sets:
        two = [c for c in chosen if k.cause[c].sides]
        modes = [("thrown", 1 - stuck), ("stuck", stuck)]
        if not any(k.cause[c].skill for c in chosen):
            modes = [(None, 1.0)]  # type: ignore[list-item]
        for mode, p_mode in modes:
            for taken in product(*[k.cause[c].sides for c in two]):
                sides = {c: s.id for c, s in zip(two, taken, strict=True)}
                effects: list[np.ndarray] = [
                    np.array(k.cause[c].effect_in(mode, sides.get(c)).row())  # type: ignore[arg-type]
                    for c in chosen
                ]
                severities = list(product(levels, repeat=len(chosen)))
                if len(chosen) == 3:  # every pair of severities once: an even number of grave ones
                    severities = [s for s in severities if s.count(levels[1]) % 2 == 0]
                for sizes in severities:
                    told = p_mode * 0.5 ** len(two) / len(severities)
                    log, parts, person = of_balls(chosen, mode, effects, list(sizes))
                    p = prior_of[chosen] * told
                    p *= math.exp(log + of_looks(mode, dict(zip(chosen, sizes, strict=True))))
                    balls_alone[chosen] += told * math.exp(log)
                    weights[chosen] += p
                    total += p
                    for c, part in zip(chosen, parts, strict=True):
                        found.parts[ids.index(c)] += p * part
                    found.person += p * person

    seen = {k.check[r.check].shows for r in case.readings if r.answer in ("yes", "partly")}
    supported = seen | {c for c in ids if balls_alone[c,] > math.exp(0.05) * balls_alone[()]}
    found.present, found.root = dict.fromkeys(ids, 0.0), dict.fromkeys(ids, 0.0)
    for chosen, p in weights.items():
        backed = [c for c in chosen if c in supported] or list(chosen)
        for c in chosen:
            found.present[c] += p / total
        for c in backed:  # no set-up matter was seen in this case
            for view, dropped in zip(views, (HEEL_FIRST, KNEE_FIRST), strict=True):
                if not any(u in backed and (u, c) not in dropped for u in k.upstream[c]):
                    found.root[c] += p / total * view[chosen] / prior_of[chosen] / 2
        if all(k.cause[c].group == "elsewhere" for c in chosen):
            found.outside_feet += p / total
    found.parts /= total
    found.person /= total
    return found


def test_every_probability_and_every_account_agrees(knowledge: Knowledge) -> None:
    found = diagnose(CASE, knowledge)
    oracle = enumerated(CASE, knowledge)
    assert {c.id: c.probability for c in found.causes} == pytest.approx(oracle.present, abs=SINGLE)
    assert {c.id: c.root for c in found.causes} == pytest.approx(oracle.root, abs=SINGLE)
    assert found.outside_feet == pytest.approx(oracle.outside_feet, abs=SINGLE)
    attribution = found.attribution
    assert set(attribution.deviation) >= {"path_deg", "face_to_path_deg", "heel_toe_mm"}
    for name, deviation in attribution.deviation.items():
        column = DIMENSIONS.index(name)
        parts = dict(zip(knowledge.cause_index, oracle.parts[:, column].tolist(), strict=True))
        assert {c: row[name] for c, row in attribution.causes.items()} == pytest.approx(
            parts, abs=SINGLE
        )
        assert attribution.person[name] == pytest.approx(oracle.person[column], abs=SINGLE)
        whole = sum(parts.values()) + attribution.person[name] + attribution.left_over[name]
        assert whole == pytest.approx(deviation, abs=SINGLE)


@pytest.mark.parametrize("number", ["low_point_cm", "heel_toe_mm", "path_deg", "club_speed_pct"])
def test_bits_of_the_pattern_are_what_is_lost_without_that_number(
    knowledge: Knowledge, number: str
) -> None:
    """Checked by weighing a pattern that never had the number."""
    space = enumerate_space(knowledge)
    pattern = read_pattern(CASE.baselines, knowledge)
    prior = set_prior(space, prior_view(knowledge, knowledge.schools.usual))
    judged = ball_likelihoods(pattern, space, 11).pieces
    pieces = marginalise_sides(space, judged).pieces
    full = posterior(space, prior, 0.3, pieces)
    reading = reading_of(pattern, knowledge)
    kept = [i for i, name in enumerate(reading.names) if name != number]
    less = DeliveryReading(
        tuple(reading.names[i] for i in kept),
        reading.value[kept],
        reading.design[kept],
        reading.noise[kept][:, kept],
    )
    telling = space.log_side + space.log_prior_in_set(0.3)[space.hypothesis_of]
    weights = np.exp(delivery_likelihood(less, space, 11).log + telling) * prior[space.set_of]
    for piece in judged:
        if piece.id in ("pattern.scatter", "pattern.no_miss"):
            weights *= np.exp(piece.log_likelihood)
    without = weights @ space.configuration_members / weights.sum()
    row = [p.id for p in pieces].index(f"pattern.{number}")
    odds = np.log2(full.present / (1 - full.present)) - np.log2(without / (1 - without))
    assert full.bits[row] == pytest.approx(odds, abs=SINGLE)


@pytest.mark.parametrize("dropped", ["trail_heel_up_early", "hands_out_first", "club_stuck_behind"])
def test_bits_are_the_odds_with_everything_minus_without_one(
    knowledge: Knowledge, dropped: str
) -> None:
    def odds(case: Case) -> dict[str, float]:
        return {
            c.id: math.log2(c.probability / (1 - c.probability))
            for c in diagnose(case, knowledge).causes
        }

    rest = CASE.model_copy(
        update={"readings": tuple(r for r in CASE.readings if r.check != dropped)}
    )
    full, less = odds(CASE), odds(rest)
    inference = infer(CASE, knowledge)
    row = [p.id for p in inference.pieces].index(dropped)
    bits = dict(zip(knowledge.cause_index, inference.now.bits[row].tolist(), strict=True))
    assert bits == pytest.approx({c: full[c] - less[c] for c in full}, abs=1e-9)
    for cause in diagnose(CASE, knowledge).causes:
        lists = (*cause.speaks_for, *cause.speaks_against, *cause.better_explained)
        assert all(w.bits == bits[cause.id] for w in lists if w.evidence == dropped)
