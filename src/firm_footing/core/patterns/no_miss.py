"""Is there a miss at all that a cause could be behind?

A ball is sound when it starts near the target, hardly curves, is struck near the middle of the face
and cleanly, and goes about as far as expected, as far as that was noted. There is no miss when most
of a player's balls are sound.
"""

from collections.abc import Sequence

from scipy.special import betaincc

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.readings import as_reading, curve_deg, start_deg
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.patterns.chance import carry_lost_pct


def no_miss(balls: Sequence[tuple[Shot, Block]], numbers: Numbers) -> float | None:
    """Probability that most balls of this player are sound, from those that were seen whole.

    Each ball seen is one draw of an unknown share of sound ones, all shares alike beforehand. None
    where no ball was noted with flight and strike.
    """
    judged = [is_sound(shot, block, numbers) for shot, block in balls]
    known = [sound for sound in judged if sound is not None]
    if not known:
        return None
    sound = sum(known)
    return float(betaincc(sound + 1, len(known) - sound + 1, numbers.no_miss.most))


def is_sound(shot: Shot, block: Block, numbers: Numbers) -> bool | None:
    """Whether a ball is sound; None where its flight, or its strike and contact, are not known."""
    limits = numbers.no_miss
    if shot.contact not in (None, "clean"):
        return False
    start = start_deg(shot, numbers)
    curve = curve_deg(shot, numbers, start)
    if start is None or curve is None or (shot.contact is None and shot.heel_toe_mm is None):
        return None
    return (
        abs(as_reading(start, numbers).value) <= limits.start_deg
        and abs(as_reading(curve, numbers).value) <= limits.curve_deg
        and abs(shot.heel_toe_mm or 0.0) <= limits.heel_toe_mm
        and (carry_lost_pct(shot, block) or 0.0) <= limits.carry_lost_pct
        and _divot_behind_cm(shot) <= limits.divot_behind_cm
    )


def _divot_behind_cm(shot: Shot) -> float:
    return -(shot.divot_start_cm or shot.brush_start_cm or 0.0)
