"""Would every school start with the same cause?"""

from collections.abc import Mapping
from functools import lru_cache
from itertools import product
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import School as CaseSchool
from firm_footing.core.inference.check_likelihood import AskedTogether, changed, groups_asked
from firm_footing.core.inference.hypothesis_space import Stories
from firm_footing.core.inference.inference import Weighing, school_bases, school_prior

FloatArray = NDArray[np.float64]

School = tuple[str, str]
"""Ids of the heel and toe school and of the lead foot school."""


def first_by_school(weighing: Weighing) -> dict[School, str]:
    """The cause every heel-and-toe and lead-foot school would start with: the ranking redone.

    What was chosen in the other matters stays.

    A school changes the prior of the causes; the likelihood is weighed anew only where it also
    changes how common an answered sign is.
    """
    stories, causes = weighing.stories, weighing.knowledge.causes
    table = _school_table(stories, weighing.handicap, weighing.case.school)
    here = groups_asked(weighing.ratios, weighing.bases, weighing.knowledge)
    by_groups: dict[tuple[AskedTogether, ...], FloatArray] = {}
    weights = np.empty_like(table.priors)
    for row, prior, bases in zip(weights, table.priors, table.bases, strict=True):
        groups = tuple(groups_asked(weighing.ratios, bases, weighing.knowledge))
        if groups not in by_groups:
            logs = weighing.now.log - weighing.now.log.max() + changed(here, groups, stories)
            by_groups[groups] = stories.to_sets(np.exp(logs))
        np.multiply(by_groups[groups], prior, out=row)
    firsts = (weights @ weighing.starts).argmax(axis=1)
    return {name: causes[i].id for name, i in zip(table.schools, firsts, strict=True)}


class _SchoolTable(NamedTuple):
    """Every combination of schools, its base rates, and its prior (schools, sets)."""

    schools: list[School]
    bases: list[Mapping[str, float]]
    priors: FloatArray


@lru_cache(maxsize=64)
def _school_table(stories: Stories, handicap: float, school: CaseSchool) -> _SchoolTable:
    schools = stories.knowledge.schools
    pairs = [(a.id, b.id) for a, b in product(schools.heel_toe.options, schools.lead_foot.options)]
    said = school.model_dump()
    combined = [schools.chosen({**said, "heel_toe": a, "lead_foot": b}) for a, b in pairs]
    return _SchoolTable(
        schools=pairs,
        bases=[school_bases(stories.knowledge, handicap, options) for options in combined],
        priors=np.array([school_prior(stories, options) for options in combined]),
    )
