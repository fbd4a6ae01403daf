"""Where do large intermediate results live? In memory that is kept from one diagnosis to the next.

Asking the system for a fresh megabyte costs more than the arithmetic done in it.
"""

from collections.abc import Iterator
from contextlib import contextmanager
from threading import Lock

import numpy as np

from firm_footing.core.frame.arrays import FloatArray

_TURN = Lock()
_KEPT = [np.empty((0, 0))]


@contextmanager
def scratch(rows: int, columns: int) -> Iterator[FloatArray]:
    """(rows, columns) an array with whatever was in it, one thread's at a time; not to be kept."""
    with _TURN:
        if _KEPT[0].shape[0] < rows or _KEPT[0].shape[1] != columns:
            _KEPT[0] = np.empty((max(rows, 32), columns))
        yield _KEPT[0][:rows]
