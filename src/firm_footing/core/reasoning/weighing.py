"""All the evidence of a case, weighed once: what every conclusion is drawn from."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.ball import Pattern, read_pattern
from firm_footing.core.case import Block, Case, Reading, School
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.coaching import SchoolOption
from firm_footing.core.reasoning.delivery import delivery_pieces
from firm_footing.core.reasoning.evidence import Piece
from firm_footing.core.reasoning.looks import base_rates, counted_readings, look_pieces
from firm_footing.core.reasoning.posterior import Posterior, posterior
from firm_footing.core.reasoning.stories import (
    Stories,
    base_weights,
    enumerate_stories,
    set_prior,
)
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
    prior : (sets,) prior of each set of causes under the chosen schools
    log_telling : (stories,) log probability of each story given its set
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
    prior: FloatArray
    log_telling: FloatArray
    now: Posterior

    @property
    def knowledge(self) -> Knowledge:
        """The knowledge it was weighed by."""
        return self.stories.knowledge

    @property
    def answers(self) -> int:
        """How many answers count."""
        return sum(len(readings) for readings in self.counted.values())


def weigh(case: Case, knowledge: Knowledge) -> Weighing:
    """Weigh the baseline balls, the answers given without a drill, and the trial blocks."""
    stories = enumerate_stories(knowledge)
    handicap = knowledge.numbers.handicap_left_out if case.handicap is None else case.handicap
    baselines = case.baselines
    pattern, balls_say, severity = weigh_balls(baselines, stories, handicap)
    said = [
        (trial, piece)
        for trial in trials_of(case, knowledge)
        if (piece := weigh_trial(trial, baselines, stories, handicap)) is not None
    ]
    counted = counted_readings(case)
    options = school_options(case.school, knowledge)
    bases = school_bases(knowledge, handicap, options)
    pieces = [*balls_say, *(p for _, p in said), *look_pieces(counted, stories, bases)]
    log_telling = stories.log_telling(knowledge.numbers.stuck_mode.probability(handicap))
    prior = school_prior(stories, options)
    return Weighing(
        case=case,
        stories=stories,
        handicap=handicap,
        pattern=pattern,
        counted=counted,
        bases=bases,
        pieces=pieces,
        severity=severity,
        trials=[trial for trial, _ in said],
        prior=prior,
        log_telling=log_telling,
        now=posterior(stories, prior[stories.set_of], log_telling, pieces),
    )


@lru_cache(maxsize=64)
def weigh_balls(
    blocks: tuple[Block, ...], stories: Stories, handicap: float
) -> tuple[Pattern, list[Piece], FloatArray | None]:
    """The pattern of these blocks, its evidence and severities.

    Kept, for the looks come without new balls.
    """
    pattern = read_pattern(blocks, stories.knowledge)
    return pattern, *delivery_pieces(pattern, stories, handicap)


@lru_cache(maxsize=64)
def weigh_trial(
    trial: Trial, baselines: tuple[Block, ...], stories: Stories, handicap: float
) -> Piece | None:
    """The evidence of a trial block; kept."""
    _, _, severity = weigh_balls(baselines, stories, handicap)
    return trial_piece(trial, baselines, severity, stories)


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
