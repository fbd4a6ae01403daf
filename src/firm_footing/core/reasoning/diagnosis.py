"""Which causes fit all the evidence of a case, and where should the lesson start?

`diagnose` is a pure function: a case and the knowledge in, a diagnosis out.
"""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.ball import Pattern, read_pattern
from firm_footing.core.case import Case, Reading, School
from firm_footing.core.coaching import drills_for
from firm_footing.core.knowledge import Club, Knowledge
from firm_footing.core.knowledge.coaching import SchoolOption
from firm_footing.core.knowledge.vocabulary import Mode, Source
from firm_footing.core.reasoning.delivery import delivery_pieces
from firm_footing.core.reasoning.evidence import Piece
from firm_footing.core.reasoning.explain import ball_way, chain_of
from firm_footing.core.reasoning.looks import (
    base_rates,
    counted_readings,
    likelihood_of,
    look_pieces,
)
from firm_footing.core.reasoning.next_check import NextCheck, next_checks
from firm_footing.core.reasoning.posterior import Posterior, add_up, posterior
from firm_footing.core.reasoning.standing import Standing, where_it_stands
from firm_footing.core.reasoning.stories import (
    Stories,
    base_weights,
    enumerate_stories,
    set_prior,
)

FloatArray = NDArray[np.float64]


class Weighed(NamedTuple):
    """A piece of evidence and what it does to one cause, in bits of log2 odds."""

    evidence: str
    bits: float


@dataclass(frozen=True)
class RankedCause:
    """One cause with how sure we are and why.

    bits : ids of all pieces of evidence, and (pieces,) their bits for this cause
    chain : cause, mechanisms, then what it does to club and ball
    ball_way_deg : start and curve of a straight ball under this cause alone, + push side
    """

    id: str
    probability: float
    root: float
    bits: tuple[tuple[str, ...], FloatArray]
    chain: tuple[str, ...]
    ball_way_deg: tuple[float, float]

    @property
    def speaks_for(self) -> tuple[Weighed, ...]:
        """What makes this cause likelier, the largest first."""
        return tuple(Weighed(name, bits) for bits, name in self._in_order()[::-1] if bits > 0)

    @property
    def speaks_against(self) -> tuple[Weighed, ...]:
        """What makes this cause less likely, the largest first."""
        return tuple(Weighed(name, bits) for bits, name in self._in_order() if bits < 0)

    def _in_order(self) -> list[tuple[float, str]]:
        """Bits and evidence, from the strongest against to the strongest for."""
        return sorted(zip(self.bits[1].tolist(), self.bits[0], strict=True))


@dataclass(frozen=True)
class Diagnosis:
    """All that is concluded from a case; causes are most probable first."""

    pattern: Pattern
    standing: Standing
    start_with: str
    causes: tuple[RankedCause, ...]
    outside_feet: float
    next_checks: tuple[NextCheck, ...]
    drills: tuple[str, ...]
    schools_agree: bool
    answers: int
    evidence: tuple[str, ...]


def diagnose(
    case: Case, knowledge: Knowledge, at_hand: Collection[Source] | None = None
) -> Diagnosis:
    """Rank the causes of a case.

    Parameters
    ----------
    case : Case
        Golfer-neutral evidence; only baseline blocks and answers given without a drill count.
    knowledge : Knowledge
        The trade's knowledge.
    at_hand : collection of sources, optional
        Means at hand for further looks; None means all.

    Returns
    -------
    Diagnosis

    """
    stories = enumerate_stories(knowledge)
    handicap = _handicap(case, knowledge)
    pattern = read_pattern(case.baselines, knowledge)
    counted = counted_readings(case)
    options = _options(case.school, knowledge)
    bases = _bases(knowledge, handicap, options)
    pieces = delivery_pieces(pattern, stories, handicap) + look_pieces(counted, stories, bases)
    log_telling = stories.log_telling(knowledge.numbers.stuck_mode.probability(handicap))
    now = posterior(stories, _prior(stories, options)[stories.set_of], log_telling, pieces)
    start = knowledge.causes[int(np.argmax(now.root))].id
    answers = sum(len(r) for r in counted.values())
    present = {c.id: float(p) for c, p in zip(knowledge.causes, now.present, strict=True)}
    return Diagnosis(
        pattern=pattern,
        standing=where_it_stands(now.root, pattern.balls, answers, knowledge),
        start_with=start,
        causes=_ranked(stories, now, pieces, pattern, _club(case, knowledge)),
        outside_feet=float(now.cause_set[stories.outside_feet].sum()),
        next_checks=tuple(next_checks(stories, now, bases, counted.keys(), at_hand)),
        drills=drills_for(
            start,
            knowledge,
            case.limits,
            case.school,
            present,
            pattern.path_deg.value if pattern.path_deg else None,
        ),
        schools_agree=_schools_agree(stories, log_telling, pieces, counted, handicap, bases, start),
        answers=answers,
        evidence=tuple(p.id for p in pieces),
    )


def _handicap(case: Case, knowledge: Knowledge) -> float:
    return knowledge.numbers.handicap_left_out if case.handicap is None else case.handicap


def _club(case: Case, knowledge: Knowledge) -> Club:
    """The club of the baseline; a 7 iron when there is none yet."""
    return knowledge.club[next((b.club for b in case.baselines), "7i")]


def _options(school: School, knowledge: Knowledge) -> tuple[SchoolOption, SchoolOption]:
    """The two matters of dispute that change how common causes and signs are."""
    schools = knowledge.schools
    return schools.heel_toe.option(school.heel_toe), schools.lead_foot.option(school.lead_foot)


def _bases(
    knowledge: Knowledge, handicap: float, options: Sequence[SchoolOption]
) -> Mapping[str, float]:
    overrides = _merged(o.check_base for o in options)
    return base_rates(knowledge, handicap, tuple(overrides.items()))


def _prior(stories: Stories, options: Sequence[SchoolOption]) -> FloatArray:
    """(sets,) prior under these schools."""
    factors = _merged(o.cause_weight for o in options)
    return set_prior(stories, base_weights(stories.knowledge, tuple(factors.items())))


def _merged(parts: Iterable[Mapping[str, float]]) -> dict[str, float]:
    return {key: value for part in parts for key, value in part.items()}


def _ranked(
    stories: Stories, now: Posterior, pieces: Sequence[Piece], pattern: Pattern, club: Club
) -> tuple[RankedCause, ...]:
    causes = stories.knowledge.causes
    tellings = _tellings(stories, now)
    names = tuple(p.id for p in pieces)
    return tuple(
        RankedCause(
            id=causes[i].id,
            probability=float(now.present[i]),
            root=float(now.root[i]),
            bits=(names, now.bits[:, i]),
            chain=chain_of(causes[i], *tellings[causes[i].id], pattern, stories.knowledge),
            ball_way_deg=ball_way(causes[i], *tellings[causes[i].id], club, stories.knowledge),
        )
        for i in np.argsort(-now.present, kind="stable").tolist()
    )


def _tellings(stories: Stories, now: Posterior) -> dict[str, tuple[Mode | None, str | None]]:
    """The mode and side in which each cause is most probable now."""
    second = now.story @ stories.in_second_telling > 0.5 * now.present
    found: dict[str, tuple[Mode | None, str | None]] = {}
    for cause, is_second in zip(stories.knowledge.causes, second.tolist(), strict=True):
        mode: Mode | None = ("stuck" if is_second else "thrown") if cause.skill else None
        found[cause.id] = mode, cause.sides[is_second].id if cause.sides else None
    return found


def _schools_agree(
    stories: Stories,
    log_telling: FloatArray,
    pieces: Sequence[Piece],
    counted: Mapping[str, list[Reading]],
    handicap: float,
    bases: Mapping[str, float],
    start: str,
) -> bool:
    """Whether every school would start with the same cause: the ranking redone under each.

    A school changes the prior of the causes; the likelihood is weighed anew only where it also
    changes how common an answered sign is.
    """
    knowledge = stories.knowledge
    schools = knowledge.schools
    total = add_up(log_telling, pieces)
    asked = {p.id: p for p in pieces if p.id in counted}
    by_bases: dict[tuple[float, ...], FloatArray] = {}
    weights = []
    for options in product(schools.heel_toe.options, schools.lead_foot.options):
        other = _bases(knowledge, handicap, options)
        key = tuple(other[name] for name in asked)
        if key not in by_bases:
            logs = total.copy()
            for piece in asked.values():
                if other[piece.id] != bases[piece.id]:
                    anew = likelihood_of(piece.id, counted[piece.id], stories, other[piece.id])
                    logs += piece.weight * anew.log - piece.adds
            by_bases[key] = stories.to_sets(np.exp(logs - logs.max()))
        weights.append(by_bases[key] * _prior(stories, options))
    firsts = (np.array(weights) @ stories.roots).argmax(axis=1)
    return {knowledge.causes[i].id for i in firsts} == {start}
