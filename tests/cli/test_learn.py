"""`learn` and `rank --learned`: files in, what moved out, and nothing of anybody."""

import json
from pathlib import Path
from typing import Any

import pytest
from typer.testing import CliRunner

from firm_footing.cli.main import app

RUN = CliRunner()


def case_file(to: Path, number: int, cause: str, key: str | None = None, **more: Any) -> Path:
    """A lesson in which the wrist angle was lost early, as a file."""
    shots = [{"contact": "fat", "start": "left", "carry": 120 + number % 9} for _ in range(6)]
    case = {
        "format": "firm-footing-case", "version": 1,
        "student": {"handedness": "right", **({"key": key} if key else {})},
        "blocks": [{"kind": "baseline", "club": "7i", "shots": shots}],
        "checks": {"angle_lost_early": {"answer": "yes", "source": "film"}},
        "outcome": {"decided": cause, "fate": "confirmed", "known_by": ["retest"]},
        "notes": ["a note about Oda"],
        **more,
    }  # fmt: skip
    path = to / f"{number:03}.case.json"
    path.write_text(json.dumps(case))
    return path


def learned_from(paths: list[Path], out: Path, *more: str) -> dict[str, Any]:
    done = RUN.invoke(app, ["learn", *map(str, paths), "--out", str(out), *more])
    assert done.exit_code == 0, done.output
    found: dict[str, Any] = json.loads(out.read_text())
    return found | {"said": done.output}


def roots(paths: list[Path], *more: str) -> list[dict[str, float]]:
    done = RUN.invoke(app, ["rank", "--json", *more, *map(str, paths)])
    assert done.exit_code == 0, done.output
    return [
        {c["id"]: c["root"] for c in json.loads(line)["causes"]}
        for line in done.stdout.splitlines()
    ]


def test_what_was_learned_moves_the_ranking_and_holds_nothing_of_anybody(tmp_path: Path) -> None:
    paths = [case_file(tmp_path, i, "early_release") for i in range(20)]
    out = tmp_path / "learned.json"
    found = learned_from(paths, out)
    assert found["format"] == "firm-footing-learned"
    assert found["outcomes"] == 20
    assert found["causes"]["early_release"]["factor"] > 1.5
    assert "Wrist angle thrown away early: 5.6 % of students by the files," in found["said"]
    for word in ("Oda", "note", "2026", "case.json"):
        assert word not in out.read_text()
    (plain,), (with_it,) = roots(paths[:1]), roots(paths[:1], "--learned", str(out))
    assert with_it["early_release"] > plain["early_release"] + 0.02


def test_the_order_of_files_is_nothing_and_the_same_person_counts_once(tmp_path: Path) -> None:
    paths = [case_file(tmp_path, i, "early_release") for i in range(12)]
    one, other = tmp_path / "a.json", tmp_path / "b.json"
    learned_from(paths, one)
    learned_from(paths[::-1], other)
    assert one.read_bytes() == other.read_bytes()
    same = [case_file(tmp_path, 100 + i, "early_release", key="k1") for i in range(12)]
    assert learned_from(same, one)["everything"]["lessons"] == pytest.approx(1)


def test_it_goes_on_from_what_was_learned_before(tmp_path: Path) -> None:
    paths = [case_file(tmp_path, i, "early_release") for i in range(12)]
    first, second = tmp_path / "a.json", tmp_path / "b.json"
    learned_from(paths[:6], first)
    found = learned_from(paths[6:], second, "--from", str(first))
    assert found["outcomes"] == 12
    assert found["causes"]["early_release"]["factor"] > 1.15
    keyed = [case_file(tmp_path, 20 + i, "early_release", key=f"k{i}") for i in range(12)]
    learned_from(keyed, first)
    again = learned_from(keyed[3:], second, "--from", str(first))
    assert "9 of the files were learned from already and were left out." in again["said"]
    assert again["everything"]["lessons"] == pytest.approx(12)


def test_history_of_the_student_moves_the_ranking(tmp_path: Path) -> None:
    past = [{"decided": "hang_back", "fate": "confirmed", "known_by": ["retest"], "days_ago": 16}]
    (plain,), (known,) = (
        roots([case_file(tmp_path, i, "early_release", **more)])
        for i, more in ((0, {}), (1, {"history": past}))
    )
    assert known["hang_back"] > plain["hang_back"] + 0.05


def test_files_that_tell_no_outcome_are_said_and_bad_ones_named(tmp_path: Path) -> None:
    paths = [case_file(tmp_path, i, "early_release") for i in range(3)]
    untold = json.loads(paths[0].read_text())
    del untold["outcome"]
    paths[0].write_text(json.dumps(untold))
    wrong = json.loads(paths[1].read_text())
    wrong["outcome"]["decided"] = "early_relase"
    paths[1].write_text(json.dumps(wrong))
    out = tmp_path / "learned.json"
    done = RUN.invoke(app, ["learn", *map(str, paths), "--out", str(out)])
    assert done.exit_code == 2
    assert "outcome.decided: no cause is called 'early_relase'; did you mean" in done.output
    assert "1 of the files say nothing of an outcome and were left out." in done.output
    assert json.loads(out.read_text())["outcomes"] == 1
    unread = json.loads(paths[2].read_text())
    unread["traces"] = [{"columns": ["t", "lead_pct"], "samples": [[0.0, 50.0], [0.1, 60.0]]}]
    paths[1].write_text(json.dumps(unread))
    done = RUN.invoke(app, ["learn", str(paths[1]), "--out", str(tmp_path / "other.json")])
    assert done.exit_code == 2
    assert "traces.0: it cannot be read as a swing" in done.output  # as `rank` says it
    out.write_text('{"format": "firm-footing-learned"}')
    bad = RUN.invoke(app, ["rank", "--learned", str(out), str(paths[2])])
    assert bad.exit_code == 2
    assert "version: missing; add it" in bad.output
