"""Which pictures out of a film are kept? At most two of a lesson, with consent, deleted alone."""

import base64
from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import Field

from firm_footing.api.changes.schemas import OwnId
from firm_footing.api.changes.write_response import ChangedLesson, Reply
from firm_footing.api.context import RowId, Store, Writing
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.wire import In, Truth
from firm_footing.core.case.base import Word
from firm_footing.core.case.limits import BODY_BYTES
from firm_footing.core.case.still import Consent
from firm_footing.core.knowledge.pressure import SwingEvent
from firm_footing.files.still_files import StillError, plain_jpeg
from firm_footing.store import stills
from firm_footing.store.errors import refused
from firm_footing.store.tables import Still

router = APIRouter(route_class=ParsedOnceRoute, tags=["stills"])
ERRORS = responses(404, 409, 422)


class StillIn(In):
    """A picture out of a film."""

    film_id: OwnId | None = None
    event: SwingEvent | None = None
    measure: Annotated[Word | None, Field(description="What stands beside it")] = None
    consent: Consent = Field(description="Who agreed to its being kept")
    on_sheet: Truth = Field(False, description="Goes home with the student")
    picture: Annotated[str, Field(max_length=BODY_BYTES)] = Field(description="JPEG, in base64")


class OnSheetIn(In):
    """Whether a still goes home with the student."""

    on_sheet: Truth


@router.put("/lessons/{lesson_id}/stills/{still_id}", summary="Keep a still", responses=ERRORS)
def put_still(
    session: Writing, outcome: Reply, lesson_id: RowId, still_id: RowId, sent: StillIn
) -> ChangedLesson:
    """The client makes the id; the same id again changes nothing. It is not undone but deleted."""
    try:
        picture = plain_jpeg(sent.picture)
    except StillError as error:
        raise refused(str(error), "picture", "The picture was not kept.") from error
    stills.put_still(
        session,
        Still(
            id=still_id,
            lesson_id=lesson_id,
            film_id=sent.film_id,
            event=sent.event,
            measure=sent.measure or "",
            consent=sent.consent,
            on_sheet=sent.on_sheet,
            jpeg_base64=picture,
        ),
    )
    return outcome(lesson_id)


@router.patch(
    "/lessons/{lesson_id}/stills/{still_id}", summary="Send a still home or not", responses=ERRORS
)
def change_still(
    session: Writing, outcome: Reply, lesson_id: RowId, still_id: RowId, sent: OnSheetIn
) -> ChangedLesson:
    """Whether it stands on the sheet."""
    stills.put_on_sheet(session, lesson_id, still_id, sent.on_sheet)
    return outcome(lesson_id)


@router.delete(
    "/lessons/{lesson_id}/stills/{still_id}", summary="Delete a still for good", responses=ERRORS
)
def delete_still(
    session: Writing, outcome: Reply, lesson_id: RowId, still_id: RowId
) -> ChangedLesson:
    """It cannot be undone; one already gone is no error."""
    stills.delete_still(session, lesson_id, still_id)
    return outcome(lesson_id)


@router.get(
    "/lessons/{lesson_id}/stills/{still_id}/picture",
    summary="The picture of a still",
    responses=responses(404, 422),
    response_class=Response,
)
def read_still(session: Store, lesson_id: RowId, still_id: RowId) -> Response:
    """JPEG; no browser keeps it, so that a deleted one is gone there too."""
    still = stills.get_still(session, lesson_id, still_id)
    return Response(
        base64.b64decode(still.jpeg_base64),
        media_type="image/jpeg",
        headers={"Cache-Control": "no-store"},
    )
