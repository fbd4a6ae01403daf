"""In which order does a cause reach the ball?"""

from functools import lru_cache

import numpy as np

from firm_footing.core.knowledge import DIMENSIONS, Cause, Club, Knowledge
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.core.patterns import Pattern
from firm_footing.core.physics.forward import (
    FACE_TO_PATH,
    LOW_POINT,
    PARTS,
    Setting,
    clear_of_ground_cm,
)
from firm_footing.core.physics.surrogate import DRIVER_MPS, land

EFFECT_WORDS: dict[str, tuple[str, str]] = {
    "path_deg": ("path_minus", "path_plus"),
    "face_to_path_deg": ("face_shut", "face_open"),
    "low_point_cm": ("turf_behind", "turf_ahead"),
    "heel_toe_mm": ("heel_strike", "toe_strike"),
    "dynamic_loft_deg": ("loft_lost", "loft_added"),
    "club_speed_pct": ("speed_lost", "speed_gained"),
}
"""Ends of a chain: what a negative and a positive shift of the delivery are called."""


def shown_by(
    chain: tuple[str, ...], pattern: Pattern, usual_low_cm: float, knowledge: Knowledge
) -> tuple[str, ...]:
    """The links of a chain that these balls show: the cause, and what leads to an end seen.

    usual_low_cm : the low point of a sound swing of this player, from an iron's ball
    """
    seen: set[str] = set()
    for name, (less, more) in EFFECT_WORDS.items():
        estimate = getattr(pattern, name)
        if estimate is not None:
            usual = usual_low_cm - pattern.ball_forward_cm if name == "low_point_cm" else 0.0
            off = estimate.value - usual
            if abs(off) >= knowledge.numbers.spoken.least[name]:
                seen.add(less if off < 0 else more)

    def shows(link: str) -> bool:
        mechanism = knowledge.mechanism.get(link)
        if mechanism is not None:
            ends = set(mechanism.says_already) | set(mechanism.leads_to)
            return not ends or bool(seen & ends)
        return link in knowledge.cause or link in seen

    return tuple(link for link in chain if shows(link))


def chain_of(
    cause: Cause, mode: Mode | None, side: str | None, pattern: Pattern, knowledge: Knowledge
) -> tuple[str, ...]:
    """Cause, the mechanisms it works through, then what it does to club and ball.

    Mechanisms that need another mode or side are left out; those that work for any cause once
    face and path are far apart come in when the pattern shows it in the cause's direction.
    """
    seen = pattern.face_to_path_deg.value if pattern.face_to_path_deg else 0.0
    own = knowledge.effects[cause.id, mode, side][FACE_TO_PATH]
    wide = abs(seen) if own * seen > 0 else 0.0
    glancing = tuple(m for m, beyond in _glancing(knowledge) if wide > beyond)
    return _chain(knowledge, cause.id, mode, side, glancing)


def chain_alone(cause: Cause, knowledge: Knowledge) -> tuple[str, ...]:
    """The chain of a cause whatever was seen: thrown where it has two modes, on no side."""
    return _chain(knowledge, cause.id, None, None, ())


@lru_cache(maxsize=4)
def _glancing(knowledge: Knowledge) -> tuple[tuple[str, float], ...]:
    """Mechanisms that work for any cause, and from which face to path on."""
    return tuple(
        (m.id, m.when_face_to_path_beyond_deg)
        for m in knowledge.mechanisms
        if m.when_face_to_path_beyond_deg is not None
    )


@lru_cache(maxsize=256)
def _chain(
    knowledge: Knowledge,
    cause_id: str,
    mode: Mode | None,
    side: str | None,
    glancing: tuple[str, ...],
) -> tuple[str, ...]:
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
    return (cause_id, *mechanisms, *glancing, *ends)


def ball_way(
    cause: Cause, mode: Mode | None, side: str | None, club: Club, knowledge: Knowledge
) -> tuple[float, float]:
    """Where this cause alone sends a straight ball: start and curve in degrees, + push side."""
    return _ball_ways(knowledge, club)[cause.id, mode, side]


@lru_cache(maxsize=32)
def _ball_ways(
    knowledge: Knowledge, club: Club
) -> dict[tuple[str, Mode | None, str | None], tuple[float, float]]:
    """Start and curve under every cause, mode and side; without shift at the head of the list."""
    parts = np.zeros((1 + len(knowledge.effects), len(PARTS)))
    setting = Setting(club, club.speed_share * DRIVER_MPS, False, knowledge.numbers.turf)
    parts[:, LOW_POINT] = clear_of_ground_cm(setting)
    parts[1:, : len(DIMENSIONS)] += np.array(list(knowledge.effects.values()))
    landed = land(parts, setting)
    starts = landed.launch.direction_deg - landed.launch.direction_deg[0]
    curves = landed.curve_deg - landed.curve_deg[0]
    ways = zip(starts[1:].tolist(), curves[1:].tolist(), strict=True)
    return dict(zip(knowledge.effects, ways, strict=True))
