"""How is everything kept elsewhere, and brought back?"""

from pathlib import Path
from typing import Annotated

import typer

from firm_footing.cli.telling import told_plainly


def backup(
    file: Annotated[Path, typer.Argument(help="New file to write, for instance on a stick")],
) -> None:
    """Write your whole database into one file, also while it is being served."""
    from firm_footing.store.database import database_path  # noqa: PLC0415
    from firm_footing.store.files.backups import back_up  # noqa: PLC0415 (the database loads slowly)

    with told_plainly():
        back_up(database_path(), file)
    typer.echo(f"Everything is in {file}.")


def restore(
    file: Annotated[Path, typer.Argument(help="A backup made by 'firm-footing backup'")],
) -> None:
    """Put a backup in the place of your database; what was there is kept beside it."""
    from firm_footing.store.database import database_path  # noqa: PLC0415
    from firm_footing.store.files.backups import restore as put_back  # noqa: PLC0415

    with told_plainly():
        path = database_path()
        replaced = put_back(file, path)
    typer.echo(f"{path} is again what {file} holds.")
    if replaced is not None:
        typer.echo(f"What was there before is kept in {replaced}.")


def export(
    file: Annotated[Path, typer.Argument(help="New zip file to write")],
) -> None:
    """Write all students and lessons, names and notes too, in an open format."""
    from sqlmodel import Session  # noqa: PLC0415

    from firm_footing.store.database import database_path, open_database  # noqa: PLC0415
    from firm_footing.store.files import exchange  # noqa: PLC0415

    with told_plainly(), Session(open_database(database_path())) as session:
        rows = exchange.export(session, file)
        typer.echo(f"{rows} rows are in {file}: one file a table, one row a line, JSON.")


def bring_in(
    file: Annotated[Path, typer.Argument(help="A file made by 'firm-footing export'")],
) -> None:
    """Add the students and lessons of an export; what is there already stays as it is."""
    from sqlmodel import Session  # noqa: PLC0415

    from firm_footing.store.database import database_path, open_database  # noqa: PLC0415
    from firm_footing.store.files import exchange  # noqa: PLC0415

    with told_plainly(), Session(open_database(database_path())) as session:
        found = exchange.bring_in(session, file)
        typer.echo(f"{found.added} rows were added; {found.already} were there already.")
