"""Would every school start with the same cause?"""

from collections.abc import Hashable
from dataclasses import replace
from typing import NamedTuple

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.answers import seen_of
from firm_footing.core.inference.check_likelihood import (
    AskedTogether,
    changed,
    groups_asked,
    ratios_of,
)
from firm_footing.core.inference.chosen_schools import chosen_schools
from firm_footing.core.inference.inference import Inference
from firm_footing.core.inference.posterior import normalised
from firm_footing.core.inference.prior import set_prior
from firm_footing.core.inference.start import first_seen, root_of, starts_of, supported_causes
from firm_footing.core.inference.trace_answers import answers_of_traces

JUDGE_TRACES = ("pressure", "heel_toe")
"""The questions whose schools read a pressure trace in their own way."""


class SchoolStart(NamedTuple):
    """The cause that is first in the order under another school.

    question, option : of `schools.yaml`; what was chosen in the other questions stays
    """

    question: str
    option: str
    start_with: str


def start_by_school(inference: Inference) -> tuple[SchoolStart, ...]:
    """The ranking redone under every school that was not chosen, one question at a time."""
    redone = _Redone(inference)
    chosen = inference.case.school.model_dump()
    return tuple(
        SchoolStart(name, option.id, redone.first_under(name, option.id))
        for name, question in inference.knowledge.schools.questions.items()
        for option in question.options
        if option.id != chosen[name]
    )


class _Redone:
    """What `infer` would find first if another school had been chosen.

    A school changes how common causes and sights are taken to be, what brings about what, what a
    trace is taken to say, and what comes first. What the balls say stays; so does what a trial is
    taken to remove along with a cause.
    """

    def __init__(self, inference: Inference) -> None:
        self.inference, self.space = inference, inference.space
        self.knowledge = inference.knowledge
        self.found: dict[Hashable, str] = {}  # many schools come to the same
        prior = inference.prior
        self.likelihood: FloatArray = np.divide(  # of a set, but for a constant
            inference.now.cause_set, prior, out=np.zeros_like(prior), where=prior > 0
        )

    def first_under(self, question: str, option: str) -> str:
        """Id of the cause first in the order under this option."""
        before, knowledge = self.inference, self.knowledge
        school = before.case.school.model_copy(update={question: option})
        chosen = chosen_schools(school, knowledge, before.handicap, before.case.how_common)
        counted, ratios, seen = before.counted, before.ratios, before.seen
        supported = before.supported
        if question in JUDGE_TRACES and before.case.traces:
            case = before.case.model_copy(update={"school": school})
            traced = answers_of_traces(case, before.pattern, knowledge)
            counted = replace(before.given, traced=traced).counted()
            ratios = ratios_of(counted, knowledge, before.case.eye)
            seen = seen_of(counted, knowledge)
            points = before.balls.points_of_balls
            supported = supported_causes(frozenset(counted), seen, points, knowledge)
        groups = before.groups
        if (ratios, chosen.bases) != (before.ratios, before.bases):
            groups = tuple(groups_asked(ratios, chosen.bases, knowledge))
        first = first_seen(seen, chosen.options, knowledge)
        key = groups, chosen.prior, first.tobytes(), supported.tobytes()
        if key not in self.found:
            cause_set = self._likelihood(groups) * set_prior(self.space, chosen.prior)
            starts = starts_of(self.space, supported, first, chosen.prior)
            root = root_of(self.space, cause_set, starts)
            self.found[key] = knowledge.causes[int(np.argmax(root))].id
        return self.found[key]

    def _likelihood(self, groups: tuple[AskedTogether, ...]) -> FloatArray:
        """(sets,) likelihood of each set, but for a constant, with these answers to the looks."""
        here = self.inference.groups
        if groups == here:
            return self.likelihood
        log = self.inference.now.log + changed(here, groups, self.space)
        return self.space.to_sets(normalised(log, np.ones(1)))
