"""How well does each hypothesis predict what was seen at the looks?

A check asks for one hidden fact. The fact follows from the causes by noisy-OR with a leak, in which
a grave cause shows more clearly than a mild one,

    P(fact | hypothesis) = 1 - (1 - base) * exp(-sum over causes present of rate * severity),

each rate such that the cause alone gives just the stated probability over all its severities.
Answers are readings of the fact (`answers.py`).
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from types import MappingProxyType
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Reading
from firm_footing.core.case.past import Eye
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.answers import (
    log_ratio_of,
    unlimited_log_ratio_of,
    within_limit,
)
from firm_footing.core.inference.caching import kept
from firm_footing.core.inference.dependence import discount_of, group_of, independence
from firm_footing.core.inference.evidence import Piece, leave_one_out_weight_of
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.knowledge import Check, Knowledge
from firm_footing.core.knowledge.numbers import DependentGroup
from firm_footing.core.knowledge.vocabulary import Mode


@kept(megabytes=9)
def fact_probability(space: HypothesisSpace, check_id: str, base: float) -> FloatArray:
    """(hypotheses,) P(the fact this check asks for | hypothesis), given its base rate."""
    check, hypotheses = space.knowledge.check[check_id], space.hypotheses
    thrown, stuck = (_exponent(space, check, base, mode) for mode in ("thrown", "stuck"))
    return 1.0 - (1.0 - base) * np.exp(np.where(hypotheses.stuck, stuck, thrown))


@kept(megabytes=8)
def fact_table(space: HypothesisSpace, asked: tuple[tuple[str, float], ...]) -> NDArray[np.float32]:
    """(hypotheses, looks) the same for several checks with their base rates.

    In single precision: it only serves to order looks, and is multiplied at every touch.
    """
    facts = [fact_probability(space, name, base) for name, base in asked]
    return np.stack(facts, axis=1, dtype=np.float32, casting="same_kind")


def _exponent(space: HypothesisSpace, check: Check, base: float, mode: Mode) -> FloatArray:
    """(hypotheses,) minus the sum of rate times severity."""
    knowledge, severity = space.knowledge, space.hypotheses.severity
    out = np.zeros(len(severity))
    levels = knowledge.numbers.delivery.severity_levels
    for cause, alone in knowledge.points(check, mode).items():
        out -= _rate(max(alone, base), base, levels) * severity[:, knowledge.cause_index[cause]]
    return out


@lru_cache(maxsize=512)
def _rate(alone: float, base: float, levels: tuple[float, ...]) -> float:
    """The rate at which a cause alone shows with probability `alone`, over all severities."""
    wanted, severity = (1 - alone) / (1 - base), np.array(levels)
    low, high = 0.0, 50.0
    for _ in range(50):
        middle = (low + high) / 2
        shows_less = np.exp(-middle * severity).mean() > wanted
        low, high = (middle, high) if shows_less else (low, middle)
    return low


@lru_cache(maxsize=256)
def base_rates(
    knowledge: Knowledge, handicap: float, overrides: tuple[tuple[str, float], ...]
) -> Mapping[str, float]:
    """Base rate of every check for this player, as far as a school does not say otherwise."""
    rates = {c.id: c.base_rate(handicap) for c in knowledge.checks}
    return MappingProxyType(rates | dict(overrides))


@kept(megabytes=14)
def answer_log_likelihood(
    space: HypothesisSpace, check_id: str, base: float, log_ratio: float
) -> FloatArray:
    """(hypotheses,) log P(the answers to one check | hypothesis) up to a constant.

    log_ratio : of the answers, from `log_ratio_of`
    """
    fact = fact_probability(space, check_id, base)
    without, with_fact = np.exp(min(0.0, -log_ratio)), np.exp(min(0.0, log_ratio))
    out: FloatArray = np.log(without + (with_fact - without) * fact)
    return out


class Given(NamedTuple):
    """Answers to one check by one owner: the check's id when by hand, `trace:0` or `film:0`.

    log_ratio : not limited yet, for the limit is on all that is said of the check
    """

    owner: str
    log_ratio: float


Asked = tuple[str, float, tuple[Given, ...]]
"""A check, its base rate, and who answered what."""


class AskedTogether(NamedTuple):
    """What was one look at one thing, and how much its answers take from each other."""

    asked: tuple[Asked, ...]
    discount: float


class LogRatios(NamedTuple):
    """What the answers to one check come to.

    given : by each owner
    group : the dependent group that these answers share a discount with, None where none does
    """

    given: tuple[Given, ...]
    group: DependentGroup | None


def check_pieces(
    ratios: Mapping[str, LogRatios], space: HypothesisSpace, bases: Mapping[str, float]
) -> list[Piece]:
    """Evidence of the looks: log-likelihood of every hypothesis, by who answered.

    Answers by hand are one piece for each check. Pressure traces are one piece together, called
    after the first, and films are another. k answered checks of one dependent group count
    1 / (1 + discount (k - 1)) each, by the group's own discount where it has one; what is lost
    without one of them takes into account that the others then count more.
    """
    pieces: list[Piece] = []
    for together in groups_asked(ratios, bases, space.knowledge):
        pieces += group_pieces(space, together)
    return _one_for_each(pieces)


def groups_asked(
    ratios: Mapping[str, LogRatios], bases: Mapping[str, float], knowledge: Knowledge
) -> list[AskedTogether]:
    """All answers, by what they were one look at; a check by itself is its own group."""
    groups: dict[str, list[Asked]] = {}
    discounts: dict[str, float] = {}
    for name, (given, group) in ratios.items():
        together = name if group is None else f"group:{group.id}"
        groups.setdefault(together, []).append((name, bases[name], given))
        discounts[together] = discount_of(group, knowledge)
    return [AskedTogether(tuple(asked), discounts[name]) for name, asked in groups.items()]


def ratios_of(
    counted: Mapping[str, list[Reading]], knowledge: Knowledge, eye: Eye = ()
) -> dict[str, LogRatios]:
    """Check id to what its answers come to, of every check answered; `eye` of who gave them."""
    measured = owners_of(counted)
    return {
        name: ratios_of_check(name, said, measured, knowledge, eye)
        for name, said in counted.items()
    }


class Owners(NamedTuple):
    """Who owns all that traces, and all that films answer: each called after the first."""

    traces: str
    films: str

    def of(self, reading: Reading) -> str:
        """Who gave this answer: the check itself when by hand."""
        if reading.by_hand:
            return reading.check
        return self.traces if reading.trace is not None else self.films


def owners_of(counted: Mapping[str, list[Reading]]) -> Owners:
    """The owners of what was measured."""
    said = [r for readings in counted.values() for r in readings]
    traces = min((r.trace for r in said if r.trace is not None), default=0)
    return Owners(
        f"trace:{traces}", f"film:{min((r.film for r in said if r.film is not None), default=0)}"
    )


def ratios_of_check(
    check_id: str,
    readings: list[Reading],
    measured: Owners,
    knowledge: Knowledge,
    eye: Eye = (),
) -> LogRatios:
    """What the answers to one check come to; `measured` owns those of traces and films.

    A mat answers all its checks at once, typed or traced. The signs it shows hang together; that
    six others are absent says six things, and takes nothing from the one that is there. (Measured
    on simulated students: discounting the absent ones too puts a true cause first 4 in 100 times
    less often after balls and one trace, at the same calibration.)
    """
    owners: dict[str, list[Reading]] = {}
    for reading in readings:
        owners.setdefault(measured.of(reading), []).append(reading)
    check, numbers = knowledge.check[check_id], knowledge.numbers
    given = tuple(
        Given(owner, unlimited_log_ratio_of(said, check, numbers, eye))
        for owner, said in owners.items()
    )
    group = group_of(check_id, readings, knowledge)
    if group is not None and group.absent_counts_whole:
        rather = log_ratio_of(readings, check, numbers, eye) >= 0
        group = group if rather else None
    return LogRatios(given, group)


def changed(
    before: Sequence[AskedTogether], after: Sequence[AskedTogether], space: HypothesisSpace
) -> FloatArray:
    """(hypotheses,) what the looks' log-likelihood gains when these groups become those."""
    out = np.zeros(len(space.hypotheses.stuck))
    for together in set(after) - set(before):
        out += _group_log(space, together)
    for together in set(before) - set(after):
        out -= _group_log(space, together)
    return out


@kept(megabytes=4)
def _group_log(space: HypothesisSpace, together: AskedTogether) -> FloatArray:
    """(hypotheses,) what a group says; not to be written to."""
    weight, logs = _said(space, together)
    logs *= weight
    return logs


def _one_for_each(pieces: list[Piece]) -> list[Piece]:
    """What the traces say in several groups is one piece."""
    found: dict[str, Piece] = {}
    for piece in pieces:
        other = found.get(piece.id)
        found[piece.id] = (
            piece
            if other is None
            else replace(
                piece,
                log_likelihood=other.log_likelihood + piece.log_likelihood,
                leave_one_out_weight=other.leave_one_out_weight * piece.leave_one_out_weight,
            )
        )
    return list(found.values())


def group_pieces(space: HypothesisSpace, together: AskedTogether) -> tuple[Piece, ...]:
    """Pieces of one group: check, base rate, and who answered what, of each."""
    asked = together.asked
    if len(asked) == 1 and len(asked[0][2]) == 1:
        ((check, base, (given,)),) = asked
        ratio = within_limit(given.log_ratio, space.knowledge.numbers)
        log = answer_log_likelihood(space, check, base, ratio)
        return (Piece(given.owner, log, np.exp(-log)),)
    return _pieces_together(space, together)


@kept(megabytes=8)
def _pieces_together(space: HypothesisSpace, together: AskedTogether) -> tuple[Piece, ...]:
    """The same of a group of several answers."""
    owners = list(dict.fromkeys(g.owner for _, _, given in together.asked for g in given))
    weight, logs = _said(space, together)
    pieces = []
    for i, owner in enumerate(owners):
        added, others, alone = np.zeros_like(logs), logs.copy(), 0
        for asked in together.asked:
            if all(g.owner != owner for g in asked[2]):
                continue
            added += _heard(space, asked, owners[: i + 1])
            added -= _heard(space, asked, owners[:i])
            without = [other for other in owners if other != owner]
            others -= _heard(space, asked, owners)
            others += _heard(space, asked, without)
            alone += all(g.owner == owner for g in asked[2])
        weight_without = independence(len(together.asked) - alone, together.discount)
        lost = weight * logs - weight_without * others
        pieces.append(Piece(owner, weight * added, leave_one_out_weight_of(lost), weight))
    return tuple(pieces)


def _said(space: HypothesisSpace, together: AskedTogether) -> tuple[float, FloatArray]:
    """How much each check of the group counts; (hypotheses,) the sum of what they say."""
    logs = np.zeros(len(space.hypotheses.stuck))
    for asked in together.asked:
        logs += _heard(space, asked, None)
    return independence(len(together.asked), together.discount), logs


def _heard(
    space: HypothesisSpace, asked: Asked, owners: Collection[str] | None
) -> FloatArray | float:
    """(hypotheses,) what one check says when only these answered, None for all; 0 for nobody."""
    check, base, given = asked
    heard = [g.log_ratio for g in given if owners is None or g.owner in owners]
    if not heard:
        return 0.0
    ratio = within_limit(sum(heard), space.knowledge.numbers)
    return answer_log_likelihood(space, check, base, ratio)
