"""How does a launch monitor send balls when there is none? A simulated one does."""

import time
from typing import Annotated

import typer

from firm_footing.core.case import Shot
from firm_footing.files.knowledge_files import load_knowledge

Cause = Annotated[list[str] | None, typer.Option(help="What the student has; may be given twice")]


def monitor(
    cause: Cause = None,
    lesson: Annotated[
        str | None, typer.Option(help="Id of the lesson; left out: the newest open one")
    ] = None,
    balls: Annotated[int, typer.Option(min=1, max=500)] = 10,
    every: Annotated[float, typer.Option(min=0, help="Seconds between balls")] = 6.0,
    stuck: Annotated[bool, typer.Option(help="The club comes down stuck behind")] = False,
    seed: Annotated[int, typer.Option(help="The same seed hits the same balls")] = 1,
    url: Annotated[str, typer.Option(help="Where the application is")] = "http://127.0.0.1:8700",
) -> None:
    """Hit balls of a simulated student into the open lesson, as a launch monitor sends them."""
    import httpx  # noqa: PLC0415 (slow to load, and no other command needs it)

    from firm_footing.standins.monitor import (  # noqa: PLC0415
        NoLessonError,
        SimulatedMonitor,
        find_lesson,
        send,
    )

    knowledge = load_knowledge()
    causes = tuple(cause or ("trail_heel_pops",))
    unknown = [c for c in causes if c not in knowledge.cause]
    if unknown:
        _stop(f"No cause is called '{unknown[0]}'. Known are {', '.join(knowledge.cause)}.")
    try:
        with httpx.Client(base_url=url, timeout=10) as client:
            target = find_lesson(client, lesson, knowledge)
            typer.echo(f"Sending to {target.student_name}'s lesson, club {target.block.club}.")
            device = SimulatedMonitor(
                causes, "stuck" if stuck else "thrown", target, knowledge, seed
            )
            for number in range(balls):
                if number:
                    time.sleep(every)
                shot = device.ball()
                send(client, target, shot, time.sleep)
                typer.echo(f"ball {number + 1}: {in_a_line(shot)}")
    except NoLessonError as error:
        _stop(str(error))
    except httpx.HTTPStatusError as error:
        _stop(f"The application refused: {error.response.text}")
    except httpx.HTTPError:
        _stop(f"Nothing answers at {url}. Start the application with 'make demo', then again.")


def in_a_line(shot: Shot) -> str:
    """What was measured, short."""
    return (
        f"carry {shot.carry_m:.0f} m, start {shot.start_deg:+.1f}°, path {shot.path_deg:+.1f}°, "
        f"face {shot.face_deg:+.1f}°, ball {shot.ball_speed_mps:.1f} m/s (+ push side)"
    )


def _stop(message: str) -> None:
    typer.echo(message, err=True)
    raise typer.Exit(2)
