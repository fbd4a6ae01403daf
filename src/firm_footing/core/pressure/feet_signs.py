"""What the pressure within each foot shows, heel to toe, as the heel-and-toe school judges it."""

from typing import Final

from firm_footing.core.knowledge.pressure import SignLimits
from firm_footing.core.knowledge.soft_threshold import SoftThreshold, probability_beyond
from firm_footing.core.pressure.events import Events
from firm_footing.core.pressure.measures import Measures
from firm_footing.core.pressure.recorded import Recorded
from firm_footing.core.pressure.sign_seen import THERE, SignSeen

HEELS: Final = "heels"


class FeetSigns:
    """The signs of a trace whose feet were recorded; None where they were not."""

    def __init__(
        self,
        recorded: Recorded,
        events: Events,
        measures: Measures,
        heel_toe: str,
        limits: SignLimits,
    ) -> None:
        self.recorded, self.events, self.m = recorded, events, measures
        self.heel_toe, self.limits = heel_toe, limits

    def toes_back(self) -> SignSeen | None:
        """A loaded foot runs to its toes going back; the trail foot carries most of it."""
        found = {foot: self.m.toe_most.get((foot, "going_back")) for foot in ("lead", "trail")}
        most = found["trail"] or found["lead"]
        if most is None:
            return None
        clear = probability_beyond(most.value, self.limits.toe_back_pct, self.recorded.noise_pct)
        words = f"up to {most.value:.0f} % on the toes going back"
        return SignSeen("toes_back", clear, most.t_s, words)

    def heel_back(self) -> SignSeen | None:
        """Deep in the trail heel going back, where the school calls that a fault.

        None where it is deep but what would make it one does not follow: that answers neither way.
        """
        least = self.m.toe_least.get(("trail", "going_back"))
        counts = self.limits.heel_back_counts[self.heel_toe]
        if least is None or counts == "never":
            return None
        clear = self._at_most(least.value, self.limits.heel_back_pct)
        if counts == "with_toes_down":
            follows = max(self.toe_clearness().values(), default=0.0)
            if clear >= THERE > follows:
                return None
            clear = min(clear, follows)
        words = f"{100 - least.value:.0f} % on the trail heel going back"
        return SignSeen("heel_back", clear, least.t_s, words)

    def heels_address(self) -> SignSeen | None:
        """Sits in the heels before the club moves."""
        feet = self.m.toe_at_address
        if len(feet) < 2:
            return None
        share = sum(feet.values()) / len(feet)
        clear = self._at_most(share, self.limits.heel_address_pct)
        words = f"{100 - share:.0f} % on the heels at address"
        return SignSeen("heels_address", clear, self.events["address"].t_s, words)

    def figure_eight(self) -> SignSeen | None:
        """The centre of pressure crosses its own path: trail heel first, then trail toe."""
        heel = self.m.toe_least.get(("trail", "backswing"))
        toe = self.m.toe_most.get(("trail", "transition"))
        if heel is None or toe is None or self.heel_toe == HEELS:
            return None
        loop, limits = self.m.loop, self.limits
        if loop is None:
            return SignSeen("figure_eight", 0.0, toe.t_s, "the path does not cross itself")
        first = self._at_most(heel.value, limits.eight_heel_pct)
        then = probability_beyond(toe.value, limits.eight_toe_pct, self.recorded.noise_pct)
        words = (
            f"{100 - heel.value:.0f} % on the trail heel, then {toe.value:.0f} % on its toes; "
            "the path crosses itself"
        )
        return SignSeen("figure_eight", min(first, then), loop.again_s, words)

    def toes(self) -> SignSeen | None:
        """Most of a loaded foot's share on the toes between the top and delivery."""
        feet = self.toe_clearness()
        carried = [foot for foot in feet if (foot, "transition") in self.m.toe_most]
        if not carried:
            return None
        foot = max(carried, key=lambda f: feet[f])
        most = self.m.toe_most[foot, "transition"]
        both = len(feet) == 2 and min(feet.values()) >= THERE
        which = "both feet" if both else f"the {foot} foot"
        words = f"{which} up to {most.value:.0f} % on the toes starting down"
        return SignSeen("toes", feet[foot], most.t_s, words)

    def toe_clearness(self) -> dict[str, float]:
        """How clearly each foot that can be judged is on its toes."""
        recorded, limit = self.recorded, self.limits.toe_pct
        if recorded.lead_toe_pct is None or recorded.trail_toe_pct is None:
            return {}
        most = {foot: self.m.toe_most.get((foot, "transition")) for foot in ("lead", "trail")}
        return {
            foot: 0.0 if m is None else probability_beyond(m.value, limit, recorded.noise_pct)
            for foot, m in most.items()
        }

    def _at_most(self, value: float, limit: SoftThreshold) -> float:
        """P(a toe share lies below the limit)."""
        return 1 - probability_beyond(value, limit, self.recorded.noise_pct)
