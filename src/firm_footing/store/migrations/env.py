"""Alembic's way into the database: the program hands over its own connection."""

from alembic import context
from sqlalchemy import create_engine
from sqlmodel import AutoString, SQLModel

from firm_footing.store import own_tables, tables  # noqa: F401  (fill the metadata)
from firm_footing.store.columns import AsJson, Instant
from firm_footing.store.database import database_path


def plain_type(kind, item, _context):  # type: ignore[no-untyped-def]
    """Migrations name plain types, so that an old one never depends on today's code."""
    if kind == "type" and isinstance(item, AutoString):
        return "sa.String()"
    if kind == "type" and isinstance(item, AsJson):
        return "sa.JSON()"
    if kind == "type" and isinstance(item, Instant):
        return "sa.DateTime()"
    return False


def run(connection):  # type: ignore[no-untyped-def]
    context.configure(
        connection=connection,
        target_metadata=SQLModel.metadata,
        render_as_batch=True,
        render_item=plain_type,
    )
    with context.begin_transaction():
        context.run_migrations()


given = context.config.attributes.get("connection")
if given is not None:
    run(given)
else:
    with create_engine(f"sqlite:///{database_path()}").begin() as connection:
        run(connection)
