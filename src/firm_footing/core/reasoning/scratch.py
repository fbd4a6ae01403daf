"""Where do large intermediate results live? In memory that is kept from one diagnosis to the next.

Asking the system for a fresh megabyte costs more than the arithmetic done in it.
"""

import threading
from typing import Any

import numpy as np
from numpy.typing import NDArray

_KEPT = threading.local()


def scratch(name: str, rows: int, columns: int, dtype: Any = np.float64) -> NDArray[Any]:
    """(rows, columns) an array of this thread's with whatever was in it; never hand it out."""
    kept: NDArray[Any] | None = getattr(_KEPT, name, None)
    if kept is None or kept.shape[0] < rows or kept.shape[1] != columns or kept.dtype != dtype:
        kept = np.empty((max(rows, 64), columns), dtype=dtype)
        setattr(_KEPT, name, kept)
    return kept[:rows]
