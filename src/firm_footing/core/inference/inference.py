"""All the evidence of a case, weighed once: what every conclusion is drawn from."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.case import Block, Case, Reading
from firm_footing.core.estimation.expected import setting_of
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.answered import Answered
from firm_footing.core.inference.answers import counted_readings, seen_of
from firm_footing.core.inference.caching import kept
from firm_footing.core.inference.check_likelihood import (
    AskedTogether,
    LogRatios,
    changed,
    check_pieces,
    groups_asked,
    owners_of,
    ratios_of,
    ratios_of_check,
)
from firm_footing.core.inference.chosen_schools import chosen_schools
from firm_footing.core.inference.delivery_likelihood import DeliveryLikelihood, ball_likelihoods
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.inference.evidence import Marginalised, Piece, marginalise_sides
from firm_footing.core.inference.film_answers import answers_of_films
from firm_footing.core.inference.history_likelihood import history_pieces
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.intervention import OwnSizes
from firm_footing.core.inference.links import Views
from firm_footing.core.inference.measured_answers import Measured, answers_measured, measured_of
from firm_footing.core.inference.posterior import Posterior, normalised, posterior
from firm_footing.core.inference.prior import PriorView, set_prior
from firm_footing.core.inference.start import (
    first_of,
    first_seen,
    root_of,
    starts_of,
    supported_causes,
)
from firm_footing.core.inference.trace_answers import answers_of_traces, is_clear
from firm_footing.core.inference.trial_likelihood import Trial, trial_piece, trials_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.schools import SchoolOption
from firm_footing.core.knowledge.vocabulary import Seen
from firm_footing.core.patterns import Pattern, read_pattern
from firm_footing.core.physics.forward import Setting


@dataclass(frozen=True, eq=False)
class Inference:
    """A case with its evidence weighed.

    given : all answers, by where they come from
    counted : check id to the answers that count
    measured : what numbers answer by themselves
    ratios : check id to what they come to
    seen : cause id to whether it was seen, of every cause whose own looks were answered
    bases : check id to its base rate for this player and school
    pieces : the evidence
    balls : what the balls say
    options : the chosen schools, one of each question
    schools : what they say of the causes beforehand
    prior : (sets,) prior of each set of causes under the chosen schools
    now : the probabilities after all the evidence
    """

    case: Case
    space: HypothesisSpace
    handicap: float
    pattern: Pattern
    given: Answered
    counted: Mapping[str, list[Reading]]
    measured: tuple[Measured, ...]
    ratios: Mapping[str, LogRatios]
    seen: Mapping[str, Seen]
    bases: Mapping[str, float]
    pieces: Sequence[Piece]
    balls: "BallEvidence"
    options: tuple[SchoolOption, ...]
    schools: PriorView
    prior: FloatArray
    now: Posterior

    @property
    def knowledge(self) -> Knowledge:
        """The knowledge it was weighed by."""
        return self.space.knowledge

    @cached_property
    def configuration(self) -> FloatArray:
        """(configurations,) probability of each configuration."""
        shares: FloatArray = self.balls.marginalised.share
        out: FloatArray = self.now.hypothesis[self.space.hypothesis_of] * shares
        return out

    @cached_property
    def supported(self) -> NDArray[np.bool_]:
        """(causes,) True where a cause was seen or the balls point to it; see `start.py`."""
        return supported_causes(
            frozenset(self.counted), self.seen, self.balls.points_of_balls, self.knowledge
        )

    @cached_property
    def starts(self) -> FloatArray:
        """(most, sets) P(one starts with this cause of the set, if that set is the truth)."""
        first = first_seen(self.seen, self.options, self.knowledge)
        return starts_of(self.space, self.supported, first, self.schools)

    @cached_property
    def root(self) -> FloatArray:
        """(causes,) P(the cause is at work, and one starts with it)."""
        return root_of(self.space, self.now.cause_set, self.starts)

    @property
    def start_with(self) -> str | None:
        """The cause to start with; None where the first of the order is supported by nothing."""
        return first_of(self.root, self.supported, self.knowledge)

    @cached_property
    def groups(self) -> tuple[AskedTogether, ...]:
        """All answers, by what they were one look at."""
        return tuple(groups_asked(self.ratios, self.bases, self.knowledge))

    def root_with(self, reading: Reading) -> FloatArray:
        """(causes,) `root` if this answer were given besides: the same that `infer` would find."""
        check, of_check = reading.check, self.knowledge.check
        counted = {**self.counted, check: self.given.with_answer(reading).of(check)}
        ratios = {
            **self.ratios,
            check: ratios_of_check(
                check, counted[check], owners_of(counted), self.knowledge, self.case.eye
            ),
        }
        after = groups_asked(ratios, self.bases, self.knowledge)
        more = changed(self.groups, after, self.space)
        prior = self.prior[self.space.hypotheses.set_of]
        sets = self.space.to_sets(normalised(self.now.log + more, prior))
        cause = of_check[check].shows
        same = {name: said for name, said in counted.items() if of_check[name].shows == cause}
        seen = {**self.seen, **seen_of(same, self.knowledge)}
        points = self.balls.points_of_balls
        supported = supported_causes(frozenset(counted), seen, points, self.knowledge)
        first = first_seen(seen, self.options, self.knowledge)
        return root_of(self.space, sets, starts_of(self.space, supported, first, self.schools))

    @property
    def trials(self) -> Sequence[Trial]:
        """The blocks hit with a constraint that could be judged."""
        return self.balls.trials

    @property
    def own_sizes(self) -> OwnSizes | None:
        """How large the balls make each configuration's effects; None without balls."""
        delivery = self.balls.delivery
        if delivery is None:
            return None
        tail = self.knowledge.numbers.delivery.strike_tail
        return OwnSizes(delivery.joint.severity, 1 + (tail.times - 1) * delivery.joint.beyond)

    @property
    def usual_low_point_cm(self) -> float:
        """Where a sound swing of this player is lowest, from the balls of the pattern; + ahead."""
        usual = self.knowledge.numbers.delivery.cause_free_low_point_cm(self.handicap)
        return usual - self.pattern.ball_forward_cm

    @property
    def setting(self) -> Setting:
        """What the baseline was hit with and from; as if with a 7 iron when there is none yet."""
        block = next(iter(self.case.baselines), Block())
        return setting_of(block, self.knowledge, self.handicap)

    @property
    def answers(self) -> int:
        """How many answers count; all that traces and films say is one."""
        by_hand = [r.by_hand for readings in self.counted.values() for r in readings]
        return sum(by_hand) + (not all(by_hand))

    @cached_property
    def answered(self) -> frozenset[str]:
        """Checks that need no more looking at."""
        clear = {name for name, said in self.counted.items() if is_clear(said)}
        return frozenset(clear | {m.check for m in self.measured if not m.after})


def infer(case: Case, knowledge: Knowledge) -> Inference:
    """Weigh the baseline balls, the answers given without a drill, and the trial blocks."""
    space = enumerate_space(knowledge)
    handicap = knowledge.numbers.handicap_left_out if case.handicap is None else case.handicap
    trials = tuple(trials_of(case, knowledge))
    chosen = chosen_schools(case.school, knowledge, handicap, case.how_common)
    prior = set_prior(space, chosen.prior)
    balls = infer_from_balls(case.baselines, trials, space, handicap, chosen.prior.views)
    measured = measured_of(case, knowledge)
    answers = Answered(
        by_hand=counted_readings(case),
        measured=answers_measured(measured),
        traced=answers_of_traces(case, balls.pattern, knowledge),
        filmed=answers_of_films(case, knowledge),
    )
    counted = answers.counted()
    ratios = ratios_of(counted, knowledge, case.eye)
    pieces = [
        *balls.marginalised.pieces,
        *check_pieces(ratios, space, chosen.bases),
        *history_pieces(case.history, space, prior),
    ]
    stuck = knowledge.numbers.stuck_mode.probability(handicap)
    return Inference(
        case=case,
        space=space,
        handicap=handicap,
        pattern=balls.pattern,
        given=answers,
        counted=counted,
        measured=measured,
        ratios=ratios,
        seen=seen_of(counted, knowledge),
        bases=chosen.bases,
        pieces=pieces,
        balls=balls,
        options=chosen.options,
        schools=chosen.prior,
        prior=prior,
        now=posterior(space, prior, stuck, pieces),
    )


@dataclass(frozen=True, eq=False)
class BallEvidence:
    """What all balls say.

    delivery : the reading of the baseline judged by every configuration; None without balls
    unfolded : the pieces of evidence over configurations
    folded : the same over hypotheses
    points : (causes,) log-likelihood ratio of all of it, each cause alone against none
    """

    pattern: Pattern
    delivery: DeliveryLikelihood | None
    trials: tuple[Trial, ...]
    with_sides: tuple[Piece, ...]
    marginalised: Marginalised
    points: FloatArray

    @property
    def points_of_balls(self) -> FloatArray | None:
        """(causes,) `points`; None where no ball says anything."""
        return self.points if self.with_sides else None


@kept(megabytes=16)
def infer_from_balls(
    baselines: tuple[Block, ...],
    trials: tuple[Trial, ...],
    space: HypothesisSpace,
    handicap: float,
    views: Views,
) -> BallEvidence:
    """The pattern of the baseline and the evidence of all balls.

    Kept, for the looks come without new balls.

    views : of the links, for what a trial takes away with a cause
    """
    pattern = read_pattern(baselines, space.knowledge, handicap)
    judged = ball_likelihoods(pattern, space, handicap)
    said = [(t, trial_piece(t, baselines, space, handicap, views)) for t in trials]
    tried = [(trial, piece) for trial, piece in said if piece is not None]
    pieces = (*judged.pieces, *(piece for _, piece in tried))
    log = np.zeros(len(space.set_of))
    for piece in pieces:
        log += piece.log_likelihood
    return BallEvidence(
        pattern=pattern,
        delivery=judged.delivery,
        trials=tuple(trial for trial, _ in tried),
        with_sides=pieces,
        marginalised=marginalise_sides(space, pieces),
        points=space.alone_against_none(log[space.alone], log_in_set(space, handicap)),
    )


@kept(megabytes=2)
def log_in_set(space: HypothesisSpace, handicap: float) -> FloatArray:
    """(configurations,) log probability of each, given its set, at this handicap."""
    stuck = space.knowledge.numbers.stuck_mode.probability(handicap)
    out: FloatArray = space.log_prior_in_set(stuck)[space.hypothesis_of] + space.log_side
    return out
