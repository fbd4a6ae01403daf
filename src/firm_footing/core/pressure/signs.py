"""What is wrong, by which school? The signs of a trace, and what they answer.

Each sign has a clearness: the probability that it is there, given the noise of the measure, the
doubt about the events, and the doubt about where the limit lies. A sign of several conditions is as
clear as the least clear of them.
"""

from dataclasses import dataclass
from itertools import pairwise
from math import hypot
from typing import Final, NamedTuple

from firm_footing.core.knowledge.pressure import Ranges, SignLimits, SwingEvent
from firm_footing.core.knowledge.soft_threshold import SoftThreshold, probability_beyond
from firm_footing.core.pressure.events import Events
from firm_footing.core.pressure.feet_signs import FeetSigns
from firm_footing.core.pressure.measures import Measures
from firm_footing.core.pressure.recorded import Recorded
from firm_footing.core.pressure.sign_seen import THERE, SignSeen

SIGNS: Final = (
    "late", "weak", "never_left", "rush", "retreat", "reversed", "toes_back", "heel_back",
    "heels_address", "figure_eight", "toes", "early_jump", "out_of_order", "messy",
)  # fmt: skip
ALONE: Final = {
    "toes_back": "toes_going_back",
    "heel_back": "trail_heel_deep_going_back",
    "heels_address": "sitting_in_heels",
}
"""Signs that are the very fact a check asks for."""
STAYS: Final = "stay_lead"
"""The pressure school in which most of the load is on the lead foot from the start."""


@dataclass(frozen=True)
class Judged:
    """What a trace says by a corridor.

    signs : all of them that could be judged, in the order of `SIGNS`
    answers : check to the probability that its fact is so, where the trace can tell
    deviation_pct : event to how far the lead share lies outside, + above, 0 within
    """

    signs: tuple[SignSeen, ...]
    answers: dict[str, float]
    deviation_pct: dict[SwingEvent, float]


class ByWhom(NamedTuple):
    """Who judges.

    school : the pressure school that says when the shift may start, and how early is too early
    ranges : the corridor in force
    heel_toe : the heel-and-toe school
    """

    school: str
    ranges: Ranges
    heel_toe: str


def detect_signs(
    recorded: Recorded, events: Events, measures: Measures, by: ByWhom, limits: SignLimits
) -> Judged:
    """The signs by a corridor and a heel-and-toe school."""
    judging = _Judging(recorded, events, measures, by, limits)
    signs = [s for s in (getattr(judging, name)() for name in SIGNS) if s is not None]
    return Judged(
        signs=tuple(signs),
        answers=judging.answers({s.id: s.clear for s in signs}),
        deviation_pct=judging.deviations(),
    )


class _Judging(FeetSigns):
    def __init__(
        self,
        recorded: Recorded,
        events: Events,
        measures: Measures,
        by: ByWhom,
        limits: SignLimits,
    ) -> None:
        super().__init__(recorded, events, measures, by.heel_toe, limits)
        self.school, self.ranges = by.school, by.ranges

    def late(self) -> SignSeen:
        """Starts rising only after the top and is still under the corridor at delivery.

        Where it never rises, nothing is late.
        """
        starts, under = self._starts_late(), self._under("shaft_level_down")
        rises = self._above(self.m.risen_pct, self.limits.reversed_rise_pct)
        after = self.m.shift_start_s - self.events["top"].t_s
        low = self.ranges["shaft_level_down"][0]
        share = self.m.lead_pct["shaft_level_down"]
        side = "after" if after > 0 else "before"
        words = (
            f"starts {abs(after):.2f} s {side} the top, {share:.0f} % at delivery, not {low:.0f}"
        )
        return SignSeen("late", min(starts, under, rises), self.m.shift_start_s, words)

    def weak(self) -> SignSeen:
        """Well under the corridor at impact."""
        share, low = self.m.lead_pct["impact"], self.ranges["impact"][0]
        clear = self._above(low - share, self.limits.weak_under_pct, "impact")
        words = f"{share:.0f} % at impact, not {low:.0f}"
        return SignSeen("weak", clear, self.events["impact"].t_s, words)

    def never_left(self) -> SignSeen:
        """At most 55 at impact and never above 65 from the top on."""
        at, peak = self.m.lead_pct["impact"], self.m.lead_peak
        low = self._below(at, self.limits.never_left_impact_pct, "impact")
        never = self._below(peak.value, self.limits.never_left_peak_pct)
        words = f"{at:.0f} % at impact, never above {peak.value:.0f} % from the top on"
        return SignSeen("never_left", min(low, never), self.events["impact"].t_s, words)

    def rush(self) -> SignSeen:
        """Above the corridor with the lead arm level coming down, or nearly all of it before."""
        event: SwingEvent = "lead_arm_level_down"
        high, share = self.ranges[event][1], self.m.lead_pct[event]
        early = self.m.lead_peak_early
        # who stands there at the top did not rush
        rose = self._above(
            early.value - self.m.lead_pct["top"], self.limits.reversed_rise_pct, "top"
        )
        above = min(rose, self._above(share - high, self.limits.rush_above_pct, event))
        before = min(rose, self._above(early.value, self.limits.rush_before_pct, event))
        if self.school == STAYS or before <= above:
            words = f"{share:.0f} % with the lead arm level, not up to {high:.0f}"
            return SignSeen("rush", above, self.events[event].t_s, words)
        words = f"{early.value:.0f} % before the lead arm is level"
        return SignSeen("rush", before, early.t_s, words)

    def retreat(self) -> SignSeen:
        """Falls from its peak before impact."""
        clear = self._above(self.m.retreat_pct, self.limits.retreat_pct, "impact")
        peak, end = self.m.lead_peak.value, self.m.lead_pct["impact"]
        words = f"falls from {peak:.0f} to {end:.0f} % before impact"
        return SignSeen("retreat", clear, self.m.lead_peak.t_s, words)

    def reversed(self) -> SignSeen:
        """Rises in the backswing and falls in the downswing.

        Who is taught to stay on the lead side need not rise: being in its corridor at the top, or
        above, is enough.
        """
        start, top, end = (self.m.lead_pct[e] for e in ("address", "top", "impact"))
        if self.school == STAYS:
            falls = self._above(top - end, self.limits.reversed_fall_pct, "impact")
            stayed = 1 - self._under("top")
            words = f"stays at {top:.0f} % going back, then falls to {end:.0f} %"
            return SignSeen("reversed", min(stayed, falls), self.events["top"].t_s, words)
        rises = self._above(top - start, self.limits.reversed_rise_pct, "top")
        falls = self._above(top - end, self.limits.reversed_fall_pct, "impact")
        words = f"rises from {start:.0f} to {top:.0f} % going back, then falls to {end:.0f} %"
        return SignSeen("reversed", min(rises, falls), self.events["top"].t_s, words)

    def early_jump(self) -> SignSeen | None:
        """The vertical peak clearly before the lead arm is level coming down."""
        peak = self.m.peaks.get("up")
        if peak is None:
            return None
        event = self.events["lead_arm_level_down"]
        early = event.t_s - peak.t_s
        clear = probability_beyond(early, self.limits.early_jump_s, hypot(event.sd_s, 0.005))
        words = f"peak of {peak.value:.0f} % {early:.2f} s before the lead arm is level"
        return SignSeen("early_jump", clear, peak.t_s, words)

    def out_of_order(self) -> SignSeen | None:
        """Sideways, then turning, then up: the peaks come in another order."""
        peaks = list(self.m.peaks.items())
        if len(peaks) < 2:
            return None
        gaps = [later.t_s - sooner.t_s for (_, sooner), (_, later) in pairwise(peaks)]
        clear = max(1 - probability_beyond(gap, self.limits.order_s, 0.005) for gap in gaps)
        came = sorted(peaks, key=lambda p: p[1].t_s)
        words = "peaks come " + ", then ".join(name for name, _ in came)
        return SignSeen("out_of_order", clear, came[0][1].t_s, words)

    def messy(self) -> SignSeen | None:
        """The centre of pressure wanders."""
        ratio = self.m.path_ratio
        if ratio is None:
            return None
        clear = probability_beyond(ratio, self.limits.messy_ratio, 0.05)
        words = f"wanders {ratio:.1f} times the straight way from the top to impact"
        return SignSeen("messy", clear, self.events["shaft_level_down"].t_s, words)

    def answers(self, clear: dict[str, float]) -> dict[str, float]:
        """What the signs say of their checks."""
        found = {
            "shift_starts_after_top": clear["late"],
            "lead_rush_early": clear["rush"],
            "lead_peak_then_retreat": clear["retreat"],
            "leans_lead_going_back": clear["reversed"],
        }
        loaded_late = 1 - self._below(
            self.m.lead_pct["shaft_level_back"] - self.ranges["shaft_level_back"][1],
            SoftThreshold(at=0.0, sd=self.limits.corridor_sd_pct),
            "shaft_level_back",
        )
        if clear["late"] >= THERE or loaded_late < THERE:
            found["loads_late"] = min(clear["late"], loaded_late)
        half = self._below(self.m.lead_pct["impact"], self.limits.half_at_impact_pct, "impact")
        weak = self.limits.weak_share
        found["half_or_more_trail_at_impact"] = clear["weak"] * (weak + (1 - weak) * half)
        for sign, check in ALONE.items():
            if sign in clear:
                found[check] = clear[sign]
        feet = self.toe_clearness()
        if len(feet) == 2:
            both, one = min(feet.values()), max(feet.values())
            found["toes_both_in_transition"] = both + self.limits.one_foot_share * (one - both)
        if "early_jump" in clear:
            found["vertical_peak_early"] = clear["early_jump"]
        return found

    def deviations(self) -> dict[SwingEvent, float]:
        """How far each event lies outside of its corridor."""
        found: dict[SwingEvent, float] = {}
        for name, (low, high) in self.ranges.items():
            share = self.m.lead_pct[name]
            found[name] = max(0.0, share - high) + min(0.0, share - low)
        return found

    def _starts_late(self) -> float:
        top = self.events["top"]
        after = self.m.shift_start_s - top.t_s
        return probability_beyond(
            after, self.limits.shift_after_top_s[self.school], hypot(top.sd_s, 0.01)
        )

    def _under(self, event: SwingEvent) -> float:
        low = SoftThreshold(at=self.ranges[event][0], sd=self.limits.corridor_sd_pct)
        return self._below(self.m.lead_pct[event], low, event)

    def _above(self, value: float, limit: SoftThreshold, event: SwingEvent | None = None) -> float:
        return probability_beyond(value, limit, self._doubt(event))

    def _below(self, value: float, limit: SoftThreshold, event: SwingEvent | None = None) -> float:
        return 1 - probability_beyond(value, limit, self._doubt(event))

    def _doubt(self, event: SwingEvent | None) -> float:
        """Of a share at this event: noise, and what it changes by within the event's doubt."""
        noise = self.recorded.noise_pct
        if event is None:
            return noise
        t, _, sd = self.events[event]
        r = self.recorded
        moves = abs(r.lead_at(t + sd) - r.lead_at(t - sd)) / 2
        hole = any(a < t < b for a, b in r.gaps)
        return hypot(noise, moves, self.limits.gap_sd_pct if hole else 0.0)
