"""Which drill serves the cause, and which must stay away from this student?"""

from firm_footing.core.coaching.drills import (
    Situation,
    Withheld,
    drills_for,
    situation_of,
    withheld_for,
)

__all__ = ["Situation", "Withheld", "drills_for", "situation_of", "withheld_for"]
