"""An invented player before a simulated camera, for trying the film ruler out."""

from pathlib import Path
from typing import Annotated, Literal

import numpy as np
import typer

from firm_footing.cli.device import simulators
from firm_footing.files.knowledge_files import load_knowledge


def film(
    out: Annotated[Path, typer.Option(help="The film, .mp4 or .webm")],
    cause: Annotated[
        list[str] | None, typer.Option(help="A hidden cause; name several, or none")
    ] = None,
    view: Annotated[
        Literal["down_the_line", "face_on"], typer.Option(help="Where the camera stands")
    ] = "down_the_line",
    fps: Annotated[float, typer.Option(min=30, max=240, help="Pictures a second")] = 120,
    plays_at: Annotated[
        float | None, typer.Option(min=10, max=240, help="What the file says, as slow motion does")
    ] = None,
    hand: Annotated[Literal["right", "left"], typer.Option(help="The player's")] = "right",
    height: Annotated[int, typer.Option(min=240, max=1920, help="Pixels, upright")] = 1280,
    tilt: Annotated[float, typer.Option(min=-15, max=15, help="Of the camera, degrees")] = 0,
    off_line: Annotated[float, typer.Option(min=-100, max=100, help="Of the camera, cm")] = 0,
    noise: Annotated[float, typer.Option(min=0, max=30, help="Of the picture, grey levels")] = 4,
    shake: Annotated[
        float, typer.Option(min=0, max=30, help="Of a hand that holds it, pixels")
    ] = 0,
    seed: Annotated[int, typer.Option(min=0, help="Another one is another player")] = 0,
) -> None:
    """Film an invented player, and write beside it what is true of every picture."""
    # what draws and writes films is large: the other commands start without it
    from firm_footing.simulators.film.camera import Camera, Shake
    from firm_footing.simulators.film.drawing import Quality
    from firm_footing.simulators.film.figure import swing
    from firm_footing.simulators.film.marking import Filmed

    with simulators():
        from firm_footing.simulators.film.recording import record, truth_of, write_truth
    knowledge = load_knowledge()
    for name in cause or ():
        if name not in knowledge.cause:
            raise typer.BadParameter(f"There is no cause '{name}'.", param_hint="--cause")
    person, again = np.random.default_rng([seed, 1]), np.random.default_rng([seed, 2])
    camera = Camera(
        view, fps, width=2 * round(height * 9 / 32), height=height,
        off_line_cm=off_line, tilt_deg=tilt,
    )  # fmt: skip
    hand_held = Shake(shake, shake / 20, seed) if shake > 0 else None
    filmed = Filmed(swing(dict.fromkeys(cause or (), 1.0), person, again), camera, hand_held)
    try:
        record(filmed, hand, Quality(noise=noise), np.random.default_rng(seed), out, plays_at)
        truth = write_truth(truth_of(filmed, hand, knowledge), out)
    except (ValueError, OSError) as error:
        typer.echo(f"{out}: {error}", err=True)
        raise typer.Exit(2) from error
    typer.echo(f"{filmed.frames} pictures of {view} in {out}, what is true of them in {truth}.")
