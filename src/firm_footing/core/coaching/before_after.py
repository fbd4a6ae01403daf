"""Baseline and retest, measure by measure: what changed, how sure it is, and what was predicted."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from statistics import fmean
from typing import Final

from firm_footing.core.case import Block, Case
from firm_footing.core.coaching.measures import Series, as_read, series_of
from firm_footing.core.coaching.predicted import after_move
from firm_footing.core.coaching.retest import (
    MeasureMove,
    RetestResult,
    evaluate_retest,
    moved_by,
    power,
)
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns.chance import holm

LEAST_MISSED: Final = 0.2
"""Of the balls, from which on a share is what a student misses by; an estimate."""
WORTH_MOVING: Final = 0.5
"""Of the usual scatter, or of the share, from which on a prediction says that a measure moves."""


@dataclass(frozen=True)
class Compared:
    """One measure before and after.

    moved : None with too few balls on a side
    predicted : where it should be without the cause; None where nothing was predicted
    sure : whether it changed by more than chance: the measure that decides by the retest's result,
        any other as chance does in one of ten comparisons of all measures
    misses : whether the baseline is off by it
    first : the same measure in the student's first lesson, with its baseline as `before` and what
        was hit last in this lesson as `after`; None in the first lesson
    since_first, since_sure : what changed from then on, and whether it is more than chance
    """

    series: Series
    moved: MeasureMove | None
    predicted: float | None
    sure: bool
    misses: bool
    first: Series | None = None
    since_first: MeasureMove | None = None
    since_sure: bool = False

    @property
    def name(self) -> str:
        """The measure's id."""
        return self.series.measure.id

    @property
    def as_predicted(self) -> bool:
        """Whether it moved to the side that was predicted."""
        if self.moved is None or self.predicted is None:
            return False
        return (self.predicted - self.moved.before) * self.moved.by > 0

    @property
    def should_move(self) -> bool:
        """Whether the prediction takes it nearer to where it should be, by enough to be seen."""
        if self.predicted is None or len(self.series.before) < 2:
            return False
        before = fmean(self.series.before)
        number = self.series.measure.number
        least = WORTH_MOVING * (before if number is None else number.usual_scatter)
        nearer = self.series.off(before) - self.series.off(self.predicted)
        return nearer > 0 and abs(self.predicted - before) >= least


@dataclass(frozen=True)
class Comparison:
    """A retest beside its baseline.

    club : of both
    primary : the measure that decides; the one proposed when none was fixed
    fixed : whether it was
    result : of the primary measure; None where the baseline does not show it
    power : how often the planned retest would call a half mended student better by it
    """

    club: str
    measures: tuple[Compared, ...]
    primary: str
    fixed: bool
    result: RetestResult | None
    power: float

    @property
    def deciding(self) -> Compared:
        """The measure that decides."""
        return next(m for m in self.measures if m.name == self.primary)


def _with_significance(measures: Sequence[Compared], knowledge: Knowledge) -> list[Compared]:
    """Whether each moved by more than chance, corrected for how many are looked at (Holm)."""
    level = knowledge.numbers.chance.level
    first_look = knowledge.numbers.coaching.retest.first_look
    sure = holm([_p(m.moved, len(m.series.after), first_look) for m in measures], level)
    hit = [len(m.first.after) if m.first else 0 for m in measures]
    since = holm(
        [_p(m.since_first, n, first_look) for m, n in zip(measures, hit, strict=True)], level
    )
    return [
        replace(m, sure=now, since_sure=then)
        for m, now, then in zip(measures, sure, since, strict=True)
    ]


def compare(
    case: Case,
    primary: str | None,
    predicted: Mapping[str, float],
    knowledge: Knowledge,
    left_out: Collection[int] = (),
    first: Case | None = None,
) -> Comparison | None:
    """The newest retest club beside its baseline; None where no club has both.

    Without a retest yet, the first baseline's club stands beside an empty one.

    Parameters
    ----------
    primary : id of a measure, None when it was not fixed
    predicted : number to how far it moves without the cause decided on; `carry_part` of itself
    left_out : indices of blocks hit under other conditions than the baseline
    first : the student's first lesson, where this is another

    """
    retests = [b for i, b in enumerate(case.blocks) if b.kind == "retest" and i not in left_out]
    club = compared_club(case, retests)
    if club is None:
        return None
    before, after = (
        [b for b in blocks if b.club == club and b.shots] for blocks in (case.baselines, retests)
    )
    counted = series_of(before, after, knowledge)
    shown = as_read(counted, before, after, knowledge, case.handicap)
    measures = [_compared(series, shown, predicted) for series in shown.values()]
    measures = _with_first(measures, first, club, before, after, knowledge)
    measures = _with_significance(measures, knowledge)
    numbers = knowledge.numbers.coaching.retest
    alone = series_of(before, (), knowledge)  # what the baseline shows, whatever was noted since
    chosen = primary if primary in shown else propose(alone, predicted, knowledge)
    series = shown[chosen]
    result = evaluate_retest(series, numbers) if len(series.before) >= 2 else None
    real = result is not None and result.state == "real"
    return Comparison(
        club=club,
        measures=tuple(replace(m, sure=real) if m.name == chosen else m for m in measures),
        primary=chosen,
        fixed=primary in shown,
        result=result,
        power=_power(alone, chosen, predicted, knowledge),
    )


def compared_club(case: Case, retests: Sequence[Block]) -> str | None:
    """The newest retest's club that has a baseline, else the first baseline's."""
    baselines = [b.club for b in case.baselines if b.shots]
    hit = (b.club for b in reversed(retests) if b.club in baselines)
    return next(hit, baselines[0] if baselines else None)


def propose(
    shown: Mapping[str, Series], predicted: Mapping[str, float], knowledge: Knowledge
) -> str:
    """The measure to decide by: missed by, moved by the prediction, and soonest to show it.

    Of those that the student misses by and that the prediction takes nearer to where they should
    be, the one by which a student who is half mended would most often be called better. Where the
    prediction moves none of them, the one missed by most; where nothing is missed by, what the
    prediction moves, and last what is noted of most balls.

    shown : all measures of the baseline alone, by id
    """

    def worth(name: str) -> tuple[float, float, float, float]:
        series = shown[name]
        missed = is_missed(series)
        tells = _power(shown, name, predicted, knowledge)
        both = tells if missed and tells else 0.0
        return both, _how_far_off(series) if missed else 0.0, tells, float(len(series.before))

    return max(shown, key=worth)


def is_missed(series: Series) -> bool:
    """Whether the baseline is off by this measure."""
    if len(series.before) < 2:
        return False
    mean, number = fmean(series.before), series.measure.number
    if number is None:
        return mean >= LEAST_MISSED
    return series.off(mean) >= number.least_miss


def _how_far_off(series: Series) -> float:
    """In the usual scatter; of a share, itself."""
    if series.by_word:
        return 0.0
    mean, number = fmean(series.before), series.measure.number
    return mean if number is None else series.off(mean) / number.usual_scatter


def _power(
    shown: Mapping[str, Series], name: str, predicted: Mapping[str, float], knowledge: Knowledge
) -> float:
    """How often the planned retest would call a half mended student better by this measure."""
    numbers = knowledge.numbers.coaching.retest
    series = shown[name]
    if len(series.before) < 2 or series.by_word:  # the words' own shares say it better
        return 0.0
    half = after_move(series, shown, predicted, numbers.mended_part)
    if half is None or series.off(half) >= series.off(fmean(series.before)):
        return 0.0
    return power(series, half, numbers.balls, numbers)


def _compared(
    series: Series, shown: Mapping[str, Series], predicted: Mapping[str, float]
) -> Compared:
    whole = after_move(series, shown, predicted, 1.0)
    return Compared(series, moved_by(series), whole, sure=False, misses=is_missed(series))


def _with_first(
    measures: list[Compared],
    first: Case | None,
    club: str,
    before: list[Block],
    after: list[Block],
    knowledge: Knowledge,
) -> list[Compared]:
    """The measures beside those of the first lesson; what was hit last in this one counts."""
    begun = [b for b in first.baselines if b.club == club and b.shots] if first else []
    if first is None or not begun:
        return measures
    enough = sum(len(b.shots) for b in after) >= knowledge.numbers.coaching.retest.first_look
    last = after if enough else before
    then = as_read(series_of(begun, last, knowledge), begun, last, knowledge, first.handicap)
    return [replace(m, first=then[m.name], since_first=moved_by(then[m.name])) for m in measures]


def _p(moved: MeasureMove | None, balls: int, first_look: int) -> float | None:
    """A p-value that is looked at: of measures that show something, with balls enough."""
    if moved is None or balls < first_look or moved.before == moved.after:
        return None
    return moved.p_value
