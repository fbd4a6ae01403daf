"""Which sets of causes could there be, and in which forms?

    set         {over_effort, aim_off}
    hypothesis  the same in one mode (club thrown out, or stuck behind) and with one severity of
                each cause (mild or marked): all that a look can tell
    configuration       the same with each two-sided cause on one side: all that the balls can tell

One severity drives all that a cause does, at the looks and in the balls.
"""

from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray, IntArray
from firm_footing.core.inference.hypotheses import Hypotheses
from firm_footing.core.knowledge import FEET_GROUPS, Knowledge

THROWN, STUCK, NO_MODE = 0, 1, -1


class Forms(NamedTuple):
    """The same causes in the same mode and on the same sides, however severe.

    unit_effects : (variants + 1, 6) of each cause in each mode and side, the last is none
    variant_of : (most, forms) which of them the form's causes take, filled up with the last
    first : (forms,) a configuration of each
    of : (configurations,) which form each configuration is of
    """

    unit_effects: FloatArray
    variant_of: IntArray
    first: IntArray
    of: IntArray


@dataclass(frozen=True, eq=False)
class HypothesisSpace:
    """Every set of causes, hypothesis and configuration; those of a hypothesis lie together.

    members : (sets, causes) 1.0 where the cause is present
    set_of : (configurations,) which set a configuration belongs to
    mode : (configurations,) THROWN, STUCK or NO_MODE
    side : (configurations, causes) 0 or 1, which side a two-sided cause takes; -1 otherwise
    grade : (configurations, causes) which severity of `severity_levels` a cause has; -1 where
        absent
    log_side : (configurations,) log probability of the sides taken
    effects : (variants + 1, 6) effect on the delivery of each cause in each mode and side at each
        of the severities, order of DIMENSIONS; the last row is none
    unit_effects : (variants + 1, 6) the same at a severity of 1
    variant_of : (most, configurations) which of them the configuration's causes take, filled up
        with the last
    variant_cause : (variants + 1,) which cause each is of, the number of causes for the last
    scatter_factor : (configurations,) how much wider the balls scatter
    """

    knowledge: Knowledge
    members: FloatArray
    set_of: IntArray
    mode: IntArray
    side: NDArray[np.int8]
    grade: NDArray[np.int8]
    log_side: FloatArray
    effects: FloatArray
    unit_effects: FloatArray
    variant_of: IntArray
    variant_cause: IntArray
    scatter_factor: FloatArray

    @cached_property
    def forms(self) -> Forms:
        """The configurations without their severities."""
        levels = len(self.knowledge.numbers.delivery.severity_levels)
        variant_of, first, of = np.unique(
            self.variant_of // levels, axis=1, return_index=True, return_inverse=True
        )
        return Forms(self.unit_effects[::levels], variant_of, first, of.reshape(-1))

    @cached_property
    def scatter_factors(self) -> tuple[FloatArray, IntArray]:
        """The few factors by which balls scatter wider, and (configurations,) which is whose."""
        return np.unique(self.scatter_factor, return_inverse=True)

    @cached_property
    def shift(self) -> FloatArray:
        """(6, configurations) summed mean effect on the delivery, order of DIMENSIONS."""
        return np.ascontiguousarray(self.effects[self.variant_of].sum(axis=0).T)

    @property
    def no_variant(self) -> int:
        """The last of the variants: no cause."""
        return len(self.effects) - 1

    @cached_property
    def variant_severity(self) -> FloatArray:
        """(variants + 1,) at which severity each variant stands, 0 for none."""
        levels = self.knowledge.numbers.delivery.severity_levels
        return np.append(np.tile(levels, self.no_variant // len(levels)), 0.0)

    @cached_property
    def members_listed(self) -> IntArray:
        """(most, sets) indices of each set's causes, filled up with the number of causes."""
        return _listed(self.members)

    @cached_property
    def sizes(self) -> IntArray:
        """(sets,) number of causes in each set."""
        counts: IntArray = self.members.sum(axis=1).astype(np.int_)
        return counts

    @cached_property
    def configuration_members(self) -> NDArray[np.bool_]:
        """(configurations, causes) `members` of each configuration's set; columns lie together."""
        return np.asfortranarray(self.members[self.set_of] > 0)

    @cached_property
    def first_configuration(self) -> IntArray:
        """(hypotheses,) the first configuration of each; the next ones are told on other sides."""
        changed = (np.diff(self.set_of) != 0) | (np.diff(self.mode) != 0)
        changed |= (np.diff(self.grade, axis=0) != 0).any(axis=1)
        return np.append(0, np.flatnonzero(changed) + 1)

    @cached_property
    def hypothesis_of(self) -> IntArray:
        """(configurations,) which hypothesis each configuration is of."""
        counts = np.diff(np.append(self.first_configuration, len(self.set_of)))
        return np.repeat(np.arange(len(self.first_configuration)), counts)

    @cached_property
    def hypotheses(self) -> Hypotheses:
        """The hypotheses."""
        levels = np.append(self.knowledge.numbers.delivery.severity_levels, 0.0)
        first = self.first_configuration
        return Hypotheses(
            set_of=self.set_of[first],
            stuck=self.mode[first] == STUCK,
            severity=np.asfortranarray(levels[self.grade[first]]),
        )

    def to_hypotheses(self, of_configurations: FloatArray) -> FloatArray:
        """(hypotheses,) sum over the configurations of each."""
        sums = np.bincount(self.hypothesis_of, of_configurations, len(self.first_configuration))
        return sums.astype(np.float64, copy=False)

    def to_sets(self, of_hypotheses: FloatArray) -> FloatArray:
        """(sets,) sum over the hypotheses of each set."""
        sums = np.bincount(self.hypotheses.set_of, of_hypotheses, len(self.members))
        return sums.astype(np.float64, copy=False)

    def to_causes(self, of_members: FloatArray) -> FloatArray:
        """(causes,) sum over the sets of what stands at each cause of each set.

        of_members : (most, sets) in the order of `members_listed`; 0 where it is filled up
        """
        causes = self.members.shape[1]
        sums = np.bincount(self.members_listed.reshape(-1), of_members.reshape(-1), causes + 1)
        return sums[:causes].astype(np.float64, copy=False)

    @cached_property
    def stuck(self) -> FloatArray:
        """(configurations,) 1.0 where the club is stuck behind."""
        return np.where(self.mode == STUCK, 1.0, 0.0)

    @cached_property
    def two_tellings(self) -> tuple[list[int], FloatArray]:
        """Causes that can be told in two ways, and (configurations, those) 1.0 in the second way.

        The first way is thrown, or the first side; the second is stuck, or the other side.
        """
        causes = self.knowledge.causes
        columns = [i for i, c in enumerate(causes) if c.skill or c.sides]
        second = [
            self.configuration_members[:, i] * self.stuck
            if causes[i].skill
            else self.side[:, i] == 1
            for i in columns
        ]
        return columns, np.asfortranarray(np.array(second, dtype=np.float64).T)

    @cached_property
    def outside_feet(self) -> NDArray[np.bool_]:
        """(sets,) True where no cause of the set is the feet's."""
        feet = np.array([c.group in FEET_GROUPS for c in self.knowledge.causes])
        out: NDArray[np.bool_] = self.members[:, feet].sum(axis=1) == 0
        return out

    @cached_property
    def alone(self) -> IntArray:
        """(alone,) indices of the configurations of one cause alone, or of none at all."""
        out: IntArray = np.flatnonzero(self.sizes[self.set_of] <= 1)
        return out

    def alone_against_none(self, log: FloatArray, log_weight: FloatArray) -> FloatArray:
        """(causes,) log-likelihood ratio of each cause alone against no cause at all.

        log : (alone,) log-likelihood of the configurations of `alone`
        log_weight : (configurations,) log probability of every configuration, given its set
        """
        which = self.members_listed[0, self.set_of[self.alone]]
        total = np.full(len(self.knowledge.causes) + 1, -np.inf)
        np.logaddexp.at(total, which, log + log_weight[self.alone])
        out: FloatArray = total[:-1] - total[-1]
        return out

    def log_prior_in_set(self, probability_stuck: float) -> FloatArray:
        """(hypotheses,) log probability of a hypothesis's mode and severities, given its set.

        probability_stuck : P(stuck) for this player, 0 to 1
        """
        with np.errstate(divide="ignore"):
            by_mode = np.log([1.0 - probability_stuck, probability_stuck, 1.0])
        out: FloatArray = by_mode[self.mode[self.first_configuration]] + self._log_severities
        return out

    @cached_property
    def _log_severities(self) -> FloatArray:
        """(hypotheses,) log probability of its severities, given its set and mode: all alike."""
        set_and_mode = self.hypotheses.set_of * 3 + self.mode[self.first_configuration] + 1
        out: FloatArray = -np.log(np.bincount(set_and_mode)[set_and_mode])
        return out


def _listed(marked: FloatArray) -> IntArray:
    """(most, rows) columns marked in each row, filled up with the number of columns."""
    most = int(marked.sum(axis=1).max())
    order = np.argsort(-marked, axis=1, kind="stable")[:, :most]
    is_marked = np.take_along_axis(marked, order, axis=1) > 0
    return np.ascontiguousarray(np.where(is_marked, order, marked.shape[1]).T)
