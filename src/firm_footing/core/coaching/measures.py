"""What does each measure of a retest show in the balls of two blocks?

A number is read ball by ball; a share counts balls. Only what was noted on both sides is compared:
where the marks on the face were left out in the retest, the words of contact count alone, so that
no change comes from another way of noting.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from statistics import fmean
from typing import Final

from firm_footing.core.case import Block, Shot
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.measures import Measure, ShareMeasure
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.knowledge.vocabulary import Contact
from firm_footing.core.patterns.chance import floor_of, noted
from firm_footing.core.patterns.pattern import read_pattern
from firm_footing.core.physics.turf import is_teed

NotedBall = tuple[Shot, Block]

MOSTLY: Final = 0.5
"""A thing counts as noted in a block from this part of its balls on."""


@dataclass(frozen=True)
class Series:
    """One measure of two blocks.

    before, after : one value for each ball that shows it, in their order; of a share 1.0 for a ball
        that counts and 0.0 for one that does not
    floor : standard deviation that single balls scatter with at least; nothing for a share
    by_word : whether a number stands for words, and is only about right
    read_before, read_after : the number as the pattern of that side reads it, which is what is
        shown; None where the pattern has none: then the mean of the balls
    ideal : where the number should be; of a carry what is expected; None of a share
    """

    measure: Measure
    before: tuple[float, ...]
    after: tuple[float, ...]
    floor: float
    by_word: bool = False
    ideal: float | None = None
    read_before: float | None = None
    read_after: float | None = None

    @property
    def is_share(self) -> bool:
        """Whether balls are counted."""
        return self.measure.share is not None

    @property
    def shown_before(self) -> float:
        """What the baseline shows, as everywhere else."""
        return fmean(self.before) if self.read_before is None else self.read_before

    @property
    def shown_after(self) -> float:
        """What the retest shows, as everywhere else."""
        return fmean(self.after) if self.read_after is None else self.read_after

    def off(self, mean: float) -> float:
        """How far a mean lies from where it should be, below zero beyond; a share, itself."""
        number = self.measure.number
        if number is None or self.ideal is None:
            return mean
        return self.ideal - mean if number.more_is_sound else abs(mean - self.ideal)


def as_read(
    shown: Mapping[str, Series],
    before: Sequence[Block],
    after: Sequence[Block],
    knowledge: Knowledge,
    handicap: float | None,
) -> dict[str, Series]:
    """The same with the numbers that the patterns of both sides read."""
    sides = [read_pattern(blocks, knowledge, handicap) for blocks in (before, after)]

    def read(name: str, side: int) -> float | None:
        estimate = getattr(sides[side], name, None)
        return None if estimate is None else float(estimate.value)

    return {
        name: series
        if series.is_share or series.by_word
        else replace(series, read_before=read(name, 0), read_after=read(name, 1))
        for name, series in shown.items()
    }


def series_of(
    before: Sequence[Block], after: Sequence[Block], knowledge: Knowledge
) -> dict[str, Series]:
    """Every measure by its id, in the order of the knowledge; empty where no ball shows it."""
    sides = _balls(before), _balls(after)
    found = {}
    for measure in knowledge.measures:
        if measure.share is None:
            by_word = measure.id == "low_point_cm" and not _marks_on_both(sides, knowledge)
            read = _number_reader(measure.id, by_word, sides, knowledge)
            floor = (
                knowledge.numbers.coaching.retest.word_low_point.sd_cm
                if by_word
                else floor_of(measure.id, knowledge.numbers)
            )
        else:
            read, floor, by_word = _counter(measure.share, sides, knowledge), 0.0, False
        values = [tuple(v for ball in side if (v := read(ball)) is not None) for side in sides]
        found[measure.id] = Series(
            measure, values[0], values[1], floor, by_word, _ideal(measure, values[0], before)
        )
    return found


def _ideal(measure: Measure, values: Sequence[float], blocks: Sequence[Block]) -> float | None:
    """Where a number should be; a carry where it was expected, else at its own longest."""
    number = measure.number
    if number is None or number.ideal is not None:
        return None if number is None else number.ideal
    expected = [b.expected_carry_m for b in blocks if b.expected_carry_m is not None]
    return fmean(expected) if expected else max(values, default=None)


Reader = Callable[[NotedBall], float | None]
Sides = tuple[list[NotedBall], list[NotedBall]]


def _balls(blocks: Sequence[Block]) -> list[NotedBall]:
    return [(shot, block) for block in blocks for shot in block.shots]


def _known_on_both(read: Reader, sides: Sides) -> bool:
    """Whether most balls of each side show it; a side without balls asks nothing."""
    return all(
        sum(read(ball) is not None for ball in side) >= MOSTLY * len(side) for side in sides
    ) and any(read(ball) is not None for ball in sides[0])


def _marks_on_both(sides: Sides, knowledge: Knowledge) -> bool:
    return _known_on_both(_noted_reader("low_point_cm", knowledge.numbers), sides)


def _noted_reader(name: str, numbers: Numbers) -> Reader:
    return lambda ball: noted(*ball, numbers).get(name)


def _number_reader(name: str, by_word: bool, sides: Sides, knowledge: Knowledge) -> Reader:
    """A number as it was noted; a low point by words where marks are not there on both sides."""
    read = _noted_reader(name, knowledge.numbers)
    if not by_word:
        return read
    words = _low_point_reader(knowledge)
    if _known_on_both(words, sides):
        return words
    return lambda ball: read(ball) if words(ball) is None else words(ball)


def _low_point_reader(knowledge: Knowledge) -> Reader:
    """What a word of contact says of the low point; nothing off a tee."""
    cm = knowledge.numbers.coaching.retest.word_low_point.cm

    def read(ball: NotedBall) -> float | None:
        shot, block = ball
        teed = is_teed(block, knowledge.club[block.club])
        return None if teed or shot.contact is None else cm.get(shot.contact)

    return read


def _counter(share: ShareMeasure, sides: Sides, knowledge: Knowledge) -> Reader:
    """Whether a ball counts; None where nothing that was noted on both sides tells."""
    if share.any_of:
        parts = [_counter(_share(knowledge.measure[m]), sides, knowledge) for m in share.any_of]
        return _any_of(parts)
    ways: list[Reader] = []
    if share.contact:
        ways.append(_contact_reader(share.contact))
    if share.of is not None:
        ways.append(_beyond(share, sides, knowledge.numbers))
    counts = _any_of([way for way in ways if _known_on_both(way, sides)])
    never = _contact_reader(share.never)
    if not _known_on_both(never, sides):
        return counts
    return lambda ball: 0.0 if never(ball) else counts(ball)


def _contact_reader(counts: tuple[Contact, ...]) -> Reader:
    return lambda ball: None if ball[0].contact is None else float(ball[0].contact in counts)


def _share(measure: Measure) -> ShareMeasure:
    assert measure.share is not None  # the cross-check lets nothing else through
    return measure.share


def _any_of(ways: Sequence[Reader]) -> Reader:
    def read(ball: NotedBall) -> float | None:
        told = [value for way in ways if (value := way(ball)) is not None]
        return max(told, default=None)

    return read


def _beyond(share: ShareMeasure, sides: Sides, numbers: Numbers) -> Reader:
    """Whether a number lies beyond the share's limit."""
    assert share.of is not None
    read = _noted_reader(share.of, numbers)
    best = max((v for side in sides for ball in side if (v := read(ball)) is not None), default=0.0)

    def counts(ball: NotedBall) -> float | None:
        value = read(ball)
        if value is None:
            return None
        return float(
            (share.at_most is not None and value <= share.at_most)
            or (share.at_least is not None and value >= share.at_least)
            or (share.beyond is not None and abs(value) >= share.beyond)
            or (share.part_of_best is not None and value < share.part_of_best * best)
        )

    return counts
