"""Which database is served, and where?"""

import gc
import signal
import socket
import sys
import tempfile
from contextlib import closing
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from types import FrameType

import typer
import uvicorn
from fastapi import FastAPI
from sqlmodel import Session

from firm_footing.api.lessons.arrivals import Arrivals
from firm_footing.api.security.guard import LOOPBACK_NAMES
from firm_footing.cli.connections import Lines, ask_for_files, limited
from firm_footing.cli.demo_kept import demo_database
from firm_footing.cli.logs import log_beside
from firm_footing.cli.memory import share_one_heap
from firm_footing.cli.telling import told_plainly
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.store.changes.idempotency import forget_old_writes
from firm_footing.store.database import close_database, database_path, open_database
from firm_footing.store.files.backups import back_up_today
from firm_footing.store.files.opening import CannotOpenError, may_be_opened, the_only_server

LOOPBACK = "127.0.0.1"


@dataclass(frozen=True)
class Door:
    """Where it listens.

    host : the address that is bound
    names : what it is called in addresses
    shown : the address to open here
    elsewhere : the address to open on other devices; None serves this machine only
    certificate, key : files for encryption
    """

    host: str
    names: tuple[str, ...]
    shown: str
    elsewhere: str | None = None
    certificate: Path | None = None
    key: Path | None = None


def serve_own(
    port: int, network: bool = False, certificate: Path | None = None, key: Path | None = None
) -> None:
    """Serve the user's own database until stopped."""
    with told_plainly():
        path = database_path()
        may_be_opened(path)
        with the_only_server(path):
            not_backed_up = _back_up(path)
            door = _network_door(port, certificate, key) if network else _own_door(port)
            ask_for_files()
            log_beside(path)
            _serve(path, port, f"your database: {path}", door, True, not_backed_up)


def serve_demo(port: int) -> None:
    """Serve a new database of made-up people until stopped, then forget it."""
    signal.signal(signal.SIGTERM, _end)  # so that the folder goes too
    with told_plainly(), tempfile.TemporaryDirectory(prefix="firm-footing-demo-") as folder:
        path = Path(folder) / "demo.db"
        demo_database(path, _fill).dispose()
        _serve(path, port, "demo data: made-up people, made anew at every start", _own_door(port))


def _fill(session: Session) -> None:
    from firm_footing.simulators.demo import fill_with_demo  # noqa: PLC0415 (loads slowly)

    fill_with_demo(session, load_knowledge())


def _back_up(path: Path) -> str | None:
    """Why today's backup could not be made: it is said, and the lessons are given all the same."""
    try:
        if path.stat().st_size:
            back_up_today(path, date.today())
    except CannotOpenError as error:
        typer.echo(str(error).replace("Nothing was changed. ", ""), err=True)
        return error.message
    return None


def _own_door(port: int) -> Door:
    return Door(LOOPBACK, LOOPBACK_NAMES, f"http://{LOOPBACK}:{port}")


def _network_door(port: int, certificate: Path | None, key: Path | None) -> Door:
    for file in (certificate, key):
        if file is not None and not file.is_file():
            raise CannotOpenError(f"There is no file {file}.", "Name the certificate and its key.")
    if (certificate is None) != (key is None):
        raise CannotOpenError("A certificate goes with its key.", "Name both, or neither.")
    scheme, address = "http" if certificate is None else "https", _address()
    return Door(
        host="0.0.0.0",
        names=(*LOOPBACK_NAMES, address, socket.gethostname(), f"{socket.gethostname()}.local"),
        shown=f"{scheme}://{LOOPBACK}:{port}",
        elsewhere=f"{scheme}://{address}:{port}",
        certificate=certificate,
        key=key,
    )


def _address() -> str:
    """The machine's own on the local network; nothing is sent to find it out."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as asked:
        try:
            asked.connect(("10.255.255.255", 1))
            return str(asked.getsockname()[0])
        except OSError:
            return LOOPBACK


def _serve(
    path: Path,
    port: int,
    what: str,
    at: Door,
    kept: bool = False,
    not_backed_up: str | None = None,
) -> None:
    with closing(_listen(at.host, port)) as door:
        # loads slowly: what cannot be served is said before
        from firm_footing.api.app import SCREENS, create_app  # noqa: PLC0415

        if not SCREENS.is_dir():
            typer.echo("The screens are not built yet: run 'make build' once.", err=True)
            raise typer.Exit(1)
        engine = open_database(path, lasting=kept)
        with Session(engine) as session:
            forget_old_writes(session)
        try:
            app = create_app(
                engine,
                load_knowledge(),
                names=at.names,
                address=at.elsewhere,
                database=path if kept else None,
            )
            app.state.not_backed_up = not_backed_up
            typer.echo(f"Firm Footing is at {at.shown}  ({what})")
            if at.elsewhere is not None:
                typer.echo(f"On other devices: {at.elsewhere}, once they are paired in Settings.")
                if at.certificate is None:
                    typer.echo("Without a certificate others on the network could listen.")
            typer.echo("Stop it with Ctrl+C.")
            sys.stdout.flush()
            signal.signal(signal.SIGTERM, _end)
            share_one_heap()
            app.state.learner.start()
            gc.freeze()  # what stays: looking through it held answers up by 0.1 s
            _Server(_config(app, at), app.state.arrivals).run(sockets=[door])
        finally:
            close_database(engine)


class _Server(uvicorn.Server):
    """Stopping waits for what is under way, and streams are, for as long as a page is open."""

    def __init__(self, config: uvicorn.Config, arrivals: Arrivals) -> None:
        super().__init__(config)
        self._arrivals = arrivals

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        self._arrivals.end()
        super().handle_exit(sig, frame)


def _config(app: FastAPI, at: Door) -> uvicorn.Config:
    return uvicorn.Config(
        app,
        http=limited(Lines()),
        log_config=None,  # `logs.py`, and standard error for demo data
        log_level="warning",
        ssl_certfile=at.certificate,
        ssl_keyfile=at.key,
        timeout_graceful_shutdown=10,
        proxy_headers=False,  # who asks is who is at the other end of the line
    )


def _listen(host: str, port: int) -> socket.socket:
    """A door of our own before anything is said or opened."""
    door = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    door.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        door.bind((host, port))
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
