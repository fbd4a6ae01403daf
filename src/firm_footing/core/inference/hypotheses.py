"""Which causes are present and how severe, in the forms that sums over many of them need?"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from firm_footing.core.frame.arrays import FloatArray, IntArray


@dataclass(frozen=True, eq=False)
class Hypotheses:
    """Every set of causes in each mode and at each severity: all that a look can tell apart.

    set_of : (hypotheses,) which set
    stuck : (hypotheses,) True where the club is stuck behind
    severity : (hypotheses, causes) of each cause, 0 where it is absent; columns lie together
    """

    set_of: IntArray
    stuck: NDArray[np.bool_]
    severity: FloatArray

    @cached_property
    def present(self) -> FloatArray:
        """(hypotheses, causes) 1.0 where a cause is present."""
        return np.asfortranarray(self.severity > 0, dtype=np.float64)
