"""Which causes are present, in the forms that sums over many of them are taken with?"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int_]


@dataclass(frozen=True, eq=False)
class Table:
    """(rows, causes) 1.0 where a cause is present, in the forms that sums are taken with."""

    members: FloatArray

    @cached_property
    def present(self) -> FloatArray:
        """(rows, causes) in memory order for products from the left."""
        return np.asfortranarray(self.members)

    @cached_property
    def present_and_one(self) -> FloatArray:
        """(rows, causes + 1) `present` and a column of ones, which sums all."""
        return np.asfortranarray(np.append(self.members, np.ones((len(self.members), 1)), axis=1))

    @cached_property
    def absent(self) -> FloatArray:
        """(rows, causes) 1.0 where the cause is not present."""
        return np.asfortranarray(1.0 - self.members)


@dataclass(frozen=True, eq=False)
class Swings:
    """Every set of causes in each of its modes: all that a look can tell apart.

    set_of : (swings,) which set
    stuck : (swings,) True where the club is stuck behind
    table : which causes are present
    """

    set_of: IntArray
    stuck: NDArray[np.bool_]
    table: Table
