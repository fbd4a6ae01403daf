"""Which drills are laid out for a cause, and what is said on each card?"""

from dataclasses import dataclass

from firm_footing.core.coaching.cautions import cautions_for
from firm_footing.core.coaching.drills import Situation, Withheld, drills_for, fit_of, withheld_for
from firm_footing.core.knowledge import Knowledge


@dataclass(frozen=True)
class Card:
    """One drill on the table.

    pros, cons : what speaks for and against it here
    cautions : that go with it beyond those of every drill
    withheld : why it is kept back; None when it serves
    instead : id of a drill that replaces a withheld one, where there is any
    """

    drill: str
    pros: tuple[str, ...] = ()
    cons: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    withheld: Withheld | None = None
    instead: str | None = None


def cards_for(cause: str, knowledge: Knowledge, here: Situation) -> tuple[Card, ...]:
    """Drills that serve a cause, the best fitting first, then those kept back."""
    serving = drills_for(cause, knowledge, here)
    kept_back = withheld_for(cause, knowledge, here)
    instead = serving[0] if serving else None
    return (
        *(_card(drill, cause, knowledge, here) for drill in serving),
        *(Card(w.drill, withheld=w, instead=instead) for w in kept_back),
    )


def _card(drill_id: str, cause: str, knowledge: Knowledge, here: Situation) -> Card:
    drill = knowledge.drill[drill_id]
    fit = fit_of(drill, cause, knowledge, here)
    return Card(drill_id, fit.pros, fit.cons, cautions_for(drill, knowledge, here.present))
