"""What do the answers to one check come to?

An answer is a reading of the check's fact, wrong as often as its source is; 'partly' is a mixture
of yes and no. However often a check is answered, what its answers say together stays within a
limit.
"""

from collections.abc import Iterable, Mapping
from typing import Final, NamedTuple

import numpy as np

from firm_footing.core.case import Case, Reading
from firm_footing.core.case.past import Eye
from firm_footing.core.knowledge import Check, Knowledge
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.knowledge.vocabulary import BY_EYE, Seen, Source

MOST_WRONG: Final = 0.45
"""However often an eye is wrong, it is right a little more often than not."""


class ErrorRates(NamedTuple):
    """How often an answer is wrong: yes where the fact is not so, no where it is."""

    false_yes: float
    false_no: float


def error_rates(check: Check, source: Source, eye: Eye, n: Numbers) -> ErrorRates:
    """Of answers to a check by hand, from this source, by this instructor.

    What is read off an instrument is wrong as often as the files say, whoever reads it.
    """
    error = n.reading_error.of(source, check.read_as)
    for name, yes, no in eye if source in BY_EYE else ():
        if name == check.id:
            return ErrorRates(min(MOST_WRONG, yes * error), min(MOST_WRONG, no * error))
    return ErrorRates(error, error)


def counted_readings(case: Case) -> dict[str, list[Reading]]:
    """The answers that count, by check: told apart from 'could not tell' and from drills."""
    counted: dict[str, list[Reading]] = {}
    for reading in case.readings:
        in_force = reading.block is not None and case.blocks[reading.block].kind != "baseline"
        if reading.answer != "unknown" and not in_force:
            counted.setdefault(reading.check, []).append(reading)
    return counted


def contradictions(counted: Mapping[str, list[Reading]]) -> tuple[str, ...]:
    """Checks answered with a clear yes and a clear no, by hand or by hand against the traces.

    Traces that differ from each other are none: one says yes, the next no.
    """
    return tuple(name for name, readings in counted.items() if _contradict(readings))


def _contradict(readings: list[Reading]) -> bool:
    by_hand = {r.answer for r in readings if r.by_hand} & {"yes", "no"}
    by_trace = {r.answer for r in readings if not r.by_hand} & {"yes", "no"}
    return len(by_hand) == 2 or (len(by_trace) == 1 and len(by_hand | by_trace) == 2)


def seen_of(counted: Mapping[str, list[Reading]], knowledge: Knowledge) -> dict[str, Seen]:
    """Cause id to whether it was seen, of every cause whose own looks were answered.

    Of several looks that show it, the one that says most for it.
    """
    found: dict[str, Seen] = {}
    for name, readings in counted.items():
        cause = knowledge.check[name].shows
        if cause is not None:
            word = _in_a_word(readings, knowledge.check[name], knowledge.numbers)
            before = found.get(cause, "no")
            found[cause] = max(word, before, key=("no", "partly", "yes").index)
    return found


def _in_a_word(readings: list[Reading], check: Check, numbers: Numbers) -> Seen:
    """What the answers to one check come to: the clear word that outweighs, else partly."""
    found = log_ratio_of(readings, check, numbers)
    clear = {r.answer for r in readings}
    if found > EVEN and "yes" in clear:
        return "yes"
    return "no" if found < -EVEN and "no" in clear else "partly"


EVEN = 1e-6
"""Answers whose log ratio is no larger balance each other."""


def log_ratio_of(readings: Iterable[Reading], check: Check, n: Numbers, eye: Eye = ()) -> float:
    """Log of P(these answers | the fact is so) over P(these answers | it is not), within its limit.

    See `unlimited_log_ratio_of`.
    """
    return within_limit(unlimited_log_ratio_of(readings, check, n, eye), n)


def within_limit(log_ratio: float, n: Numbers) -> float:
    """What all answers about one fact come to, whoever gave them: never surer than the limit."""
    most = float(np.log1p(-n.answers_saturate) - np.log(n.answers_saturate))
    return min(max(log_ratio, -most), most)


def unlimited_log_ratio_of(
    readings: Iterable[Reading], check: Check, n: Numbers, eye: Eye = ()
) -> float:
    """The same of some of the answers about a fact, to be added up before the limit.

    Answers by hand are separate readings. All pressure traces are one, and all films are, at the
    mean of how clearly they show it: another swing does not move the limits that it is judged by.
    """
    total = 0.0
    traced: list[float] = []
    filmed: list[float] = []
    for reading in readings:
        share = share_of(reading, n)
        if reading.by_hand:
            source = reading.source or check.sources[0]
            judged_by = () if reading.measured else eye
            total += _log_ratio(share, error_rates(check, source, judged_by, n))
        else:
            (traced if reading.trace is not None else filmed).append(share)
    for shares, error in ((traced, n.reading_error.mat), (filmed, n.reading_error.film_frame)):
        if shares:
            total += _log_ratio(float(np.mean(shares)), ErrorRates(error, error))
    return total


def share_of(reading: Reading, n: Numbers) -> float:
    """How clearly an answer says that the fact is so, 0 to 1."""
    if reading.share is not None:
        return reading.share
    return {"yes": 1.0, "no": 0.0, "partly": n.partly.yes_share}[reading.answer]


def _log_ratio(share: float, wrong: ErrorRates) -> float:
    so = share * (1 - wrong.false_no) + (1 - share) * wrong.false_no
    not_so = share * wrong.false_yes + (1 - share) * (1 - wrong.false_yes)
    return float(np.log(so) - np.log(not_so))
