"""How many of these lessons' students had each cause? Expected counts, lesson by lesson.

A lesson speaks with all its evidence, not with what was decided: the probabilities of a cause under
everything seen, to which the fate of the decision adds one more piece, with its own reliability. A
cause that nobody asked about is missing, not absent: it keeps the probability that the rest gives.
"""

from collections import Counter
from collections.abc import Container, Mapping, Sequence
from dataclasses import dataclass
from hashlib import sha256
from typing import Annotated, Final

import numpy as np
from pydantic import Field

from firm_footing.core.case import Case, School
from firm_footing.core.case.past import DecisionOutcome
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.chosen_schools import school_options
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.history_likelihood import log_ratio_of_fate
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.inference import Inference, infer
from firm_footing.core.inference.prior import prior_view, set_prior
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.eye import EyeAnswer, answers_by_eye

AT_ONCE: Final = 256
"""Lessons counted together: more are no quicker, and take memory."""

Mark = Annotated[str, Field(pattern=r"^[0-9a-f]{16}$")]
"""Of a lesson: tells whether it is the same one, and nothing else of it."""


@dataclass(frozen=True, eq=False)
class LessonSeen:
    """One lesson with a known fate, as far as it tells how common causes are.

    likelihood : (sets,) of each set of causes, up to a constant: all the evidence, and the fate
    school : what was chosen, which says what was likely beforehand
    outcome : of its decision
    answers : plain ones by eye
    person : an anonymous word; the lessons of one person count as one together. The same as `order`
        where nobody said who it was
    order : tells it from all others, and sorts lessons, so that no sum depends on the order in
        which they come
    """

    likelihood: FloatArray
    school: School
    outcome: DecisionOutcome
    person: str
    order: str
    answers: tuple[EyeAnswer, ...] = ()

    @property
    def is_measured(self) -> bool:
        """Whether anything but the instructor's own word says what became of it."""
        return any(kind != "word" for kind in self.outcome.known_by)


def likelihood_of(case: Case, knowledge: Knowledge) -> FloatArray:
    """(sets,) likelihood of all that was seen, up to a constant; its largest is 1.

    What is known of the student's past, and of other students, is left out.
    """
    return likelihood_from(infer(by_itself(case), knowledge))


def by_itself(case: Case) -> Case:
    """A case without what is known of the student's past, and of other students."""
    return case.model_copy(update={"history": (), "how_common": (), "eye": ()})


def likelihood_from(found: Inference) -> FloatArray:
    """(sets,) the same, of a case weighed already, without a history."""
    likelihood = np.divide(
        found.now.cause_set, found.prior, out=np.zeros_like(found.prior), where=found.prior > 0
    )
    out: FloatArray = likelihood / likelihood.max()
    return out


def with_fate(likelihood: FloatArray, outcome: DecisionOutcome, knowledge: Knowledge) -> FloatArray:
    """(sets,) the same with what became of the decision; its largest is 1."""
    space = enumerate_space(knowledge)
    had = space.members[:, knowledge.cause_index[outcome.decided]] > 0
    ratio = np.exp(log_ratio_of_fate(outcome, knowledge.casebook))
    both = likelihood * np.where(had, ratio, 1.0)
    out: FloatArray = both / both.max()
    return out


def lesson_seen(
    case: Case, outcome: DecisionOutcome, person: str, order: str, knowledge: Knowledge
) -> LessonSeen:
    """A case with what became of its decision."""
    found = infer(by_itself(case), knowledge)
    likelihood = with_fate(likelihood_from(found), outcome, knowledge)
    return LessonSeen(likelihood, case.school, outcome, person, order, answers_in(found))


def answers_in(found: Inference) -> tuple[EyeAnswer, ...]:
    """The plain answers by eye of a case weighed already."""
    weights = {piece.id: piece.weight for piece in found.pieces}
    return answers_by_eye(found.counted, weights, found.knowledge)


def each_once(
    lessons: Sequence[LessonSeen], known: Container[str]
) -> tuple[list[LessonSeen], set[Mark]]:
    """Those not known yet, in their order, and their marks.

    Of two lessons alike of nobody in particular nobody can say that they are one: both count.
    """
    found: list[LessonSeen] = []
    marks: set[Mark] = set()
    for lesson in sorted(lessons, key=lambda lesson: lesson.order):
        if lesson.person == lesson.order:
            found.append(lesson)
            continue
        mark = sha256(f"{lesson.person} {lesson.order}".encode()).hexdigest()[:16]
        if mark not in known and mark not in marks:
            found.append(lesson)
            marks.add(mark)
    return found, marks


def weights_of(lessons: Sequence[LessonSeen]) -> FloatArray:
    """(lessons,) how much each counts: a person's lessons are one together."""
    times = Counter(lesson.person for lesson in lessons)
    return np.array([1 / times[lesson.person] for lesson in lessons])


@dataclass(frozen=True, eq=False)
class Counted:
    """Expected counts under some idea of how common causes are.

    expected : (causes,) how many had each
    spread : (causes,) variance of one lesson's probability of it, from lesson to lesson
    """

    expected: FloatArray
    spread: FloatArray


def prior_with(space: HypothesisSpace, school: School, factors: Mapping[str, float]) -> FloatArray:
    """(sets,) how likely each set is beforehand, causes so much commoner than by the files."""
    options = school_options(school, space.knowledge)
    return set_prior(space, prior_view(space.knowledge, options, tuple(factors.items())))


def counted(
    lessons: Sequence[LessonSeen], space: HypothesisSpace, factors: Mapping[str, float]
) -> Counted:
    """Expected counts of all lessons; `factors` of how common causes are taken to be."""
    weights = weights_of(lessons)
    present = np.zeros((len(lessons), len(space.knowledge.causes)))
    rows: dict[School, list[int]] = {}
    for row, lesson in enumerate(lessons):
        rows.setdefault(lesson.school, []).append(row)
    for school, of_school in rows.items():
        prior = prior_with(space, school, factors)
        members = np.column_stack([prior[:, None] * space.members, prior])
        for start in range(0, len(of_school), AT_ONCE):
            some = of_school[start : start + AT_ONCE]
            sums = np.array([lessons[row].likelihood for row in some]) @ members
            present[some] = sums[:, :-1] / sums[:, -1:]
    return Counted(weights @ present, present.var(axis=0))
