"""How well does each story predict what was seen at the looks?

A check asks for one hidden fact. The fact follows from the causes by noisy-OR with a leak,

    P(fact | S) = 1 - (1 - base) * prod over causes in S pointed to (1 - q),
    q = 1 - (1 - P(yes | that cause alone)) / (1 - base),

so that one cause alone gives just the stated probability. Answers are readings of the fact, wrong
as often as their source is. 'Partly' is a mixture of yes and no.
"""

from collections.abc import Iterable, Mapping
from dataclasses import replace
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
    """Checks answered with a clear yes and a clear no, by hand or by hand against the traces.

    Swings that differ from each other are none: one trace says yes, the next no.
    """
    return tuple(name for name, readings in counted.items() if _contradict(readings))


def _contradict(readings: list[Reading]) -> bool:
    by_hand = {r.answer for r in readings if r.trace is None} & {"yes", "no"}
    by_trace = {r.answer for r in readings if r.trace is not None} & {"yes", "no"}
    return len(by_hand) == 2 or (len(by_trace) == 1 and len(by_hand | by_trace) == 2)


def answer_given_fact(readings: Iterable[Reading], check: Check, n: Numbers) -> tuple[float, float]:
    """P(these answers | fact is not so), P(these answers | fact is so)."""
    without, with_fact = 1.0, 1.0
    for reading in readings:
        error = n.reading_error[reading.source or check.sources[0]]
        if reading.share is not None:
            yes, no = reading.share, 1.0 - reading.share
        else:
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


Given = tuple[str, float, float]
"""Who answered (a check's id when by hand, or `trace:0`), P(answers | not so), P(answers | so)."""


def look_pieces(
    counted: Mapping[str, list[Reading]], stories: Stories, bases: Mapping[str, float]
) -> list[Piece]:
    """Evidence of the looks: log-likelihood of every swing, by who answered.

    Answers by hand are one piece for each check. Pressure traces are one piece together, called
    after the first: one swing more that says the same would make each of them worth nothing. k
    answered checks of one dependent group count 1 / (1 + discount (k - 1)) each; what is lost
    without one of them takes into account that the others then count more.
    """
    knowledge = stories.knowledge
    swings = [r.trace for said in counted.values() for r in said if r.trace is not None]
    traces = f"trace:{min(swings, default=0)}"
    pieces: list[Piece] = []
    for members in _groups(counted, knowledge):
        asked = tuple((m, bases[m], _by_owner(m, counted[m], traces, knowledge)) for m in members)
        pieces += group_pieces(stories, asked)
    return _one_for_each(pieces)


def _one_for_each(pieces: list[Piece]) -> list[Piece]:
    """What the traces say in several groups is one piece."""
    found: dict[str, Piece] = {}
    for piece in pieces:
        other = found.get(piece.id)
        found[piece.id] = (
            piece
            if other is None
            else replace(
                piece, adds=other.adds + piece.adds, restores=other.restores * piece.restores
            )
        )
    return list(found.values())


def _by_owner(
    check_id: str, readings: list[Reading], traces: str, knowledge: Knowledge
) -> tuple[Given, ...]:
    owners: dict[str, list[Reading]] = {}
    for reading in readings:
        owner = check_id if reading.trace is None else traces
        owners.setdefault(owner, []).append(reading)
    check, numbers = knowledge.check[check_id], knowledge.numbers
    return tuple((o, *answer_given_fact(said, check, numbers)) for o, said in owners.items())


@lru_cache(maxsize=256)
def group_pieces(
    stories: Stories, asked: tuple[tuple[str, float, tuple[Given, ...]], ...]
) -> tuple[Piece, ...]:
    """Pieces of one group: check, base rate, and who answered what, of each."""
    if len(asked) == 1 and len(asked[0][2]) == 1:
        ((check, base, ((owner, *given),)),) = asked
        one = answer_likelihood(stories, check, base, *given)
        return (Piece(owner, one.log, one.inverse),)
    owners = list(dict.fromkeys(owner for _, _, given in asked for owner, _, _ in given))
    weight, together = _said(stories, asked, frozenset(owners))
    pieces, before = [], np.zeros_like(together)
    for i, owner in enumerate(owners):
        _, so_far = _said(stories, asked, frozenset(owners[: i + 1]))
        weight_without, others = _said(stories, asked, frozenset(owners) - {owner})
        lost = weight * together - weight_without * others
        pieces.append(Piece(owner, weight * (so_far - before), restoring(lost), weight))
        before = so_far
    return tuple(pieces)


def _said(
    stories: Stories,
    asked: tuple[tuple[str, float, tuple[Given, ...]], ...],
    owners: frozenset[str],
) -> tuple[float, FloatArray]:
    """How much each check counts when only these answered, and (swings,) the sum of their logs."""
    logs = []
    for check, base, given in asked:
        heard = [(without, with_fact) for owner, without, with_fact in given if owner in owners]
        if heard:
            without, with_fact = np.prod(heard, axis=0).tolist()
            logs.append(answer_likelihood(stories, check, base, without, with_fact).log)
    discount = stories.knowledge.numbers.dependent_looks.discount
    weight = 1 / (1 + discount * max(0, len(logs) - 1))
    return weight, np.sum(logs, axis=0) if logs else np.zeros(len(stories.swings.stuck))


def likelihood_of(
    check_id: str, readings: Iterable[Reading], stories: Stories, base: float
) -> AnswerLikelihood:
    """How probable these answers to one check are under every swing."""
    knowledge = stories.knowledge
    given = answer_given_fact(readings, knowledge.check[check_id], knowledge.numbers)
    return answer_likelihood(stories, check_id, base, *given)


def _groups(counted: Mapping[str, list[Reading]], knowledge: Knowledge) -> list[list[str]]:
    """Answered checks by what they were one look at; a check by itself is its own group.

    A trace answers all its checks at once. The signs it shows hang together; that six others are
    absent says six things, and takes nothing from the one that is there. (Measured on simulated
    students: discounting the absent ones too puts a true cause first 4 in 100 times less often
    after balls and one trace, at the same calibration.)
    """
    possible = _groups_of_check(knowledge)
    groups: dict[str, list[str]] = {}
    for name, readings in counted.items():
        of = name
        for group in possible.get(name, ()):
            sources = {r.source or knowledge.check[name].sources[0] for r in readings}
            if group.sources is None or sources & set(group.sources):
                of = f"group:{group.id}"
        if _absent_from_traces(readings):
            of = name
        groups.setdefault(of, []).append(name)
    return list(groups.values())


def _absent_from_traces(readings: list[Reading]) -> bool:
    """Whether only traces answer, and they say rather that it is not so."""
    shares = [r.share for r in readings if r.trace is not None and r.share is not None]
    return len(shares) == len(readings) and 2 * sum(shares) < len(shares)


@lru_cache(maxsize=4)
def _groups_of_check(knowledge: Knowledge) -> dict[str, list[DependentGroup]]:
    """Check id to the groups it can belong to; which one depends on its sources."""
    found: dict[str, list[DependentGroup]] = {}
    for group in knowledge.numbers.dependent_looks.groups:
        for name in group.checks:
            found.setdefault(name, []).append(group)
    return found
