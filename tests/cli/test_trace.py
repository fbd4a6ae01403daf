"""`firm-footing trace`: the contract's shape, its options, its errors."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from typer.testing import CliRunner

from firm_footing.cli.main import app
from firm_footing.core.knowledge.pressure import SWING_EVENTS
from tests.core.swings import SEEN, swing


def write(path: Path, headings: str | None = None, shift_s: float = 0.0, **changes: Any) -> Path:
    trace = swing(rate_hz=200, toe=(95, 95), jump_s=-0.07, named=(), **changes)
    rows = np.array(trace.samples) + np.eye(1, len(trace.columns)) * shift_s
    lines = [",".join(f"{v:.3f}" for v in row) for row in rows]
    path.write_text("\n".join([headings or ",".join(trace.columns), *lines]), encoding="utf-8")
    return path


def run(*words: str | Path) -> Any:
    return CliRunner().invoke(app, ["trace", *map(str, words)])


def test_the_shape_is_the_contract_s(tmp_path: Path) -> None:
    result = run(write(tmp_path / "a.csv", changed=SEEN["retreat"]), "--json")
    assert result.exit_code == 0
    found = json.loads(result.stdout)
    assert list(found) == [
        "events", "lead_pct", "peak_lead_pct", "retreat_pct", "shift_start_s", "toe_pct",
        "vertical_peak", "path_ratio", "style", "signs", "within_corridor", "checks",
    ]  # fmt: skip
    assert tuple(found["events"]) == tuple(found["lead_pct"]) == SWING_EVENTS
    assert {e["how"] for e in found["events"].values()} == {"estimated", "assumed"}
    assert found["events"]["impact"] == {"t": 0.0, "how": "assumed"}
    assert {"retreat", "toes"} <= set(found["signs"])
    assert found["style"] == "reverse"
    assert found["within_corridor"]["impact"] is False
    assert found["checks"] == {
        "lead_peak_then_retreat": "yes",
        "toes_both_in_transition": "yes",
        "half_or_more_trail_at_impact": "partly",
    }
    assert found["retreat_pct"] == pytest.approx(
        found["peak_lead_pct"] - found["lead_pct"]["impact"], abs=0.11
    )
    assert set(found["toe_pct"]) == {"lead_max", "trail_max"}
    assert set(found["vertical_peak"]) == {"t", "pct_bw"}


def test_hand_school_and_impact_are_heeded(tmp_path: Path) -> None:
    names = "t,right_pct,right_toe_pct,left_toe_pct,vertical_pct_bw"
    left = json.loads(run(write(tmp_path / "l.csv", names), "--json", "--hand", "left").stdout)
    right = json.loads(run(write(tmp_path / "r.csv"), "--json").stdout)
    assert left == right
    late = write(tmp_path / "late.csv", changed=SEEN["late"])
    signs = [
        json.loads(run(late, "--json", "--pressure-school", s).stdout)["signs"]
        for s in ("recentre", "steady")
    ]
    assert ["late" in s for s in signs] == [True, False]
    deep = swing(feet={"lead": (50,) * 8, "trail": (50, 24, 18, 30, 45, 50, 60, 85)})
    table = tmp_path / "deep.csv"
    rows = [",".join(deep.columns), *(",".join(map(str, row)) for row in deep.samples)]
    table.write_text("\n".join(rows))
    found = [
        json.loads(run(table, "--json", "--heel-toe-school", s).stdout)["signs"]
        for s in ("mid_foot", "heels")
    ]
    assert ["heel_back" in s for s in found] == [True, False]
    moved = write(tmp_path / "m.csv", shift_s=5.0)
    found = json.loads(run(moved, "--json", "--impact", "5").stdout)
    assert found["events"]["impact"] == {"t": 5.0, "how": "given"}
    assert found["lead_pct"] == pytest.approx(right["lead_pct"], abs=0.1)


def test_what_was_left_out_is_named_and_what_is_no_trace_ends_with_2(tmp_path: Path) -> None:
    path = write(tmp_path / "a.csv")
    lines = path.read_text().splitlines()
    lines[10] = lines[10].replace(lines[10].split(",")[1], "slip", 1)
    path.write_text("\n".join(lines))
    result = run(path, "--json")
    assert result.exit_code == 0
    assert "line 11, lead_pct 'slip': not a number" in result.stderr
    empty = tmp_path / "b.csv"
    empty.write_text("t,lead_pct\n0,50\n0.01,50\n")
    for file, says in ((empty, "Only 2 samples"), (tmp_path / "no.csv", "no such file")):
        result = run(file)
        assert result.exit_code == 2
        assert says in result.stderr
        assert len(result.stderr.strip().splitlines()) == 1
    assert "retreat" in run(write(tmp_path / "c.csv", changed=SEEN["retreat"])).stdout
