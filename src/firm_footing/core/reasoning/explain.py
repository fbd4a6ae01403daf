"""In which order does a cause reach the ball?"""

from functools import lru_cache

from firm_footing.core.ball import Pattern
from firm_footing.core.knowledge import DIMENSIONS, Cause, Club, Knowledge
from firm_footing.core.knowledge.vocabulary import Mode

EFFECT_WORDS: dict[str, tuple[str, str]] = {
    "path_deg": ("path_minus", "path_plus"),
    "face_to_path_deg": ("face_shut", "face_open"),
    "low_point_cm": ("turf_behind", "turf_ahead"),
    "heel_toe_mm": ("heel_strike", "toe_strike"),
    "dynamic_loft_deg": ("loft_lost", "loft_added"),
    "club_speed_pct": ("speed_lost", "speed_gained"),
}
"""Ends of a chain: what a negative and a positive shift of the delivery are called."""


def chain_of(
    cause: Cause, mode: Mode | None, side: str | None, pattern: Pattern, knowledge: Knowledge
) -> tuple[str, ...]:
    """Cause, the mechanisms it works through, then what it does to club and ball.

    Mechanisms that need another mode or side are left out; those that work for any cause once
    face and path are far apart come in when the pattern shows it in the cause's direction.
    """
    reached, ends = _from_knowledge(knowledge, cause.id, mode, side)
    seen = pattern.face_to_path_deg.value if pattern.face_to_path_deg else 0.0
    own = knowledge.effects[cause.id, mode, side][DIMENSIONS.index("face_to_path_deg")]
    glancing = tuple(
        m.id
        for m in knowledge.mechanisms
        if m.when_face_to_path_beyond_deg is not None
        and abs(seen) > m.when_face_to_path_beyond_deg
        and own * seen > 0
    )
    return (cause.id, *reached, *glancing, *ends)


@lru_cache(maxsize=256)
def _from_knowledge(
    knowledge: Knowledge, cause_id: str, mode: Mode | None, side: str | None
) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """The mechanisms and the ends of a cause's chain, as far as no pattern is needed."""
    mechanisms = tuple(
        w.mechanism
        for w in knowledge.cause[cause_id].workings
        if w.mode in (None, mode or "thrown") and w.side in (None, side)
    )
    said = {end for m in mechanisms for end in knowledge.mechanism[m].says_already}
    ends = tuple(
        end
        for name, value in zip(DIMENSIONS, knowledge.effects[cause_id, mode, side], strict=True)
        if value and (end := EFFECT_WORDS[name][value > 0]) not in said
    )
    return mechanisms, ends


def ball_way(
    cause: Cause, mode: Mode | None, side: str | None, club: Club, knowledge: Knowledge
) -> tuple[float, float]:
    """Where this cause alone sends a straight ball: start and curve in degrees, + push side."""
    effect = knowledge.effects[cause.id, mode, side]
    path = effect[DIMENSIONS.index("path_deg")]
    face_to_path = effect[DIMENSIONS.index("face_to_path_deg")]
    return path + club.start_face_share * face_to_path, club.curve_per_deg * face_to_path
