"""With which of the causes at work does one start?

Of a set of causes, with those that come from no other of it, save for two rules of the trade:

- A cause that was not seen and that no ball points to does not take the start from one that was
  seen or that explains the balls: its look is proposed instead. Without balls it is enough that
  something that was asked points to it.
- A set-up matter that was seen comes before the feet, and so does what the chosen schools begin
  with.

`root` of a cause is the probability that it is at work and that one starts with it.
"""

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray, IntArray
from firm_footing.core.inference.caching import kept
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.links import links_within
from firm_footing.core.inference.prior import PriorView, view_shares
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.schools import CauseLink, SchoolOption
from firm_footing.core.knowledge.vocabulary import Seen

POINTS_FROM = 0.05
"""Log-likelihood ratio from which balls point to a cause rather than to none."""

Marks = NDArray[np.bool_]


def starts_of(
    space: HypothesisSpace, supported: Marks, first: Marks, schools: PriorView
) -> FloatArray:
    """(most, sets) P(one starts with this cause of the set, if that set is the truth).

    In the order of `members_listed`; 1 or 0 where all views of the links agree.

    Parameters
    ----------
    supported : (causes,) True where the cause was asked about, or some ball points to it
    first : (causes,) True where it comes before all others that are at work

    """
    marked = tuple(supported.tolist()), tuple(first.tolist())
    out = _starts_in_view(space, *marked, frozenset()).astype(np.float64)
    rows = _disputed_sets(space)
    shares = view_shares(space, schools, rows)
    out[:, rows] = sum(
        share * _starts_in_view(space, *marked, view.dropped)[:, rows]
        for share, view in zip(shares, schools.views, strict=True)
    )
    return out


@kept(megabytes=1)
def _starts_in_view(
    space: HypothesisSpace,
    supported: tuple[bool, ...],
    first: tuple[bool, ...],
    dropped: frozenset[CauseLink],
) -> Marks:
    """(most, sets) whether one starts with this cause of the set, where these links do not hold."""
    listed = space.members_listed
    left = listed < len(supported)
    for marked in (first, supported):
        left = _only(left, np.append(marked, False)[listed])
    return _from_no_other(left, links_within(space, dropped))


def root_of(space: HypothesisSpace, cause_set: FloatArray, starts: FloatArray) -> FloatArray:
    """(causes,) P(the cause is at work, and one starts with it).

    cause_set : (sets,) probability of each set, but for a constant
    starts : (most, sets) from `starts_of`
    """
    return space.to_causes(cause_set * starts)


@kept(megabytes=1)
def _disputed_sets(space: HypothesisSpace) -> IntArray:
    """Indices of the sets that hold both ends of a link which some school does not hold with."""
    index = space.knowledge.cause_index
    ends = [[index[cause] for cause in link] for link in sorted(space.knowledge.disputed_links)]
    both = [space.members[:, pair].all(axis=1) for pair in ends]
    return np.flatnonzero(np.any(both, axis=0)) if both else np.zeros(0, dtype=np.intp)


def _only(left: Marks, marked: Marks) -> Marks:
    """(most, sets) what is left of each set that is marked; all of it where none is."""
    chosen = left & marked
    return np.where(chosen.any(axis=0), chosen, left)


def _from_no_other(left: Marks, links: Marks) -> Marks:
    """(most, sets) what is left of each set and comes from no other of it that is left."""
    out: Marks = left & ~(left[:, None] & links).any(axis=0)
    return out


def supported_causes(
    asked: frozenset[str],
    seen: Mapping[str, Seen],
    points: FloatArray | None,
    knowledge: Knowledge,
) -> Marks:
    """(causes,) True where a cause was seen or balls point to it; see the module.

    Parameters
    ----------
    asked : checks that were answered
    seen : cause id to whether it was seen
    points : (causes,) log-likelihood ratio of all balls, the cause alone against none; None without
        balls

    """
    if points is None:
        named = {cause for check in asked for cause in knowledge.check[check].all_pointers()}
        return np.array([c.id in named for c in knowledge.causes])
    was_seen = np.array([seen.get(c.id) in ("yes", "partly") for c in knowledge.causes])
    return was_seen | (points > POINTS_FROM)


def first_seen(
    seen: Mapping[str, Seen], options: Sequence[SchoolOption], knowledge: Knowledge
) -> Marks:
    """(causes,) True for set-up matters that were seen, and for what the schools begin with."""
    before = {cause for option in options for cause in option.begins_with}
    return np.array(
        [(c.at_setup or c.id in before) and seen.get(c.id) == "yes" for c in knowledge.causes]
    )


def first_of(root: FloatArray, supported: Marks, knowledge: Knowledge) -> str | None:
    """The cause to start with; None where the first of the order is supported by nothing."""
    first = int(np.argmax(root))
    return knowledge.causes[first].id if supported[first] else None
