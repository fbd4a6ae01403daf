"""Where is everything kept, and when was it last put by?"""

from datetime import datetime
from pathlib import Path

from fastapi import APIRouter, Request
from pydantic import BaseModel, Field

from firm_footing.api.errors import responses
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.store.errors import refused
from firm_footing.store.files.backups import back_up_today, folder_of, last_backup
from firm_footing.store.files.erasing import is_erasing
from firm_footing.store.files.opening import CannotOpenError

router = APIRouter(route_class=ParsedOnceRoute, tags=["keeping"])


class KeepingOut(BaseModel):
    """Backups of the database that is served."""

    folder: str | None = Field(description="Where the daily backups are; null: nothing is kept")
    last: datetime | None = Field(description="When the newest was made")
    failed: str | None = Field(description="Why the last one could not be made; null: it was")
    erasing: bool = Field(description="Something deleted still stands beside the database")


@router.get("/keeping", summary="When it was last backed up")
def read_keeping(request: Request) -> KeepingOut:
    """One is made at each day's first start."""
    return _keeping(request)


@router.post("/keeping/backup", summary="Back up now", responses=responses(409))
def back_up_now(request: Request) -> KeepingOut:
    """In the place of today's, if there is one."""
    database = _database(request)
    if database is None:
        raise refused("Demo data is not kept.", "database", "Start with your own database.")
    try:
        back_up_today(database, datetime.now().astimezone().date(), anew=True)
    except CannotOpenError as error:
        request.app.state.not_backed_up = error.message
        raise refused(error.message, "database", error.hint) from error
    request.app.state.not_backed_up = None
    return _keeping(request)


def _keeping(request: Request) -> KeepingOut:
    state, database = request.app.state, _database(request)
    last = None if database is None else last_backup(database)
    return KeepingOut(
        folder=None if database is None else str(folder_of(database)),
        last=last and last[1],
        failed=state.not_backed_up,
        erasing=is_erasing(state.engine),
    )


def _database(request: Request) -> Path | None:
    kept: Path | None = request.app.state.database
    return kept
