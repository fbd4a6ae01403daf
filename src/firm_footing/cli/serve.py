"""How is the application started?"""

from pathlib import Path
from typing import Annotated

import typer

Port = Annotated[int, typer.Option(help="Port on the loopback address")]


def serve(
    port: Port = 8700,
    network: Annotated[
        bool, typer.Option("--network", help="Let paired tablets in over the local network")
    ] = False,
    certificate: Annotated[Path | None, typer.Option(help="For encryption: PEM file")] = None,
    key: Annotated[Path | None, typer.Option(help="Its private key, PEM file")] = None,
) -> None:
    """Start the application with your own database."""
    from firm_footing.cli.server import serve_own  # noqa: PLC0415 (web and database load slowly)

    serve_own(port, network, certificate, key)


def demo(port: Port = 8700) -> None:
    """Start the application with demo data, made anew; your own database is not touched."""
    from firm_footing.cli.server import serve_demo  # noqa: PLC0415 (web and database load slowly)

    serve_demo(port)
