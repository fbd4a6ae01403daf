"""`firm-footing flight`: a line in, a line out, in order, whatever is wrong with one of them."""

import json

import pytest
from typer.testing import CliRunner

from firm_footing.cli.main import app

IRON = {"ball_speed_mps": 53.6, "launch_deg": 16.3, "direction_deg": -2, "backspin_rpm": 7097}
SLICE = IRON | {"spin_axis_deg": 12}


def run(*lines: object, options: tuple[str, ...] = ()) -> tuple[int, list[dict[str, float]], str]:
    text = "\n".join(line if isinstance(line, str) else json.dumps(line) for line in lines)
    found = CliRunner().invoke(app, ["flight", "--json", *options], input=text + "\n")
    return found.exit_code, [json.loads(line) for line in found.stdout.splitlines()], found.stderr


def test_balls_are_answered_in_their_order() -> None:
    code, (straight, curved), said = run(IRON, SLICE)
    assert (code, said) == (0, "")
    assert set(straight) == {"carry_m", "apex_m", "side_m", "flight_time_s", "landing_angle_deg"}
    assert straight["carry_m"] == pytest.approx(155, abs=6)
    assert straight["side_m"] < 0 < curved["side_m"]


def test_the_air_is_as_the_options_say() -> None:
    def carry(*options: str) -> float:
        return run(IRON, options=options)[1][0]["carry_m"]

    assert carry("--wind-mps", "6") < carry() < carry("--wind-mps", "6", "--wind-from-deg", "180")
    assert carry("--altitude-m", "1600") > carry() > carry("--temperature-c", "-5")
    _, (pushed,), _ = run(IRON, options=("--wind-mps", "6", "--wind-from-deg", "90"))
    assert pushed["side_m"] < run(IRON)[1][0]["side_m"]  # from the right, to the left


@pytest.mark.parametrize(
    ("bad", "named"),
    [
        ("not json", "line 2"),
        ({"launch_deg": 12}, "ball_speed_mps"),
        (IRON | {"launch_deg": -2}, "launch_deg"),
        (IRON | {"spin": 3}, "spin"),
        ('{"ball_speed_mps": NaN, "launch_deg": 12}', "ball_speed_mps"),
    ],
)
def test_a_bad_line_is_named_and_the_others_are_flown(bad: object, named: str) -> None:
    code, answers, said = run(IRON, bad, SLICE)
    assert code == 2
    assert [set(a) == {"error"} for a in answers] == [False, True, False]
    assert said.startswith("line 2: ")
    assert named in said
    assert len(said.splitlines()) == 1


def test_nothing_in_nothing_out() -> None:
    assert run("") == (0, [], "")
