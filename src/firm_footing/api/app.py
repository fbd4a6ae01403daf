"""How do the parts make one web application?"""

from collections.abc import Sequence
from pathlib import Path

from fastapi import APIRouter, FastAPI, HTTPException
from sqlalchemy import Engine
from starlette.middleware.gzip import GZipMiddleware

from firm_footing.api.balls import routes as balls
from firm_footing.api.casebook import learned
from firm_footing.api.casebook import routes as casebook
from firm_footing.api.casebook.learner import Learner
from firm_footing.api.cases import routes as cases
from firm_footing.api.changes import routes as changes
from firm_footing.api.changes.answer_again import answer_again
from firm_footing.api.coaching import routes as coaching
from firm_footing.api.conclusions import routes as conclusions
from firm_footing.api.conclusions.kept import KeptConclusions
from firm_footing.api.context import DuplicateWriteError
from firm_footing.api.errors import add_handlers
from firm_footing.api.films import beside as films_beside
from firm_footing.api.films import routes as films
from firm_footing.api.instructors import routes as instructors
from firm_footing.api.keeping import routes as keeping
from firm_footing.api.knowledge import routes as knowledge
from firm_footing.api.lessons import last as last_lesson
from firm_footing.api.lessons import routes as lessons
from firm_footing.api.lessons.arrivals import Arrivals
from firm_footing.api.security import pairing
from firm_footing.api.security.device_auth import Codes, DeviceAuth
from firm_footing.api.security.guard import LOOPBACK_NAMES, Guard
from firm_footing.api.security.intake import Intake
from firm_footing.api.sheets import routes as sheets
from firm_footing.api.stills import routes as stills
from firm_footing.api.students import progress
from firm_footing.api.students import routes as students
from firm_footing.api.tables import routes as tables
from firm_footing.api.traces import routes as traces
from firm_footing.core.inference.enumeration import enumerate_space
from firm_footing.core.knowledge import Knowledge

SCREENS = Path(__file__).parents[3] / "web" / "dist"
"""The built front end."""

PARTS = (
    students, progress, lessons, last_lesson, changes, balls, traces, conclusions, coaching, sheets,
    casebook, learned, cases, tables, knowledge, pairing, instructors, films, films_beside,
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
    enumerate_space(known)
    add_handlers(app)
    app.add_exception_handler(DuplicateWriteError, answer_again)
    app.add_middleware(Intake)
    app.add_middleware(DeviceAuth)
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
    app.state.learner = Learner(
        engine, app.state.knowledge, app.state.conclusions, app.state.arrivals.tell
    )


def _serve_screens(app: FastAPI, screens: Path) -> None:
    """The front end, with unknown addresses under /api left to the API's own errors."""

    @app.get("/api/{rest:path}", include_in_schema=False)
    def not_found(rest: str) -> None:
        raise HTTPException(404, "Not found")

    app.frontend("/", directory=screens, fallback="index.html", check_dir=False)
