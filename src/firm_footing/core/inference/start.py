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
from firm_footing.core.inference.links import Views, links_into, links_of
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
    return _table(space, tuple(supported.tolist()), tuple(first.tolist()), schools)


@kept(megabytes=6)
def _table(
    space: HypothesisSpace,
    supported: tuple[bool, ...],
    first: tuple[bool, ...],
    schools: PriorView,
) -> FloatArray:
    rest = _only(space.members, np.array(first))
    rest = _only(rest, np.array(supported))
    (_, dropped), *others = schools.views
    out: FloatArray = rest * (rest @ links_of(space.knowledge, dropped) == 0)
    if others:
        rows = _disputed_sets(space, schools.views)
        shares = _shares(space, schools)[:, rows, None]
        out[rows] = sum(
            share * rest[rows] * (rest[rows] @ links_of(space.knowledge, view[1]) == 0)
            for share, view in zip(shares, schools.views, strict=True)
        )
    return out


@kept(megabytes=1)
def _disputed_sets(space: HypothesisSpace, views: Views) -> IntArray:
    """Indices of the sets in which the views see other links."""
    into = [space.members * links_into(space, dropped) for _, dropped in views]
    return np.flatnonzero(np.any(np.ptp(into, axis=0) > 0, axis=1))


@kept(megabytes=1)
def _shares(space: HypothesisSpace, schools: PriorView) -> FloatArray:
    return view_shares(space, schools)


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
