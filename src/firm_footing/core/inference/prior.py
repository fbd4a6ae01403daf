"""How likely is each set of causes before anything is seen?

Causes come by themselves or are brought about: n of them come by themselves with the stated
probability of n, each set of n as often as the product of its base weights says; then every
present cause adds each of its downstream ones with the strength of the links (noisy-OR):

    P(S) = sum over R in S of  P(|R|) * prod(w in R) / e_|R|(w)
                               * prod over S less R of (1 - (1-l)^k)  * prod outside S of (1-l)^k

with k the number of causes directly upstream in S and e_n the elementary symmetric polynomial
(the sum over all sets of n). Sets larger than the limit are left out and the rest sums to one.
That is a Bayesian network with a node for each cause that comes by itself, one for each that is
present, and one that counts. Where practitioners differ over a link, each view of it is such a
network, and the prior is their mixture.
"""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from firm_footing.core.frame.arrays import FloatArray, IntArray
from firm_footing.core.inference.caching import kept
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.links import Views, links_into
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.numbers import Prior
from firm_footing.core.knowledge.schools import CauseLink, SchoolOption


class PriorView(NamedTuple):
    """What the chosen schools say of the causes before anything is seen.

    weights : one base weight for each cause, above 0
    views : the views of the links, and how much each counts
    """

    weights: tuple[float, ...]
    views: Views


def prior_view(
    knowledge: Knowledge,
    options: Sequence[SchoolOption],
    how_common: Sequence[tuple[str, float]] = (),
) -> PriorView:
    """The same of these options, one of each question in their order.

    how_common : (cause id, factor) of its base weight, as a casebook has it
    """
    factor = {cause: f for option in options for cause, f in option.cause_weight.items()}
    here = dict(how_common)
    weights = tuple(
        c.base_weight * factor.get(c.id, 1.0) * here.get(c.id, 1.0) for c in knowledge.causes
    )
    return PriorView(weights, knowledge.schools.link_views(options))


def set_prior(space: HypothesisSpace, schools: PriorView) -> FloatArray:
    """(sets,) prior probability of each set of causes; sums to one."""
    out: FloatArray = _joint(space, schools, slice(None)).sum(axis=0)
    return out


def view_shares(space: HypothesisSpace, schools: PriorView, rows: IntArray | slice) -> FloatArray:
    """(views, rows) P(the view is right | the set), of these sets; the columns sum to one.

    What is seen speaks of the set alone, so that no evidence changes it.
    """
    joint = _joint(space, schools, rows)
    out: FloatArray = joint / joint.sum(axis=0)
    return out


def _joint(space: HypothesisSpace, schools: PriorView, rows: IntArray | slice) -> FloatArray:
    """(views, rows) P(the view is right, and the set), of these sets."""
    weights = schools.weights
    return np.array(
        [share * _in_view(space, weights, dropped)[rows] for share, dropped in schools.views]
    )


@kept(megabytes=2)  # of every school, for each is asked what it would start with
def _in_view(
    space: HypothesisSpace, weights: tuple[float, ...], dropped: frozenset[CauseLink]
) -> FloatArray:
    """(sets,) prior of each set where the links that are left hold."""
    prior = space.knowledge.numbers.prior
    not_added = (1.0 - prior.link_strength) ** links_into(space, dropped)
    outside = np.where(space.members > 0, 1.0, not_added).prod(axis=1)
    each = np.append(weights, 0.0)[space.members_listed]
    added = np.append(1.0 - not_added, np.ones((len(not_added), 1)), axis=1)
    added = np.take_along_axis(added.T, space.members_listed, axis=0)
    by_itself = np.zeros((len(outside), len(prior.causes_present)))
    by_itself[:, 0] = 1.0
    for w, x in zip(each, added, strict=True):  # multiply out prod (w t + x), power by power
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
