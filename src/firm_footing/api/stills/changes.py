"""Which changes of stills are there? None is undone: a still is deleted for good."""

from typing import Annotated, Literal

from pydantic import Field
from sqlmodel import Session

from firm_footing.api.changes.change import RowChange
from firm_footing.api.changes.schemas import OwnId
from firm_footing.api.wire import In, Truth
from firm_footing.core.case.base import Word
from firm_footing.core.case.limits import BODY_BYTES
from firm_footing.core.case.still import Consent
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FilmEvent
from firm_footing.files.still_files import StillError, plain_jpeg
from firm_footing.store import stills
from firm_footing.store.errors import refused
from firm_footing.store.tables import Still


class StillIn(In):
    """A picture out of a film."""

    film_id: OwnId | None = None
    event: FilmEvent | None = None
    measure: Annotated[Word | None, Field(description="What stands beside it")] = None
    consent: Consent = Field(description="Who agreed to its being kept")
    on_sheet: Truth = Field(False, description="Goes home with the student")
    picture: Annotated[str, Field(max_length=BODY_BYTES)] = Field(description="JPEG, in base64")


class OnSheetIn(In):
    """Whether a still goes home with the student."""

    on_sheet: Truth


class PutStill(RowChange):
    """Keep a still; the same id again changes nothing."""

    kind: Literal["still"]
    body: StillIn

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """Only the picture itself is kept, and nothing that a camera wrote beside it."""
        sent = self.body
        try:
            picture = plain_jpeg(sent.picture)
        except StillError as error:
            raise refused(str(error), "picture", "The picture was not kept.") from error
        stills.put_still(
            session,
            Still(
                id=self.id,
                lesson_id=lesson_id,
                film_id=sent.film_id,
                event=sent.event,
                measure=sent.measure or "",
                consent=sent.consent,
                on_sheet=sent.on_sheet,
                jpeg_base64=picture,
            ),
        )


class ChangeStill(RowChange):
    """Send a still home or not."""

    kind: Literal["still-change"]
    body: OnSheetIn

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """Whether it stands on the sheet."""
        stills.put_on_sheet(session, lesson_id, self.id, self.body.on_sheet)


class DeleteStill(RowChange):
    """Delete a still for good; one already gone is no error."""

    kind: Literal["still-gone"]

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """Not a byte of it is left."""
        stills.delete_still(session, lesson_id, self.id)
