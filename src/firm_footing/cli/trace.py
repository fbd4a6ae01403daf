"""What does this pressure trace say?"""

import json
from pathlib import Path
from typing import Annotated, Any, Literal

import typer

from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge.pressure import SWING_EVENTS
from firm_footing.core.knowledge.soft_threshold import in_a_word
from firm_footing.core.pressure.recorded import TraceError
from firm_footing.core.pressure.trace import TraceRead, read_trace
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.files.text_tables import TableError
from firm_footing.files.trace_tables import read_trace_table


def trace(
    file: Annotated[Path, typer.Argument(help="A table of samples")],
    as_json: Annotated[bool, typer.Option("--json", help="Answer in JSON")] = False,
    hand: Annotated[
        Literal["right", "left"], typer.Option(help="The student's, for left and right feet")
    ] = "right",
    pressure_school: Annotated[
        Literal["recentre", "steady", "stay_lead"], typer.Option(help="Whose corridor judges")
    ] = "recentre",
    heel_toe_school: Annotated[
        Literal["undecided", "mid_foot", "heels", "forefoot"],
        typer.Option(help="Who judges the feet"),
    ] = "undecided",
    impact: Annotated[
        float | None, typer.Option(help="Seconds, on the trace's clock; else at 0")
    ] = None,
) -> None:
    """Events, measures and signs of a pressure trace.

    What could not be read is named on standard error; the exit code is 2 where nothing could.
    """
    read = _read(file, hand, (pressure_school, heel_toe_school), impact)
    found = features_of(read)
    typer.echo(json.dumps(found) if as_json else "\n".join(_lines(read)))


def _read(
    file: Path, hand: Handedness, schools: tuple[str, str], impact: float | None
) -> TraceRead:
    try:
        table = read_trace_table(file.read_text(encoding="utf-8-sig"), hand)
        for b in table.bad:
            typer.echo(f"{file}: line {b.line}, {b.heading} '{b.cell}': {b.reason}", err=True)
        said = table.trace
        if impact is not None:
            said = said.model_copy(update={"events": {**said.events, "impact": impact}})
        read = read_trace(said, schools[0], load_knowledge(), heel_toe=schools[1])
    except (TableError, TraceError) as error:
        _stop(f"{file}: {error}")
    except UnicodeDecodeError as error:
        _stop(f"{file}: byte {error.start} is not UTF-8 text; save it as UTF-8")
    except OSError as error:
        _stop(f"{file}: {str(error.strerror or error).lower()}")
    for remark in read.recorded.remarks:
        place = "" if remark.row is None else f"sample {remark.row + 1}: "
        typer.echo(f"{file}: {place}{remark.text}", err=True)
    if read.maybe_swapped:
        typer.echo(f"{file}: the feet may have been exchanged; nothing was changed", err=True)
    return read


def _stop(message: str) -> Any:
    typer.echo(message, err=True)
    raise typer.Exit(2)


def features_of(read: TraceRead) -> dict[str, Any]:
    """The contract's shape of a trace that was read; shares to a tenth, times to a millisecond."""
    m = read.measures

    def toes(foot: str) -> float | None:
        most = m.toe_most.get((foot, "transition"))
        return None if most is None else round(most.value, 1)

    peak = m.peaks.get("up")
    return {
        "events": {
            name: {"t": round(read.events[name].t_s, 3), "how": read.events[name].how}
            for name in SWING_EVENTS
        },
        "lead_pct": {name: round(m.lead_pct[name], 1) for name in SWING_EVENTS},
        "peak_lead_pct": round(m.lead_peak.value, 1),
        "retreat_pct": round(m.retreat_pct, 1),
        "shift_start_s": round(m.shift_start_s, 3),
        "toe_pct": {"lead_max": toes("lead"), "trail_max": toes("trail")},
        "vertical_peak": peak and {"t": round(peak.t_s, 3), "pct_bw": round(peak.value, 1)},
        "path_ratio": None if m.path_ratio is None else round(m.path_ratio, 2),
        "style": m.style,
        "signs": list(read.signs),
        "within_corridor": {name: d == 0 for name, d in read.judged.deviation_pct.items()},
        "checks": {
            name: word
            for name, share in read.judged.answers.items()
            if (word := in_a_word(share)) in ("yes", "partly")
        },
    }


def _lines(read: TraceRead) -> list[str]:
    """The same, for reading."""
    m = read.measures
    lines = [
        f"{name:20} {e.t_s:+.3f} s {e.how:9} lead {m.lead_pct[name]:3.0f} %"
        for name, e in read.events.items()
    ]
    lines += [f"{s.id}: {s.words}" for s in read.judged.signs if s.there]
    return [*lines, f"style {m.style}, lead peak {m.lead_peak.value:.0f} %"]
