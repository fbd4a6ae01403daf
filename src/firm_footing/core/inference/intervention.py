"""What would change in a student if something took these causes away?

A constraint done right takes its causes away most of the time; what they had brought about goes
with them, most of the time. Each possibility is a `Branch`: what is gone, in every configuration.
"""

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray, IntArray
from firm_footing.core.inference.caching import kept
from firm_footing.core.inference.delivery_likelihood import cause_free, stopped
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.inference.links import Views, links_of
from firm_footing.core.physics.forward import STRIKE


@dataclass(frozen=True, eq=False)
class Branch:
    """One thing that can happen.

    probability : of this branch
    configurations : (n,) those in which anything is gone
    gone : (most, n) which of their variants are gone, the last variant where none is
    """

    probability: float
    configurations: IntArray
    gone: IntArray


class OwnSizes(NamedTuple):
    """How large a student's effects are, as far as the balls tell.

    severity : (most, n) how far each cause's severity lies from that of its configuration, in
        standard deviations
    strike : (n,) how many times as far the causes move the strike
    """

    severity: FloatArray
    strike: FloatArray

    def of(self, here: IntArray) -> "OwnSizes":
        """The same of these configurations alone."""
        return OwnSizes(self.severity[:, here], self.strike[here])


@kept(megabytes=8)
def branches(
    space: HypothesisSpace, removed: tuple[str, ...], works: float, views: Views
) -> tuple[Branch, ...]:
    """What can be gone when these causes are removed with probability `works`.

    In order: nothing (left out when `works` is 1), they and what they brought about in each view of
    the links, only they.
    """
    knowledge = space.knowledge
    count = len(knowledge.causes)
    taken = np.zeros(count + 1, dtype=bool)
    taken[[knowledge.cause_index[c] for c in removed]] = True
    cause_of = space.variant_cause[space.variant_of]
    by_itself = taken[cause_of]
    share = knowledge.numbers.trial.goes_with_it
    with_it = _in_each_view(space, cause_of, by_itself, views)
    found = [
        _branch(1 - works, space, np.zeros_like(by_itself)),
        *(_branch(works * share * counts, space, gone) for counts, gone in with_it),
        _branch(works * (1 - share), space, by_itself),
    ]
    return tuple(b for b in found if b.probability > 0)


@kept(megabytes=4)
def only_itself(space: HypothesisSpace, cause: str) -> tuple[Branch, ...]:
    """A cause gone for certain, and nothing of what it brought about."""
    index = space.knowledge.cause_index[cause]
    return (_branch(1.0, space, space.variant_cause[space.variant_of] == index),)


def _branch(probability: float, space: HypothesisSpace, gone: NDArray[np.bool_]) -> Branch:
    """`gone`: (most, configurations) whether each variant of a configuration is."""
    here = np.flatnonzero(gone.any(axis=0))
    return Branch(
        probability,
        here,
        np.where(gone[:, here], space.variant_of[:, here], space.no_variant),
    )


def _in_each_view(
    space: HypothesisSpace, cause_of: IntArray, by_itself: NDArray[np.bool_], views: Views
) -> list[tuple[float, NDArray[np.bool_]]]:
    """What goes with it, and how much that counts; views that come to the same are one."""
    found: list[tuple[float, NDArray[np.bool_]]] = []
    for share, dropped in views:
        gone = _brought_about(links_of(space.knowledge, dropped), cause_of, by_itself)
        same = next((i for i, (_, other) in enumerate(found) if np.array_equal(gone, other)), None)
        if same is None:
            found.append((share, gone))
        else:
            found[same] = (found[same][0] + share, gone)
    return found


def _brought_about(
    between: FloatArray, cause_of: IntArray, gone: NDArray[np.bool_]
) -> NDArray[np.bool_]:
    """(most, configurations) what is gone, and whatever is downstream of it, however far."""
    links = np.pad(between > 0, (0, 1))  # the last variant is of no cause
    for _ in range(len(cause_of) - 1):
        gone = gone.copy()
        for row in range(len(cause_of)):
            for above in range(len(cause_of)):
                gone[row] |= gone[above] & links[cause_of[above], cause_of[row]]
    return gone


def change_of(
    space: HypothesisSpace, branch: Branch, own: OwnSizes | None, handicap: float
) -> FloatArray:
    """(6, n) mean change of the delivery in the branch's configurations.

    What is left is stopped where low point and strike stop, not what goes: of two causes that
    together would reach beyond, either alone still reaches as far.

    own : of the branch's configurations; None where nothing is known
    """
    variants = space.variant_of[:, branch.configurations]
    whole = cause_free(space, handicap)[:, None] + shift_of(space, variants, own)
    left = whole - shift_of(space, branch.gone, own)
    return stopped(left, space) - stopped(whole, space)


def shift_of(space: HypothesisSpace, variants: IntArray, own: OwnSizes | None) -> FloatArray:
    """(6, n) what these variants (most, n) do together.

    A cause never acts backwards.
    """
    sizes = space.variant_severity[variants]
    if own is not None:
        within = space.knowledge.numbers.delivery.severity_within
        sizes = np.maximum(0.0, sizes + within * own.severity)
    out = np.zeros((variants.shape[1], space.unit_effects.shape[1]))
    for row, size in zip(variants, sizes, strict=True):
        out += space.unit_effects.take(row, axis=0) * size[:, None]
    if own is not None:
        out[:, STRIKE] *= own.strike
    return out.T
