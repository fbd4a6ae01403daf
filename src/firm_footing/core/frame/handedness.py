"""Which real side is the pull side, and which foot leads?

For a right-hander the pull side is left of the target line and the push side right of it; for a
left-hander it is the other way round. Mirroring is its own inverse.
"""

from collections.abc import Sequence
from typing import Literal

Handedness = Literal["right", "left"]
RealDirection = Literal["far_left", "left", "straight", "right", "far_right"]
NeutralDirection = Literal["far_pull", "pull", "straight", "push", "far_push"]

_REAL: tuple[RealDirection, ...] = ("far_left", "left", "straight", "right", "far_right")
_NEUTRAL: tuple[NeutralDirection, ...] = ("far_pull", "pull", "straight", "push", "far_push")


def mirror_deg(value: float, hand: Handedness) -> float:
    """Turn degrees or metres, + to the right of the target, into + to the push side, or back.

    Parameters
    ----------
    value : float
        Angle or sideways distance, either sign convention.
    hand : {"right", "left"}
        The golfer's hand.

    Returns
    -------
    float
        The same value in the other convention.

    """
    return value if hand == "right" else 0.0 - value


def to_neutral_word(word: RealDirection, hand: Handedness) -> NeutralDirection:
    """The golfer-neutral word for a real side."""
    return (_NEUTRAL if hand == "right" else _NEUTRAL[::-1])[_REAL.index(word)]


def to_real_word(word: NeutralDirection, hand: Handedness) -> RealDirection:
    """The real side for a golfer-neutral word."""
    return (_REAL if hand == "right" else _REAL[::-1])[_NEUTRAL.index(word)]


def neutral_feet(columns: Sequence[str], hand: Handedness) -> tuple[str, ...]:
    """Names of columns with `left_` and `right_` turned into `lead_` and `trail_`; others stay."""
    lead, trail = ("left_", "right_") if hand == "right" else ("right_", "left_")
    feet = {lead: "lead_", trail: "trail_"}
    return tuple(
        next((new + n.removeprefix(old) for old, new in feet.items() if n.startswith(old)), n)
        for n in columns
    )
