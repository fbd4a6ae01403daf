"""How are pressure traces shown to the outside?"""

from collections.abc import Mapping, Sequence

import numpy as np

from firm_footing.api.coaching.schemas import LaidOut, ShareOut, TracesComparedOut
from firm_footing.api.traces.schemas import (
    AnswerOfTrace,
    CurveOut,
    EventOut,
    EventsOut,
    LoopOut,
    MeasuresOut,
    MomentOut,
    PeakOut,
    RangeOut,
    RemarkOut,
    SignOut,
    ToeOut,
    TogetherOut,
    TraceReadOut,
)
from firm_footing.core.case import Reading
from firm_footing.core.coaching.compare_traces import TimedSwings, TracesCompared
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.soft_threshold import in_a_word
from firm_footing.core.pressure import trace as ground
from firm_footing.core.pressure.recorded import Recorded
from firm_footing.core.pressure.several import Several


def read_view(
    read: ground.TraceRead,
    school: str,
    drill: str | None,
    by_hand: Mapping[str, Sequence[Reading]],
    knowledge: Knowledge,
) -> TraceReadOut:
    """One trace with everything that is said of it.

    by_hand : the answers that count, by check, to say where they differ
    """
    _, ranges = knowledge.corridors.ranges(school, drill)
    return TraceReadOut(
        curve=_curve(read.recorded),
        rate_hz=round(read.recorded.rate_hz, 1),
        events=EventsOut(**{n: EventOut.model_validate(e) for n, e in read.events.items()}),
        corridor={n: RangeOut(low=low, high=high) for n, (low, high) in ranges.items()},
        corridor_of=read.corridor,
        corridor_drill=read.drill,
        measures=_measures(read),
        signs=[SignOut.model_validate(s) for s in read.judged.signs],
        answers=[_answer(c, s, by_hand.get(c, ())) for c, s in read.judged.answers.items()],
        a_style=read.a_style,
        remarks=[RemarkOut.model_validate(r) for r in read.recorded.remarks],
        maybe_swapped=read.maybe_swapped,
    )


def together_view(found: Several, ids: Sequence[str]) -> TogetherOut:
    """The mean trace, where at least two swings reach."""
    there = np.isfinite(found.mean_pct)
    return TogetherOut(
        t_s=_numbers(found.t_s[there], 3),
        mean_pct=_numbers(found.mean_pct[there]),
        sd_pct=_numbers(found.sd_pct[there]),
        odd=None if found.odd is None else ids[found.odd],
    )


def compared_view(found: TracesCompared | None) -> TracesComparedOut | None:
    """Swings before and after, to two decimals of a second and one of a per cent."""
    if found is None:
        return None
    return TracesComparedOut(
        before=_laid(found.before),
        after=_laid(found.after),
        events={name: round(t, 3) for name, t in found.events.items()},
        shares=[ShareOut.model_validate(s) for s in found.shares],
        gone=list(found.gone),
        still=list(found.still),
        new=list(found.new),
    )


def _laid(swings: TimedSwings) -> LaidOut:
    there = np.isfinite(swings.lead_pct)
    spread = swings.swings > 1
    return LaidOut(
        t_s=_numbers(swings.t_s[there], 3),
        lead_pct=_numbers(swings.lead_pct[there]),
        sd_pct=_numbers(swings.sd_pct[there]) if spread else [],
        swings=swings.swings,
    )


def _curve(recorded: Recorded) -> CurveOut:
    return CurveOut(
        t_s=_numbers(recorded.t_s, 3),
        lead_pct=_numbers(recorded.lead_pct),
        lead_toe_pct=_maybe(recorded.lead_toe_pct),
        trail_toe_pct=_maybe(recorded.trail_toe_pct),
        vertical_pct_bw=_maybe(recorded.vertical_pct_bw),
        lateral_pct_bw=_maybe(recorded.lateral_pct_bw),
        torque_nm=_maybe(recorded.torque_nm),
    )


def _numbers(values: FloatArray, decimals: int = 1) -> list[float]:
    found: list[float] = np.round(values, decimals).tolist()
    return found


def _maybe(values: FloatArray | None) -> list[float | None] | None:
    if values is None:
        return None
    return [None if v != v else v for v in _numbers(values)]


def _measures(read: ground.TraceRead) -> MeasuresOut:
    m = read.measures
    loop = m.loop
    return MeasuresOut(
        lead_pct=m.lead_pct,
        deviation_pct=read.judged.deviation_pct,
        press_before_start_pct=m.press_before_start_pct,
        trail_peak=MomentOut.model_validate(m.trail_peak),
        shift_start_s=m.shift_start_s,
        shift_from_top_s=m.shift_start_s - read.events["top"].t_s,
        recentred_pct=m.recentred_pct,
        lead_peak=MomentOut.model_validate(m.lead_peak),
        retreat_pct=m.retreat_pct,
        toes=[
            ToeOut(foot=foot, phase=phase, value=most.value)
            for (foot, phase), most in m.toe_most.items()
        ],
        heel_up_s=m.heel_up_s,
        peaks=[
            PeakOut(force=force, t_s=peak.t_s, value=peak.value)
            for force, peak in sorted(m.peaks.items(), key=lambda p: p[1].t_s)
        ],
        path_ratio=m.path_ratio,
        loop=None if loop is None else LoopOut.model_validate(loop),
        style=m.style,
    )


def _answer(check_id: str, share: float, readings: Sequence[Reading]) -> AnswerOfTrace:
    word = in_a_word(share)
    opposite = {"yes": "no", "no": "yes"}.get(word or "")
    otherwise = [r.source for r in readings if r.answer == opposite and r.source is not None]
    return AnswerOfTrace(check_id=check_id, share=share, answer=word, otherwise=otherwise)
