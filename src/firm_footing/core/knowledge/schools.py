"""On what do practitioners differ, and what does choosing one of their schools change?"""

from collections.abc import Mapping, Sequence
from itertools import product
from math import prod
from typing import NamedTuple

from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import Entry

CauseLink = tuple[str, str]
"""A cause, and one that it brings about."""


class SchoolOption(Entry):
    """One school's view, and what choosing it changes; which drills it teaches, the drills say.

    cause_weight : cause to the factor on how common it is
    check_base : check to how often it is seen in players with none of its causes
    drops_links : cause to the causes that it does not bring about, although `upstream_of` says so
    even_of : options of the same question of which this one is an even mixture
    begins_with : causes that, once seen, come before the feet
    """

    id: str
    name: str
    sentence: str
    cause_weight: dict[str, float] = Field(default_factory=dict)
    check_base: dict[str, float] = Field(default_factory=dict)
    drops_links: dict[str, tuple[str, ...]] = Field(default_factory=dict)
    even_of: tuple[str, ...] = ()
    begins_with: tuple[str, ...] = ()
    source: str

    @property
    def dropped(self) -> frozenset[CauseLink]:
        """`drops_links` as pairs."""
        return frozenset((above, c) for above, below in self.drops_links.items() for c in below)


class LinkView(NamedTuple):
    """One view of what brings about what.

    share : how much it counts, the shares of all views sum to one
    dropped : links of `upstream_of` that it does not hold with
    """

    share: float
    dropped: frozenset[CauseLink]


class SchoolQuestion(Entry):
    """A matter on which practitioners disagree."""

    title: str
    default: str
    options: tuple[SchoolOption, ...] = Field(min_length=2)

    @model_validator(mode="after")
    def _default_is_an_option(self) -> "SchoolQuestion":
        if self.default not in {o.id for o in self.options}:
            raise ValueError(f"default '{self.default}' is not one of the options")
        return self

    def option(self, option_id: str) -> SchoolOption:
        """The option of this id; KeyError when there is none."""
        for option in self.options:
            if option.id == option_id:
                return option
        raise KeyError(option_id)

    def link_views(self, option_id: str) -> tuple[LinkView, ...]:
        """What this option says of the links; an even mixture has a view for each of its parts."""
        option = self.option(option_id)
        parts = [self.option(part) for part in option.even_of] or [option]
        return tuple(LinkView(1 / len(parts), part.dropped) for part in parts)


class Schools(Entry):
    """All of `schools.yaml`: the questions."""

    pressure: SchoolQuestion
    heel_toe: SchoolQuestion
    lead_foot: SchoolQuestion
    start: SchoolQuestion
    heel_or_knee: SchoolQuestion
    trail_hip: SchoolQuestion
    head: SchoolQuestion

    def chosen(self, school: Mapping[str, str]) -> tuple[SchoolOption, ...]:
        """The option of each question that was chosen, in their order."""
        return tuple(question.option(school[name]) for name, question in self.questions.items())

    @property
    def questions(self) -> dict[str, SchoolQuestion]:
        """Id to question, in their order."""
        return {name: getattr(self, name) for name in type(self).model_fields}

    @property
    def usual(self) -> tuple[SchoolOption, ...]:
        """What a lesson starts with in each question."""
        return tuple(q.option(q.default) for q in self.questions.values())

    def link_views(self, options: Sequence[SchoolOption]) -> tuple[LinkView, ...]:
        """All combinations of what the options say of the links, one of each question in order."""
        said = [
            question.link_views(option.id)
            for question, option in zip(self.questions.values(), options, strict=True)
        ]
        return tuple(
            LinkView(prod(v.share for v in views), frozenset().union(*(v.dropped for v in views)))
            for views in product(*said)
        )
