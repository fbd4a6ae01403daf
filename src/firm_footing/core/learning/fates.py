"""What became of a decision, by everything that says so?

The retest tells whether the balls changed when the cause was worked on; trace and film whether the
cause itself went; who asks the student later hears the rest. Where a sign of the cause is still
there at the retest, the cause was not taken away, and balls that stayed as they were say nothing
about it.
"""

from collections.abc import Mapping, Sequence
from typing import Final, Literal

from firm_footing.core.case import Case, Reading
from firm_footing.core.case.past import DecisionOutcome
from firm_footing.core.coaching.before_after import Comparison
from firm_footing.core.inference.answered import Answers
from firm_footing.core.inference.film_answers import answers_of_films
from firm_footing.core.inference.history_likelihood import log_ratio_of_fate
from firm_footing.core.inference.trace_answers import answers_of_traces
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.casebook import CasebookNumbers, Fate, KnownBy
from firm_footing.core.knowledge.soft_threshold import in_a_word
from firm_footing.core.patterns import read_pattern

SignFate = Fate | Literal["still_there"]
"""What became of a cause's own signs."""
BALANCED: Final = 1e-9
"""Log-odds that differ by no more are the same."""


def fate_of_retest(found: Comparison | None, knowledge: Knowledge) -> Fate | None:
    """What the measure fixed beforehand says; None where it decides nothing.

    Better beyond chance confirms the cause, partly where something else was predicted; worse, or
    as far off on the other side, rejects it. So does a retest of as many balls as planned that
    shows nothing, where it would usually have shown a half mended student. One that changed at
    first and did not hold decides nothing.
    """
    if found is None or not found.fixed or found.result is None or found.result.moved is None:
        return None
    if found.result.state == "not_held":
        return None
    deciding = found.deciding
    if found.result.state == "real":
        if found.result.moved.direction != "better":
            return "rejected"
        return "confirmed" if deciding.predicted is None or deciding.as_predicted else "partly"
    planned = len(deciding.series.after) >= knowledge.numbers.coaching.retest.balls
    would_show = found.power >= knowledge.casebook.enough_power
    return "rejected" if planned and would_show else None


def signs_of_trace(case: Case, cause: str, knowledge: Knowledge) -> SignFate | None:
    """What became of a cause's signs on the mat, from baseline to retest."""
    if not case.traces:
        return None
    then, now = (
        answers_of_traces(c, read_pattern(c.baselines, knowledge, c.handicap), knowledge)
        for c in (case, retest_as_baseline(case))
    )
    return what_became_of_signs(then, now, cause, knowledge)


def signs_of_film(case: Case, cause: str, knowledge: Knowledge) -> SignFate | None:
    """What became of a cause's signs on film, from baseline to retest."""
    if not case.films:
        return None
    then, now = (answers_of_films(c, knowledge) for c in (case, retest_as_baseline(case)))
    return what_became_of_signs(then, now, cause, knowledge)


def retest_as_baseline(case: Case) -> Case:
    """The lesson as if its retest were the baseline; what belongs to no block is from before it."""
    other = {"baseline": "retest", "retest": "baseline"}
    blocks = (b.model_copy(update={"kind": other.get(b.kind, b.kind)}) for b in case.blocks)
    return case.model_copy(
        update={
            "blocks": tuple(blocks),
            "traces": tuple(t for t in case.traces if t.block is not None),
            "films": tuple(f for f in case.films if f.block is not None),
        }
    )


def what_became_of_signs(
    then: Answers, now: Answers, cause: str, knowledge: Knowledge
) -> SignFate | None:
    """Of the looks that show the cause, those that were clearly there; None without any in both."""
    found: set[SignFate] = set()
    for check in then:
        if knowledge.check[check].shows != cause or check not in now:
            continue
        if _mean_word(then[check]) == "yes":
            gone: dict[str | None, SignFate] = {"no": "confirmed", "yes": "still_there"}
            found.add(gone.get(_mean_word(now[check]), "partly"))
    if not found:
        return None
    return found.pop() if len(found) == 1 else "partly"


def _mean_word(readings: Sequence[Reading]) -> str | None:
    shares = [r.share if r.share is not None else float(r.answer == "yes") for r in readings]
    return in_a_word(sum(shares) / len(shares))


def measured_fates(
    retest: Fate | None, trace: SignFate | None, film: SignFate | None
) -> dict[KnownBy, Fate]:
    """What the lesson itself says of its decision, by what says it."""
    if retest == "rejected" and "still_there" in (trace, film):
        retest = None
    said: dict[KnownBy, SignFate | None] = {"retest": retest, "trace": trace, "film": film}
    return {kind: f for kind, f in said.items() if f is not None and f != "still_there"}


def outcome_of(
    decided: str, fates: Mapping[KnownBy, Fate], numbers: CasebookNumbers
) -> DecisionOutcome | None:
    """The fate that outweighs; None where nothing is known, or what speaks against weighs as much.

    Log-odds add up, each kind with its own reliability. Where kinds disagree, those that outweigh
    are named as far as what is left of them bears it out: a retest (.80) against what came back
    (.75) leaves the decision open.
    """
    ratios = {kind: _log_ratio(decided, kind, fate, numbers) for kind, fate in fates.items()}
    left = sum(ratios.values())
    sign = 1 if left > 0 else -1
    left = abs(left) + BALANCED
    named: dict[KnownBy, Fate] = {}
    for kind in sorted(fates, key=lambda k: -sign * ratios[k]):
        if 0 < sign * ratios[kind] <= left:
            named[kind] = fates[kind]
            left -= sign * ratios[kind]
    if not named:
        return None
    fate: Fate = "rejected"
    if sign > 0:
        fate = "confirmed" if "confirmed" in named.values() else "partly"
    return DecisionOutcome(decided=decided, fate=fate, known_by=tuple(named))


def _log_ratio(decided: str, kind: KnownBy, fate: Fate, numbers: CasebookNumbers) -> float:
    one = DecisionOutcome(decided=decided, fate=fate, known_by=(kind,))
    return log_ratio_of_fate(one, numbers)
