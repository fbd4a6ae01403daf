"""Would every school start with the same cause?"""

from collections.abc import Mapping
from functools import lru_cache
from itertools import product
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.reasoning.looks import likelihood_of
from firm_footing.core.reasoning.stories import Stories
from firm_footing.core.reasoning.weighing import Weighing, school_bases, school_prior

FloatArray = NDArray[np.float64]

School = tuple[str, str]
"""Ids of the heel and toe school and of the lead foot school."""


def first_by_school(weighing: Weighing) -> dict[School, str]:
    """The cause every combination of schools would start with: the ranking redone under each.

    A school changes the prior of the causes; the likelihood is weighed anew only where it also
    changes how common an answered sign is.
    """
    stories, knowledge, counted = weighing.stories, weighing.knowledge, weighing.counted
    table = _school_table(stories, weighing.handicap)
    disputed = [p for p in weighing.pieces if p.id in _disputed(knowledge)]
    by_bases: dict[tuple[float, ...], FloatArray] = {}
    weights = np.empty_like(table.priors)
    for row, prior, bases in zip(weights, table.priors, table.bases, strict=True):
        key = tuple(bases[p.id] for p in disputed)
        if key not in by_bases:
            logs = weighing.now.log - weighing.now.log.max()
            for piece in disputed:
                if bases[piece.id] != weighing.bases[piece.id]:
                    anew = likelihood_of(piece.id, counted[piece.id], stories, bases[piece.id])
                    logs += piece.weight * anew.log - piece.adds
            by_bases[key] = stories.to_sets(np.exp(logs))
        np.multiply(by_bases[key], prior, out=row)
    firsts = (weights @ stories.roots).argmax(axis=1)
    return {name: knowledge.causes[i].id for name, i in zip(table.schools, firsts, strict=True)}


class _SchoolTable(NamedTuple):
    """Every combination of schools, its base rates, and its prior (schools, sets)."""

    schools: list[School]
    bases: list[Mapping[str, float]]
    priors: FloatArray


@lru_cache(maxsize=64)
def _school_table(stories: Stories, handicap: float) -> _SchoolTable:
    schools = stories.knowledge.schools
    combined = list(product(schools.heel_toe.options, schools.lead_foot.options))
    return _SchoolTable(
        schools=[(heel_toe.id, lead_foot.id) for heel_toe, lead_foot in combined],
        bases=[school_bases(stories.knowledge, handicap, options) for options in combined],
        priors=np.array([school_prior(stories, options) for options in combined]),
    )


@lru_cache(maxsize=4)
def _disputed(knowledge: Knowledge) -> frozenset[str]:
    """Checks whose base rate some school changes."""
    questions = (knowledge.schools.heel_toe, knowledge.schools.lead_foot)
    return frozenset(check for q in questions for o in q.options for check in o.check_base)
