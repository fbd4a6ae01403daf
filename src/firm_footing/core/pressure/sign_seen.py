"""One sign of a trace, and how clear it is."""

from dataclasses import dataclass
from typing import Final

THERE: Final = 0.5
"""A sign at least this clear is named."""


@dataclass(frozen=True)
class SignSeen:
    """One sign.

    clear : probability that it is there, 0 to 1
    t_s : where it happens, for the drawing
    words : what happens, with the values
    """

    id: str
    clear: float
    t_s: float
    words: str

    @property
    def there(self) -> bool:
        """Whether it is named."""
        return self.clear >= THERE
