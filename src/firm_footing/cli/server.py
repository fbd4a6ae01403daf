"""Which database is served, and where?"""

import tempfile
from pathlib import Path

import typer
import uvicorn
from sqlmodel import Session

from firm_footing.api.app import SCREENS, create_app
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.standins.demo import fill_with_demo
from firm_footing.store.database import database_path, open_database

LOOPBACK = "127.0.0.1"


def serve_own(port: int) -> None:
    """Serve the user's own database until stopped."""
    path = database_path()
    _serve(path, port, f"your database: {path}")


def serve_demo(port: int) -> None:
    """Serve a new database of made-up people until stopped, then forget it."""
    with tempfile.TemporaryDirectory(prefix="firm-footing-demo-") as folder:
        path = Path(folder) / "demo.db"
        engine = open_database(path)
        with Session(engine) as session:
            fill_with_demo(session, load_knowledge())
        engine.dispose()
        _serve(path, port, "demo data: made-up people, made anew at every start")


def _serve(path: Path, port: int, what: str) -> None:
    if not SCREENS.is_dir():
        typer.echo("The screens are not built yet: run 'make build' once.", err=True)
        raise typer.Exit(1)
    app = create_app(open_database(path), load_knowledge())
    typer.echo(f"Firm Footing is at http://{LOOPBACK}:{port}  ({what})")
    typer.echo("Stop it with Ctrl+C.")
    uvicorn.run(app, host=LOOPBACK, port=port, log_level="warning")
