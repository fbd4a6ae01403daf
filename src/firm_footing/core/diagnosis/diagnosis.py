"""Which causes fit all the evidence of a case, and where should the lesson start?

`diagnose` is a pure function: a case and the knowledge in, a diagnosis out.
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Case
from firm_footing.core.coaching import drills_for, situation_of
from firm_footing.core.conclusions.attribution import Explained, explained_by, unexplained
from firm_footing.core.conclusions.chain import ball_way, chain_of
from firm_footing.core.conclusions.decision_status import Standing, where_it_stands
from firm_footing.core.conclusions.next_check import NextCheck, next_checks, turns_of
from firm_footing.core.conclusions.schools import first_by_school
from firm_footing.core.conclusions.separating import Verdict, verdicts
from firm_footing.core.conclusions.single_cause import LEAST_BITS, bits_alone, explains_better
from firm_footing.core.inference.answers import contradictions
from firm_footing.core.inference.film_answers import against_films
from firm_footing.core.inference.inference import Weighing, weigh
from firm_footing.core.inference.measured_answers import Measured
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Mode, Seen, Source
from firm_footing.core.patterns import Pattern
from firm_footing.core.text import words
from firm_footing.core.text.ball_next import BallNext, ball_next
from firm_footing.core.text.decision import in_words
from firm_footing.core.text.evidence_lines import against, noted

FloatArray = NDArray[np.float64]

LOOKS_TRIED = 3
"""How many of the best looks are tried out for what they could change."""


class Said(NamedTuple):
    """A piece of evidence for one cause.

    bits : log2 of the cause's odds with everything, minus the same without this piece
    alone_bits : log2 likelihood ratio of the piece, the cause alone against none
    text : as one would say it
    by : the cause that explains it better, None otherwise
    """

    evidence: str
    bits: float
    alone_bits: float
    text: str
    by: str | None


@dataclass(frozen=True)
class RankedCause:
    """One cause with how sure we are and why.

    probability : that it is at work: there, and behind these balls
    root : that it is at work and that one starts with it; the order of the list
    word : how sure, in words
    seen : whether it was seen, from the looks that show it; None where none was answered
    speaks_for, speaks_against : evidence that does so, alone and beside the others; largest first
    better_explained : evidence that fits this cause but that another explains better
    explains : dimension of the delivery to how much of the student's deviation it accounts for
    chain : cause, mechanisms, then what it does to club and ball
    ball_way_deg : start and curve of a straight ball under this cause alone, + push side
    comes_from : the cause that most likely brought it about, None where it comes by itself
    """

    id: str
    probability: float
    root: float
    seen: Seen | None
    word: str
    speaks_for: tuple[Said, ...]
    speaks_against: tuple[Said, ...]
    better_explained: tuple[Said, ...]
    explains: Mapping[str, float]
    chain: tuple[str, ...]
    ball_way_deg: tuple[float, float]
    comes_from: str | None


@dataclass(frozen=True)
class Diagnosis:
    """All that is concluded from a case; causes are in the order of `root`.

    start_with : the first of the order; None where nothing speaks for it
    explained : what explains the deviation of the delivery
    first_by_school : (heel and toe school, lead foot school) to the cause first in the order
    contradictions : checks answered with a clear yes and a clear no
    measured : looks that numbers answer by themselves
    verdicts : what the blocks hit with a constraint said
    ball_next : what the ball should do once the start is mended; None without a start or balls
    unexplained : what no cause seen so far accounts for, in a sentence; None where nothing is
    """

    pattern: Pattern
    standing: Standing
    start_with: str | None
    causes: tuple[RankedCause, ...]
    explained: Explained
    outside_feet: float
    next_checks: tuple[NextCheck, ...]
    drills: tuple[str, ...]
    schools_agree: bool
    first_by_school: Mapping[tuple[str, str], str]
    contradictions: tuple[str, ...]
    measured: tuple[Measured, ...]
    verdicts: tuple[Verdict, ...]
    ball_next: BallNext | None
    unexplained: str | None


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
    first = knowledge.causes[int(np.argmax(weighing.root))].id
    start = weighing.start_with
    path = pattern.path_deg.value if pattern.path_deg else None
    present = {c.id: float(p) for c, p in zip(knowledge.causes, now.present, strict=True)}
    looks = next_checks(weighing, at_hand)
    firsts = first_by_school(weighing)
    turns = turns_of(weighing, looks[:LOOKS_TRIED])
    explained = explained_by(weighing)
    alone = bits_alone(weighing)
    standing = in_words(where_it_stands(weighing, alone, turns, looks, explained), knowledge)
    return Diagnosis(
        pattern=pattern,
        standing=standing,
        start_with=start,
        causes=_ranked(weighing, alone, explained, thin=standing.kind == "not_enough"),
        explained=explained,
        outside_feet=float(now.cause_set[stories.outside_feet].sum()),
        next_checks=tuple(looks),
        drills=drills_for(start, knowledge, situation_of(case, present, path)) if start else (),
        schools_agree=set(firsts.values()) == {first},
        first_by_school=firsts,
        contradictions=(
            *contradictions(weighing.counted),
            *against_films(weighing.counted, case, knowledge),
        ),
        measured=weighing.measured,
        verdicts=verdicts(weighing),
        ball_next=ball_next(weighing, start, explained) if start else None,
        unexplained=unexplained_words(weighing, explained),
    )


def with_looks(diagnosis: Diagnosis, looks: Sequence[NextCheck], knowledge: Knowledge) -> Diagnosis:
    """The same with other looks to take next, which its sentences then quote."""
    standing = replace(diagnosis.standing, ask_first=looks[0].id if looks else None)
    return replace(diagnosis, next_checks=tuple(looks), standing=in_words(standing, knowledge))


def _ranked(
    weighing: Weighing, alone: FloatArray, explained: Explained, *, thin: bool
) -> tuple[RankedCause, ...]:
    """Every cause, in the order of `root`."""
    knowledge, now, root = weighing.knowledge, weighing.now, weighing.root
    tellings = _tellings(weighing)
    said = [noted(weighing, piece.id) for piece in weighing.pieces]
    club = weighing.setting.club
    from_above = came_from(weighing)
    found = []
    for i in np.argsort(-root, kind="stable").tolist():
        cause = knowledge.causes[i]
        mode, side = tellings[cause.id]
        found.append(
            RankedCause(
                id=cause.id,
                probability=float(now.present[i]),
                root=float(root[i]),
                seen=weighing.seen.get(cause.id),
                word=words.cause_word(
                    float(root[i]),
                    float(now.present[i]),
                    weighing.seen.get(cause.id),
                    weighing.pattern.balls,
                    knowledge.numbers,
                    thin=thin,
                ),
                explains=explained.causes[cause.id],
                **_evidence(weighing, said, alone, i, (mode, side)),
                chain=chain_of(cause, mode, side, weighing.pattern, knowledge),
                ball_way_deg=ball_way(cause, mode, side, club, knowledge),
                comes_from=from_above.get(cause.id),
            )
        )
    return tuple(found)


def _evidence(
    weighing: Weighing,
    noted_as: list[str],
    alone: FloatArray,
    column: int,
    told: tuple[Mode | None, str | None],
) -> dict[str, tuple[Said, ...]]:
    """The three lists of a cause's evidence.

    A line speaks for or against by the sign it has alone; where beside the others it has the other
    sign, either another cause explains it better or it only rules others out.
    """
    cause = weighing.knowledge.causes[column].id
    together = weighing.now.bits[:, column]
    lists: dict[str, list[Said]] = {"speaks_for": [], "speaks_against": [], "better_explained": []}
    tells = np.minimum(np.abs(together), np.abs(alone[:, column])) >= LEAST_BITS
    for row in np.flatnonzero(tells).tolist():
        piece, text = weighing.pieces[row].id, noted_as[row]
        bits, by_itself = float(together[row]), float(alone[row, column])
        if by_itself > 0 and bits > 0:
            lists["speaks_for"].append(Said(piece, bits, by_itself, text, None))
        elif by_itself < 0 and bits < 0:
            why = against(weighing, piece, text, cause, told)
            lists["speaks_against"].append(Said(piece, bits, by_itself, why, None))
        elif by_itself > 0:
            by = explains_better(weighing, row, alone, cause)
            lists["better_explained"].append(Said(piece, bits, by_itself, text, by))
    return {name: tuple(sorted(found, key=lambda s: -abs(s.bits))) for name, found in lists.items()}


def unexplained_words(weighing: Weighing, explained: Explained) -> str | None:
    """What is left over, in a sentence."""
    found = unexplained(weighing, explained)
    if found is None:
        return None
    return words.unexplained(found.name, found.left, weighing.case.handedness)


def came_from(weighing: Weighing) -> dict[str, str]:
    """Cause id to the cause that brought it about, where it most likely comes from another.

    Most likely: of the times it is at work, at least half the time some cause directly upstream is.
    """
    stories, now, causes = weighing.stories, weighing.now, weighing.knowledge.causes
    both = stories.members.T @ (stories.members * now.cause_set[:, None])
    from_any = now.cause_set @ (stories.members * (stories.links_into > 0))
    found = {}
    for i, cause in enumerate(causes):
        if from_any[i] > 0.5 * now.present[i]:
            above = np.where(stories.upstream[:, i] > 0, both[:, i], 0.0)
            found[cause.id] = causes[int(np.argmax(above))].id
    return found


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
