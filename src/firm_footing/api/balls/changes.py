"""Which changes of balls are there?"""

from typing import Literal

from sqlmodel import Session

from firm_footing.api.changes.change import RowChange
from firm_footing.api.changes.schemas import ShotIn
from firm_footing.core.knowledge import Knowledge
from firm_footing.store import shots


class LogBall(RowChange):
    """Log a ball, or change it."""

    kind: Literal["shot"]
    body: ShotIn

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """Under the client's id, so that a repeated request stores the ball once."""
        ball = self.body
        shots.put_shot(
            session, lesson_id, self.id, ball.block_id, ball.observed, ball.touched, ball.was
        )


class DeleteBall(RowChange):
    """Delete a ball; one already gone is no error."""

    kind: Literal["shot-gone"]

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """It can be undone."""
        shots.delete_shot(session, lesson_id, self.id)
