"""All the evidence of a case, weighed once: what every conclusion is drawn from."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.ball.forward import Setting
from firm_footing.core.case import Block, Case, Reading, School
from firm_footing.core.delivery.expected import setting_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.coaching import SchoolOption
from firm_footing.core.pattern import Pattern, read_pattern
from firm_footing.core.reasoning.delivery import delivery_pieces
from firm_footing.core.reasoning.evidence import Folded, Piece, fold
from firm_footing.core.reasoning.looks import base_rates, counted_readings, look_pieces
from firm_footing.core.reasoning.posterior import Posterior, posterior
from firm_footing.core.reasoning.stories import (
    Stories,
    base_weights,
    enumerate_stories,
    set_prior,
)
from firm_footing.core.reasoning.traces import is_clear, with_answers_of_traces
from firm_footing.core.reasoning.trials import Trial, trial_piece, trials_of

FloatArray = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Weighing:
    """A case with its evidence weighed.

    counted : check id to the answers that count
    bases : check id to its base rate for this player and school
    pieces : the evidence
    severity : (most, stories) how severe the balls make each cause, see `Joint`; None without any
    trials : the blocks hit with a constraint that could be judged
    share : (stories,) of its swing, given the balls
    prior : (sets,) prior of each set of causes under the chosen schools
    now : the probabilities after all the evidence
    """

    case: Case
    stories: Stories
    handicap: float
    pattern: Pattern
    counted: Mapping[str, list[Reading]]
    bases: Mapping[str, float]
    pieces: Sequence[Piece]
    severity: FloatArray | None
    trials: Sequence[Trial]
    share: FloatArray
    prior: FloatArray
    now: Posterior

    @property
    def knowledge(self) -> Knowledge:
        """The knowledge it was weighed by."""
        return self.stories.knowledge

    @property
    def story(self) -> FloatArray:
        """(stories,) probability of each story."""
        out: FloatArray = self.now.swing[self.stories.swing_of] * self.share
        return out

    @property
    def setting(self) -> Setting:
        """What the baseline was hit with and from; as if with a 7 iron when there is none yet."""
        block = next(iter(self.case.baselines), Block())
        return setting_of(block, self.knowledge, self.handicap)

    @property
    def answers(self) -> int:
        """How many answers count; all that the pressure traces say is one."""
        by_hand = [r.trace is None for readings in self.counted.values() for r in readings]
        return sum(by_hand) + (not all(by_hand))

    @property
    def answered(self) -> frozenset[str]:
        """Checks that need no more looking at."""
        return frozenset(name for name, said in self.counted.items() if is_clear(said))


def weigh(case: Case, knowledge: Knowledge) -> Weighing:
    """Weigh the baseline balls, the answers given without a drill, and the trial blocks."""
    stories = enumerate_stories(knowledge)
    handicap = knowledge.numbers.handicap_left_out if case.handicap is None else case.handicap
    trials = tuple(trials_of(case, knowledge))
    balls = weigh_balls(case.baselines, trials, stories, handicap)
    by_hand = counted_readings(case)
    counted = with_answers_of_traces(by_hand, case, balls.pattern, knowledge)
    options = school_options(case.school, knowledge)
    bases = school_bases(knowledge, handicap, options)
    pieces = [*balls.folded.pieces, *look_pieces(counted, stories, bases)]
    prior = school_prior(stories, options)
    stuck = knowledge.numbers.stuck_mode.probability(handicap)
    return Weighing(
        case=case,
        stories=stories,
        handicap=handicap,
        pattern=balls.pattern,
        counted=counted,
        bases=bases,
        pieces=pieces,
        severity=balls.severity,
        trials=balls.trials,
        share=balls.folded.share,
        prior=prior,
        now=posterior(stories, prior, stuck, pieces),
    )


@dataclass(frozen=True, eq=False)
class BallsWeighed:
    """What all balls say; the trials are those that could be judged."""

    pattern: Pattern
    severity: FloatArray | None
    trials: tuple[Trial, ...]
    folded: Folded


@lru_cache(maxsize=64)
def weigh_balls(
    baselines: tuple[Block, ...], trials: tuple[Trial, ...], stories: Stories, handicap: float
) -> BallsWeighed:
    """The pattern of the baseline and the evidence of all balls.

    Kept, for the looks come without new balls.
    """
    pattern = read_pattern(baselines, stories.knowledge, handicap)
    pieces, severity = delivery_pieces(pattern, stories, handicap)
    judged = [(t, trial_piece(t, baselines, severity, stories, handicap)) for t in trials]
    said = [(trial, piece) for trial, piece in judged if piece is not None]
    return BallsWeighed(
        pattern=pattern,
        severity=severity,
        trials=tuple(trial for trial, _ in said),
        folded=fold(stories, [*pieces, *(piece for _, piece in said)]),
    )


def school_options(school: School, knowledge: Knowledge) -> tuple[SchoolOption, SchoolOption]:
    """The two matters of dispute that change how common causes and signs are."""
    schools = knowledge.schools
    return schools.heel_toe.option(school.heel_toe), schools.lead_foot.option(school.lead_foot)


def school_bases(
    knowledge: Knowledge, handicap: float, options: Sequence[SchoolOption]
) -> Mapping[str, float]:
    """Base rate of every check for this player under these schools."""
    overrides = _merged(o.check_base for o in options)
    return base_rates(knowledge, handicap, tuple(overrides.items()))


def school_prior(stories: Stories, options: Sequence[SchoolOption]) -> FloatArray:
    """(sets,) prior under these schools."""
    factors = _merged(o.cause_weight for o in options)
    return set_prior(stories, base_weights(stories.knowledge, tuple(factors.items())))


def _merged(parts: Iterable[Mapping[str, float]]) -> dict[str, float]:
    return {key: value for part in parts for key, value in part.items()}
