"""Would every school start with the same cause?"""

from itertools import product

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.reasoning.looks import likelihood_of
from firm_footing.core.reasoning.posterior import add_up
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
    schools = knowledge.schools
    total = add_up(weighing.log_telling, weighing.pieces)
    asked = {p.id: p for p in weighing.pieces if p.id in counted}
    by_bases: dict[tuple[float, ...], FloatArray] = {}
    weights, names = [], []
    for options in product(schools.heel_toe.options, schools.lead_foot.options):
        other = school_bases(knowledge, weighing.handicap, options)
        key = tuple(other[name] for name in asked)
        if key not in by_bases:
            logs = total.copy()
            for piece in asked.values():
                if other[piece.id] != weighing.bases[piece.id]:
                    anew = likelihood_of(piece.id, counted[piece.id], stories, other[piece.id])
                    logs += piece.weight * anew.log - piece.adds
            by_bases[key] = stories.to_sets(np.exp(logs - logs.max()))
        weights.append(by_bases[key] * school_prior(stories, options))
        names.append((options[0].id, options[1].id))
    firsts = (np.array(weights) @ stories.roots).argmax(axis=1)
    return {name: knowledge.causes[i].id for name, i in zip(names, firsts, strict=True)}
