"""Which causes fit all the evidence of a case, and where should the lesson start?

`diagnose` is a pure function: a case and the knowledge in, a diagnosis out.
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from firm_footing.core.case import Case
from firm_footing.core.coaching import drills_for, situation_of
from firm_footing.core.conclusions.attribution import Attribution, attribution_of, unexplained
from firm_footing.core.conclusions.chain import ball_way, chain_of
from firm_footing.core.conclusions.decision_status import DecisionStatus, decision_status_of
from firm_footing.core.conclusions.next_check import NextCheck, decision_flips, next_checks
from firm_footing.core.conclusions.schools import SchoolStart, start_by_school
from firm_footing.core.conclusions.separating import TrialResult, trial_results
from firm_footing.core.conclusions.single_cause import (
    LEAST_BITS,
    explains_better,
    single_cause_log2_lr,
)
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.answers import contradictions
from firm_footing.core.inference.film_answers import against_films
from firm_footing.core.inference.inference import Inference, infer
from firm_footing.core.inference.links import links_of, links_within
from firm_footing.core.inference.measured_answers import Measured
from firm_footing.core.inference.prior import view_shares
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Mode, Seen, Source
from firm_footing.core.patterns import Pattern
from firm_footing.core.text import words
from firm_footing.core.text.ball_next import BallNext, ball_next
from firm_footing.core.text.decision import in_words
from firm_footing.core.text.evidence_lines import against, noted

CHECKS_TRIED = 3
"""How many of the best looks are tried out for what they could change."""
HALF = 0.5 + 1e-9
"""More than this is the likelier of two; where nothing tells them apart, rounding does not."""


class EvidenceLine(NamedTuple):
    """A piece of evidence for one cause.

    bits : log2 of the cause's odds with everything, minus the same without this piece
    alone_bits : log2 likelihood ratio of the piece, the cause alone against none
    text : as one would say it
    by : the cause that explains it better, None otherwise
    """

    evidence: str
    bits: float
    single_cause_log2_lr: float
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
    speaks_for: tuple[EvidenceLine, ...]
    speaks_against: tuple[EvidenceLine, ...]
    better_explained: tuple[EvidenceLine, ...]
    explains: Mapping[str, float]
    chain: tuple[str, ...]
    ball_way_deg: tuple[float, float]
    comes_from: str | None


@dataclass(frozen=True)
class Diagnosis:
    """All that is concluded from a case; causes are in the order of `root`.

    start_with : the first of the order; None where nothing speaks for it
    attribution : what explains the deviation of the delivery
    schools_agree : whether every school would have the same cause first
    start_elsewhere : the schools that would have another
    contradictions : checks answered with a clear yes and a clear no
    measured : looks that numbers answer by themselves
    verdicts : what the blocks hit with a constraint said
    ball_next : what the ball should do once the start is mended; None without a start or balls
    unexplained : what no cause seen so far accounts for, in a sentence; None where nothing is, and
        where the balls hardly miss
    """

    pattern: Pattern
    decision_status: DecisionStatus
    start_with: str | None
    causes: tuple[RankedCause, ...]
    attribution: Attribution
    outside_feet: float
    next_checks: tuple[NextCheck, ...]
    drills: tuple[str, ...]
    schools_agree: bool
    start_elsewhere: tuple[SchoolStart, ...]
    contradictions: tuple[str, ...]
    measured: tuple[Measured, ...]
    trial_results: tuple[TrialResult, ...]
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
    inference = infer(case, knowledge)
    space, now, pattern = inference.space, inference.now, inference.pattern
    first = knowledge.causes[int(np.argmax(inference.root))].id
    start = inference.start_with
    path = pattern.path_deg.value if pattern.path_deg else None
    present = {c.id: float(p) for c, p in zip(knowledge.causes, now.present, strict=True)}
    checks = next_checks(inference, at_hand)
    elsewhere: tuple[SchoolStart, ...] = ()
    if start is not None:  # before anything is known there is no start to differ from
        elsewhere = tuple(s for s in start_by_school(inference) if s.start_with != first)
    flips = decision_flips(inference, checks[:CHECKS_TRIED])
    attribution = attribution_of(inference)
    single_cause = single_cause_log2_lr(inference)
    found = decision_status_of(inference, single_cause, flips, checks, attribution)
    decision_status = in_words(found, knowledge)
    return Diagnosis(
        pattern=pattern,
        decision_status=decision_status,
        start_with=start,
        causes=_ranked(inference, single_cause, attribution, thin=found.kind == "not_enough"),
        attribution=attribution,
        outside_feet=float(now.cause_set[space.outside_feet].sum()),
        next_checks=tuple(checks),
        drills=drills_for(start, knowledge, situation_of(case, present, path)) if start else (),
        schools_agree=not elsewhere,
        start_elsewhere=elsewhere,
        contradictions=_contradictions(inference),
        measured=inference.measured,
        trial_results=trial_results(inference),
        ball_next=ball_next(inference, start, attribution) if start else None,
        unexplained=None if found.no_miss else unexplained_words(inference, attribution),
    )


def _contradictions(inference: Inference) -> tuple[str, ...]:
    """Checks whose answers do not go together."""
    counted = inference.counted
    filmed = against_films(counted, inference.case, inference.knowledge)
    return (*contradictions(counted), *filmed)


def with_checks(
    diagnosis: Diagnosis, checks: Sequence[NextCheck], knowledge: Knowledge
) -> Diagnosis:
    """The same with other looks to take next, which its sentences then quote."""
    decision_status = replace(diagnosis.decision_status, ask_first=checks[0].id if checks else None)
    return replace(
        diagnosis, next_checks=tuple(checks), decision_status=in_words(decision_status, knowledge)
    )


def _ranked(
    inference: Inference, single_cause: FloatArray, attribution: Attribution, *, thin: bool
) -> tuple[RankedCause, ...]:
    """Every cause, in the order of `root`."""
    knowledge, now, root = inference.knowledge, inference.now, inference.root
    tellings = _tellings(inference)
    said = [noted(inference, piece.id) for piece in inference.pieces]
    club = inference.setting.club
    from_above = came_from(inference)
    found = []
    for i in np.argsort(-root, kind="stable").tolist():
        cause = knowledge.causes[i]
        mode, side = tellings[cause.id]
        found.append(
            RankedCause(
                id=cause.id,
                probability=float(now.present[i]),
                root=float(root[i]),
                seen=inference.seen.get(cause.id),
                word=words.cause_word(
                    float(root[i]),
                    float(now.present[i]),
                    inference.seen.get(cause.id),
                    inference.pattern.balls,
                    knowledge.numbers,
                    thin=thin,
                ),
                explains=attribution.causes[cause.id],
                **_evidence(inference, said, single_cause, attribution, i, (mode, side)),
                chain=chain_of(cause, mode, side, inference.pattern, knowledge),
                ball_way_deg=ball_way(cause, mode, side, club, knowledge),
                comes_from=from_above.get(cause.id),
            )
        )
    return tuple(found)


def _evidence(
    inference: Inference,
    noted_as: list[str],
    single_cause: FloatArray,
    attribution: Attribution,
    column: int,
    told: tuple[Mode | None, str | None],
) -> dict[str, tuple[EvidenceLine, ...]]:
    """The three lists of a cause's evidence.

    A line speaks for or against by the sign it has alone; where beside the others it has the other
    sign, either another cause explains it better or it only rules others out.
    """
    cause = inference.knowledge.causes[column].id
    together = inference.now.bits[:, column]
    lists: dict[str, list[EvidenceLine]] = {
        "speaks_for": [],
        "speaks_against": [],
        "better_explained": [],
    }
    tells = np.minimum(np.abs(together), np.abs(single_cause[:, column])) >= LEAST_BITS
    for row in np.flatnonzero(tells).tolist():
        piece, text = inference.pieces[row].id, noted_as[row]
        bits, by_itself = float(together[row]), float(single_cause[row, column])
        if by_itself > 0 and bits > 0:
            lists["speaks_for"].append(EvidenceLine(piece, bits, by_itself, text, None))
        elif by_itself < 0 and bits < 0:
            why = against(inference, piece, text, cause, told)
            lists["speaks_against"].append(EvidenceLine(piece, bits, by_itself, why, None))
        elif by_itself > 0 and (
            by := explains_better(inference, row, single_cause, cause, attribution)
        ):
            lists["better_explained"].append(EvidenceLine(piece, bits, by_itself, text, by))
    return {name: tuple(sorted(found, key=lambda s: -abs(s.bits))) for name, found in lists.items()}


def unexplained_words(inference: Inference, attribution: Attribution) -> str | None:
    """What is left over, in a sentence."""
    found = unexplained(inference, attribution)
    if found is None:
        return None
    return words.unexplained(found.name, found.left, inference.case.handedness)


def came_from(inference: Inference) -> dict[str, str]:
    """Cause id to the cause that brought it about, where it most likely comes from another.

    Most likely: of the times it is at work, at least half the time some cause directly upstream is.
    """
    space, now, causes = inference.space, inference.now, inference.knowledge.causes
    from_any, links = np.zeros(len(causes)), np.zeros((len(causes), len(causes)))
    shares = view_shares(space, inference.schools, slice(None))
    for share, (counts, dropped) in zip(shares, inference.schools.views, strict=True):
        brought = links_within(space, dropped).any(axis=0)
        from_any += space.to_causes(now.cause_set * share * brought)
        links += counts * links_of(inference.knowledge, dropped)
    found = {}
    for i in np.flatnonzero(from_any > 0.5 * now.present).tolist():
        both = (now.cause_set * space.members[:, i]) @ space.members
        found[causes[i].id] = causes[int(np.argmax(links[:, i] * both))].id
    return found


def _tellings(inference: Inference) -> dict[str, tuple[Mode | None, str | None]]:
    """The mode and side in which each cause is most probable now."""
    space, now = inference.space, inference.now
    columns, second = space.two_tellings
    shares = dict(zip(columns, (inference.configuration @ second).tolist(), strict=True))
    found: dict[str, tuple[Mode | None, str | None]] = {}
    for i, cause in enumerate(space.knowledge.causes):
        is_second = shares.get(i, 0.0) > HALF * float(now.present[i])
        mode: Mode | None = ("stuck" if is_second else "thrown") if cause.skill else None
        found[cause.id] = mode, cause.sides[is_second].id if cause.sides else None
    return found
