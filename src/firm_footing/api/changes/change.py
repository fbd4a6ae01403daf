"""What is a change of a lesson? One kind each, which knows how it is made."""

from abc import ABC, abstractmethod

from pydantic import Field
from sqlmodel import Session

from firm_footing.api.changes.schemas import OwnId
from firm_footing.api.wire import In
from firm_footing.core.knowledge import Knowledge


class Change(In, ABC):
    """One change; every kind stands in the folder of what it changes."""

    @abstractmethod
    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """Make it.

        Raises
        ------
        StoreError
            It cannot be made; nothing was changed.

        """


class RowChange(Change):
    """A change of one row of a lesson."""

    id: OwnId = Field(description="Of the row, made by the client: sent again it is the same row")
