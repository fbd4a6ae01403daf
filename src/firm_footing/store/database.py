"""Where is the database, and is its shape up to date?"""

import os
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from platformdirs import user_data_path
from sqlalchemy import Engine, event
from sqlalchemy.pool import StaticPool
from sqlmodel import create_engine

MIGRATIONS = Path(__file__).parent / "migrations"


def database_path() -> Path:
    """`FIRM_FOOTING_DB`, else a file in the user's data folder; its folder is made if missing."""
    named = os.environ.get("FIRM_FOOTING_DB")
    path = Path(named) if named else user_data_path("firm-footing", False) / "firm-footing.db"
    path.parent.mkdir(parents=True, exist_ok=True)
    return path


def open_database(path: Path | None = None) -> Engine:
    """An engine on a migrated database: a file, or memory when `path` is None."""
    if path is None:
        engine = create_engine(
            "sqlite://", connect_args={"check_same_thread": False}, poolclass=StaticPool
        )
    else:
        engine = create_engine(f"sqlite:///{path}", connect_args={"check_same_thread": False})
    event.listen(engine, "connect", _prepare)
    _migrate(engine)
    return engine


def migration_config() -> Config:
    """Alembic's configuration without a file of its own."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    return config


def _prepare(connection: Any, _record: Any) -> None:
    cursor = connection.cursor()
    cursor.execute("PRAGMA foreign_keys = ON")
    cursor.execute("PRAGMA journal_mode = WAL")
    cursor.execute("PRAGMA synchronous = NORMAL")
    cursor.execute("PRAGMA busy_timeout = 5000")
    cursor.close()


def _migrate(engine: Engine) -> None:
    config = migration_config()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, "head")
