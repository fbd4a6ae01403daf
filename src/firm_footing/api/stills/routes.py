"""Which pictures out of a film are kept? At most two of a lesson, with consent, deleted alone."""

import base64

from fastapi import APIRouter, Response

from firm_footing.api.context import RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.store import stills

router = APIRouter(route_class=ParsedOnceRoute, tags=["stills"])
ERRORS = responses(404, 409, 422)


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
