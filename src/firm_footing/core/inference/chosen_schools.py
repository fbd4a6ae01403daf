"""What do the chosen schools say before anything is asked?"""

from collections.abc import Mapping
from functools import lru_cache
from typing import NamedTuple

from firm_footing.core.case import School
from firm_footing.core.inference.check_likelihood import base_rates
from firm_footing.core.inference.prior import PriorView, prior_view
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.schools import SchoolOption


class ChosenSchools(NamedTuple):
    """What was chosen in each matter of dispute, and what comes of it.

    options : one of each question, in their order
    prior : what they say of the causes beforehand
    bases : check id to its base rate for this player
    """

    options: tuple[SchoolOption, ...]
    prior: PriorView
    bases: Mapping[str, float]


@lru_cache(maxsize=256)  # every school that was not chosen is asked at every touch
def chosen_schools(
    school: School,
    knowledge: Knowledge,
    handicap: float,
    how_common: tuple[tuple[str, float], ...] = (),
) -> ChosenSchools:
    """The same; `how_common` is (cause id, factor) of its base weight, as a casebook has it."""
    options = school_options(school, knowledge)
    overrides = tuple((check, base) for o in options for check, base in o.check_base.items())
    return ChosenSchools(
        options,
        prior_view(knowledge, options, how_common),
        base_rates(knowledge, handicap, overrides),
    )


def school_options(school: School, knowledge: Knowledge) -> tuple[SchoolOption, ...]:
    """What was chosen in each matter of dispute."""
    return knowledge.schools.chosen(school.model_dump())
