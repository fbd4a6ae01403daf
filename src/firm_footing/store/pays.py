"""What did the looks of all lessons tell, which were never taken, and where did the time go?"""

from collections import defaultdict
from typing import Any, NamedTuple, get_args

from sqlalchemy import select
from sqlmodel import Session, col

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Stage
from firm_footing.store.own_tables import StudiedLesson
from firm_footing.store.tables import Clock


class ToldByLook(NamedTuple):
    """A look, in how many lessons, and bits told or expected on average of those."""

    check: str
    lessons: int
    bits: float


def told_by_look(session: Session, known: Knowledge) -> list[ToldByLook]:
    """Looks answered in lessons that were studied, those that told most for their time first."""
    return _by_look(session, col(StudiedLesson.told), known)


def never_taken(session: Session, known: Knowledge) -> list[ToldByLook]:
    """Looks proposed when a decision was made and never answered in any lesson, by any means."""
    answered = session.connection().execute(select(col(StudiedLesson.taken)))
    taken = {check for (looks,) in answered for check in looks}
    proposed = _by_look(session, col(StudiedLesson.proposed), known)
    return [look for look in proposed if look.check not in taken]


def _by_look(session: Session, column: Any, known: Knowledge) -> list[ToldByLook]:
    told: dict[str, list[float]] = defaultdict(list)
    for (said,) in session.connection().execute(select(column)):
        for check, bits in said.items():
            if check in known.check:
                told[check].append(bits)
    found = [ToldByLook(c, len(bits), sum(bits) / len(bits)) for c, bits in told.items()]
    return sorted(
        found, key=lambda look: (-look.bits / known.check[look.check].seconds, look.check)
    )


def minutes_of_stages(session: Session) -> dict[Stage, float]:
    """Stage to minutes on average, of the lessons in which it was timed."""
    used: dict[str, list[float]] = defaultdict(list)
    for (seconds,) in session.connection().execute(select(col(Clock.used_s))):
        for stage, s in seconds.items():
            if s > 0:
                used[stage].append(s / 60)
    stages = get_args(Stage)
    return {s: round(sum(used[s]) / len(used[s]), 1) for s in stages if used[s]}
