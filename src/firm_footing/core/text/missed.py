"""How is a pattern's contact said: "4 of 7 fat", "1 of 7 off the hosel"?"""

from collections.abc import Collection
from typing import Final

from firm_footing.core.patterns.pattern import Pattern

WORDS: Final = {
    "fat": "fat",
    "thin": "thin",
    "top": "topped",
    "heel": "off the heel",
    "hosel": "off the hosel",
    "toe": "off the toe",
}


OFF_THE_MIDDLE: Final = ("heel", "hosel", "toe")


def missed_words(pattern: Pattern, of: Collection[str] = tuple(WORDS)) -> tuple[str, ...]:
    """Balls that were not struck clean, the most frequent miss first; `of` these words."""
    return tuple(
        f"{n} of {pattern.balls} {WORDS[contact]}"
        for contact, n in pattern.contacts.items()
        if contact in of
    )
