"""What was worked out is kept while there is room for it: by megabytes, not by how many."""

from collections.abc import Callable
from dataclasses import fields, is_dataclass
from threading import RLock
from typing import Any, ParamSpec, TypeVar

import numpy as np
from cachetools import LRUCache, cached

P = ParamSpec("P")
T = TypeVar("T")

SMALL = 200
"""Bytes that anything else counts as."""


def kept(megabytes: float) -> Callable[[Callable[P, T]], Callable[P, T]]:
    """Keep what a function of hashable arguments returned, what was used last the longest.

    megabytes : of arrays, at most; a single result larger than that is not kept

    Results are shared: nobody may write to them.
    """
    return cached(LRUCache(megabytes * 1e6, getsizeof=bytes_of), lock=RLock())


def bytes_of(result: Any) -> int:
    """Bytes of all arrays in it; of one that is part of a larger one, all of that."""
    if isinstance(result, np.ndarray):
        whole = result.base if isinstance(result.base, np.ndarray) else result
        return SMALL + whole.nbytes
    if isinstance(result, tuple | list):
        return SMALL + sum(bytes_of(part) for part in result)
    if is_dataclass(result) and not isinstance(result, type):
        return SMALL + sum(bytes_of(getattr(result, field.name)) for field in fields(result))
    return SMALL
