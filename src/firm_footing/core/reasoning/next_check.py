"""What should be looked at next?

The look that tells most, per second on the tee, about which cause to start with.
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.knowledge import Check, Knowledge
from firm_footing.core.knowledge.vocabulary import Source
from firm_footing.core.reasoning.looks import fact_probability, fact_table
from firm_footing.core.reasoning.posterior import Posterior
from firm_footing.core.reasoning.scratch import scratch
from firm_footing.core.reasoning.stories import Stories

FloatArray = NDArray[np.float64]


@dataclass(frozen=True)
class NextCheck:
    """A look not yet taken, with what it would tell.

    gain_bits : mutual information between its yes/no answer and the cause to start with
    seconds : what it takes, without setting up
    source : the means it would be taken with
    """

    id: str
    gain_bits: float
    seconds: int
    source: Source


def start_of_each_set(stories: Stories, present: FloatArray) -> NDArray[np.int_]:
    """(sets,) the cause to start with if that set were the truth.

    It is the root of the set that is likeliest now; the number of causes stands for none.
    """
    causes = len(present)
    value = np.append(present, -1.0)
    best = stories.roots_listed[:, 0]
    for other in stories.roots_listed.T[1:]:
        best = np.where(value[other] > value[best], other, best)
    return np.minimum(best, causes)


def next_checks(
    stories: Stories,
    now: Posterior,
    bases: Mapping[str, float],
    answered: Collection[str],
    at_hand: Collection[Source] | None = None,
) -> list[NextCheck]:
    """Looks not yet answered by what they would tell about where to start, best per second first.

    Looks whose sources are all missing from `at_hand` (None: everything is at hand) are left out,
    as are those that tell next to nothing.
    """
    start = start_of_each_set(stories, now.present)[stories.swings.set_of]
    decisions = len(stories.knowledge.causes) + 1
    return best_checks(stories, now.swing, start, decisions, bases, answered, at_hand)


def best_checks(
    stories: Stories,
    swing: FloatArray,
    decision: NDArray[np.int_],
    decisions: int,
    bases: Mapping[str, float],
    answered: Collection[str],
    at_hand: Collection[Source] | None,
) -> list[NextCheck]:
    """Looks by what they would tell about any decision, best per second first.

    Parameters
    ----------
    swing : (swings,) probabilities
    decision : (swings,) which decision each swing calls for, 0 … decisions - 1

    """
    knowledge, numbers = stories.knowledge, stories.knowledge.numbers
    open_checks = [
        (check, source)
        for check in knowledge.checks
        if check.id not in answered and (source := _first_at_hand(check, at_hand)) is not None
    ]
    if not open_checks:
        return []
    errors = np.array([numbers.reading_error[source] for _, source in open_checks])
    order = {name: column for column, name in enumerate(bases)}
    columns = [order[check.id] for check, _ in open_checks]
    facts = fact_table(stories, tuple(bases.items()))[columns]
    fact, of_decision = fact_with_decision(swing, decision, facts.T, decisions)
    gains = information_gain(fact, of_decision, errors)
    found = [
        NextCheck(check.id, float(gain), check.seconds, source)
        for (check, source), gain in zip(open_checks, gains, strict=True)
        if gain >= numbers.decision.trace_of_gain_bits
    ]
    setup = numbers.decision.setup_seconds
    return sorted(found, key=lambda c: -c.gain_bits / (c.seconds + setup))


def fact_with_decision(
    swing: FloatArray,
    decision: NDArray[np.int_],
    facts: NDArray[np.floating[Any]],
    decisions: int,
) -> tuple[FloatArray, FloatArray]:
    """How facts and the decision go together.

    Parameters
    ----------
    swing : (swings,) probabilities
    decision : (swings,) which decision each swing calls for, 0 … decisions - 1
    facts : (swings, looks) P(the fact | swing)

    Returns
    -------
    (decisions, looks) P(decision and fact), and (decisions,) P(decision).

    """
    picks = scratch("picks", decisions, len(swing), facts.dtype)
    picks[:] = 0.0
    picks[decision, np.arange(len(swing))] = swing
    fact: FloatArray = (picks @ facts).astype(np.float64)
    of_decision = np.bincount(decision, weights=swing, minlength=decisions)
    return fact, of_decision.astype(np.float64, copy=False)


def information_gain(fact: FloatArray, of_decision: FloatArray, errors: FloatArray) -> FloatArray:
    """Mutual information in bits between each look's yes/no answer and the decision.

    Parameters
    ----------
    fact : (decisions, looks) P(decision and fact)
    of_decision : (decisions,) P(decision)
    errors : (looks,) how often the answer is wrong

    Returns
    -------
    (looks,) bits, never negative.

    """
    yes = errors * of_decision[:, None] + (1 - 2 * errors) * fact
    no = of_decision[:, None] - yes
    nats = (
        (_xlogx(yes) + _xlogx(no)).sum(axis=0)
        - _xlogx(of_decision).sum()
        - _xlogx(yes.sum(axis=0))
        - _xlogx(no.sum(axis=0))
    )
    out: FloatArray = np.maximum(nats / np.log(2), 0.0)
    return out


@dataclass(frozen=True)
class Turn:
    """What one look could still change.

    check : the look
    answer : the answer that would put another cause first, None where neither would
    chance : how probable that answer is now
    then_first : the cause that would lead the roots after it
    """

    check: str
    answer: Literal["yes", "no"] | None
    chance: float
    then_first: str


def turns_of(
    stories: Stories, now: Posterior, bases: Mapping[str, float], looks: Sequence[NextCheck]
) -> list[Turn]:
    """What the answer to each of these looks could change about the first root."""
    if not looks:
        return []
    errors = stories.knowledge.numbers.reading_error
    says_yes = np.empty((len(looks), len(now.swing)))
    for row, look in zip(says_yes, looks, strict=True):
        error = errors[look.source]
        np.multiply(fact_probability(stories, look.id, bases[look.id]), 1 - 2 * error, out=row)
        row += error
        row *= now.swing
    roots_and_yes = says_yes @ stories.swing_roots
    return [
        _turn(look, now.root, root_and_yes, float(row.sum()), stories.knowledge)
        for look, row, root_and_yes in zip(looks, says_yes, roots_and_yes, strict=True)
    ]


def _turn(
    look: NextCheck, root: FloatArray, root_and_yes: FloatArray, yes: float, knowledge: Knowledge
) -> Turn:
    """The likelier of the two turns a look could take; none where neither answer turns it.

    root : (causes,) P(root) now
    root_and_yes : (causes,) P(root, and the look is answered yes)
    yes : P(the look is answered yes)
    """
    first = int(np.argmax(root))
    either: list[tuple[Literal["yes", "no"], float, FloatArray]] = [
        ("yes", yes, root_and_yes),
        ("no", 1 - yes, root - root_and_yes),
    ]
    turns = [
        Turn(look.id, answer, chance, knowledge.causes[int(np.argmax(left))].id)
        for answer, chance, left in either
        if int(np.argmax(left)) != first
    ]
    none = Turn(look.id, None, 0.0, knowledge.causes[first].id)
    return max(turns, key=lambda t: t.chance, default=none)


def _xlogx(x: FloatArray) -> FloatArray:
    """X log x, zero at zero."""
    return x * np.log(np.where(x > 0, x, 1.0))


def _first_at_hand(check: Check, at_hand: Collection[Source] | None) -> Source | None:
    if at_hand is None:
        return check.sources[0]
    return next((s for s in check.sources if s in at_hand), None)
