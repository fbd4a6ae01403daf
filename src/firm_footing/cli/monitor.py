"""How does a launch monitor send balls when there is none? A simulated one does."""

import time
from typing import TYPE_CHECKING, Annotated

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
from firm_footing.core.case import Shot
from firm_footing.core.knowledge import Knowledge

if TYPE_CHECKING:
    import httpx

    from firm_footing.simulators.sending import Destination


def monitor(
    cause: CauseOption = None,
    lesson: LessonOption = None,
    balls: Annotated[int, typer.Option(min=1, max=500)] = 10,
    every: Annotated[float, typer.Option(min=0, help="Seconds between balls")] = 6.0,
    stuck: Stuck = False,
    seed: Annotated[int, typer.Option(help="The same seed hits the same balls")] = 1,
    url: Url = "http://127.0.0.1:8700",
) -> None:
    """Hit balls of a simulated student into the open lesson, as a launch monitor sends them."""
    with simulators():
        from firm_footing.simulators.monitor import SimulatedMonitor, send  # noqa: PLC0415 (slow to load)

    def hit(client: "httpx.Client", target: "Destination", knowledge: Knowledge) -> None:
        causes = known_causes(cause, "trail_heel_pops", knowledge)
        typer.echo(f"Sending to {target.student_name}'s lesson, club {target.block.club}.")
        device = SimulatedMonitor(causes, "stuck" if stuck else "thrown", target, knowledge, seed)
        for number in range(balls):
            if number:
                time.sleep(every)
            shot = device.ball()
            send(client, target, shot, time.sleep)
            typer.echo(f"ball {number + 1}: {in_a_line(shot)}")

    with_lesson(url, lesson, hit)


def in_a_line(shot: Shot) -> str:
    """What was measured, short."""
    return (
        f"carry {shot.carry_m:.0f} m, start {shot.start_deg:+.1f}°, path {shot.path_deg:+.1f}°, "
        f"face {shot.face_deg:+.1f}°, ball {shot.ball_speed_mps:.1f} m/s (+ push side)"
    )
