"""Swings on the mat before and after: which shares moved, which signs are gone?"""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean
from typing import Final

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.knowledge.pressure import SwingEvent
from firm_footing.core.patterns.chance import MeanDifference, change_of, is_significant
from firm_footing.core.pressure.several import mean_trace, usual_signs
from firm_footing.core.pressure.trace import TraceRead

NOISE_PCT: Final = 2.0
"""Of one share at one event: the mat's own and the event's; an estimate."""
EVENTS: Final[tuple[SwingEvent, ...]] = ("top", "lead_arm_level_down", "shaft_level_down", "impact")
"""Where shares are compared."""


@dataclass(frozen=True, eq=False)
class TimedSwings:
    """Swings of one time, as one line.

    t_s : (n,) seconds from impact
    lead_pct, sd_pct : (n,) lead share and its spread between swings; NaN where nothing was recorded
    swings : how many
    """

    t_s: FloatArray
    lead_pct: FloatArray
    sd_pct: FloatArray
    swings: int


@dataclass(frozen=True)
class EventShare:
    """The lead share at one event.

    before, after : means, per cent of both feet
    change : with Welch's test; None with fewer than two swings on a side
    sure : whether it moved by more than chance does in one number of ten
    """

    event: SwingEvent
    before: float
    after: float
    change: MeanDifference | None
    sure: bool


@dataclass(frozen=True, eq=False)
class TracesCompared:
    """Swings before and after, by the same corridor.

    events : of the swings after, seconds from impact on average
    gone, still, new : ids of signs that at least half of the swings showed
    """

    before: TimedSwings
    after: TimedSwings
    events: dict[SwingEvent, float]
    shares: tuple[EventShare, ...]
    gone: tuple[str, ...]
    still: tuple[str, ...]
    new: tuple[str, ...]


def lay_over(
    before: Sequence[TraceRead], after: Sequence[TraceRead], numbers: Numbers
) -> TracesCompared | None:
    """Swings made without a drill, before and after; None where a side has none."""
    if not before or not after:
        return None
    then, now = usual_signs(before), usual_signs(after)
    return TracesCompared(
        before=_laid(before),
        after=_laid(after),
        events={
            name: fmean(s.events[name].t_s - s.events["impact"].t_s for s in after)
            for name in after[0].events
        },
        shares=tuple(_share(event, before, after, numbers) for event in EVENTS),
        gone=tuple(s for s in then if s not in now),
        still=tuple(s for s in then if s in now),
        new=tuple(s for s in now if s not in then),
    )


def _laid(swings: Sequence[TraceRead]) -> TimedSwings:
    mean = mean_trace(swings)
    return TimedSwings(mean.t_s, mean.mean_pct, mean.sd_pct, len(swings))


def _share(
    event: SwingEvent, before: Sequence[TraceRead], after: Sequence[TraceRead], numbers: Numbers
) -> EventShare:
    was, is_now = ([s.measures.lead_pct[event] for s in side] for side in (before, after))
    change = change_of(was, is_now, NOISE_PCT)
    return EventShare(event, fmean(was), fmean(is_now), change, is_significant(change, numbers))
