"""What moved since an earlier baseline, and is it more than chance?"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

from firm_footing.core.case import Case
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.patterns.chance import (
    NOTED,
    MeanDifference,
    change_of,
    change_of_estimates,
    floor_of,
    is_significant,
)
from firm_footing.core.patterns.pattern import Estimate, Pattern, read_pattern

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


@dataclass(frozen=True)
class BlockMove:
    """One number then and now.

    difference : now minus then, with its standard error
    sure : whether it is more than chance would make of one number in ten
    """

    name: str
    then: Estimate
    now: Estimate
    difference: Estimate
    sure: bool


def moved_since(then: Pattern, now: Pattern, numbers: Numbers) -> tuple[BlockMove, ...]:
    """Every number that both patterns show."""
    found = []
    for name in COMPARED:
        before: Estimate | None = getattr(then, name)
        after: Estimate | None = getattr(now, name)
        change = _change(name, then, now, numbers)
        if before is not None and after is not None and change is not None:
            difference = Estimate(after.value - before.value, change.se)
            found.append(
                BlockMove(name, before, after, difference, is_significant(change, numbers))
            )
    return tuple(found)


def _change(name: str, then: Pattern, now: Pattern, numbers: Numbers) -> MeanDifference | None:
    """By the balls where they were noted, else by what was worked out."""
    if name in NOTED:
        return change_of(then.values[name], now.values[name], floor_of(name, numbers))
    before, after = getattr(then, name), getattr(now, name)
    if before is None or after is None:
        return None
    sides = (before.value, before.se), (after.value, after.se)
    return change_of_estimates(*sides, (then.balls, now.balls))


def by_club(case: Case, knowledge: Knowledge) -> dict[str, Pattern]:
    """Club to what the baseline balls hit with it show, in the order they were hit."""
    clubs = dict.fromkeys(b.club for b in case.baselines if b.shots)
    return {
        club: read_pattern([b for b in case.baselines if b.club == club], knowledge, case.handicap)
        for club in clubs
    }


def moved_along(
    earlier: Mapping[str, Pattern], now: Mapping[str, Pattern], numbers: Numbers
) -> tuple[BlockMove, ...]:
    """What moved, each number with the first club that shows it both times.

    earlier, now : club to its pattern, as of `by_club`
    """
    found: dict[str, BlockMove] = {}
    for club in now:
        if club in earlier:
            for moved in moved_since(earlier[club], now[club], numbers):
                found.setdefault(moved.name, moved)
    return tuple(found.values())
