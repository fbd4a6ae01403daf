"""Which drills are laid out for a cause, and what has to be changed before any of them?"""

from collections.abc import Mapping
from dataclasses import dataclass

from firm_footing.core.case import Case
from firm_footing.core.coaching.drills import Withheld, drills_for, withheld_for
from firm_footing.core.knowledge import Knowledge


@dataclass(frozen=True)
class Card:
    """One drill on the table.

    because : what speaks for it here
    withheld : why it is kept back; None when it serves
    instead : id of a drill that replaces a withheld one, where there is any
    """

    drill: str
    because: tuple[str, ...] = ()
    withheld: Withheld | None = None
    instead: str | None = None


def cards_for(
    cause: str,
    case: Case,
    present: Mapping[str, float],
    path_deg: float | None,
    knowledge: Knowledge,
) -> tuple[Card, ...]:
    """Drills that serve a cause, the best first, then those kept back.

    Parameters
    ----------
    present : cause id to P(present)
    path_deg : club path, + in-to-out, None when not known

    """
    serving = drills_for(cause, knowledge, case.limits, case.school, present, path_deg)
    kept_back = withheld_for(cause, knowledge, case.limits, present, path_deg)
    instead = serving[0] if serving else None
    return (
        *(Card(drill, because=_because(drill, cause, knowledge)) for drill in serving),
        *(Card(w.drill, withheld=w, instead=instead) for w in kept_back),
    )


def _because(drill_id: str, cause: str, knowledge: Knowledge) -> tuple[str, ...]:
    drill = knowledge.drill[drill_id]
    said = {
        "needs nothing": not drill.equipment,
        "made for this cause": drill.targets[0] == cause,
        "without a ball": drill.ball == "none",
        "a piece may go to the course": drill.on_course,
    }
    return tuple(words for words, so in said.items() if so)


def setup_first(case: Case, knowledge: Knowledge) -> tuple[str, ...]:
    """Set-up looks that were answered yes before any change: they come before a foot drill."""
    yes = {r.check for r in case.readings if r.answer in ("yes", "partly") and r.block is None}
    return tuple(c.id for c in knowledge.checks if c.view == "setup" and c.id in yes)
