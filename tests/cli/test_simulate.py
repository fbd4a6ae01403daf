"""Simulated students come with their truth, the same for the same seed, and can be ranked."""

import json
from pathlib import Path

from typer.testing import CliRunner

from firm_footing.cli.main import app
from firm_footing.core.knowledge import Knowledge


def simulate(out: Path, seed: int = 4, students: int = 3) -> None:
    options = ["--seed", str(seed), "--students", str(students), "--out", str(out)]
    assert CliRunner().invoke(app, ["simulate", *options]).exit_code == 0


def contents(folder: Path) -> dict[str, str]:
    return {p.name: p.read_text() for p in sorted(folder.iterdir())}


def test_the_same_seed_writes_the_same_files(tmp_path: Path) -> None:
    simulate(tmp_path / "a")
    simulate(tmp_path / "b")
    simulate(tmp_path / "c", seed=5)
    assert contents(tmp_path / "a") == contents(tmp_path / "b")
    assert set(contents(tmp_path / "a").values()).isdisjoint(contents(tmp_path / "c").values())


def test_truths_stand_beside_cases_that_can_be_ranked(tmp_path: Path, knowledge: Knowledge) -> None:
    simulate(tmp_path)
    cases = sorted(tmp_path.glob("*.case.json"))
    assert len(cases) == 3
    for case in cases:
        truth = json.loads(case.with_name(case.name.replace(".case.", ".truth.")).read_text())
        assert 1 <= len(truth["causes"]) <= 2
        assert set(truth["roots"]) <= set(truth["causes"]) <= set(knowledge.cause)
        assert truth["roots"]
    result = CliRunner().invoke(app, ["rank", "--json", *map(str, cases)])
    assert result.exit_code == 0
    for line in result.stdout.splitlines():
        assert json.loads(line)["pattern"]["balls"] == 10
