"""Which changes of a follow-up are there?"""

from typing import Literal

from sqlmodel import Session

from firm_footing.api.changes.change import Change
from firm_footing.api.changes.schemas import FollowUpIn
from firm_footing.api.sheets.routes import check_in
from firm_footing.core.knowledge import Knowledge
from firm_footing.store import coaching
from firm_footing.store.lesson_reading import content_of


class PutFollowUp(Change):
    """When to ask, and what came back; what is left out stays."""

    kind: Literal["follow-up"]
    body: FollowUpIn

    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """The day is that of the check-in where none was named."""
        values = self.body.model_dump(exclude_none=True, exclude={"was"})
        content = content_of(session, lesson_id)
        kept = content.follow_up
        on = kept.due_on if kept else values.get("due_on") or check_in(session, content, known)
        coaching.put_follow_up(session, lesson_id, on, values, self.body.was)
