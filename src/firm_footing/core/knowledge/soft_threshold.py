"""A limit that practitioners place about here, and how surely a value lies beyond it, in a word."""

from math import erf, hypot, sqrt

from pydantic import Field

from firm_footing.core.knowledge.vocabulary import Answer, Entry

CLEAR_YES, CLEAR_PARTLY = 0.75, 0.5


class SoftThreshold(Entry):
    """A limit that practitioners place about here.

    at : the limit
    doubt : standard deviation of where they place it
    """

    at: float
    sd: float = Field(gt=0)


def probability_beyond(value: float, limit: SoftThreshold, sd: float = 0.0) -> float:
    """P(the value lies beyond the limit); sd : standard deviation of the value."""
    return 0.5 * (1 + erf((value - limit.at) / (sqrt(2) * hypot(limit.sd, sd))))


def in_a_word(share: float) -> Answer | None:
    """A clearness as an answer; None where it says nothing clear."""
    if share >= CLEAR_YES:
        return "yes"
    if share >= CLEAR_PARTLY:
        return "partly"
    return "no" if share <= 1 - CLEAR_YES else None
