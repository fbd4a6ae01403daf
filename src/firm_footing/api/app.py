"""How do the parts make one web application?"""

from collections.abc import Sequence
from pathlib import Path

from fastapi import APIRouter, FastAPI, HTTPException
from sqlalchemy import Engine
from starlette.middleware.gzip import GZipMiddleware

from firm_footing.api import (
    answers,
    balls,
    casebook,
    cases,
    coaching,
    conclusions,
    films,
    films_beside,
    instructors,
    keeping,
    knowledge,
    last_lesson,
    lessons,
    pairing,
    sheets,
    stills,
    students,
    tables,
    traces,
)
from firm_footing.api.answer_again import answer_again
from firm_footing.api.arrivals import Arrivals
from firm_footing.api.context import ArrivedBeforeError
from firm_footing.api.doorkeeper import Codes, Doorkeeper
from firm_footing.api.errors import add_handlers
from firm_footing.api.guard import LOOPBACK_NAMES, Guard
from firm_footing.api.intake import Intake
from firm_footing.api.kept_conclusions import KeptConclusions
from firm_footing.core.inference.enumeration import enumerate_stories
from firm_footing.core.knowledge import Knowledge

SCREENS = Path(__file__).parents[3] / "web" / "dist"
"""The built front end."""

PARTS = (
    students, lessons, last_lesson, answers, balls, traces, conclusions, coaching, sheets, casebook,
    cases, tables, knowledge, pairing, instructors, films, films_beside,
    stills, keeping,
)  # fmt: skip


def create_app(
    engine: Engine,
    known: Knowledge,
    screens: Path | None = SCREENS,
    names: Sequence[str] = LOOPBACK_NAMES,
    address: str | None = None,
    database: Path | None = None,
) -> FastAPI:
    """The application on this database with this knowledge.

    screens : folder of the built front end; None serves the API alone
    names : hosts, without port, that it answers to
    address : where other devices find it; None serves this machine only
    database : file of which daily backups are kept; None: of none
    """
    app = FastAPI(
        title="Firm Footing",
        version="1",
        summary="From ball flight, divot and strike to the footwork and pressure causes.",
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        generate_unique_id_function=lambda route: route.name,
    )
    app.state.knowledge, app.state.database = known, database
    app.state.not_backed_up, app.state.arrivals = None, Arrivals()
    app.state.address = address
    app.state.encrypted = address is not None and address.startswith("https://")
    begin_with(app, engine)
    enumerate_stories(known)
    add_handlers(app)
    app.add_exception_handler(ArrivedBeforeError, answer_again)
    app.add_middleware(Intake)
    app.add_middleware(Doorkeeper)
    app.add_middleware(Guard, names=names)
    app.add_middleware(GZipMiddleware, minimum_size=2000, compresslevel=2)
    api = APIRouter(prefix="/api")
    for part in PARTS:
        api.include_router(part.router)
    app.include_router(api)

    @app.get("/api/health", summary="Is it up?", tags=["knowledge"])
    async def health() -> dict[str, str]:
        """Answers once the database and the knowledge are ready."""
        return {"status": "ready", "knowledge": known.version}

    if screens is not None and screens.is_dir():
        _serve_screens(app, screens)
    return app


def begin_with(app: FastAPI, engine: Engine) -> None:
    """Serve this database from here on: nothing is concluded yet, and no code is shown."""
    app.state.engine, app.state.secret = engine, None
    app.state.arrivals.tell()
    app.state.conclusions, app.state.codes = KeptConclusions(), Codes()


def _serve_screens(app: FastAPI, screens: Path) -> None:
    """The front end, with unknown addresses under /api left to the API's own errors."""

    @app.get("/api/{rest:path}", include_in_schema=False)
    def not_found(rest: str) -> None:
        raise HTTPException(404, "Not found")

    app.frontend("/", directory=screens, fallback="index.html", check_dir=False)
