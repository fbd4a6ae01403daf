"""How well does each story predict what was seen at the looks?

A check asks for one hidden fact. The fact follows from the causes by noisy-OR with a leak,

    P(fact | S) = 1 - (1 - base) * prod over causes in S pointed to (1 - q),
    q = 1 - (1 - P(yes | that cause alone)) / (1 - base),

so that one cause alone gives just the stated probability. Answers are readings of the fact, wrong
as often as their source is. 'Partly' is a mixture of yes and no.
"""

from collections.abc import Iterable, Mapping
from functools import lru_cache
from types import MappingProxyType
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Case, Reading
from firm_footing.core.knowledge import Check, Knowledge
from firm_footing.core.knowledge.numbers import DependentGroup, Numbers
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.core.reasoning.evidence import Piece, restoring
from firm_footing.core.reasoning.stories import Stories

FloatArray = NDArray[np.float64]


@lru_cache(maxsize=512)
def fact_probability(stories: Stories, check_id: str, base: float) -> FloatArray:
    """(swings,) P(the fact this check asks for | swing), given its base rate."""
    check, swings = stories.knowledge.check[check_id], stories.swings
    log_absent = np.where(
        swings.stuck,
        swings.table.present @ _log_blocked(stories.knowledge, check, base, "stuck"),
        swings.table.present @ _log_blocked(stories.knowledge, check, base, "thrown"),
    )
    return 1.0 - (1.0 - base) * np.exp(log_absent)


@lru_cache(maxsize=32)
def fact_table(stories: Stories, asked: tuple[tuple[str, float], ...]) -> NDArray[np.float32]:
    """(looks, swings) the same for several checks with their base rates.

    In single precision: it only serves to order looks, and is multiplied at every touch.
    """
    facts = [fact_probability(stories, name, base) for name, base in asked]
    return np.stack(facts).astype(np.float32)


def _log_blocked(knowledge: Knowledge, check: Check, base: float, mode: Mode) -> FloatArray:
    """(causes,) log(1 - q) of each cause."""
    out = np.zeros(len(knowledge.causes))
    for cause, strength in check.pointers(mode).items():
        alone = max(knowledge.numbers.pointer[strength], base)
        out[knowledge.cause_index[cause]] = np.log1p(-alone) - np.log1p(-base)
    return out


@lru_cache(maxsize=256)
def base_rates(
    knowledge: Knowledge, handicap: float, overrides: tuple[tuple[str, float], ...]
) -> Mapping[str, float]:
    """Base rate of every check for this player, as far as a school does not say otherwise."""
    rates = {c.id: c.base_rate(handicap) for c in knowledge.checks}
    return MappingProxyType(rates | dict(overrides))


def counted_readings(case: Case) -> dict[str, list[Reading]]:
    """The answers that count, by check: told apart from 'could not tell' and from drills."""
    counted: dict[str, list[Reading]] = {}
    for reading in case.readings:
        in_force = reading.block is not None and case.blocks[reading.block].kind != "baseline"
        if reading.answer != "unknown" and not in_force:
            counted.setdefault(reading.check, []).append(reading)
    return counted


def contradictions(counted: Mapping[str, list[Reading]]) -> tuple[str, ...]:
    """Checks that were answered with a clear yes and with a clear no."""
    clear = {name: {r.answer for r in readings} for name, readings in counted.items()}
    return tuple(name for name, answers in clear.items() if {"yes", "no"} <= answers)


def answer_given_fact(readings: Iterable[Reading], check: Check, n: Numbers) -> tuple[float, float]:
    """P(these answers | fact is not so), P(these answers | fact is so)."""
    without, with_fact = 1.0, 1.0
    for reading in readings:
        error = n.reading_error[reading.source or check.sources[0]]
        yes = {"yes": 1.0, "no": 0.0, "partly": n.partly.yes_share}[reading.answer]
        no = {"yes": 0.0, "no": 1.0, "partly": n.partly.no_share}[reading.answer]
        without *= yes * error + no * (1 - error)
        with_fact *= yes * (1 - error) + no * error
    return without, with_fact


class AnswerLikelihood(NamedTuple):
    """(swings,) log P(the answers | swing), and one over that probability."""

    log: FloatArray
    inverse: FloatArray


@lru_cache(maxsize=512)
def answer_likelihood(
    stories: Stories, check_id: str, base: float, without: float, with_fact: float
) -> AnswerLikelihood:
    """Likelihood of the answers to one check, from `answer_given_fact`."""
    fact = fact_probability(stories, check_id, base)
    likelihood = without + (with_fact - without) * fact
    return AnswerLikelihood(np.log(likelihood), 1.0 / likelihood)


def look_pieces(
    counted: Mapping[str, list[Reading]], stories: Stories, bases: Mapping[str, float]
) -> list[Piece]:
    """Evidence of the looks: log-likelihood of every swing, check by check.

    k answered checks of one dependent group count 1 / (1 + discount (k - 1)) each; what is lost
    without one of them takes into account that the others then count more.
    """
    knowledge = stories.knowledge
    pieces: list[Piece] = []
    for members in _groups(counted, knowledge):
        asked = tuple(
            (m, bases[m], *answer_given_fact(counted[m], knowledge.check[m], knowledge.numbers))
            for m in members
        )
        pieces += group_pieces(stories, asked)
    return pieces


@lru_cache(maxsize=256)
def group_pieces(
    stories: Stories, asked: tuple[tuple[str, float, float, float], ...]
) -> tuple[Piece, ...]:
    """Pieces of one group: check, base rate, P(answers | no fact), P(answers | fact) of each."""
    found = {name: answer_likelihood(stories, name, *given) for name, *given in asked}
    k = len(asked)
    if k == 1:
        return tuple(Piece(name, one.log, one.inverse) for name, one in found.items())
    discount = stories.knowledge.numbers.dependent_looks.discount
    weight, weight_without = 1 / (1 + discount * (k - 1)), 1 / (1 + discount * (k - 2))
    together = np.sum([f.log for f in found.values()], axis=0)
    pieces = []
    for name, one in found.items():
        lost = weight * together - weight_without * (together - one.log)
        pieces.append(Piece(name, weight * one.log, restoring(lost), weight))
    return tuple(pieces)


def likelihood_of(
    check_id: str, readings: Iterable[Reading], stories: Stories, base: float
) -> AnswerLikelihood:
    """How probable these answers to one check are under every swing."""
    knowledge = stories.knowledge
    given = answer_given_fact(readings, knowledge.check[check_id], knowledge.numbers)
    return answer_likelihood(stories, check_id, base, *given)


def _groups(counted: Mapping[str, list[Reading]], knowledge: Knowledge) -> list[list[str]]:
    """Answered checks by what they were one look at; a check by itself is its own group."""
    possible = _groups_of_check(knowledge)
    groups: dict[str, list[str]] = {}
    for name, readings in counted.items():
        of = name
        for group in possible.get(name, ()):
            sources = {r.source or knowledge.check[name].sources[0] for r in readings}
            if group.sources is None or sources & set(group.sources):
                of = f"group:{group.id}"
        groups.setdefault(of, []).append(name)
    return list(groups.values())


@lru_cache(maxsize=4)
def _groups_of_check(knowledge: Knowledge) -> dict[str, list[DependentGroup]]:
    """Check id to the groups it can belong to; which one depends on its sources."""
    found: dict[str, list[DependentGroup]] = {}
    for group in knowledge.numbers.dependent_looks.groups:
        for name in group.checks:
            found.setdefault(name, []).append(group)
    return found
