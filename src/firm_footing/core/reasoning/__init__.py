"""Which causes fit the evidence, which of them is the root, and what should be looked at next?

    evidence -> log-likelihood of every story -> posterior -> ranking, next looks

A *set* is up to three causes present at once; a *story* is a set together with the mode (thrown
or stuck) and the side of its two-sided causes. All stories are enumerated; nothing is sampled.
"""

from firm_footing.core.reasoning.between import Between, between
from firm_footing.core.reasoning.diagnosis import Diagnosis, RankedCause, diagnose
from firm_footing.core.reasoning.ranking import Ranking, ranking_of
from firm_footing.core.reasoning.weighing import weigh

__all__ = [
    "Between",
    "Diagnosis",
    "RankedCause",
    "Ranking",
    "between",
    "diagnose",
    "ranking_of",
    "weigh",
]
