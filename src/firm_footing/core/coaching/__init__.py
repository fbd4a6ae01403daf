"""Which drill serves the cause, and which must stay away from this student?"""

from firm_footing.core.coaching.drills import Withheld, drills_for, withheld_for

__all__ = ["Withheld", "drills_for", "withheld_for"]
