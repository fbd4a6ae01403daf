"""Which sets of causes could there be, and how likely is each before anything is seen?

    set    {over_effort, aim_off}
    swing  the same in one mode: club thrown out, or stuck behind      (what a look can tell)
    story  the same with each two-sided cause on one side              (what the balls can tell)

Causes come by themselves or are brought about: n of them come by themselves with the stated
probability of n, each set of n as often as the product of its base weights says; then every
present cause adds each of its downstream ones with the strength of the links (noisy-OR):

    P(S) = sum over R in S of  P(|R|) * prod(w in R) / e_|R|(w)
                               * prod over S less R of (1 - (1-l)^k)  * prod outside S of (1-l)^k

with k the number of causes directly upstream in S and e_n the elementary symmetric polynomial
(the sum over all sets of n). Sets larger than the limit are left out and the rest sums to one.
That is a Bayesian network with a node for each cause that comes by itself, one for each that is
present, and one that counts.
"""

from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import combinations, product

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.knowledge import DIMENSIONS, FEET_GROUPS, Cause, Knowledge
from firm_footing.core.knowledge.numbers import Prior
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.core.reasoning.swings import Swings, Table

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int_]

THROWN, STUCK, NO_MODE = 0, 1, -1


@dataclass(frozen=True, eq=False)
class Stories:
    """Every set of causes, swing and story, as arrays; the stories of a swing lie together.

    members : (sets, causes) 1.0 where the cause is present
    roots : (sets, causes) 1.0 where it is present and no cause directly upstream of it is
    links_into : (sets, causes) how many causes directly upstream of this one are present
    set_of : (stories,) which set a story belongs to
    mode : (stories,) THROWN, STUCK or NO_MODE
    side : (stories, causes) 0 or 1, which side a two-sided cause takes; -1 otherwise
    log_side : (stories,) log probability of the sides taken
    effects : (variants + 1, 6) mean effect on the delivery of each cause in each mode and side,
        order of DIMENSIONS; the last row is none
    variant_of : (most, stories) which of them the story's causes take, filled up with the last
    variant_cause : (variants + 1,) which cause each is of, the number of causes for the last
    scatter_factor : (stories,) how much wider the balls scatter
    """

    knowledge: Knowledge
    members: FloatArray
    roots: FloatArray
    links_into: FloatArray
    set_of: IntArray
    mode: IntArray
    side: IntArray
    log_side: FloatArray
    effects: FloatArray
    variant_of: IntArray
    variant_cause: IntArray
    scatter_factor: FloatArray

    @cached_property
    def shift(self) -> FloatArray:
        """(6, stories) summed mean effect on the delivery, order of DIMENSIONS."""
        return np.ascontiguousarray(self.effects[self.variant_of].sum(axis=0).T)

    @cached_property
    def members_listed(self) -> IntArray:
        """(sets, most) indices of each set's causes, filled up with the number of causes."""
        return _listed(self.members)

    @cached_property
    def sizes(self) -> IntArray:
        """(sets,) number of causes in each set."""
        counts: IntArray = self.members.sum(axis=1).astype(np.int_)
        return counts

    @cached_property
    def story_members(self) -> FloatArray:
        """(stories, causes) `members` of each story's set."""
        return np.asfortranarray(self.members[self.set_of])

    @cached_property
    def first_of_swing(self) -> IntArray:
        """(swings,) the first story of each swing; the next ones are told on other sides."""
        changed = (np.diff(self.set_of) != 0) | (np.diff(self.mode) != 0)
        return np.append(0, np.flatnonzero(changed) + 1)

    @cached_property
    def swing_of(self) -> IntArray:
        """(stories,) which swing each story is of."""
        counts = np.diff(np.append(self.first_of_swing, len(self.set_of)))
        return np.repeat(np.arange(len(self.first_of_swing)), counts)

    @cached_property
    def swings(self) -> Swings:
        """The swings."""
        of_set, mode = self.set_of[self.first_of_swing], self.mode[self.first_of_swing]
        return Swings(set_of=of_set, stuck=mode == STUCK, table=Table(self.members[of_set]))

    @cached_property
    def swing_roots(self) -> FloatArray:
        """(swings, causes) `roots` of each swing's set."""
        return np.asfortranarray(self.roots[self.swings.set_of])

    def to_swings(self, of_stories: FloatArray) -> FloatArray:
        """(swings,) sum over the stories of each swing."""
        out: FloatArray = np.add.reduceat(of_stories, self.first_of_swing)
        return out

    def to_sets(self, of_swings: FloatArray) -> FloatArray:
        """(sets,) sum over the swings of each set."""
        return np.bincount(self.swings.set_of, weights=of_swings).astype(np.float64, copy=False)

    @cached_property
    def stuck(self) -> FloatArray:
        """(stories,) 1.0 where the club is stuck behind."""
        return np.where(self.mode == STUCK, 1.0, 0.0)

    def working_through(self, mechanism: str) -> NDArray[np.bool_]:
        """(stories,) True where some cause works through this mechanism, in the story's mode."""
        through = np.zeros((2, len(self.knowledge.causes)))
        for column, cause in enumerate(self.knowledge.causes):
            for w in cause.workings:
                if w.mechanism == mechanism:
                    through[THROWN, column] = max(through[THROWN, column], w.mode != "stuck")
                    through[STUCK, column] = max(through[STUCK, column], w.mode != "thrown")
        both = self.story_members @ through.T
        return np.where(self.stuck > 0, both[:, STUCK], both[:, THROWN]) > 0

    @cached_property
    def two_tellings(self) -> tuple[list[int], FloatArray]:
        """Causes that can be told in two ways, and (stories, those) 1.0 in the second way.

        The first way is thrown, or the first side; the second is stuck, or the other side.
        """
        causes = self.knowledge.causes
        columns = [i for i, c in enumerate(causes) if c.skill or c.sides]
        second = [
            self.story_members[:, i] * self.stuck if causes[i].skill else self.side[:, i] == 1
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
    def roots_listed(self) -> IntArray:
        """(sets, most) indices of each set's roots, filled up with the number of causes."""
        return _listed(self.roots)

    def log_mode(self, probability_stuck: float) -> FloatArray:
        """(swings,) log probability of the swing's mode, given its set.

        probability_stuck : P(stuck) for this player, 0 to 1
        """
        with np.errstate(divide="ignore"):
            by_mode = np.log([1.0 - probability_stuck, probability_stuck, 1.0])
        out: FloatArray = by_mode[self.mode[self.first_of_swing]]
        return out


def _listed(marked: FloatArray) -> IntArray:
    """(sets, most) columns marked in each row, filled up with the number of columns."""
    most = int(marked.sum(axis=1).max())
    order = np.argsort(-marked, axis=1, kind="stable")[:, :most]
    is_marked = np.take_along_axis(marked, order, axis=1) > 0
    return np.where(is_marked, order, marked.shape[1])


@lru_cache(maxsize=4)
def enumerate_stories(knowledge: Knowledge) -> Stories:
    """All stories of this knowledge; computed once for each."""
    causes = knowledge.causes
    most = len(knowledge.numbers.prior.causes_present) - 1
    sets = [s for n in range(most + 1) for s in combinations(range(len(causes)), n)]
    members = np.zeros((len(sets), len(causes)))
    for row, chosen in enumerate(sets):
        members[row, list(chosen)] = 1.0
    upstream = np.array([[1.0 if c.id in u.upstream_of else 0.0 for c in causes] for u in causes])
    links_into = members @ upstream
    told = [
        (row, mode, sides)
        for row, chosen in enumerate(sets)
        for mode, sides in _tellings([causes[i] for i in chosen])
    ]
    effects, variant_of, variant_cause = _variants(
        knowledge, [(sets[r], mode, side) for r, mode, side in told]
    )
    factors = np.array([[c.scatter_factor for c in causes]])
    set_of = np.array([row for row, _, _ in told])
    return Stories(
        knowledge=knowledge,
        members=members,
        roots=members * (links_into == 0),
        links_into=links_into,
        set_of=set_of,
        mode=np.array([{"thrown": THROWN, "stuck": STUCK, None: NO_MODE}[m] for _, m, _ in told]),
        side=_sides_taken(causes, [sides for _, _, sides in told]),
        log_side=np.array([-np.log(2.0) * len(sides) for _, _, sides in told]),
        effects=effects,
        variant_of=variant_of,
        variant_cause=variant_cause,
        scatter_factor=np.where(members > 0, factors, 1.0).max(axis=1)[set_of],
    )


@lru_cache(maxsize=64)
def set_prior(stories: Stories, weights: tuple[float, ...]) -> FloatArray:
    """(sets,) prior probability of each set of causes; sums to one.

    weights : one base weight for each cause, 0 < weight < 1
    """
    prior = stories.knowledge.numbers.prior
    not_added = (1.0 - prior.link_strength) ** stories.links_into
    outside = np.where(stories.members > 0, 1.0, not_added).prod(axis=1)
    each = np.append(weights, 0.0)[stories.members_listed]
    added = np.append(1.0 - not_added, np.ones((len(not_added), 1)), axis=1)
    added = np.take_along_axis(added, stories.members_listed, axis=1)
    by_itself = np.zeros((len(outside), len(prior.causes_present)))
    by_itself[:, 0] = 1.0
    for w, x in zip(each.T, added.T, strict=True):  # multiply out prod (w t + x), power by power
        by_itself[:, 1:] = by_itself[:, 1:] * x[:, None] + by_itself[:, :-1] * w[:, None]
        by_itself[:, 0] *= x
    out: FloatArray = outside * (by_itself @ (prior.causes_present / _symmetric(weights, prior)))
    out /= out.sum()
    return out


def _symmetric(weights: tuple[float, ...], prior: Prior) -> FloatArray:
    """e_0 … e_most: the sums over all sets of n causes of the product of their weights."""
    sums = np.zeros(len(prior.causes_present))
    sums[0] = 1.0
    for w in weights:
        sums[1:] += sums[:-1] * w
    return sums


def _tellings(causes: list[Cause]) -> list[tuple[Mode | None, dict[str, str]]]:
    """The modes and sides in which one set of causes can be told."""
    modes: tuple[Mode | None, ...] = (
        ("thrown", "stuck") if any(c.skill for c in causes) else (None,)
    )
    two_sided = [c for c in causes if c.sides]
    choices = product(*[[s.id for s in c.sides] for c in two_sided])
    sides = [dict(zip([c.id for c in two_sided], ids, strict=True)) for ids in choices]
    return [(mode, side) for mode in modes for side in sides]


def _sides_taken(causes: tuple[Cause, ...], told: list[dict[str, str]]) -> IntArray:
    """(stories, causes) index of the side each two-sided cause takes, -1 where it takes none."""
    taken = np.full((len(told), len(causes)), -1)
    for column, cause in enumerate(causes):
        index = {side.id: i for i, side in enumerate(cause.sides)}
        if index:
            taken[:, column] = [index.get(sides.get(cause.id, ""), -1) for sides in told]
    return taken


def _variants(
    knowledge: Knowledge, told: list[tuple[tuple[int, ...], Mode | None, dict[str, str]]]
) -> tuple[FloatArray, IntArray, IntArray]:
    """`effects`, `variant_of` and `variant_cause` of stories given as causes, mode and sides."""
    causes = knowledge.causes
    most = max(len(chosen) for chosen, _, _ in told)
    number: dict[tuple[str, Mode | None, str | None], int] = {}
    of_story = []
    for chosen, mode, sides in told:
        keys = [
            (causes[i].id, mode if causes[i].skill else None, sides.get(causes[i].id))
            for i in chosen
        ]
        of_story.append([number.setdefault(key, len(number)) for key in keys])
    padded = [row + [len(number)] * (most - len(row)) for row in of_story]
    effects = np.array([*(knowledge.effects[key] for key in number), (0.0,) * len(DIMENSIONS)])
    of_cause = np.array([*(knowledge.cause_index[name] for name, _, _ in number), len(causes)])
    return effects, np.ascontiguousarray(np.array(padded).T), of_cause


@lru_cache(maxsize=64)
def base_weights(knowledge: Knowledge, factors: tuple[tuple[str, float], ...]) -> tuple[float, ...]:
    """Base weight of every cause, multiplied by a school's factor where it has one."""
    factor = dict(factors)
    return tuple(c.base_weight * factor.get(c.id, 1.0) for c in knowledge.causes)
