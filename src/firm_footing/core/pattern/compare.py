"""What moved since an earlier baseline, and is it more than chance?"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from firm_footing.core.case import Case
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pattern.pattern import Estimate, Pattern, read_pattern

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


def by_club(case: Case, knowledge: Knowledge) -> dict[str, Pattern]:
    """Club to what the baseline balls hit with it show, in the order they were hit."""
    clubs = dict.fromkeys(b.club for b in case.baselines if b.shots)
    return {
        club: read_pattern([b for b in case.baselines if b.club == club], knowledge, case.handicap)
        for club in clubs
    }


def moved_along(earlier: Mapping[str, Pattern], now: Mapping[str, Pattern]) -> tuple[Moved, ...]:
    """What moved, each number with the first club that shows it both times.

    earlier, now : club to its pattern, as of `by_club`
    """
    found: dict[str, Moved] = {}
    for club in now:
        if club in earlier:
            for moved in moved_since(earlier[club], now[club]):
                found.setdefault(moved.name, moved)
    return tuple(found.values())
