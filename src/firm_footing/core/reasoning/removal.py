"""What would change in a student if something took these causes away?

A constraint done right takes its causes away most of the time; what they had brought about goes
with them, most of the time. Each possibility is a `Branch`: what is gone, in every story.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.reasoning.stories import Stories

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int_]


@dataclass(frozen=True, eq=False)
class Branch:
    """One thing that can happen.

    probability : of this branch
    gone : (most, stories) which variants are gone, the last variant where none is
    """

    probability: float
    gone: IntArray


@lru_cache(maxsize=64)
def branches(stories: Stories, removed: tuple[str, ...], works: float) -> tuple[Branch, ...]:
    """What can be gone when these causes are removed with probability `works`.

    In order: nothing (left out when `works` is 1), they and what they brought about, only they.
    """
    knowledge = stories.knowledge
    count = len(knowledge.causes)
    taken = np.zeros(count + 1, dtype=bool)
    taken[[knowledge.cause_index[c] for c in removed]] = True
    cause_of = stories.variant_cause[stories.variant_of]
    by_itself = taken[cause_of]
    with_it = _brought_about(stories, cause_of, by_itself)
    none = len(stories.effects) - 1
    share = knowledge.numbers.trial.goes_with_it
    found = [
        Branch(1 - works, np.full_like(stories.variant_of, none)),
        Branch(works * share, np.where(with_it, stories.variant_of, none)),
        Branch(works * (1 - share), np.where(by_itself, stories.variant_of, none)),
    ]
    return tuple(b for b in found if b.probability > 0)


def _brought_about(
    stories: Stories, cause_of: IntArray, gone: NDArray[np.bool_]
) -> NDArray[np.bool_]:
    """(most, stories) what is gone, and whatever is downstream of it, however far."""
    links = links_of(stories)
    for _ in range(len(cause_of) - 1):
        gone = gone.copy()
        for row in range(len(cause_of)):
            for above in range(len(cause_of)):
                gone[row] |= gone[above] & links[cause_of[above], cause_of[row]]
    return gone


@lru_cache(maxsize=4)
def links_of(stories: Stories) -> NDArray[np.bool_]:
    """(causes + 1, causes + 1) True where the first is directly upstream of the second."""
    causes = stories.knowledge.causes
    links = np.zeros((len(causes) + 1, len(causes) + 1), dtype=bool)
    for row, cause in enumerate(causes):
        links[row, [stories.knowledge.cause_index[c] for c in cause.upstream_of]] = True
    return links


def change_of(stories: Stories, branch: Branch, severity: FloatArray | None) -> FloatArray:
    """(6, stories) mean change of the delivery in this branch.

    severity : (most, stories) how far each cause's severity lies from that of its story, in
        standard deviations; None where nothing is known of it. A cause never acts backwards.
    """
    within = stories.knowledge.numbers.delivery.severity_within
    change = np.zeros((stories.effects.shape[1], branch.gone.shape[1]))
    for row, gone in enumerate(branch.gone):
        size = stories.variant_severity[gone]
        if severity is not None:
            size = np.maximum(0.0, size + within * severity[row])
        change -= stories.unit_effects[gone].T * size
    return change
