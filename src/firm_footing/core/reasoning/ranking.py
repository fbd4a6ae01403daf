"""How is a diagnosis told to others? The shape of `firm-footing rank --json`.

Typed dictionaries: a ranking holds close to a thousand small parts, and dictionaries are what JSON
wants in the end.
"""

from typing_extensions import TypedDict

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Group
from firm_footing.core.pattern import Estimate, Pattern
from firm_footing.core.reasoning.diagnosis import Diagnosis
from firm_footing.core.reasoning.evidence import Weighed


class EvidenceBits(TypedDict):
    """A piece of evidence and its bits for one cause: log2 odds with it minus without it."""

    evidence: str
    bits: float


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
        "probability": float,  # that it is present
        "root": float,  # that it is present and no cause upstream of it is
        "group": Group,
        "for": list[EvidenceBits],
        "against": list[EvidenceBits],
        "chain": list[str],
    },
)


class NextCheckRank(TypedDict):
    """A look not yet taken."""

    id: str
    gain_bits: float
    seconds: int


class Ranking(TypedDict):
    """The diagnosis of one case."""

    enough: bool
    enough_reason: str
    pattern: PatternSummary
    start_with: str
    causes: list[CauseRank]
    outside_feet: float
    next_checks: list[NextCheckRank]
    drills: list[str]
    schools_agree: bool


def ranking_of(diagnosis: Diagnosis, knowledge: Knowledge) -> Ranking:
    """The contract's shape of a diagnosis; degrees, cm, mm and per cent to one decimal."""
    return {
        "enough": diagnosis.standing.enough,
        "enough_reason": diagnosis.standing.reason,
        "pattern": _pattern(diagnosis.pattern),
        "start_with": diagnosis.start_with,
        "causes": [
            {
                "id": c.id,
                "probability": c.probability,
                "root": c.root,
                "group": knowledge.cause[c.id].group,
                "for": _bits(c.speaks_for),
                "against": _bits(c.speaks_against),
                "chain": list(c.chain),
            }
            for c in diagnosis.causes
        ],
        "outside_feet": diagnosis.outside_feet,
        "next_checks": [
            {"id": c.id, "gain_bits": c.gain_bits, "seconds": c.seconds}
            for c in diagnosis.next_checks
        ],
        "drills": list(diagnosis.drills),
        "schools_agree": diagnosis.schools_agree,
    }


def _bits(weighed: tuple[Weighed, ...]) -> list[EvidenceBits]:
    return [{"evidence": w.evidence, "bits": w.bits} for w in weighed]


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
