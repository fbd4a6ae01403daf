"""How does a command say that it cannot go on? In a sentence with what to do, no traceback."""

from collections.abc import Iterator
from contextlib import contextmanager

import typer

from firm_footing.store.files.opening import CannotOpenError


@contextmanager
def told_plainly() -> Iterator[None]:
    """Say what could not be opened, and end with 1."""
    try:
        yield
    except CannotOpenError as error:
        typer.echo(str(error), err=True)
        raise typer.Exit(1) from None
