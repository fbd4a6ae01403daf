"""What do earlier lessons of the same student say about today?

A cause that was confirmed is there again with a stated probability, and one that was treated and
held is there less often than in anybody; both fade, by half in a stated time. With b how common the
cause is, R how much likelier the fate is where the cause was at work, and s the probability that
what was there is there today,

    P(the fate | there today)     is as  R s + (1 - s)
    P(the fate | not there today) is as  R (1 - s) b / (1 - b) + 1 - (1 - s) b / (1 - b)

if the cause is as common today as it was then (s = b: nothing is said). Of several decisions on one
cause the newest speaks; that there were more says that it comes back.
"""

import math
from collections.abc import Iterator, Sequence

import numpy as np

from firm_footing.core.case.past import DecisionOutcome, PastDecision
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.evidence import Piece, leave_one_out_weight_of
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.knowledge.casebook import CasebookNumbers


def log_ratio_of_fate(outcome: DecisionOutcome, numbers: CasebookNumbers) -> float:
    """Log of P(the fate | the cause was at work) over P(the fate | it was not).

    What says so adds up, each with its own reliability, up to a limit.
    """
    odds = sum(_log_odds(numbers.known_by[kind]) for kind in dict.fromkeys(outcome.known_by))
    sure = min(odds, _log_odds(numbers.most_right))
    return {"confirmed": sure, "partly": numbers.partly * sure, "rejected": -sure}[outcome.fate]


def history_pieces(
    history: Sequence[PastDecision], space: HypothesisSpace, prior: FloatArray
) -> Iterator[Piece]:
    """Evidence `history:i` for the newest decision on each cause.

    prior : (sets,) how likely each set is beforehand
    """
    numbers, index = space.knowledge.casebook, space.knowledge.cause_index
    common = prior @ space.members
    newest_first = sorted(range(len(history)), key=lambda i: history[i].days_ago)
    spoken: set[str] = set()
    for i in newest_first:
        cause = history[i].decided
        if cause in spoken:
            continue
        spoken.add(cause)
        column = index[cause]
        came_back = any(
            p.decided == cause and p.fate != "rejected" for j, p in enumerate(history) if j != i
        )
        ratio = _log_ratio_today(history[i], float(common[column]), came_back, numbers)
        present = space.members[space.hypotheses.set_of, column] > 0
        log = np.where(present, ratio, 0.0)
        yield Piece(f"history:{i}", log, leave_one_out_weight_of(log))


def _log_ratio_today(
    past: PastDecision, common: float, came_back: bool, numbers: CasebookNumbers
) -> float:
    """Log of P(what was found then | the cause is there today) over P(it | it is not)."""
    ratio = math.exp(log_ratio_of_fate(past, numbers))
    if past.fate != "rejected":
        ratio *= numbers.decided
    stays = numbers.stays_again if came_back else numbers.stays
    if past.held:
        stays = numbers.held * common
    fades = 0.5 ** (past.days_ago / numbers.half_life_days)
    stays = common + (stays - common) * fades
    was_not_today = (1 - stays) * common / (1 - common)
    return math.log(ratio * stays + 1 - stays) - math.log(ratio * was_not_today + 1 - was_not_today)


def _log_odds(p: float) -> float:
    return math.log(p / (1 - p))
