"""What should be looked at next?

The look that tells most, per second on the tee, about which cause to start with.
"""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csc_array

from firm_footing.core.case import Reading
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.answers import error_rates
from firm_footing.core.inference.check_likelihood import fact_probability, fact_table
from firm_footing.core.inference.dependence import discount_of, group_of, independence
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.inference import Inference
from firm_footing.core.knowledge import Check
from firm_footing.core.knowledge.vocabulary import Source

TIE = 12
"""Digits to which two probabilities are the same."""


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


def start_of_each_set(
    space: HypothesisSpace, starts: FloatArray, root: FloatArray
) -> NDArray[np.int_]:
    """(sets,) the cause to start with if that set were the truth.

    Of several that one could start with it is the likeliest now, of equals the first; the number
    of causes stands for none.

    Parameters
    ----------
    starts : (most, sets) above 0 where one could start with the cause; see `starts_of`
    root : (causes,) probability of each

    """
    listed = space.members_listed
    likely = np.append(np.round(root, TIE), 0.0)
    best = np.where(starts > 0, likely[listed], -1.0).argmax(axis=0)
    of_set: NDArray[np.int_] = listed[best, np.arange(listed.shape[1])]
    return of_set  # of no cause: what it is filled up with


def next_checks(inference: Inference, at_hand: Collection[Source] | None = None) -> list[NextCheck]:
    """Looks not yet answered by what they would tell about where to start, best per second first.

    Those that could not be told come after all others.

    Looks whose sources are all missing from `at_hand` (None: everything is at hand) are left out,
    as are those that tell next to nothing.
    """
    space = inference.space
    of_set = start_of_each_set(space, inference.starts, inference.root)
    decisions = len(space.knowledge.causes) + 1
    return best_checks(inference, inference.now.hypothesis, of_set, decisions, at_hand)


def best_checks(
    inference: Inference,
    hypothesis: FloatArray,
    decision: NDArray[np.int_],
    decisions: int,
    at_hand: Collection[Source] | None,
) -> list[NextCheck]:
    """Looks by what they would tell about any decision, best per second first.

    Parameters
    ----------
    hypothesis : (hypotheses,) probabilities
    decision : (sets,) which decision each calls for, 0 … decisions - 1

    """
    knowledge, numbers = inference.knowledge, inference.knowledge.numbers
    open_checks = [
        (check, source)
        for check in knowledge.checks
        if check.id not in inference.answered
        and check.view != "belief"  # asked while listening, not looked at
        and (source := _first_at_hand(check, at_hand)) is not None
    ]
    if not open_checks:
        return []
    eye = inference.case.eye
    wrong = np.array([error_rates(c, s, eye, numbers) for c, s in open_checks])
    order = {name: column for column, name in enumerate(inference.bases)}
    columns = [order[check.id] for check, _ in open_checks]
    facts = fact_table(inference.space, tuple(inference.bases.items()))
    fact, of_decision = fact_with_decision(inference.space, hypothesis, decision, facts, decisions)
    gains = information_gain(fact[:, columns], of_decision, wrong) * [
        independence(*beside(inference, check.id, source)) for check, source in open_checks
    ]
    found = [
        NextCheck(check.id, float(gain), check.seconds, source)
        for (check, source), gain in zip(open_checks, gains, strict=True)
        if gain >= numbers.decision.min_gain_bits
    ]
    setup = numbers.decision.setup_seconds
    untold = {r.check for r in inference.case.readings if r.answer == "unknown"}
    return sorted(found, key=lambda c: (c.id in untold, -c.gain_bits / (c.seconds + setup)))


def beside(inference: Inference, check_id: str, source: Source) -> tuple[int, float]:
    """How many answers of its group count with one from this source, and their discount."""
    knowledge = inference.knowledge
    asked = Reading(check=check_id, answer="yes", source=source)
    group = group_of(check_id, [asked], knowledge)
    others = sum(
        group is not None and ratios.group == group
        for name, ratios in inference.ratios.items()
        if name != check_id
    )
    return 1 + others, discount_of(group, knowledge)


def fact_with_decision(
    space: HypothesisSpace,
    hypothesis: FloatArray,
    decision: NDArray[np.int_],
    facts: NDArray[np.float32],
    decisions: int,
) -> tuple[FloatArray, FloatArray]:
    """How facts and the decision go together.

    Parameters
    ----------
    hypothesis : (hypotheses,) probabilities
    decision : (sets,) which decision each calls for, 0 … decisions - 1
    facts : (hypotheses, looks) P(the fact | hypothesis)

    Returns
    -------
    (decisions, looks) P(decision and fact), and (decisions,) P(decision).

    """
    of_hypothesis = decision[space.hypotheses.set_of]
    each = np.arange(len(hypothesis) + 1)
    weights = hypothesis.astype(facts.dtype)
    picks = csc_array((weights, of_hypothesis, each), shape=(decisions, len(hypothesis)))
    of_decision = np.bincount(of_hypothesis, hypothesis, decisions).astype(np.float64)
    return (picks @ facts).astype(np.float64), of_decision


def information_gain(fact: FloatArray, of_decision: FloatArray, wrong: FloatArray) -> FloatArray:
    """Mutual information in bits between each look's yes/no answer and the decision.

    Parameters
    ----------
    fact : (decisions, looks) P(decision and fact)
    of_decision : (decisions,) P(decision)
    wrong : (looks, 2) how often the answer is a false yes, and a false no

    Returns
    -------
    (looks,) bits, never negative.

    """
    false_yes, false_no = wrong.T
    yes = false_yes * of_decision[:, None] + (1 - false_yes - false_no) * fact
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
class DecisionFlip:
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


def decision_flips(inference: Inference, checks: Sequence[NextCheck]) -> list[DecisionFlip]:
    """What the answer to each of these looks could change about the first root.

    Each answer is tried out: the turn is what a diagnosis with that answer would say.
    """
    return [_flip(inference, check) for check in checks]


def _flip(inference: Inference, check: NextCheck) -> DecisionFlip:
    """The likelier of the two turns a look could take; none where neither answer turns it."""
    knowledge = inference.knowledge
    fact = fact_probability(inference.space, check.id, inference.bases[check.id])
    asked, eye = knowledge.check[check.id], inference.case.eye
    wrong = error_rates(asked, check.source, eye, knowledge.numbers)
    so = float(inference.now.hypothesis @ fact)
    yes = wrong.false_yes * (1 - so) + (1 - wrong.false_no) * so
    first = int(np.argmax(inference.root))
    either: list[tuple[Literal["yes", "no"], float]] = [("yes", yes), ("no", 1 - yes)]
    flips = []
    for answer, chance in either:
        reading = Reading(check=check.id, answer=answer, source=check.source)
        then = int(np.argmax(inference.root_with(reading)))
        if then != first:
            flips.append(DecisionFlip(check.id, answer, chance, knowledge.causes[then].id))
    none = DecisionFlip(check.id, None, 0.0, knowledge.causes[first].id)
    return max(flips, key=lambda t: t.chance, default=none)


def _xlogx(x: FloatArray) -> FloatArray:
    """X log x, zero at zero."""
    return x * np.log(np.where(x > 0, x, 1.0))


def _first_at_hand(check: Check, at_hand: Collection[Source] | None) -> Source | None:
    if at_hand is None:
        return check.sources[0]
    return next((s for s in check.sources if s in at_hand), None)
