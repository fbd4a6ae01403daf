"""What moved since an earlier baseline, and is it more than chance?"""

from dataclasses import dataclass
from typing import Final

from firm_footing.core.pattern.pattern import Estimate, Pattern

COMPARED: Final = (
    "start_deg",
    "curve_deg",
    "path_deg",
    "face_to_path_deg",
    "low_point_cm",
    "heel_toe_mm",
    "dynamic_loft_deg",
    "club_speed_pct",
    "carry_lost_pct",
)
SURE_FROM: Final = 1.645
"""Standard errors; chance alone moves one number in ten as far."""


@dataclass(frozen=True)
class Moved:
    """One number then and now.

    difference : now minus then, with its standard error
    sure : whether it is more than chance would make of one number in ten
    """

    name: str
    then: Estimate
    now: Estimate
    difference: Estimate
    sure: bool


def moved_since(then: Pattern, now: Pattern) -> tuple[Moved, ...]:
    """Every number that both patterns show."""
    found = []
    for name in COMPARED:
        before: Estimate | None = getattr(then, name)
        after: Estimate | None = getattr(now, name)
        if before is not None and after is not None:
            se = (before.se**2 + after.se**2) ** 0.5
            difference = Estimate(after.value - before.value, se)
            sure = abs(difference.value) > SURE_FROM * se
            found.append(Moved(name, before, after, difference, sure))
    return tuple(found)
