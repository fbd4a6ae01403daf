"""In which frame does the golf happen? Golfer-neutral sides and SI units.

The core knows a *pull side* (negative) and a *push side* (positive), a *lead* and a *trail* foot.
Which real side that is depends on the golfer's hand and is decided here, once, on the way in and
once on the way out.
"""

from firm_footing.core.frame.handedness import (
    Handedness,
    NeutralDirection,
    RealDirection,
    mirror_deg,
    neutral_feet,
    to_neutral_word,
    to_real_word,
)
from firm_footing.core.frame.units import (
    DistanceUnit,
    SpeedUnit,
    from_metres,
    from_metres_a_second,
    to_metres,
    to_metres_a_second,
)
from firm_footing.core.frame.words import SideWords, in_words, side

__all__ = [
    "DistanceUnit",
    "Handedness",
    "NeutralDirection",
    "RealDirection",
    "SideWords",
    "SpeedUnit",
    "from_metres",
    "from_metres_a_second",
    "in_words",
    "mirror_deg",
    "neutral_feet",
    "side",
    "to_metres",
    "to_metres_a_second",
    "to_neutral_word",
    "to_real_word",
]
