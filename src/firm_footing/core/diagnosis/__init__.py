"""All that is concluded from a case, and in words: what every door answers with."""

from firm_footing.core.diagnosis.between import Between, between
from firm_footing.core.diagnosis.diagnosis import Diagnosis, RankedCause, diagnose, with_checks
from firm_footing.core.diagnosis.ranking import Ranking, ranking_of

__all__ = [
    "Between",
    "Diagnosis",
    "RankedCause",
    "Ranking",
    "between",
    "diagnose",
    "ranking_of",
    "with_checks",
]
