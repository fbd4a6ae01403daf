"""Which causes fit all the evidence of a case, and where should the lesson start?

`diagnose` is a pure function: a case and the knowledge in, a diagnosis out.
"""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Case
from firm_footing.core.coaching import drills_for, situation_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Mode, Source
from firm_footing.core.pattern import Pattern
from firm_footing.core.reasoning.evidence import Weighed
from firm_footing.core.reasoning.explain import ball_way, chain_of
from firm_footing.core.reasoning.looks import contradictions
from firm_footing.core.reasoning.next_check import NextCheck, next_checks, turns_of
from firm_footing.core.reasoning.schools import first_by_school
from firm_footing.core.reasoning.separating import Verdict, verdicts
from firm_footing.core.reasoning.standing import Roots, Standing, where_it_stands
from firm_footing.core.reasoning.weighing import Weighing, weigh

FloatArray = NDArray[np.float64]

LOOKS_TRIED = 3
"""How many of the best looks are tried out for what they could change."""


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
    """All that is concluded from a case; causes are most probable first.

    first_by_school : (heel and toe school, lead foot school) to the cause it would start with
    contradictions : checks answered with a clear yes and a clear no
    verdicts : what the blocks hit with a constraint said
    """

    pattern: Pattern
    standing: Standing
    start_with: str
    causes: tuple[RankedCause, ...]
    outside_feet: float
    next_checks: tuple[NextCheck, ...]
    drills: tuple[str, ...]
    schools_agree: bool
    first_by_school: Mapping[tuple[str, str], str]
    contradictions: tuple[str, ...]
    verdicts: tuple[Verdict, ...]


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
    weighing = weigh(case, knowledge)
    stories, now, pattern = weighing.stories, weighing.now, weighing.pattern
    start = knowledge.causes[int(np.argmax(now.root))].id
    path = pattern.path_deg.value if pattern.path_deg else None
    present = {c.id: float(p) for c, p in zip(knowledge.causes, now.present, strict=True)}
    looks = next_checks(stories, now, weighing.bases, weighing.answered, at_hand)
    firsts = first_by_school(weighing)
    turns = turns_of(stories, now, weighing.bases, looks[:LOOKS_TRIED])
    roots = Roots(before=weighing.prior @ stories.roots, now=now.root)
    return Diagnosis(
        pattern=pattern,
        standing=where_it_stands(roots, pattern.balls, weighing.answers, turns, knowledge),
        start_with=start,
        causes=_ranked(weighing),
        outside_feet=float(now.cause_set[stories.outside_feet].sum()),
        next_checks=tuple(looks),
        drills=drills_for(start, knowledge, situation_of(case, present, path)),
        schools_agree=set(firsts.values()) == {start},
        first_by_school=firsts,
        contradictions=contradictions(weighing.counted),
        verdicts=verdicts(weighing),
    )


def _ranked(weighing: Weighing) -> tuple[RankedCause, ...]:
    """Every cause, the most probable first."""
    knowledge, now = weighing.knowledge, weighing.now
    tellings = _tellings(weighing)
    club = weighing.setting.club
    names = tuple(p.id for p in weighing.pieces)
    found = []
    for i in np.argsort(-now.present, kind="stable").tolist():
        cause = knowledge.causes[i]
        mode, side = tellings[cause.id]
        found.append(
            RankedCause(
                id=cause.id,
                probability=float(now.present[i]),
                root=float(now.root[i]),
                bits=(names, now.bits[:, i]),
                chain=chain_of(cause, mode, side, weighing.pattern, knowledge),
                ball_way_deg=ball_way(cause, mode, side, club, knowledge),
            )
        )
    return tuple(found)


def _tellings(weighing: Weighing) -> dict[str, tuple[Mode | None, str | None]]:
    """The mode and side in which each cause is most probable now."""
    stories, now = weighing.stories, weighing.now
    columns, second = stories.two_tellings
    shares = dict(zip(columns, (weighing.story @ second).tolist(), strict=True))
    found: dict[str, tuple[Mode | None, str | None]] = {}
    for i, cause in enumerate(stories.knowledge.causes):
        is_second = shares.get(i, 0.0) > 0.5 * float(now.present[i])
        mode: Mode | None = ("stuck" if is_second else "thrown") if cause.skill else None
        found[cause.id] = mode, cause.sides[is_second].id if cause.sides else None
    return found
