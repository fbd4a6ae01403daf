"""How is the application started?"""

from typing import Annotated

import typer

Port = Annotated[int, typer.Option(help="Port on the loopback address")]


def serve(port: Port = 8700) -> None:
    """Start the application with your own database."""
    from firm_footing.cli.server import serve_own  # noqa: PLC0415 (web and database load slowly)

    serve_own(port)


def demo(port: Port = 8700) -> None:
    """Start the application with demo data, made anew; your own database is not touched."""
    from firm_footing.cli.server import serve_demo  # noqa: PLC0415 (web and database load slowly)

    serve_demo(port)
