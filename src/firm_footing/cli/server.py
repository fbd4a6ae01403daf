"""Which database is served, and where?"""

import signal
import socket
import sys
import tempfile
from contextlib import closing
from datetime import date
from pathlib import Path
from types import FrameType

import typer
import uvicorn
from sqlmodel import Session

from firm_footing.api.app import SCREENS, create_app
from firm_footing.cli.telling import told_plainly
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.standins.demo import fill_with_demo
from firm_footing.store.backups import back_up_today
from firm_footing.store.database import close_database, database_path, open_database
from firm_footing.store.opening import CannotOpenError, may_be_opened, the_only_server

LOOPBACK = "127.0.0.1"


def serve_own(port: int) -> None:
    """Serve the user's own database until stopped."""
    with told_plainly():
        path = database_path()
        may_be_opened(path)
        with the_only_server(path):
            if path.stat().st_size:
                back_up_today(path, date.today())
            _serve(path, port, f"your database: {path}")


def serve_demo(port: int) -> None:
    """Serve a new database of made-up people until stopped, then forget it."""
    signal.signal(signal.SIGTERM, _end)  # so that the folder goes too
    with told_plainly(), tempfile.TemporaryDirectory(prefix="firm-footing-demo-") as folder:
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
    with closing(_listen(port)) as door:
        engine = open_database(path)
        try:
            app = create_app(engine, load_knowledge())
            typer.echo(f"Firm Footing is at http://{LOOPBACK}:{port}  ({what})")
            typer.echo("Stop it with Ctrl+C.")
            sys.stdout.flush()
            signal.signal(signal.SIGTERM, _end)
            uvicorn.Server(uvicorn.Config(app, log_level="warning")).run(sockets=[door])
        finally:
            close_database(engine)


def _listen(port: int) -> socket.socket:
    """A door of our own before anything is said or opened."""
    door = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    door.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        door.bind((LOOPBACK, port))
        door.listen(socket.SOMAXCONN)
    except OSError as error:
        door.close()
        raise CannotOpenError(
            f"Another program is using port {port}.",
            f"Stop it, or choose another one: --port {port + 1}.",
        ) from error
    return door


def _end(_number: int, _frame: FrameType | None) -> None:
    """Asked to stop: leave in order, as on Ctrl+C."""
    raise SystemExit(0)
