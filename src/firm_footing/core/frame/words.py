"""What are the feet and the sides called for one student?"""

import re
from typing import Literal

from firm_footing.core.frame.handedness import Handedness

SideWords = Literal["lead_trail", "left_right"]


def side(value: float, hand: Handedness) -> str:
    """The real side of a golfer-neutral direction, - pull side."""
    return "left" if (value < 0) == (hand == "right") else "right"


def in_words(text: str, hand: Handedness, sides: SideWords) -> str:
    """The text with feet as was chosen, and pull and push side as real sides.

    A right-hander's lead foot is the left one, and the pull side is left of the target.
    """
    lead, trail = ("left", "right") if hand == "right" else ("right", "left")
    words = {"pull side": f"{lead} side", "push side": f"{trail} side"}
    if sides == "left_right":
        words |= {"lead": lead, "trail": trail}

    def put(found: re.Match[str]) -> str:
        word = words[found[0].lower()]
        return word.capitalize() if found[0][0].isupper() else word

    return re.sub(rf"\b({'|'.join(words)})\b", put, text, flags=re.IGNORECASE)
