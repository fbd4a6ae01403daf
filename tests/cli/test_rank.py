"""The command line as its contract says it."""

import json
from pathlib import Path
from typing import Any

import pytest
from click.testing import Result
from typer.testing import CliRunner

from firm_footing.cli.main import app

GOOD: dict[str, Any] = {
    "format": "firm-footing-case",
    "version": 1,
    "student": {"handedness": "right", "handicap": 18},
    "blocks": [
        {
            "kind": "baseline",
            "club": "7i",
            "shots": [{"start": "left", "curve": "right", "heel_toe_mm": -14}] * 8,
        }
    ],
    "checks": {"trail_heel_up_early": "yes", "path_diverges_late": "yes"},
}
KEYS = {
    "file", "enough", "enough_reason", "pattern", "start_with", "causes", "outside_feet",
    "next_checks", "drills", "schools_agree", "deviation", "explains_person", "left_over",
    "unexplained", "ball_next", "schools_elsewhere",
}  # fmt: skip
PATTERN_KEYS = {
    "balls", "start_deg", "curve_deg", "path_deg", "face_to_path_deg", "low_point_cm",
    "heel_toe_mm", "carry_lost_pct", "shape", "two_way",
}  # fmt: skip


def run(*arguments: object) -> Result:
    return CliRunner().invoke(app, ["rank", *map(str, arguments)])


def write(folder: Path, name: str, content: object) -> Path:
    path = folder / name
    text = content if isinstance(content, str) else json.dumps(content)
    path.write_text(text, encoding="utf-8")
    return path


def test_one_object_a_line_in_the_order_given(tmp_path: Path) -> None:
    b = write(tmp_path, "b.case.json", GOOD)
    a = write(tmp_path, "a.case.json", GOOD | {"checks": {}})
    result = run(b, a, "--json")
    assert result.exit_code == 0
    rows = [json.loads(line) for line in result.stdout.splitlines()]
    assert [r["file"] for r in rows] == [str(b), str(a)]
    for row in rows:
        assert set(row) == KEYS
        assert set(row["pattern"]) == PATTERN_KEYS
        assert len(row["causes"]) == 30
        roots = [c["root"] for c in row["causes"]]
        assert roots == sorted(roots, reverse=True)
        assert all(c["root"] <= c["probability"] + 1e-12 for c in row["causes"])
        assert set(row["causes"][0]) == {
            "id", "probability", "root", "word", "seen", "group", "comes_from", "for", "against",
            "better_explained", "explains", "explains_words", "chain",
        }  # fmt: skip
        assert row["start_with"] in (None, row["causes"][0]["id"])
        for name, deviation in row["deviation"].items():
            parts = sum(c["explains"][name] for c in row["causes"])
            whole = parts + row["explains_person"][name] + row["left_over"][name]
            assert whole == pytest.approx(deviation)
    assert rows[0]["start_with"] == "trail_heel_pops"
    assert rows[0]["causes"][0]["for"][0]["bits"] > 0
    assert rows[0]["causes"][0]["seen"] == "yes"
    assert rows[0]["ball_next"].endswith(".")


BAD = [
    ("{", "line 1, column 2: not JSON"),
    ({"format": "firm-footing-case", "version": 1}, "student: missing; add it"),
    (GOOD | {"colour": "red"}, "colour: unknown key"),
    (GOOD | {"student": {"handedness": "both"}}, "student.handedness: 'both' is not allowed"),
    (GOOD | {"checks": {"grip_weka": "yes"}}, "did you mean 'grip_weak'?"),
    (GOOD | {"checks": {"grip_weak": "maybe"}}, "checks.grip_weak: 'maybe' is not allowed"),
    (GOOD | {"checks": {"grip_weak": 3}}, "checks.grip_weak: neither a word"),
    (
        GOOD | {"checks": {"grip_weak": {"answer": "yes", "sorce": "film"}}},
        "checks.grip_weak.sorce: unknown key",
    ),
    (
        GOOD | {"checks": {"grip_weak": {"answer": "yes", "block": 7}}},
        "checks.grip_weak.block: there is no block 7; blocks count from 0 to 0",
    ),
    (GOOD | {"blocks": [{"kind": "trial"}]}, "blocks.0: a trial names its drill"),
    (
        GOOD | {"traces": [{"columns": ["t"], "samples": [[0.0], [0.1, 50]]}]},
        "traces.0.samples.1: 2 values for 1 columns",
    ),
    (GOOD | {"blocks": [{"kind": "baseline", "club": "7x"}]}, "no club is called '7x'"),
    (
        GOOD | {"blocks": [{"kind": "baseline", "shots": [{"start_deg": 300}]}]},
        "blocks.0.shots.0.start_deg: input should be less than or equal to 90",
    ),
    ('{"format": NaN}', "NaN is not a number in JSON"),
    (GOOD | {"version": 2}, "version: 2 is newer than this program knows; install a newer one"),
]


@pytest.mark.parametrize(("content", "says"), BAD, ids=[s[:38] for _, s in BAD])
def test_a_bad_file_gets_one_clear_line_and_the_good_ones_are_answered(
    tmp_path: Path, content: object, says: str
) -> None:
    bad = write(tmp_path, "bad.case.json", content)
    good = write(tmp_path, "good.case.json", GOOD)
    result = run(bad, good, "--json")
    assert result.exit_code == 2
    (line,) = result.stderr.splitlines()
    assert line.startswith(f"{bad}: ")
    assert says in line
    assert [json.loads(x)["file"] for x in result.stdout.splitlines()] == [str(good)]


@pytest.mark.parametrize(
    ("trace", "said"),
    [
        ({"columns": ["t", "weight"], "samples": [[0, 50]] * 200}, "no column of the lead foot"),
        ({"columns": ["t", "lead_pct"], "samples": [[0, 50], [0.1, 60], [0.2, 70]]}, "samples"),
        ({"typed_pct": {"top": 40, "impact": 60}}, "two more"),
    ],
)
def test_a_trace_that_cannot_be_read_is_said_and_the_rest_is_answered(
    tmp_path: Path, trace: dict[str, Any], said: str
) -> None:
    bad = write(tmp_path, "bad.case.json", GOOD | {"traces": [trace]})
    good = write(tmp_path, "good.case.json", GOOD)
    result = run(bad, good, "--json")
    assert result.exit_code == 2
    assert [json.loads(line)["file"] for line in result.stdout.splitlines()] == [str(good)]
    (line,) = result.stderr.splitlines()
    assert line.startswith(f"{bad}: traces.0: it cannot be read as a swing: ")
    assert said in line


def test_a_missing_file_and_words_for_people(tmp_path: Path) -> None:
    good = write(tmp_path, "good.case.json", GOOD)
    result = run(tmp_path / "none.json", good)
    assert result.exit_code == 2
    assert "no such file" in result.stderr
    assert "Trail heel leaves the ground early (" in result.stdout
    assert "(seen, " in result.stdout
    assert "look next" in result.stdout


EXAMPLE = Path(__file__).parents[2] / "docs/examples/early-then-back.case.json"


@pytest.mark.parametrize("hand", ["right", "left"])
def test_the_example_of_eighty_early_and_fifty_seven_at_the_ball(hand: str, tmp_path: Path) -> None:
    """Early onto the lead foot, then back off it: backs up, with the rush that brings it about."""
    case = json.loads(EXAMPLE.read_text(encoding="utf-8"))
    case["student"]["handedness"] = hand
    if hand == "left":
        pulls = {"left": "right", "right": "left"}
        for shot in case["blocks"][0]["shots"]:
            shot["start"] = pulls.get(shot["start"], shot["start"])
    path = write(tmp_path, f"{hand}.case.json", case)
    row = json.loads(run(path, "--json").stdout)
    causes = {c["id"]: c for c in row["causes"]}
    assert [c["id"] for c in row["causes"][:2]] == ["backs_up", "early_lead_rush"]
    assert row["pattern"]["shape"] == "pull"
    for name in ("backs_up", "early_lead_rush"):
        assert causes[name]["seen"] == "yes"
        assert causes[name]["for"][0]["evidence"] == "trace:0"
    said = run(path).stdout
    assert "Gets forward early, then backs up (seen, possible)" in said
