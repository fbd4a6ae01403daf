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
from firm_footing.core.inference.links import links_of
from firm_footing.core.inference.prior import PriorView, view_shares
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.schools import SchoolOption
from firm_footing.core.knowledge.vocabulary import Seen

POINTS_FROM = 0.05
"""Log-likelihood ratio from which balls point to a cause rather than to none."""

Marks = NDArray[np.bool_]


def start_table(
    space: HypothesisSpace, supported: Marks, first: Marks, schools: PriorView
) -> FloatArray:
    """(sets, causes) P(one starts with the cause, if that set is the truth).

    1 or 0 where all views of the links agree.

    Parameters
    ----------
    supported : (causes,) True where the cause was asked about, or some ball points to it
    first : (causes,) True where it comes before all others that are at work

    """
    out = _as_if_all_links_hold(space, tuple(supported.tolist()), tuple(first.tolist())).copy()
    rows = _disputed_sets(space)
    out[rows] = _of_disputed(space, supported, first, schools)
    return out


def root_of(
    space: HypothesisSpace,
    cause_set: FloatArray,
    supported: Marks,
    first: Marks,
    schools: PriorView,
) -> FloatArray:
    """(causes,) P(the cause is at work, and one starts with it).

    The same as `cause_set @ start_table(...)`, without writing that table out.

    cause_set : (sets,) probability of each set, but for a constant
    """
    table = _as_if_all_links_hold(space, tuple(supported.tolist()), tuple(first.tolist()))
    rows = _disputed_sets(space)
    moved = _of_disputed(space, supported, first, schools) - table[rows]
    out: FloatArray = cause_set @ table + cause_set[rows] @ moved
    return out


@kept(megabytes=6)
def _as_if_all_links_hold(
    space: HypothesisSpace, supported: tuple[bool, ...], first: tuple[bool, ...]
) -> FloatArray:
    """(sets, causes) 1.0 where one starts with the cause; not to be written to."""
    rest = _left(space.members, np.array(supported), np.array(first))
    out: FloatArray = rest * (rest @ links_of(space.knowledge, frozenset()) == 0)
    return out


def _of_disputed(
    space: HypothesisSpace, supported: Marks, first: Marks, schools: PriorView
) -> FloatArray:
    """(disputed, causes) rows of `start_table` of the sets in which schools see other links."""
    rows = _disputed_sets(space)
    rest = _left(space.members[rows], supported, first)
    out = np.zeros_like(rest)
    for share, view in zip(view_shares(space, schools, rows), schools.views, strict=True):
        out += share[:, None] * rest * (rest @ links_of(space.knowledge, view.dropped) == 0)
    return out


@kept(megabytes=1)
def _disputed_sets(space: HypothesisSpace) -> IntArray:
    """Indices of the sets that hold both ends of a link which some school does not hold with."""
    index = space.knowledge.cause_index
    ends = [[index[cause] for cause in link] for link in sorted(space.knowledge.disputed_links)]
    both = [space.members[:, pair].all(axis=1) for pair in ends]
    return np.flatnonzero(np.any(both, axis=0)) if both else np.zeros(0, dtype=np.intp)


def _left(members: FloatArray, supported: Marks, first: Marks) -> FloatArray:
    """(sets, causes) the members of each set that one may start with."""
    return _only(_only(members, first), supported)


def _only(members: FloatArray, marked: Marks) -> FloatArray:
    """(sets, causes) the marked members of each set; all of them where none is marked."""
    if not marked.any() or marked.all():
        return members
    has_one = members @ marked > 0
    return np.where(has_one[:, None], members * marked, members)


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
