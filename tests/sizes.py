"""How much is simulated: a part in `make test`, the whole in `make test-all`."""

import os
from typing import Final

WHOLE: Final = bool(os.environ.get("WHOLE_TESTS"))


def of(part: int, whole: int) -> int:
    """So many now."""
    return whole if WHOLE else part
