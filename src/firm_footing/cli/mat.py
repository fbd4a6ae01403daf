"""How does a pressure mat send traces when there is none? A simulated one does."""

import time
from typing import TYPE_CHECKING, Annotated, Literal

import typer

from firm_footing.cli.device import (
    CauseOption,
    LessonOption,
    Stuck,
    Url,
    known_causes,
    simulators,
    with_lesson,
)
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Mode

if TYPE_CHECKING:
    import httpx

    from firm_footing.simulators.sending import Destination


def mat(
    cause: CauseOption = None,
    lesson: LessonOption = None,
    swings: Annotated[int, typer.Option(min=1, max=100)] = 3,
    every: Annotated[float, typer.Option(min=0, help="Seconds between swings")] = 8.0,
    school: Annotated[
        Literal["recentre", "steady", "stay_lead"] | None,
        typer.Option(help="How the student would shift but for the causes; else the lesson's"),
    ] = None,
    rate: Annotated[float, typer.Option(min=50, max=2000, help="Samples a second")] = 200.0,
    noise: Annotated[float, typer.Option(min=0, max=10, help="Per cent of each share")] = 1.0,
    name_events: Annotated[
        bool, typer.Option(help="Name address, top and impact, as a mat with a camera does")
    ] = False,
    stuck: Stuck = False,
    seed: Annotated[int, typer.Option(help="The same seed makes the same swings")] = 1,
    url: Url = "http://127.0.0.1:8700",
) -> None:
    """Swing a simulated student on a simulated mat; each trace goes to the open lesson."""
    with simulators():
        from firm_footing.simulators.mat import SimulatedMat, send  # noqa: PLC0415 (slow to load)

    def swing(client: "httpx.Client", target: "Destination", knowledge: Knowledge) -> None:
        causes = known_causes(cause, "late_shift", knowledge)
        typer.echo(f"Sending to {target.student_name}'s lesson.")
        mode: Mode = "stuck" if stuck else "thrown"
        device = SimulatedMat(causes, mode, target, knowledge, seed, school, rate, noise)
        for number in range(swings):
            if number:
                time.sleep(every)
            trace = device.swing(name_events)
            send(client, target, trace, f"swing {number + 1}", time.sleep)
            typer.echo(f"swing {number + 1}: {len(trace.samples)} samples")

    with_lesson(url, lesson, swing)
