"""How is what became of the retest said, on the page and on the sheet?

In this order: what is better by more than chance, what is not yet, what got worse. A carry is said
in per cent, so that no unit of distance is needed.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from firm_footing.core.coaching.before_after import Compared, Comparison
from firm_footing.core.coaching.measures import Series
from firm_footing.core.coaching.retest import Direction, RetestResult
from firm_footing.core.frame import Handedness, side
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.measures import Measure

ALMOST = {"deg": 0.5, "mm": 1.0, "cm": 0.5}


@dataclass(frozen=True)
class RetestWords:
    """A retest in whole sentences.

    headline : what there is to say first
    more : the rest, in order; may be empty
    since_first : what changed since the first lesson; '' in it, and where nothing can be said
    chosen_late : that the measure was chosen or changed after the first ball, else ''
    to_student : what improved, from what to what, for the page that goes home; may be empty
    """

    headline: str
    more: tuple[str, ...]
    since_first: str
    chosen_late: str
    to_student: str = ""


def retest_words(
    found: Comparison, hand: Handedness, knowledge: Knowledge, fixed_before: str | None = None
) -> RetestWords:
    """Everything there is to say of a comparison.

    Parameters
    ----------
    fixed_before : the measure that was fixed before the first ball, where another one decides now;
        '' where none was; None where nothing was changed

    """
    deciding, result = found.deciding, found.result
    late = "" if fixed_before is None else _chosen_late(deciding, fixed_before, knowledge)
    since = _since_first(found.measures, hand)
    balls = max((len(m.series.after) for m in found.measures), default=0)
    if result is None:
        name = deciding.series.measure.name
        return RetestWords(f"The baseline does not show the {name} yet.", (), since, late)
    if balls == 0:
        name, before = deciding.series.measure.name, _said(deciding.series, "before", hand)
        ready = f"Ready. Decided by {name}{f': {before} before' if before else ''}."
        return RetestWords(ready, (), since, late)
    others = [m for m in found.measures if m is not deciding and m.moved is not None]
    better = [m for m in others if m.sure and _went(m, "better")]
    worse = [m for m in others if m.sure and _went(m, "worse")]
    primary = _verdict(deciding, result, hand)
    real = result.state == "real"
    begin = "Better too" if real else "Better, and more than chance"
    also = _listed(begin, better, deciding, hand)
    first = [primary, also] if real else [also, primary]
    shown = [
        s for s in (*first, _not_yet(found, balls), _listed("Worse", worse, deciding, hand)) if s
    ]
    home = " ".join(s for s in (_to_student(deciding, result, better, hand), late, since) if s)
    return RetestWords(shown[0], tuple(shown[1:]), since, late, home)


def _to_student(
    deciding: Compared, result: RetestResult, better: list[Compared], hand: Handedness
) -> str:
    """What is better for certain; what is on the way where nothing is yet."""
    if result.state == "too_few" or result.moved is None:
        return ""
    sure = _each_once([m.series for m in better], deciding)
    if result.state == "real" and result.moved.direction == "better":
        sure.insert(0, deciding.series)
    if sure:
        return f"Better: {'; '.join(from_to(s, hand) for s in sure)}."
    if result.moved.direction == "better":
        return f"On the way: {from_to(deciding.series, hand)}."
    return f"Not there yet: {from_to(deciding.series, hand)}."


def _went(measure: Compared, direction: Direction) -> bool:
    return measure.moved is not None and measure.moved.direction == direction


def _verdict(deciding: Compared, result: RetestResult, hand: Handedness) -> str:
    """What the measure that decides says."""
    moved = result.moved
    if result.state == "too_few" or moved is None:
        return f"{_count(result.more or 1, 'more ball')} before anything can be said."
    change = from_to(deciding.series, hand)
    if result.state == "real":
        begin = {
            "better": "Better, and more than chance",
            "worse": "Worse, and more than chance",
            "other_side": "Changed by more than chance, but as far off on the other side",
            "same": "Changed by more than chance",
        }[moved.direction]
        return f"{begin}: {change}."
    if result.state == "not_held":
        return _not_held(result, len(deciding.series.after), change)
    if moved.direction == "better" and result.more is not None:
        tell = _count(result.more, "more ball")
        return f"Better so far: {change}. {tell} like these would make it more than chance."
    if moved.direction == "better":
        return f"Better so far, but a few more balls would hardly settle it: {change}."
    so_far = {"worse": "Worse so far, though it may be chance", "same": "The same so far"}
    return f"{so_far.get(moved.direction, 'No better so far')}: {change}."


def _not_held(result: RetestResult, balls: int, change: str) -> str:
    """That a change was there after some balls, and is not in all of them."""
    went = {"better": "Better", "worse": "Worse"}.get(result.at_first or "", "Changed")
    first = _count(result.real_at or 0, "ball")
    return f"{went} by more than chance after {first}, but not over all {balls}: {change}."


def _not_yet(found: Comparison, balls: int) -> str:
    """Measures that should have moved and have not for certain."""
    if balls < 3:
        return ""
    still = [
        m.series
        for m in found.measures
        if m is not found.deciding and m.should_move and m.misses and m.series.after and not m.sure
    ]
    names = [s.measure.name for s in _each_once(still, found.deciding)]
    return f"Not sure yet: {', '.join(names)}." if names else ""


def _listed(begin: str, measures: list[Compared], deciding: Compared, hand: Handedness) -> str:
    said = [from_to(s, hand) for s in _each_once([m.series for m in measures], deciding)]
    return f"{begin}: {'; '.join(said)}." if said else ""


def _each_once(series: Sequence[Series], deciding: Compared | None = None) -> list[Series]:
    """Without what says again what another measure, or the one that decides, says.

    A share says again what its number says; a number that only stands for words, what the words'
    own shares say.
    """
    said = [*series, *([deciding.series] if deciding else [])]
    ids = {s.measure.id for s in said}
    counted = {t.of for s in said for t in s.measure.tails}

    def again(one: Series) -> bool:
        share = one.measure.share
        if share is None:
            return one.by_word and one.measure.id in counted
        solid = {s.measure.id for s in said if not s.by_word}
        return bool(solid & {t.of for t in one.measure.tails} or ids & set(share.any_of))

    return [s for s in series if not again(s)]


def _since_first(measures: tuple[Compared, ...], hand: Handedness) -> str:
    """What became better and worse since the first lesson; '' where it cannot be said."""
    beside = [m for m in measures if m.first is not None and m.since_first is not None]
    if not beside:
        return ""
    said = []
    for word, direction in (("better", "better"), ("worse", "worse")):
        found = [
            m.first
            for m in beside
            if m.since_sure and m.first and m.since_first and m.since_first.direction == direction
        ]
        if found:
            each = "; ".join(from_to(s, hand) for s in _each_once(found))
            said.append(f"{word}, and more than chance: {each}")
    if not said:
        return "Since the first lesson nothing has changed by more than chance."
    return f"Since the first lesson {'. Since then '.join(said)}."


def _chosen_late(deciding: Compared, fixed_before: str, knowledge: Knowledge) -> str:
    name = deciding.series.measure.name
    before = knowledge.measure.get(fixed_before)
    if before is None:
        return f"Decided by {name}, which was chosen after the first ball."
    return f"Decided by {name} since after the first ball; {before.name} was fixed before it."


def from_to(series: Series, hand: Handedness) -> str:
    """One measure before and now: "strike 19 mm to the heel before, 8 mm to the heel now"."""
    measure = series.measure
    if measure.id == "carry_m":
        return _carry_from_to(series.shown_before, series.shown_after)
    before, now = _said(series, "before", hand), _said(series, "now", hand)
    if measure.share is not None:
        return f"{measure.said}: {before} before, {now} now"
    if before == now:
        return f"{measure.name} {before} before and now"
    return f"{measure.name} {before} before, {now} now"


def _carry_from_to(before: float, now: float) -> str:
    part = 100 * (now / before - 1) if before else 0.0
    if abs(part) < 1:
        return "carry as before"
    return f"carry {abs(part):.0f} % {'longer' if part > 0 else 'shorter'}"


def _said(series: Series, when: Literal["before", "now"], hand: Handedness) -> str:
    """One side's balls by one measure: "4 of 5", "12 mm to the heel"; '' of a carry alone."""
    values = series.before if when == "before" else series.after
    if series.measure.share is not None:
        return f"{sum(values):.0f} of {len(values)}"
    if series.measure.id == "carry_m":
        return ""
    shown = series.shown_before if when == "before" else series.shown_after
    return f"{'about ' if series.by_word else ''}{_value(series.measure, shown, hand)}"


def _value(measure: Measure, value: float, hand: Handedness) -> str:
    unit = measure.id.rsplit("_", 1)[-1]
    size = math.floor(abs(value) + 0.5)  # as a screen rounds
    if size == 0 or abs(value) < ALMOST[unit]:
        return {"deg": "straight", "mm": "in the middle", "cm": "at the ball"}[unit]
    return {
        "deg": f"{size}° {side(value, hand)}",
        "mm": f"{size} mm to the {'toe' if value > 0 else 'heel'}",
        "cm": f"{size} cm {'ahead of' if value > 0 else 'behind'} the ball",
    }[unit]


def _count(n: int, noun: str) -> str:
    return f"{n} {noun}" if n == 1 else f"{n} {noun}s"
