"""The whole diagnosis against a plain enumeration in scalar Python on the real knowledge: other
code, no arrays, no shortcuts. Tolerance 1e-9."""

import math
from itertools import combinations, product

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.pattern import read_pattern
from firm_footing.core.reasoning import diagnose
from firm_footing.core.reasoning.delivery import (
    DeliveryReading,
    delivery_pieces,
    judge_delivery,
    reading_of,
)
from firm_footing.core.reasoning.evidence import fold
from firm_footing.core.reasoning.looks import answer_given_fact
from firm_footing.core.reasoning.posterior import posterior
from firm_footing.core.reasoning.stories import base_weights, enumerate_stories, set_prior

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


def log_t(off: list[float], cov: list[list[float]], df: float) -> float:
    """Log density of a multivariate t but for a constant, its distance found by elimination."""
    rows = [[*row, o] for row, o in zip(cov, off, strict=True)]
    log = distance2 = 0.0
    for i, row in enumerate(rows):
        distance2 += row[-1] ** 2 / row[i]
        log -= 0.5 * math.log(row[i])
        for below in rows[i + 1 :]:
            share = below[i] / row[i]
            for j in range(i, len(row)):
                below[j] -= share * row[j]
    return log - (df + len(off)) / 2 * math.log(1 + distance2 / (df - 2))


def enumerated(case: Case, k: Knowledge) -> tuple[dict[str, float], dict[str, float], float]:
    """P(present), P(root) and P(nothing in the feet), by visiting every story one by one."""
    n = k.numbers
    pattern = read_pattern(case.baselines, k, case.handicap)
    reading = reading_of(pattern, k)
    handicap = case.handicap if case.handicap is not None else n.handicap_left_out
    stuck = n.stuck_mode.probability(handicap)
    ids = [c.id for c in k.causes]
    sets = [s for size in range(4) for s in combinations(ids, size)]

    # the default schools: both matters undecided
    school = {"deep_trail_heel": 0.5, "lead_toe_lifts": 0.7}
    weight = {c.id: c.base_weight * school.get(c.id, 1) for c in k.causes}
    all_of_size = [
        sum(math.prod(weight[c] for c in s) for s in combinations(ids, size)) for size in range(4)
    ]

    def raw(chosen: tuple[str, ...]) -> float:
        """Which came by themselves is summed over; the others were added by links."""
        kept = {
            c: (1 - n.prior.link_strength) ** sum(u in chosen for u in k.upstream[c]) for c in ids
        }
        p = 0.0
        for size in range(len(chosen) + 1):
            for own in combinations(chosen, size):
                came = n.prior.causes_present[size] / all_of_size[size]
                came *= math.prod(weight[c] for c in own)
                p += came * math.prod(1 - kept[c] for c in chosen if c not in own)
        return p * math.prod(kept[c] for c in ids if c not in chosen)

    prior_of = {s: raw(s) for s in sets}
    in_all = sum(prior_of.values())
    given: dict[str, list[Reading]] = {}
    for r in case.readings:
        given.setdefault(r.check, []).append(r)
    group_of = {c: g.id for g in n.dependent_looks.groups for c in g.checks if not g.sources}
    size_of = {
        g: sum(group_of.get(c) == g for c in given) for g in {group_of.get(c) for c in given}
    }

    def weight_of(check: str) -> float:
        group = group_of.get(check)
        return 1 / (1 + n.dependent_looks.discount * (size_of[group] - 1)) if group else 1.0

    def log_likelihood(chosen: tuple[str, ...], mode: str | None, sides: dict[str, str]) -> float:
        mean = dict.fromkeys(DIMENSIONS, 0.0)
        cov = {
            (a, b): getattr(n.delivery.person_sd, a) ** 2 if a == b else 0.0
            for a in DIMENSIONS
            for b in DIMENSIONS
        }
        for c in chosen:  # one severity for all that a cause does
            effect = k.cause[c].effect_in(mode, sides.get(c))  # type: ignore[arg-type]
            for a in DIMENSIONS:
                mean[a] += getattr(effect, a)
                for b in DIMENSIONS:
                    both = getattr(effect, a) * getattr(effect, b)
                    cov[a, b] += n.delivery.effect_spread**2 * both
        low = mean["low_point_cm"] + n.delivery.cause_free_low_point_cm(handicap)
        mean["low_point_cm"] = max(low, n.delivery.low_point_floor_cm)
        mean["heel_toe_mm"] = max(mean["heel_toe_mm"], n.delivery.strike_floor_mm)
        assert set(reading.names) <= set(DIMENSIONS)  # no combinations
        seen = dict(zip(reading.names, reading.value.tolist(), strict=True))
        pairs = [(x, y) for x in reading.names for y in reading.names]
        noise = dict(zip(pairs, reading.noise.ravel().tolist(), strict=True))
        whole = [[cov[a, b] + noise.get((a, b), 0.0) for b in seen] for a in seen]
        log = log_t([seen[a] - mean[a] for a in seen], whole, n.delivery.person_tail_df)
        if pattern.two_way is not None:
            stuck_club = any(
                w.mechanism == n.two_way.mechanism and w.mode in (None, mode or "thrown")
                for c in chosen
                for w in k.cause[c].workings
            )
            yes = n.two_way.stuck if stuck_club else n.two_way.ordinary
            log += math.log(yes if pattern.two_way else 1 - yes)
        for check_id, readings in given.items():
            check = k.check[check_id]
            base = check.base_rate(handicap)
            absent = 1 - base
            for c, strength in check.pointers(mode).items():  # type: ignore[arg-type]
                if c in chosen:
                    absent *= (1 - n.pointer[strength]) / (1 - base)
            without, with_fact = answer_given_fact(readings, check, n)
            log += weight_of(check_id) * math.log(absent * without + (1 - absent) * with_fact)
        return log

    total, present, root, none = 0.0, dict.fromkeys(ids, 0.0), dict.fromkeys(ids, 0.0), 0.0
    for chosen in sets:
        prior = prior_of[chosen] / in_all
        two = [c for c in chosen if k.cause[c].sides]
        modes = [("thrown", 1 - stuck), ("stuck", stuck)]
        if not any(k.cause[c].skill for c in chosen):
            modes = [(None, 1.0)]  # type: ignore[list-item]
        for mode, p_mode in modes:
            for taken in product(*[k.cause[c].sides for c in two]):
                sides = {c: s.id for c, s in zip(two, taken, strict=True)}
                p = prior * p_mode * 0.5 ** len(two)
                p *= math.exp(log_likelihood(chosen, mode, sides))
                total += p
                for c in chosen:
                    present[c] += p
                    root[c] += p if not any(u in chosen for u in k.upstream[c]) else 0.0
                none += p if all(k.cause[c].group == "elsewhere" for c in chosen) else 0.0
    return (
        {c: p / total for c, p in present.items()},
        {c: p / total for c, p in root.items()},
        none / total,
    )


def test_every_probability_agrees(knowledge: Knowledge) -> None:
    found = diagnose(CASE, knowledge)
    present, root, outside = enumerated(CASE, knowledge)
    assert {c.id: c.probability for c in found.causes} == pytest.approx(present, abs=1e-9)
    assert {c.id: c.root for c in found.causes} == pytest.approx(root, abs=1e-9)
    assert found.outside_feet == pytest.approx(outside, abs=1e-9)


@pytest.mark.parametrize("number", ["low_point_cm", "heel_toe_mm", "path_deg", "club_speed_pct"])
def test_bits_of_the_pattern_are_what_is_lost_without_that_number(
    knowledge: Knowledge, number: str
) -> None:
    """Checked by weighing a pattern that never had the number."""
    stories = enumerate_stories(knowledge)
    pattern = read_pattern(CASE.baselines, knowledge)
    prior = set_prior(stories, base_weights(knowledge, ()))
    pieces = fold(stories, delivery_pieces(pattern, stories, 11)[0]).pieces
    full = posterior(stories, prior, 0.3, pieces)
    reading = reading_of(pattern, knowledge)
    kept = [i for i, name in enumerate(reading.names) if name != number]
    less = DeliveryReading(
        tuple(reading.names[i] for i in kept),
        reading.value[kept],
        reading.design[kept],
        reading.noise[kept][:, kept],
    )
    telling = stories.log_side + stories.log_mode(0.3)[stories.swing_of]
    weights = np.exp(judge_delivery(less, stories, 11).log + telling) * prior[stories.set_of]
    for piece in delivery_pieces(pattern, stories, 11)[0]:
        if piece.id in ("pattern.scatter", "pattern.two_way"):
            weights *= np.exp(piece.adds)
    without = weights @ stories.story_members / weights.sum()
    row = [p.id for p in pieces].index(f"pattern.{number}")
    odds = np.log2(full.present / (1 - full.present)) - np.log2(without / (1 - without))
    assert full.bits[row] == pytest.approx(odds, abs=1e-9)


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
    for cause in diagnose(CASE, knowledge).causes:
        bits = {w.evidence: w.bits for w in (*cause.speaks_for, *cause.speaks_against)}
        assert bits.get(dropped, 0.0) == pytest.approx(full[cause.id] - less[cause.id], abs=1e-9)
