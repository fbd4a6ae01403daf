"""How often is this instructor's eye wrong: yes where there is nothing, no where there is?

An answer is held against what everything else in its lesson says of the fact it asks for: the
balls, the other looks, traces, films, and what became of the decision. With q the probability of
the fact by all the rest, an eye of the rates y (false yes) and n (false no) says yes with

    y (1 - q) + (1 - n) q

How often the files say that an answer is wrong counts as a stated number of answers; all looks have
one factor of this eye, and each look its own beside it. Of both only what is beyond chance is taken
over, and no more than a stated factor.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from typing import Annotated, Final, NamedTuple

import numpy as np
from pydantic import Field

from firm_footing.core.case import Reading
from firm_footing.core.case.base import Strict, Word
from firm_footing.core.case.past import Eye
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.answers import MOST_WRONG, error_rates
from firm_footing.core.inference.caching import kept
from firm_footing.core.inference.check_likelihood import base_rates
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.casebook import CasebookNumbers
from firm_footing.core.knowledge.vocabulary import BY_EYE, Source

BINS: Final = 20
"""In which answers are counted by what the rest says of the fact."""
MIDDLES: Final = (np.arange(BINS) + 0.5) / BINS
STEPS: Final = 33
"""Factors that are tried either way, from the least to the most."""

EVERY_LOOK: Final = "every_look"
"""What is called what all looks have in common, where looks are named."""

Count = Annotated[int, Field(ge=0)]
Counts = Annotated[tuple[Count, ...], Field(min_length=BINS, max_length=BINS)]


class EyeAnswer(NamedTuple):
    """One plain answer by eye.

    weight : how much it counted beside others of its group, 0 to 1
    """

    check: str
    source: Source
    yes: bool
    weight: float


class EyeTally(Strict):
    """Answers to one look from one source, by what the rest of their lessons said of the fact."""

    check: Word
    source: Source
    yes: Counts = (0,) * BINS
    no: Counts = (0,) * BINS

    def with_answer(self, yes: bool, rest: float) -> "EyeTally":
        """The same and one answer; `rest` is the probability of the fact by the rest."""
        name = "yes" if yes else "no"
        counts = list(getattr(self, name))
        counts[min(BINS - 1, int(rest * BINS))] += 1
        return self.model_copy(update={name: tuple(counts)})

    @property
    def answers(self) -> int:
        """How many there are."""
        return sum(self.yes) + sum(self.no)


class EyeFound(NamedTuple):
    """Factors of how often answers are wrong: of every look, and of looks beside it."""

    overall: tuple[float, float]
    own: Mapping[str, tuple[float, float]]

    def of(self, check: str) -> tuple[float, float]:
        """Of one look: false yes, false no."""
        own = self.own.get(check, (1.0, 1.0))
        return self.overall[0] * own[0], self.overall[1] * own[1]


NO_EYE: Final = EyeFound((1.0, 1.0), {})
"""An eye as the files have it."""


def answers_by_eye(
    counted: Mapping[str, Sequence[Reading]], weights: Mapping[str, float], knowledge: Knowledge
) -> tuple[EyeAnswer, ...]:
    """The plain yes and no of a lesson, where a look was answered by eye once and alone.

    weights : of pieces of evidence, by their id
    """
    found = []
    for name, (first, *others) in counted.items():
        source = first.source or knowledge.check[name].sources[0]
        by_eye = first.by_hand and not first.measured and source in BY_EYE
        if by_eye and not others and first.answer in ("yes", "no") and first.share is None:
            found.append(EyeAnswer(name, source, first.answer == "yes", weights.get(name, 1.0)))
    return tuple(found)


@kept(megabytes=4)
def fact_of_sets(space: HypothesisSpace) -> FloatArray:
    """(looks, sets) P(the fact | the set), each cause at its usual clearness; order of `checks`.

    Of a player whose handicap is not known, in the usual mode.
    """
    knowledge = space.knowledge
    handicap = knowledge.numbers.handicap_left_out
    stuck = knowledge.numbers.stuck_mode.probability(handicap)
    bases = base_rates(knowledge, handicap, ())
    rows = []
    for check in knowledge.checks:
        base, log = bases[check.id], np.zeros(len(knowledge.causes))
        thrown, behind = (knowledge.points(check, mode) for mode in ("thrown", "stuck"))
        for cause in {**thrown, **behind}:
            alone = (1 - stuck) * thrown.get(cause, 0.0) + stuck * behind.get(cause, 0.0)
            log[knowledge.cause_index[cause]] = np.log((1 - max(alone, base)) / (1 - base))
        rows.append(1 - (1 - base) * np.exp(space.members @ log))
    return np.array(rows)


def said_of_sets(answer: EyeAnswer, space: HypothesisSpace, eye: Eye) -> FloatArray:
    """(sets,) P(this answer | the set), to the power of how much it counts."""
    knowledge = space.knowledge
    check = knowledge.check[answer.check]
    fact = fact_of_sets(space)[knowledge.checks.index(check)]
    wrong = error_rates(check, answer.source, eye, knowledge.numbers)
    yes = wrong.false_yes * (1 - fact) + (1 - wrong.false_no) * fact
    out: FloatArray = (yes if answer.yes else 1 - yes) ** answer.weight
    return out


class SeenAgain:
    """Judges lessons as if their answers were given by this eye."""

    def __init__(self, space: HypothesisSpace, eye: Eye) -> None:
        self._space, self._eye = space, eye
        self._moved = {name for name, _, _ in eye}
        self._ratios: dict[EyeAnswer, FloatArray] = {}

    def likelihood(self, before: FloatArray, answers: Iterable[EyeAnswer]) -> FloatArray:
        """(sets,) of a lesson, up to a constant; its largest is 1."""
        out = before.copy()
        for answer in answers:
            if answer.check in self._moved:
                out *= self._ratio(answer)
        out /= out.max()
        return out

    def _ratio(self, answer: EyeAnswer) -> FloatArray:
        """(sets,) of this answer's probability by this eye to that by the files'."""
        found = self._ratios.get(answer)
        if found is None:
            space = self._space
            found = said_of_sets(answer, space, self._eye) / said_of_sets(answer, space, ())
            self._ratios[answer] = found
        return found


def tallied(
    lessons: Iterable[tuple[FloatArray, Sequence[EyeAnswer]]],
    space: HypothesisSpace,
    before: Iterable[EyeTally],
    eye: Eye,
) -> tuple[EyeTally, ...]:
    """All answers of these lessons, and of those before.

    lessons : (sets,) probability of each set by the whole lesson, up to a constant, and its answers
    eye : by which the lessons were judged
    """
    fact = fact_of_sets(space)
    index = {c.id: i for i, c in enumerate(space.knowledge.checks)}
    found = {(t.check, t.source): t for t in before}
    without: dict[EyeAnswer, FloatArray] = {}
    for probability, answers in lessons:
        for answer in answers:
            if answer not in without:
                rest = 1 / said_of_sets(answer, space, eye)
                without[answer] = np.array([rest * fact[index[answer.check]], rest])
            so, whole = without[answer] @ probability
            key = answer.check, answer.source
            tally = found.get(key) or EyeTally(check=answer.check, source=answer.source)
            found[key] = tally.with_answer(answer.yes, float(so / whole))
    return tuple(found[key] for key in sorted(found))


def eye_of(tallies: Sequence[EyeTally], knowledge: Knowledge) -> EyeFound:
    """What is beyond chance of how often this eye is wrong.

    Of what is said of all looks, no single one says more than a stated part.
    """
    numbers = knowledge.casebook
    factors = np.exp(np.linspace(-1, 1, STEPS) * math.log(numbers.most_factor))
    by_look: dict[str, list[EyeTally]] = {}
    for tally in tallies:
        by_look.setdefault(tally.check, []).append(tally)
    most = numbers.one_look * sum(tally.answers for tally in tallies)
    log = _by_files(tallies, (1.0, 1.0), factors, knowledge)
    for some in by_look.values():
        counts = min(1.0, most / max(1, sum(tally.answers for tally in some)))
        log += counts * _said(some, (1.0, 1.0), factors, knowledge)
    overall = _beyond_chance(log, factors, numbers)
    own = {}
    for look, some in by_look.items():
        beside = _said(some, overall, factors, knowledge)
        beside += _by_files(some, overall, factors, knowledge)
        own[look] = _beyond_chance(beside, factors, numbers)
    return EyeFound(overall, {look: f for look, f in own.items() if f != (1.0, 1.0)})


def _said(
    tallies: Sequence[EyeTally],
    times: tuple[float, float],
    factors: FloatArray,
    knowledge: Knowledge,
) -> FloatArray:
    """(steps, steps) log-likelihood of these answers under each pair of factors.

    times : factors that go with them, false yes and false no
    """
    total = np.zeros((len(factors), len(factors)))
    for tally in tallies:
        wrong = error_rates(knowledge.check[tally.check], tally.source, (), knowledge.numbers)
        false_yes, false_no = (
            np.minimum(MOST_WRONG, e * t * factors) for e, t in zip(wrong, times, strict=True)
        )
        yes = false_yes[:, None, None] * (1 - MIDDLES) + (1 - false_no)[:, None] * MIDDLES
        total += np.log(yes) @ tally.yes + np.log1p(-yes) @ tally.no
    return total


def _by_files(
    tallies: Sequence[EyeTally],
    times: tuple[float, float],
    factors: FloatArray,
    knowledge: Knowledge,
) -> FloatArray:
    """(steps, steps) the same of what the files say, as a stated number of answers."""
    usual: list[tuple[float, float]] = [
        error_rates(knowledge.check[t.check], t.source, (), knowledge.numbers) for t in tallies
    ]
    logs = []
    for error, t in zip(np.mean(usual or [(MOST_WRONG, MOST_WRONG)], axis=0), times, strict=True):
        e = min(MOST_WRONG, float(error) * t)
        tried = np.minimum(MOST_WRONG, e * factors)
        logs.append(e * np.log(tried) + (1 - e) * np.log1p(-tried))
    out: FloatArray = knowledge.casebook.shipped_answers * (logs[0][:, None] + logs[1])
    return out


def _beyond_chance(
    log: FloatArray, factors: FloatArray, numbers: CasebookNumbers
) -> tuple[float, float]:
    """Of false yes and false no, what is farther than chance would take it (see `learned.py`)."""
    weight = np.exp(log - log.max())
    weight /= weight.sum()
    found = []
    for axis in (1, 0):
        by_factor, size = weight.sum(axis=axis), np.log(factors)
        mean = float(by_factor @ size)
        sd = math.sqrt(float(by_factor @ (size - mean) ** 2))
        z = abs(mean) / max(sd, 1e-9)
        found.append(math.exp(mean * max(0.0, 1 - (numbers.beyond_chance / max(z, 1e-9)) ** 2)))
    return found[0], found[1]


def eye_in_use(found: EyeFound, knowledge: Knowledge) -> Eye:
    """For a `Case`: looks of which the eye is wrong more often than the files say, or less.

    No factor is larger than all of them may be, whatever the two parts multiply to.
    """
    most = knowledge.casebook.most_factor
    bounded = {
        c.id: tuple(min(most, max(1 / most, f)) for f in found.of(c.id)) for c in knowledge.checks
    }
    return tuple((name, yes, no) for name, (yes, no) in bounded.items() if (yes, no) != (1.0, 1.0))
