"""Where do balls land that leave like this?"""

import json
import sys
from collections.abc import Iterator
from typing import Annotated, TextIO

import numpy as np
import typer
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from firm_footing.core.physics.flight import Air, Launch, air_density, fly

DECIMALS = 4


class LaunchLine(BaseModel):
    """One line of input."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    ball_speed_mps: float = Field(gt=0, le=150)
    launch_deg: float = Field(gt=0, le=90)
    direction_deg: float = Field(default=0.0, ge=-90, le=90)
    backspin_rpm: float = Field(default=0.0, ge=0, le=20000)
    spin_axis_deg: float = Field(default=0.0, ge=-90, le=90)


def flight(
    as_json: Annotated[bool, typer.Option("--json", help="Read and write JSON lines")] = False,
    temperature_c: Annotated[float, typer.Option(min=-40, max=60)] = 15.0,
    altitude_m: Annotated[float, typer.Option(min=-500, max=5000)] = 0.0,
    wind_mps: Annotated[float, typer.Option(min=0, max=60)] = 0.0,
    wind_from_deg: Annotated[
        float, typer.Option(help="Clockwise from the target: 0 is a headwind, 90 from the right")
    ] = 0.0,
) -> None:
    """Fly balls whose launch conditions come on standard input, one JSON object a line.

    Answers in the same order. A line that cannot be flown is answered with its error, named on
    standard error, and makes the exit code 2; the others are still flown.
    """
    lines = [line for line in sys.stdin if line.strip()]
    read = list(_read(lines))
    air = Air(air_density(temperature_c, altitude_m), wind_mps, wind_from_deg)
    good = [line for line in read if isinstance(line, LaunchLine)]
    landed = iter(_flown(good, air))
    for number, line in enumerate(read, start=1):
        if isinstance(line, LaunchLine):
            _write(sys.stdout, next(landed), as_json)
        else:
            _write(sys.stdout, {"error": line}, as_json)
            typer.echo(f"line {number}: {line}", err=True)
    if len(good) < len(read):
        raise typer.Exit(2)


def _read(lines: list[str]) -> Iterator[LaunchLine | str]:
    """Each line as a launch, or what is wrong with it and what would be right."""
    for line in lines:
        try:
            yield LaunchLine.model_validate_json(line)
        except ValidationError as error:
            first = error.errors(include_url=False)[0]
            place = ".".join(str(part) for part in first["loc"]) or "the line"
            yield f"{place}: {first['msg'].lower()}"


def _flown(launches: list[LaunchLine], air: Air) -> list[dict[str, float]]:
    if not launches:
        return []
    found = fly(
        Launch(
            np.array([b.ball_speed_mps for b in launches]),
            np.array([b.launch_deg for b in launches]),
            np.array([b.direction_deg for b in launches]),
            np.array([b.backspin_rpm for b in launches]),
            np.array([b.spin_axis_deg for b in launches]),
        ),
        air,
    )
    names = ("carry_m", "apex_m", "side_m", "flight_time_s", "landing_angle_deg")
    columns = (found.carry_m, found.apex_m, found.side_m, found.time_s, found.landing_deg)
    return [
        dict(zip(names, (round(float(v), DECIMALS) for v in row), strict=True))
        for row in zip(*columns, strict=True)
    ]


def _write(to: TextIO, answer: dict[str, float] | dict[str, str], as_json: bool) -> None:
    if as_json:
        to.write(json.dumps(answer) + "\n")
    else:
        to.write(", ".join(f"{name} {value}" for name, value in answer.items()) + "\n")
