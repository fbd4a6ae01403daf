"""How common is each cause here, after these lessons? A shrinking update of the shipped weights.

What the knowledge files say counts as a stated number of lessons. With N lessons of which n had a
cause (expected counts), and b how common it is by the files, a cause is as common as

    (W b + n) / (W + N)

says; the counts are taken anew under what was learned until nothing moves (EM). Nothing moves by
more than a stated factor against the average, and nothing at all before enough fates are known.
Fates that are known by the instructor's word alone move a stated part of what they would move had
they been measured.
"""

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from typing import Annotated, Final, Literal

import numpy as np
from pydantic import Field

from firm_footing.core.case import School
from firm_footing.core.case.base import Strict, Word
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.counts import LessonSeen, counted, prior_with, weights_of

ROUNDS: Final = 60
"""Of counting anew, at most."""
STILL: Final = 1e-5
"""A factor that moves by less, as a logarithm, stands."""
FITS: Final = 8
"""Steps from what shall be common to the weights that make it so."""

Number = Annotated[float, Field(ge=0, allow_inf_nan=False)]


class Tally(Strict):
    """What lessons came to: how many, and in how many each cause was expected."""

    lessons: Number = 0.0
    expected: dict[Word, Number] = Field(default_factory=dict)


class Decisions(Strict):
    """Decisions for one cause, and what measured fates said of them."""

    decided: Annotated[int, Field(ge=0)] = 0
    measured: Annotated[int, Field(ge=0)] = 0
    confirmed: Annotated[int, Field(ge=0)] = 0


class CauseLearned(Strict):
    """How common a cause is: by the files, here, and the factor of its weight."""

    shipped: Number
    here: Number
    factor: Annotated[float, Field(gt=0, le=100)]


class Learned(Strict):
    """What a casebook taught: a layer over the knowledge files, without names, notes or dates.

    measured : lessons whose fate something but a word says; everything : those by word as well
    """

    format: Literal["firm-footing-learned"]
    version: Literal[1]
    knowledge: str
    outcomes: Annotated[int, Field(ge=0)]
    measured: Tally
    everything: Tally
    causes: dict[Word, CauseLearned]
    decisions: dict[Word, Decisions]

    @property
    def how_common(self) -> tuple[tuple[str, float], ...]:
        """(cause id, factor) of those that moved, for a `Case`."""
        return tuple((c, found.factor) for c, found in self.causes.items() if found.factor != 1.0)


def learn(
    lessons: Sequence[LessonSeen], knowledge: Knowledge, before: Learned | None = None
) -> Learned:
    """What these lessons teach, after what was learned before."""
    lessons = sorted(lessons, key=lambda lesson: lesson.order)
    space = enumerate_space(knowledge)
    measured = [lesson for lesson in lessons if lesson.is_measured]
    tallies = [before.measured, before.everything] if before else [Tally(), Tally()]
    outcomes = len(lessons) + (before.outcomes if before else 0)
    logs, after = [], []
    for some, tally in zip((measured, lessons), tallies, strict=True):
        log, found = _fitted(some, tally, space)
        logs.append(log)
        after.append(found)
    word = knowledge.casebook.word_counts
    log = logs[0] + word * (logs[1] - logs[0])
    shipped, here = (
        _common(space, factors, lessons) for factors in (np.ones_like(log), np.exp(log))
    )
    return Learned(
        format="firm-footing-learned",
        version=1,
        knowledge=knowledge.version,
        outcomes=outcomes,
        measured=after[0],
        everything=after[1],
        causes={
            c.id: CauseLearned(
                shipped=float(shipped[i]), here=float(here[i]), factor=float(np.exp(log[i]))
            )
            for i, c in enumerate(knowledge.causes)
        },
        decisions=_decisions(lessons, before),
    )


def _fitted(
    lessons: Sequence[LessonSeen], before: Tally, space: HypothesisSpace
) -> tuple[FloatArray, Tally]:
    """(causes,) log of the factors that fit, and the tally with these lessons."""
    knowledge = space.knowledge
    numbers, names = knowledge.casebook, [c.id for c in knowledge.causes]
    earlier = np.array([before.expected.get(name, 0.0) for name in names])
    count = float(weights_of(lessons).sum()) if lessons else 0.0
    limit = math.log(numbers.most_factor)
    log = np.zeros(len(names))
    shipped = _common(space, np.ones(len(names)), lessons)
    found = np.zeros(len(names))
    for _ in range(ROUNDS):
        if lessons:
            found = counted(lessons, space, _factors(log, names)).expected
        wanted = numbers.shipped_lessons * shipped + earlier + found
        wanted /= numbers.shipped_lessons + before.lessons + count
        moved = _weights_for(wanted, log, space, lessons)
        moved = np.clip(moved - np.average(moved, weights=shipped), -limit, limit)
        still = float(np.abs(moved - log).max()) < STILL
        log = moved
        if still:
            break
    tally = Tally(
        lessons=before.lessons + count,
        expected={n: float(e) for n, e in zip(names, earlier + found, strict=True) if e > 0},
    )
    enough = before.lessons + len(lessons) >= numbers.least_outcomes
    return (log if enough else np.zeros_like(log)), tally


def _weights_for(
    wanted: FloatArray,
    log: FloatArray,
    space: HypothesisSpace,
    lessons: Sequence[LessonSeen],
) -> FloatArray:
    """(causes,) log factors under which causes are as common as wanted.

    Only what they are to each other counts: a factor of all is none.
    """
    for _ in range(FITS):
        common = _common(space, np.exp(log), lessons)
        step = np.log(np.maximum(wanted, 1e-12) / np.maximum(common, 1e-12))
        log = log + step
        if np.abs(step).max() < STILL:
            break
    return log


def _common(
    space: HypothesisSpace, factors: FloatArray, lessons: Sequence[LessonSeen]
) -> FloatArray:
    """(causes,) how common each cause is under these factors, by the schools of these lessons."""
    chosen = Counter(lesson.school for lesson in lessons) or Counter([School()])
    here = _factors(np.log(factors), [c.id for c in space.knowledge.causes])
    common = np.zeros(len(here))
    for school, times in chosen.items():
        common += times * (prior_with(space, school, here) @ space.members)
    out: FloatArray = common / chosen.total()
    return out


def _factors(log: FloatArray, names: Sequence[str]) -> Mapping[str, float]:
    return {name: float(np.exp(v)) for name, v in zip(names, log, strict=True)}


def _decisions(lessons: Sequence[LessonSeen], before: Learned | None) -> dict[str, Decisions]:
    found = dict(before.decisions) if before else {}
    for lesson in lessons:
        old = found.get(lesson.outcome.decided, Decisions())
        right = lesson.is_measured and lesson.outcome.fate == "confirmed"
        found[lesson.outcome.decided] = Decisions(
            decided=old.decided + 1,
            measured=old.measured + lesson.is_measured,
            confirmed=old.confirmed + right,
        )
    return dict(sorted(found.items()))
