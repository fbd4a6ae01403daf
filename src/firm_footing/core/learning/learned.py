"""How common is each cause here, and how is this eye, after these lessons?

A shrinking update of the shipped weights; the eye is in `eye.py`.

What the knowledge files say counts as a stated number of lessons. With N lessons of which n had a
cause (expected counts), and b how common it is by the files, a cause is as common as

    (W b + n) / (W + N)

says; the counts are taken anew under what was learned a few times (EM). Of that only what is beyond
chance is taken over, for a weight that wanders by chance makes the ranking worse. Nothing moves by
more than a stated factor against the average, and nothing at all before enough fates are known.
Fates that are known by the instructor's word alone move a stated part of what they would move had
they been measured.
"""

import math
from collections import Counter
from collections.abc import Container, Mapping, Sequence
from dataclasses import replace
from typing import Annotated, Final, Literal

import numpy as np
from pydantic import Field

from firm_footing.core.case import School
from firm_footing.core.case.base import Strict, Word
from firm_footing.core.case.past import Eye, Factor, Taught
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.casebook import CasebookNumbers
from firm_footing.core.learning.counts import (
    Counted,
    LessonSeen,
    Mark,
    counted,
    each_once,
    prior_with,
    weights_of,
)
from firm_footing.core.learning.eye import (
    EVERY_LOOK,
    NO_EYE,
    EyeFound,
    EyeTally,
    SeenAgain,
    eye_in_use,
    eye_of,
    tallied,
)

ROUNDS: Final = 4
"""Of counting anew under what was learned so far."""
STILL: Final = 1e-5
"""Weights that would move by less, as a logarithm, fit."""
FITS: Final = 8
"""Steps from what shall be common to the weights that make it so."""

Amount = Annotated[float, Field(ge=0, allow_inf_nan=False)]


class Tally(Strict):
    """What lessons came to: how many, and in how many each cause was expected, by the files."""

    lessons: Amount = 0.0
    expected: dict[Word, Amount] = Field(default_factory=dict)


class Decisions(Strict):
    """Decisions for one cause, and what measured fates said of them."""

    decided: Annotated[int, Field(ge=0)] = 0
    measured: Annotated[int, Field(ge=0)] = 0
    confirmed: Annotated[int, Field(ge=0)] = 0


class CauseLearned(Strict):
    """How common a cause is: by the files, here, and the factor of its weight."""

    shipped: Amount
    here: Amount
    factor: Annotated[float, Field(gt=0, le=100)]


class Learned(Strict):
    """What a casebook taught: a layer over the knowledge files, without names, notes or dates.

    measured : lessons whose fate something but a word says; everything : those by word as well
    answers : to looks, by eye
    every_look : factors of how often they are wrong, false yes and false no, at every look
    eye : the same of each look, for a `Case`
    lessons : marks of those that were learned from, so that none teaches twice; only where the
        student is told from others
    """

    format: Literal["firm-footing-learned"]
    version: Literal[1]
    knowledge: str
    outcomes: Annotated[int, Field(ge=0)]
    measured: Tally
    everything: Tally
    causes: dict[Word, CauseLearned]
    decisions: dict[Word, Decisions]
    answers: tuple[EyeTally, ...] = ()
    every_look: tuple[Factor, Factor] = NO_EYE.overall
    eye: Eye = ()
    lessons: tuple[Mark, ...] = ()

    @property
    def how_common(self) -> tuple[tuple[str, float], ...]:
        """(cause id, factor) of those that moved, for a `Case`."""
        return tuple((c, found.factor) for c, found in self.causes.items() if found.factor != 1.0)

    def taught_but(self, held: Container[str]) -> Taught:
        """What rankings take over; causes and looks that are held stay as they are shipped.

        `EVERY_LOOK` is held as well where what all looks have in common shall not move.
        """
        yes, no = self.every_look if EVERY_LOOK in held else (1.0, 1.0)
        eye = ((look, y / yes, n / no) for look, y, n in self.eye if look not in held)
        return Taught(
            how_common=tuple(f for f in self.how_common if f[0] not in held),
            eye=tuple(e for e in eye if e[1:] != (1.0, 1.0)),
        )


def unknown_in(learned: Learned, knowledge: Knowledge) -> str | None:
    """A cause or look it names that this knowledge does not have; None where there is none."""
    causes = (*learned.causes, *learned.measured.expected, *learned.everything.expected)
    looks = (*(e[0] for e in learned.eye), *(t.check for t in learned.answers))
    for names, there in ((causes, knowledge.cause), (looks, knowledge.check)):
        for name in names:
            if name not in there:
                return name
    return None


def learn(
    lessons: Sequence[LessonSeen],
    knowledge: Knowledge,
    before: Learned | None = None,
    colleagues: Sequence[Learned] = (),
) -> Learned:
    """What these lessons teach, after what was learned before; no lesson teaches twice.

    colleagues : what others learned says how common causes are beside these lessons, as if their
        students were one's own; their eyes and their decisions are theirs
    """
    known = set(before.lessons) if before else set()
    lessons, marks = each_once(lessons, known)
    space = enumerate_space(knowledge)
    outcomes = len(lessons) + (before.outcomes if before else 0)
    tallies = (before.measured, before.everything) if before else (Tally(), Tally())
    theirs = [(c.measured, c.everything) for c in colleagues]
    log, after = _how_common(lessons, tallies, theirs, space)
    asked, found = _eye_with(lessons, log, (), space, before)
    if outcomes < knowledge.casebook.least_outcomes:
        found = NO_EYE
    eye = eye_in_use(found, knowledge)
    if eye:
        again = SeenAgain(space, eye)
        lessons = [
            replace(one, likelihood=again.likelihood(one.likelihood, one.answers))
            for one in lessons
        ]
        log, after = _how_common(lessons, tallies, theirs, space)
        asked, found = _eye_with(lessons, log, eye, space, before)
    shipped, here = (_common(space, logs, lessons) for logs in (np.zeros_like(log), log))
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
        answers=asked,
        every_look=found.overall,
        eye=eye_in_use(found, knowledge),
        lessons=tuple(sorted(known | marks)),
    )


def _how_common(
    lessons: Sequence[LessonSeen],
    before: tuple[Tally, Tally],
    theirs: Sequence[tuple[Tally, Tally]],
    space: HypothesisSpace,
) -> tuple[FloatArray, tuple[Tally, Tally]]:
    """(causes,) log of the factors taken over, and the tallies of measured and of all lessons."""
    measured = [lesson for lesson in lessons if lesson.is_measured]
    of_measured, tally = _fitted(measured, before[0], [t[0] for t in theirs], space)
    of_all, whole = _fitted(lessons, before[1], [t[1] for t in theirs], space)
    word = space.knowledge.casebook.word_counts
    return of_measured + word * (of_all - of_measured), (tally, whole)


def _eye_with(
    lessons: Sequence[LessonSeen],
    log: FloatArray,
    eye: Eye,
    space: HypothesisSpace,
    before: Learned | None,
) -> tuple[tuple[EyeTally, ...], EyeFound]:
    """What the answers say of the eye, causes as common as `log` says; `eye` judged the lessons."""
    knowledge = space.knowledge
    factors = _factors(log, [c.id for c in knowledge.causes])
    priors = {s: prior_with(space, s, factors) for s in {one.school for one in lessons}}
    each = ((one.likelihood * priors[one.school], one.answers) for one in lessons)
    asked = tallied(each, space, before.answers if before else (), eye)
    return asked, eye_of(asked, knowledge)


def _fitted(
    lessons: Sequence[LessonSeen], before: Tally, theirs: Sequence[Tally], space: HypothesisSpace
) -> tuple[FloatArray, Tally]:
    """(causes,) log of the factors that fit, and the tally with these lessons, without theirs."""
    knowledge = space.knowledge
    numbers, names = knowledge.casebook, [c.id for c in knowledge.causes]
    earlier = np.array([before.expected.get(name, 0.0) for name in names])
    count = before.lessons + (float(weights_of(lessons).sum()) if lessons else 0.0)
    if not lessons:
        found = Counted(np.zeros(len(names)), np.zeros(len(names)))
    else:
        found = counted(lessons, space, {})
    tally = Tally(
        lessons=count,
        expected={n: float(e) for n, e in zip(names, earlier + found.expected, strict=True)},
    )
    of_others = sum(t.lessons for t in theirs)
    earlier += sum(np.array([t.expected.get(name, 0.0) for name in names]) for t in theirs)
    log, outcomes = np.zeros(len(names)), before.lessons + of_others + len(lessons)
    count += of_others
    if count == 0 or outcomes < numbers.least_outcomes:
        return log, tally
    shipped = _common(space, log, lessons)
    beyond = _beyond_chance(earlier + found.expected, found.spread, shipped, count, numbers)
    limit, now = math.log(numbers.most_factor), found.expected
    for _ in range(ROUNDS):
        wanted = (numbers.shipped_lessons * shipped + earlier + now) / (
            numbers.shipped_lessons + count
        )
        log = _weights_for(wanted, log, space, lessons)
        log = np.clip(log - np.average(log, weights=shipped), -limit, limit)
        if lessons:
            now = counted(lessons, space, _factors(log, names)).expected
    return log * beyond, tally


def _beyond_chance(
    expected: FloatArray,
    spread: FloatArray,
    shipped: FloatArray,
    count: float,
    numbers: CasebookNumbers,
) -> FloatArray:
    """(causes,) how much of what fits is taken over, 0 to 1: nothing of what chance would do.

    A count is held against what the files expect, all causes together made alike; its standard
    deviation is that of the lessons' own probabilities, and at least that of a stated part of plain
    answers. z of them away, 1 - (limit / z)^2 is taken, and nothing within the limit (the
    non-negative garrote).
    """
    alike = shipped * expected.sum() / shipped.sum()
    variance = np.maximum(spread, numbers.told_part * shipped * (1 - shipped))
    z = np.abs(expected - alike) / np.sqrt(count * variance)
    out: FloatArray = np.maximum(0.0, 1 - (numbers.beyond_chance / np.maximum(z, 1e-9)) ** 2)
    return out


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
        common = _common(space, log, lessons)
        step = np.log(np.maximum(wanted, 1e-12) / np.maximum(common, 1e-12))
        log = log + step
        if np.abs(step).max() < STILL:
            break
    return log


def _common(space: HypothesisSpace, log: FloatArray, lessons: Sequence[LessonSeen]) -> FloatArray:
    """(causes,) how common each cause is under these log factors, by these lessons' schools."""
    chosen = Counter(lesson.school for lesson in lessons) or Counter([School()])
    here = _factors(log, [c.id for c in space.knowledge.causes])
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
