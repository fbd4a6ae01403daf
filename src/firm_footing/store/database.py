"""Where is the database, how is it spoken to, and is its shape up to date?"""

import os
import sqlite3
from collections.abc import Callable
from pathlib import Path
from threading import Lock
from typing import Any, Final

from alembic import command
from alembic.config import Config
from platformdirs import user_data_path
from sqlalchemy import Connection, Engine, event
from sqlalchemy.pool import StaticPool
from sqlmodel import Session, create_engine

from firm_footing.store.files.opening import APPLICATION_ID, may_be_opened, only_for_its_owner

MIGRATIONS = Path(__file__).parent / "migrations"
BUSY_MS: Final = 5000
"""How long a change waits for another one to be done."""
AT_ONCE: Final = 40
"""Connections: as many as the server has threads."""
CHECKPOINT_WAITS_MS: Final = 200
"""How long taking all into one file waits for who reads."""
WRITES: Final = "writes"
"""Execution option of a connection whose transaction will change something."""


def database_path() -> Path:
    """`FIRM_FOOTING_DB`, else a file in the user's data folder; its folder is made if missing."""
    named = os.environ.get("FIRM_FOOTING_DB")
    path = Path(named) if named else user_data_path("firm-footing", False) / "firm-footing.db"
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    return path


def open_database(path: Path | None = None, *, lasting: bool = True) -> Engine:
    """An engine on a migrated database: a file, or memory when `path` is None.

    lasting : False for one that is thrown away in the end: a power cut may take what was written

    Raises
    ------
    CannotOpenError
        The file is none of ours, damaged, newer than this program, or cannot be written.

    """
    if path is None:
        engine = create_engine(
            "sqlite://",
            connect_args={"check_same_thread": False},
            poolclass=StaticPool,
            hide_parameters=True,
        )
    else:
        may_be_opened(path)
        only_for_its_owner(path)
        engine = create_engine(
            f"sqlite:///{path}",
            connect_args={"check_same_thread": False},
            pool_size=AT_ONCE,
            hide_parameters=True,  # an error in a log never says what was written
        )
    event.listen(engine, "connect", _prepare)
    if not lasting:
        event.listen(engine, "connect", _wait_for_no_disk)
    event.listen(engine, "begin", _beginning())
    _migrate(engine)
    if path is not None:
        into_one_file(engine)  # what a killed program left beside it
    return engine


def take_turn(session: Session) -> None:
    """From here on the session changes something: nobody else does until it commits."""
    session.rollback()
    session.connection(execution_options={WRITES: True})


def close_database(engine: Engine) -> None:
    """An orderly end: all that was written stands in the one file."""
    into_one_file(engine)
    engine.dispose()


def into_one_file(engine: Engine) -> bool:
    """Take what stands beside the file into it, so that nothing of the deleted is left there.

    Whether all of it was: who reads at the moment, for an export, keeps it there.
    """
    with engine.connect() as connection:
        cursor = connection.connection.cursor()
        cursor.execute(f"PRAGMA busy_timeout = {CHECKPOINT_WAITS_MS}")
        try:
            busy, _, _ = cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
        except sqlite3.OperationalError:  # somebody holds all of it
            busy = 1
        cursor.execute(f"PRAGMA busy_timeout = {BUSY_MS}")
    return not busy


def migration_config() -> Config:
    """Alembic's configuration without a file of its own."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    return config


def _prepare(connection: Any, _record: Any) -> None:
    """A power cut loses nothing acknowledged (FULL); what is deleted is overwritten."""
    connection.isolation_level = None  # transactions begin where SQLAlchemy says, see `_begin`
    cursor = connection.cursor()
    cursor.execute(f"PRAGMA busy_timeout = {BUSY_MS}")
    cursor.execute("PRAGMA foreign_keys = ON")
    cursor.execute("PRAGMA journal_mode = WAL")
    cursor.execute("PRAGMA synchronous = FULL")
    cursor.execute("PRAGMA secure_delete = ON")
    cursor.close()


def _wait_for_no_disk(connection: Any, _record: Any) -> None:
    connection.execute("PRAGMA synchronous = OFF")


def _beginning() -> Callable[[Connection], None]:
    """What will change something takes its turn at once: what it reads is then still so.

    One at a time asks the database for it, the others stand in line: who asks all the while would
    keep who came first from ever being heard.
    """
    line = Lock()

    def begin(connection: Connection) -> None:
        if not connection.get_execution_options().get(WRITES, False):
            connection.exec_driver_sql("BEGIN")
            return
        with line:
            connection.exec_driver_sql("BEGIN IMMEDIATE")

    return begin


def _migrate(engine: Engine) -> None:
    config = migration_config()
    with engine.connect().execution_options(**{WRITES: True}) as connection, connection.begin():
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
        connection.exec_driver_sql(f"PRAGMA application_id = {APPLICATION_ID}")
