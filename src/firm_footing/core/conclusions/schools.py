"""Would every school start with the same cause?"""

from collections.abc import Mapping
from functools import lru_cache
from itertools import product
from typing import NamedTuple

import numpy as np

from firm_footing.core.case import School as CaseSchool
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.check_likelihood import AskedTogether, changed, groups_asked
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.inference import Inference, school_bases, school_prior

SchoolPair = tuple[str, str]
"""Ids of the heel and toe school and of the lead foot school."""


def first_by_school(inference: Inference) -> dict[SchoolPair, str]:
    """The cause every heel-and-toe and lead-foot school would start with: the ranking redone.

    What was chosen in the other matters stays.

    A school changes the prior of the causes; the likelihood is weighed anew only where it also
    changes how common an answered sign is.
    """
    space, causes = inference.space, inference.knowledge.causes
    table = _school_table(space, inference.handicap, inference.case.school)
    here = groups_asked(inference.ratios, inference.bases, inference.knowledge)
    by_groups: dict[tuple[AskedTogether, ...], FloatArray] = {}
    weights = np.empty_like(table.priors)
    for row, prior, bases in zip(weights, table.priors, table.bases, strict=True):
        groups = tuple(groups_asked(inference.ratios, bases, inference.knowledge))
        if groups not in by_groups:
            logs = inference.now.log - inference.now.log.max() + changed(here, groups, space)
            by_groups[groups] = space.to_sets(np.exp(logs))
        np.multiply(by_groups[groups], prior, out=row)
    firsts = (weights @ inference.starts).argmax(axis=1)
    return {name: causes[i].id for name, i in zip(table.schools, firsts, strict=True)}


class _SchoolTable(NamedTuple):
    """Every combination of schools, its base rates, and its prior (schools, sets)."""

    schools: list[SchoolPair]
    bases: list[Mapping[str, float]]
    priors: FloatArray


@lru_cache(maxsize=64)
def _school_table(space: HypothesisSpace, handicap: float, school: CaseSchool) -> _SchoolTable:
    schools = space.knowledge.schools
    pairs = [(a.id, b.id) for a, b in product(schools.heel_toe.options, schools.lead_foot.options)]
    said = school.model_dump()
    combined = [schools.chosen({**said, "heel_toe": a, "lead_foot": b}) for a, b in pairs]
    return _SchoolTable(
        schools=pairs,
        bases=[school_bases(space.knowledge, handicap, options) for options in combined],
        priors=np.array([school_prior(space, options) for options in combined]),
    )
