"""How does the server keep its memory small? All of its threads share one heap."""

import ctypes
import sys
from typing import Final

ARENA_MAX: Final = -8
"""`M_ARENA_MAX` of the GNU C library's mallopt(3)."""


def share_one_heap() -> bool:
    """Let all threads take memory from one place; False where the system's library is another.

    Otherwise each thread that ever ranked holds what it once needed, twice as much in all.
    """
    if not sys.platform.startswith("linux"):
        return False
    try:
        return bool(ctypes.CDLL(None).mallopt(ARENA_MAX, 1))
    except (OSError, AttributeError):
        return False
