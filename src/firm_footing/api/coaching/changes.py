"""Which changes are there while a drill is tried?"""

from typing import Literal

from sqlmodel import Session

from firm_footing.api.changes.change import RowChange
from firm_footing.api.coaching.schemas import RepetitionIn
from firm_footing.core.knowledge import Knowledge
from firm_footing.store import coaching
from firm_footing.store.errors import refused


class TapRepetition(RowChange):
    """A repetition of a drill, passed or failed."""

    kind: Literal["repetition"]
    body: RepetitionIn

    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """Under the client's id, so that a repeated request counts it once."""
        sent = self.body
        if sent.drill not in known.drill:
            raise refused(f"No drill is called '{sent.drill}'.", "drill", "Nothing was changed.")
        coaching.put_repetition(session, lesson_id, self.id, sent.drill, sent.result, sent.real)
