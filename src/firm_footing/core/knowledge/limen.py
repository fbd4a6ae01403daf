"""A limit that practitioners place about here, and how surely a value lies beyond it."""

from math import erf, hypot, sqrt

from pydantic import Field

from firm_footing.core.knowledge.vocabulary import Entry


class Limen(Entry):
    """A limit that practitioners place about here.

    at : the limit
    doubt : standard deviation of where they place it
    """

    at: float
    doubt: float = Field(gt=0)


def sure(value: float, limit: Limen, sd: float = 0.0) -> float:
    """P(the value lies beyond the limit); sd : standard deviation of the value."""
    return 0.5 * (1 + erf((value - limit.at) / (sqrt(2) * hypot(limit.doubt, sd))))
