"""Which causes of a set bring about which others of it, in each view of the links?

Practitioners differ over some links. A lesson holds one view, or counts several of them; see
`schools.yaml`.
"""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.inference.hypothesis_space import HypothesisSpace
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.schools import CauseLink, LinkView

Views = tuple[LinkView, ...]
"""The views that count, and how much each does."""


@lru_cache(maxsize=16)
def links_of(knowledge: Knowledge, dropped: frozenset[CauseLink]) -> FloatArray:
    """(causes, causes) 1.0 where the first is directly upstream of the second."""
    causes = knowledge.causes
    return np.array(
        [
            [float(c.id in u.upstream_of and (u.id, c.id) not in dropped) for c in causes]
            for u in causes
        ]
    )


@lru_cache(maxsize=16)
def links_into(space: HypothesisSpace, dropped: frozenset[CauseLink]) -> FloatArray:
    """(sets, causes) how many causes directly upstream of this one are present."""
    out: FloatArray = space.members @ links_of(space.knowledge, dropped)
    return out


@lru_cache(maxsize=16)
def links_within(space: HypothesisSpace, dropped: frozenset[CauseLink]) -> NDArray[np.bool_]:
    """(most, most, sets) True where a member of the set is directly upstream of another.

    In the order of `members_listed`.
    """
    links = np.pad(links_of(space.knowledge, dropped) > 0, (0, 1))
    listed = space.members_listed
    out: NDArray[np.bool_] = links[listed[:, None], listed[None, :]]
    return out
