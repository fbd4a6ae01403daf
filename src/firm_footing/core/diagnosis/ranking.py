"""How is a diagnosis told to others? The shape of `firm-footing rank --json`.

Typed dictionaries: a ranking holds close to a thousand small parts, and dictionaries are what JSON
wants in the end.
"""

from collections.abc import Mapping
from typing import Any, cast

from typing_extensions import TypedDict

from firm_footing.core.conclusions.attribution import words_of
from firm_footing.core.diagnosis.diagnosis import Diagnosis, EvidenceLine
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import CauseGroup, Seen
from firm_footing.core.patterns import Estimate, Pattern


class EvidenceBits(TypedDict):
    """A piece of evidence, its bits for one cause, and the same in words.

    bits : log2 of the odds with everything, minus the same without it
    """

    evidence: str
    bits: float
    text: str


class BetterExplained(EvidenceBits):
    """Evidence that fits this cause but that another cause, `by`, explains better."""

    by: str | None


class Account(TypedDict, total=False):
    """Parts of the student's deviation, posterior means; numbers that are not known left out."""

    path_deg: float
    face_to_path_deg: float
    low_point_cm: float
    heel_toe_mm: float
    club_speed_pct: float


class ExplainedWords(TypedDict, total=False):
    """How much of each miss a cause accounts for: strongly, partly or hardly."""

    path_deg: str
    face_to_path_deg: str
    low_point_cm: str
    heel_toe_mm: str
    club_speed_pct: str


class PatternSummary(TypedDict):
    """The pattern of the baseline blocks; golfer-neutral, null where not known."""

    balls: int
    start_deg: float | None
    curve_deg: float | None
    path_deg: float | None
    face_to_path_deg: float | None
    low_point_cm: float | None
    heel_toe_mm: float | None
    carry_lost_pct: float | None
    shape: str | None
    two_way: bool


CauseRank = TypedDict(
    "CauseRank",
    {
        "id": str,
        "probability": float,  # that it is at work: there, and behind these balls
        "root": float,  # that it is at work and that one starts with it; the order of the list
        "word": str,
        "seen": Seen | None,
        "group": CauseGroup,
        "comes_from": str | None,
        "for": list[EvidenceBits],
        "against": list[EvidenceBits],
        "better_explained": list[BetterExplained],
        "explains": Account,
        "explains_words": ExplainedWords,
        "chain": list[str],
    },
)


class NextCheckRank(TypedDict):
    """A look not yet taken."""

    id: str
    gain_bits: float
    seconds: int


class SchoolElsewhere(TypedDict):
    """A school that would start with another cause; what was chosen in other questions stays."""

    question: str
    option: str
    start_with: str


class Ranking(TypedDict):
    """The diagnosis of one case."""

    enough: bool
    enough_reason: str
    pattern: PatternSummary
    start_with: str | None
    causes: list[CauseRank]
    deviation: Account
    explains_person: Account
    left_over: Account
    unexplained: str | None
    ball_next: str | None
    outside_feet: float
    next_checks: list[NextCheckRank]
    drills: list[str]
    schools_agree: bool
    schools_elsewhere: list[SchoolElsewhere]


def ranked_first(kept: Mapping[str, Any]) -> str | None:
    """The cause that was first in a ranking kept as JSON, of this or an earlier version."""
    causes = kept.get("causes") or []
    return kept.get("start_with") or (causes[0]["id"] if causes else None)


def rests_on_something(ranking: Ranking) -> bool:
    """Whether any ball or look spoke when it was made: else its first is only the commonest."""
    return ranking["pattern"]["balls"] > 0 or any(
        c["for"] or c["against"] for c in ranking["causes"]
    )


def ranking_of(diagnosis: Diagnosis, knowledge: Knowledge) -> Ranking:
    """The contract's shape of a diagnosis; degrees, cm, mm and per cent to one decimal."""
    spoken = knowledge.numbers.spoken
    return {
        "enough": diagnosis.decision_status.enough,
        "enough_reason": diagnosis.decision_status.reason,
        "pattern": _pattern(diagnosis.pattern),
        "start_with": diagnosis.start_with,
        "causes": [
            {
                "id": c.id,
                "probability": c.probability,
                "root": c.root,
                "word": c.word,
                "seen": c.seen,
                "group": knowledge.cause[c.id].group,
                "comes_from": c.comes_from,
                "for": _bits(c.speaks_for),
                "against": _bits(c.speaks_against),
                "better_explained": [
                    {"evidence": s.evidence, "bits": s.bits, "text": s.text, "by": s.by}
                    for s in c.better_explained
                ],
                "explains": _account(c.explains),
                "explains_words": cast(
                    ExplainedWords, words_of(c.explains, diagnosis.attribution.deviation, spoken)
                ),
                "chain": list(c.chain),
            }
            for c in diagnosis.causes
        ],
        "deviation": _account(diagnosis.attribution.deviation),
        "explains_person": _account(diagnosis.attribution.person),
        "left_over": _account(diagnosis.attribution.left_over),
        "unexplained": diagnosis.unexplained,
        "ball_next": None if diagnosis.ball_next is None else diagnosis.ball_next.sentence,
        "outside_feet": diagnosis.outside_feet,
        "next_checks": [
            {"id": c.id, "gain_bits": c.gain_bits, "seconds": c.seconds}
            for c in diagnosis.next_checks
        ],
        "drills": list(diagnosis.drills),
        "schools_agree": diagnosis.schools_agree,
        "schools_elsewhere": [
            {"question": s.question, "option": s.option, "start_with": s.start_with}
            for s in diagnosis.start_elsewhere
        ],
    }


def _bits(said: tuple[EvidenceLine, ...]) -> list[EvidenceBits]:
    return [{"evidence": s.evidence, "bits": s.bits, "text": s.text} for s in said]


def _account(parts: Mapping[str, float]) -> Account:
    return cast(Account, dict(parts))


def _pattern(p: Pattern) -> PatternSummary:
    def rounded(e: Estimate | None) -> float | None:
        return None if e is None else round(e.value, 1)

    return {
        "balls": p.balls,
        "start_deg": rounded(p.start_deg),
        "curve_deg": rounded(p.curve_deg),
        "path_deg": rounded(p.path_deg),
        "face_to_path_deg": rounded(p.face_to_path_deg),
        "low_point_cm": rounded(p.low_point_cm),
        "heel_toe_mm": rounded(p.heel_toe_mm),
        "carry_lost_pct": rounded(p.carry_lost_pct),
        "shape": p.shape,
        "two_way": bool(p.two_way),
    }
