"""Baseline and retest, number by number: what changed, how sure it is, and what was predicted."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from statistics import fmean
from typing import Final

from firm_footing.core.case import Case
from firm_footing.core.coaching.retest import Verdict, judge
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pattern.chance import Change, change_of, floor_of, is_sure, values_of

MEASURES: Final = ("start_deg", "curve_deg", "heel_toe_mm", "low_point_cm", "carry_m")
"""What every ball may show; degrees + push side, mm + toe, cm + ahead of the ball, metres."""
USUAL_SCATTER: Final = {
    "start_deg": 3.0, "curve_deg": 3.0, "heel_toe_mm": 8.0, "low_point_cm": 3.0, "carry_m": 9.0
}  # fmt: skip
"""Of one player's balls; estimates, to choose the measure that will show a change best."""


@dataclass(frozen=True)
class Compared:
    """One measure before and after.

    before, after : values of the balls that show it, in their order
    change : None with fewer than two balls on a side
    predicted : where it should be without the cause; None where nothing was predicted
    sure : whether it changed by more than chance does in one number of ten
    """

    name: str
    before: tuple[float, ...]
    after: tuple[float, ...]
    change: Change | None
    predicted: float | None
    sure: bool

    @property
    def as_predicted(self) -> bool:
        """Whether it moved to the side that was predicted."""
        if self.change is None or self.predicted is None:
            return False
        return (self.predicted - self.change.before) * self.change.by > 0

    @property
    def should_move(self) -> bool:
        """Whether the prediction moves it by half of its usual scatter or more."""
        if self.predicted is None or len(self.before) < 2:
            return False
        moves = abs(self.predicted - fmean(self.before))
        return moves >= USUAL_SCATTER[self.name] / 2


@dataclass(frozen=True)
class Comparison:
    """A retest beside its baseline.

    primary : the measure that decides, fixed beforehand; the one proposed when none was
    fixed : whether it was
    verdict : of the primary measure; None where the baseline does not show it
    club : of both
    """

    club: str
    measures: tuple[Compared, ...]
    primary: str
    fixed: bool
    verdict: Verdict | None


def compare(
    case: Case,
    primary: str | None,
    predicted: Mapping[str, float],
    knowledge: Knowledge,
    left_out: Collection[int] = (),
) -> Comparison | None:
    """The newest retest club beside its baseline; None where no club has both.

    Without a retest yet, the first baseline's club stands beside an empty one.

    Parameters
    ----------
    primary : a name of `MEASURES`, None when it was not fixed
    predicted : measure to where it should be without the cause decided on
    left_out : indices of blocks hit under other conditions than the baseline

    """
    retests = [b for i, b in enumerate(case.blocks) if b.kind == "retest" and i not in left_out]
    baselines = [b for b in case.baselines if b.shots]
    clubs = {b.club for b in baselines}
    club = next((b.club for b in reversed(retests) if b.club in clubs), None)
    if club is None:
        if not baselines:
            return None
        club = baselines[0].club
    before, after = (
        values_of([b for b in blocks if b.club == club], knowledge.numbers)
        for blocks in (baselines, retests)
    )
    numbers = knowledge.numbers
    changes = {n: change_of(before[n], after[n], floor_of(n, numbers)) for n in MEASURES}
    measures = tuple(
        Compared(
            name=name,
            before=before[name],
            after=after[name],
            change=change,
            predicted=predicted.get(name),
            sure=is_sure(change, numbers),
        )
        for name, change in changes.items()
    )
    chosen = primary or propose(measures)
    seen = next(m for m in measures if m.name == chosen)
    enough = len(seen.before) >= 2
    verdict = (
        judge(seen.before, seen.after, numbers.coaching.retest, floor_of(chosen, numbers))
        if enough
        else None
    )
    return Comparison(club, measures, chosen, primary is not None, verdict)


def propose(measures: Sequence[Compared]) -> str:
    """The measure that the prediction moves most against its scatter; else what is seen most."""

    def worth(measure: Compared) -> tuple[float, int]:
        if measure.predicted is None or len(measure.before) < 2:
            return 0.0, len(measure.before)
        moves = abs(measure.predicted - fmean(measure.before))
        return moves / USUAL_SCATTER[measure.name], len(measure.before)

    return max(measures, key=worth).name
