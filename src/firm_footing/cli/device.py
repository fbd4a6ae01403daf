"""How do simulated devices reach the application, and what do they say when they cannot?"""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import TYPE_CHECKING, Annotated, NoReturn

import typer

from firm_footing.core.knowledge import Knowledge
from firm_footing.files.knowledge_files import load_knowledge

if TYPE_CHECKING:
    import httpx

    from firm_footing.simulators.sending import Destination

CauseOption = Annotated[
    list[str] | None, typer.Option(help="What the student has; may be given twice")
]
LessonOption = Annotated[
    str | None, typer.Option(help="Id of the lesson; left out: the newest open one")
]
Stuck = Annotated[bool, typer.Option(help="The club comes down stuck behind")]
Url = Annotated[str, typer.Option(help="Where the application is")]


def known_causes(cause: list[str] | None, otherwise: str, knowledge: Knowledge) -> tuple[str, ...]:
    """The causes asked for; stops where one is not known."""
    causes = tuple(cause or (otherwise,))
    unknown = [c for c in causes if c not in knowledge.cause]
    if unknown:
        stop(f"No cause is called '{unknown[0]}'. Known are {', '.join(knowledge.cause)}.")
    return causes


@contextmanager
def simulators() -> Iterator[None]:
    """Say in a line that what only simulators need is not installed."""
    try:
        yield
    except ModuleNotFoundError as error:
        stop(
            f"The simulators want '{error.name}', which is not installed here. "
            "Install firm-footing[simulators], or use 'make setup'."
        )


def with_lesson(
    url: str, lesson: str | None, work: "Callable[[httpx.Client, Destination, Knowledge], None]"
) -> None:
    """Find the lesson and let the device work; what goes wrong is said in a line."""
    with simulators():
        import httpx  # noqa: PLC0415 (slow to load, and only devices need it)
    from firm_footing.simulators.sending import NoLessonError, find_lesson  # noqa: PLC0415

    knowledge = load_knowledge()
    try:
        with httpx.Client(base_url=url, timeout=10) as client:
            work(client, find_lesson(client, lesson, knowledge), knowledge)
    except NoLessonError as error:
        stop(str(error))
    except httpx.HTTPStatusError as error:
        stop(f"The application refused: {error.response.text}")
    except httpx.HTTPError:
        stop(f"Nothing answers at {url}. Start the application with 'make demo', then again.")


def stop(message: str) -> NoReturn:
    """Say it on standard error and leave with exit code 2."""
    typer.echo(message, err=True)
    raise typer.Exit(2)
