"""Which answers hang together, and how much do they take from each other?

What one eye makes of one swing, or one mat of one trace, is not as many facts as it is answers.
"""

from collections.abc import Iterable
from functools import lru_cache

from firm_footing.core.case import Reading
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.numbers import DependentGroup


def discount_of(group: DependentGroup | None, knowledge: Knowledge) -> float:
    """How much answers of this group take from each other."""
    own = None if group is None else group.discount
    return knowledge.numbers.dependent_checks.discount if own is None else own


def independence(answers: int, discount: float) -> float:
    """How much each of so many answers of one dependent group counts."""
    return 1 / (1 + discount * max(0, answers - 1))


def group_of(
    check_id: str, readings: Iterable[Reading], knowledge: Knowledge
) -> DependentGroup | None:
    """The dependent group that these answers to a check belong to."""
    readings = list(readings)
    first = knowledge.check[check_id].sources[0]
    sources = {r.source or first for r in readings}
    filmed = any(r.film is not None for r in readings)
    found = [
        group
        for group in _groups_of_check(knowledge).get(check_id, ())
        if (filmed or not group.measured)
        and (group.sources is None or sources & set(group.sources))
    ]
    return found[-1] if found else None


@lru_cache(maxsize=4)
def _groups_of_check(knowledge: Knowledge) -> dict[str, list[DependentGroup]]:
    """Check id to the groups it can belong to; which one depends on its sources."""
    found: dict[str, list[DependentGroup]] = {}
    for group in knowledge.numbers.dependent_checks.groups:
        for name in group.checks:
            found.setdefault(name, []).append(group)
    return found
