"""What only the simulators need may be missing; everything else runs."""

import subprocess
import sys
from pathlib import Path

import pytest

PROGRAM = """
import sys
sys.modules.update(dict.fromkeys(["av", "httpx"]))  # as if they were not installed
import firm_footing.api.app
from firm_footing.cli.main import app
app(sys.argv[1:])
"""


def run(*arguments: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-c", PROGRAM, *arguments],
        capture_output=True,
        text=True,
        timeout=120,
        check=False,
    )


def test_the_application_and_the_ranking_do_not_miss_them(tmp_path: Path) -> None:
    case = tmp_path / "case.json"
    case.write_text(
        '{"format": "firm-footing-case", "version": 1, "student": {"handedness": "right"}}',
        encoding="utf-8",
    )
    assert run("serve", "--help").returncode == 0
    done = run("rank", str(case))
    assert "Traceback" not in done.stderr
    assert done.returncode == 0, done.stderr


@pytest.mark.parametrize("arguments", [["mat"], ["monitor"], ["film", "--out", "swing.mp4"]])
def test_a_simulator_says_what_it_misses(arguments: list[str]) -> None:
    done = run(*arguments)
    assert done.returncode == 2
    assert "firm-footing[simulators]" in done.stderr
    assert "Traceback" not in done.stderr
