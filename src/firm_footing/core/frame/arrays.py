"""What are arrays of numbers called?"""

from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

FloatArray = NDArray[np.float64]
IntArray = NDArray[np.int_]
FloatOrArray = TypeVar("FloatOrArray", float, FloatArray)
"""What is worked out alike for one and for many."""
