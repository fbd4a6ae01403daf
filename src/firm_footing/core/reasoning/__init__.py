"""Which causes fit the evidence, which of them is the root, and what should be looked at next?

    evidence -> log-likelihood of every story -> posterior -> ranking, next looks

A *set* is up to three causes at work at once; a *hypothesis* is a set with the mode (thrown or
stuck) and the severity of each cause; a *story* is a hypothesis with the side of its two-sided
causes. All stories are enumerated; nothing is sampled.
"""

from firm_footing.core.reasoning.between import Between, between
from firm_footing.core.reasoning.diagnosis import Diagnosis, RankedCause, diagnose, with_looks
from firm_footing.core.reasoning.look_round import Round, round_of_looks
from firm_footing.core.reasoning.next_check import next_checks
from firm_footing.core.reasoning.ranking import Ranking, ranking_of
from firm_footing.core.reasoning.separating import SeparatingBlock, Verdict, separating_blocks
from firm_footing.core.reasoning.weighing import weigh
from firm_footing.core.reasoning.what_if import Seen, WhatIf, without

__all__ = [
    "Between",
    "Diagnosis",
    "RankedCause",
    "Ranking",
    "Round",
    "Seen",
    "SeparatingBlock",
    "Verdict",
    "WhatIf",
    "between",
    "diagnose",
    "next_checks",
    "ranking_of",
    "round_of_looks",
    "separating_blocks",
    "weigh",
    "with_looks",
    "without",
]
