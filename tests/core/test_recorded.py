"""Pressure traces built with known events and signs; SciPy where it does the same."""

import re
from collections.abc import Sequence
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import cumulative_trapezoid
from scipy.signal import find_peaks

from firm_footing.core.case import Block, Case, Reading, Shot, Trace
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.frame import neutral_feet
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.pressure import SWING_EVENTS, SwingEvent
from firm_footing.core.patterns import read_pattern
from firm_footing.core.pressure import signs
from firm_footing.core.pressure.recorded import TraceError, recorded_of, with_feet_swapped
from firm_footing.core.pressure.several import together
from firm_footing.core.pressure.trace import read_trace, with_contact
from tests.core.swings import MOMENTS, SEEN, SOUND, swing

ANSWERS = {
    "late": {"shift_starts_after_top"},
    "never_left": {"half_or_more_trail_at_impact"},
    "rush": {"lead_rush_early"},
    "retreat": {"lead_peak_then_retreat"},
    "reversed": {"leans_lead_going_back", "lead_peak_then_retreat"},
}
RATES = (50.0, 100.0, 333.0, 1000.0, 2000.0)


@pytest.mark.parametrize("school", SOUND)
@pytest.mark.parametrize("rate", RATES)
def test_a_sound_swing_shows_no_sign_in_its_school(
    school: str, rate: float, knowledge: Knowledge
) -> None:
    read = read_trace(swing(school, rate_hz=rate, toe=(60, 65), jump_s=-0.07), school, knowledge)
    assert read.signs == ()
    assert set(read.judged.deviation_pct.values()) == {0.0}
    assert not read.maybe_swapped


@pytest.mark.parametrize("sign", SEEN)
@pytest.mark.parametrize("rate", RATES)
def test_every_sign_of_the_share_is_seen_and_answers_its_checks(
    sign: str, rate: float, knowledge: Knowledge
) -> None:
    read = read_trace(swing(changed=SEEN[sign], rate_hz=rate), "recentre", knowledge)
    others = {
        "never_left": {"weak"},
        "retreat": {"weak"},
        "reversed": {"weak", "retreat"},
    }
    assert set(read.signs) == {sign} | others.get(sign, set())
    said = {check for check, share in read.judged.answers.items() if share >= 0.75}
    half = {"half_or_more_trail_at_impact"}
    assert said - half == ANSWERS[sign] - half
    assert (said >= half) == (sign in ("never_left", "reversed"))


def test_signs_are_judged_from_the_school_and_from_the_drill(knowledge: Knowledge) -> None:
    """Common practice, no source: rising from the top is right in the steady school."""
    late = swing(changed=SEEN["late"])
    assert "late" in read_trace(late, "recentre", knowledge).signs
    steady = swing("steady")
    assert "late" not in read_trace(steady, "steady", knowledge).signs
    assert "late" in read_trace(steady, "recentre", knowledge).signs
    stays = swing("stay_lead")
    assert read_trace(stays, "recentre", knowledge).judged.deviation_pct["top"] > 0
    with_drill = read_trace(stays, "recentre", knowledge, "stay_lead")
    assert set(with_drill.judged.deviation_pct.values()) == {0.0}
    assert with_drill.drill == "stay_lead"
    assert read_trace(stays, "recentre", knowledge, "bottle_guard").drill is None


@pytest.mark.parametrize(
    ("toe", "signs", "share"),
    [
        ((60, 60), (), 0.0),
        ((95, 60), ("toes",), 0.7),
        ((95, 95), ("toes",), 1.0),
    ],
)
def test_toes_count_in_feet_that_carry(
    toe: tuple[float, float], signs: tuple[str, ...], share: float, knowledge: Knowledge
) -> None:
    read = read_trace(swing(toe=toe), "recentre", knowledge)
    assert tuple(s for s in read.signs if s != "messy") == signs
    assert read.judged.answers["toes_both_in_transition"] == pytest.approx(share, abs=0.02)
    # a foot that carries next to nothing says nothing: the trail foot of someone far forward
    forward = swing(changed={"top": 90, "lead_arm_level_down": 95}, toe=(60, 99))
    assert ("trail", "transition") not in read_trace(
        forward, "recentre", knowledge
    ).measures.toe_most


@pytest.mark.parametrize(("jump_s", "early"), [(-0.07, False), (-0.10, False), (-0.16, True)])
def test_the_push_off_the_ground_may_come_too_early(
    jump_s: float, early: bool, knowledge: Knowledge
) -> None:
    read = read_trace(swing(jump_s=jump_s, named=tuple(MOMENTS)), "recentre", knowledge)
    assert ("early_jump" in read.signs) == early
    peak = read.measures.peaks["up"]
    assert peak is not None
    assert peak.t_s == pytest.approx(jump_s, abs=0.005)
    assert peak.value == pytest.approx(145, abs=1.5)


def test_measures_are_those_built_in(knowledge: Knowledge) -> None:
    read = read_trace(swing(changed=SEEN["retreat"]), "recentre", knowledge)
    m = read.measures
    for name, share in zip(MOMENTS, SOUND["recentre"], strict=True):
        wanted = SEEN["retreat"].get(name, share)
        assert m.lead_pct[name] == pytest.approx(wanted, abs=2.2), name  # corners are rounded
    assert m.lead_peak.value == pytest.approx(77, abs=1.5)
    assert m.retreat_pct == pytest.approx(16, abs=2.5)
    assert m.trail_peak.t_s == pytest.approx(-0.49, abs=0.02)
    assert -0.49 < m.shift_start_s < -0.40
    assert m.recentred_pct == pytest.approx(26, abs=2)
    assert m.press_before_start_pct == pytest.approx(0, abs=0.5)
    words = next(s.words for s in read.judged.signs if s.id == "retreat")
    low, high = map(int, re.findall(r"\d+", words)[::-1])
    assert (high, low) == (round(m.lead_peak.value), round(m.lead_pct["impact"]))


def test_events_that_nobody_named_are_estimated_with_their_doubt(knowledge: Knowledge) -> None:
    for school in SOUND:
        read = read_trace(swing(school, named=(), jump_s=-0.07), school, knowledge)
        for name in SWING_EVENTS[:7]:
            event = read.events[name]
            assert event.how == ("assumed" if name == "impact" else "estimated")
            assert abs(event.t_s - MOMENTS[name]) < 3 * event.sd_s, (school, name)
    given_top = read_trace(swing(named=("top",)), "recentre", knowledge).events
    assert given_top["top"].how == "given"
    assert given_top["top"].t_s == MOMENTS["top"]


def test_events_between_lie_where_the_format_puts_them(knowledge: Knowledge) -> None:
    at = {n: e.t_s for n, e in read_trace(swing(), "recentre", knowledge).events.items()}
    back, down = at["top"] - at["address"], at["impact"] - at["top"]
    assert at["shaft_level_back"] == pytest.approx(at["address"] + 0.5 * back)
    assert at["lead_arm_level_back"] == pytest.approx(at["address"] + 0.7 * back)
    assert at["lead_arm_level_down"] == pytest.approx(at["top"] + 0.6 * down)
    assert at["shaft_level_down"] == pytest.approx(at["top"] + 0.8 * down)


@given(
    times=st.lists(st.integers(-159, 59), max_size=4, unique=True).map(sorted),
    names=st.permutations(SWING_EVENTS),
)
def test_events_are_always_in_order(
    times: list[int], names: Sequence[SwingEvent], knowledge: Knowledge
) -> None:
    named = sorted(names[: len(times)], key=SWING_EVENTS.index)
    events = {name: t / 100 for name, t in zip(named, times, strict=True)}
    trace = swing(named=()).model_copy(update={"events": events})
    found = read_trace(trace, "recentre", knowledge).events
    assert all(a.t_s <= b.t_s for a, b in pairwise(found.values()))
    assert {name: found[name].t_s for name in named} == events


@pytest.mark.parametrize("sign", [None, *SEEN])
def test_samples_in_between_change_nothing(sign: str | None, knowledge: Knowledge) -> None:
    trace = swing(changed=SEEN.get(sign or ""), rate_hz=100, toe=(80, 70), jump_s=-0.1, noise=0.7)
    table = np.array(trace.samples)
    between = (table[1:] + table[:-1]) / 2
    more = np.concatenate([table, between])
    rng = np.random.default_rng(2)
    more = more[rng.permutation(len(more))]
    denser = trace.model_copy(update={"samples": tuple(map(tuple, more.tolist()))})
    one, other = (read_trace(t, "recentre", knowledge) for t in (trace, denser))
    assert other.signs == one.signs
    for name in SWING_EVENTS:
        assert other.events[name].t_s == pytest.approx(one.events[name].t_s, abs=1e-6)
        assert other.measures.lead_pct[name] == pytest.approx(one.measures.lead_pct[name], abs=1e-6)
    assert other.measures.path_ratio == pytest.approx(one.measures.path_ratio, abs=1e-6)


@pytest.mark.parametrize("sign", [None, *SEEN])
@pytest.mark.parametrize("rate", [50.0, 200.0, 1000.0])
def test_noise_of_one_per_cent_flips_no_clear_sign(
    sign: str | None, rate: float, knowledge: Knowledge
) -> None:
    changed = SEEN.get(sign or "")
    quiet = read_trace(swing(changed=changed, rate_hz=rate, toe=(60, 60)), "recentre", knowledge)
    clear = {s.id: s.there for s in quiet.judged.signs if abs(s.clear - 0.5) > 0.4}
    for seed in range(12):
        noisy = swing(changed=changed, rate_hz=rate, toe=(60, 60), noise=1.0, seed=seed)
        there = set(read_trace(noisy, "recentre", knowledge).signs)
        assert {name: name in there for name in clear} == clear, seed


def test_a_left_hander_gives_the_same_numbers(knowledge: Knowledge) -> None:
    trace = swing(changed=SEEN["retreat"], toe=(90, 60))
    right = ("t", "left_pct", "left_toe_pct", "right_toe_pct")
    left = ("t", "right_pct", "right_toe_pct", "left_toe_pct")
    reads = [
        read_trace(
            trace.model_copy(update={"columns": neutral_feet(columns, hand)}), "recentre", knowledge
        )
        for columns, hand in ((right, "right"), (left, "left"))
    ]
    assert reads[0].measures.lead_pct == reads[1].measures.lead_pct
    assert reads[0].measures.toe_most == reads[1].measures.toe_most
    assert reads[0].signs == reads[1].signs


def test_exchanged_feet_are_suspected_and_left_as_they_are(knowledge: Knowledge) -> None:
    wrong = with_feet_swapped(swing(toe=(60, 70)))
    read = read_trace(wrong, "recentre", knowledge)
    assert read.maybe_swapped
    assert read.measures.lead_pct["impact"] == pytest.approx(12, abs=2)
    assert with_feet_swapped(wrong) == swing(toe=(60, 70))


def test_peaks_and_windows_are_scipys(knowledge: Knowledge) -> None:
    trace = swing(jump_s=-0.11, rate_hz=500, noise=0.4)
    read = read_trace(trace, "recentre", knowledge)
    r = read.recorded
    assert r.vertical_pct_bw is not None
    peaks, _ = find_peaks(r.vertical_pct_bw, prominence=20)
    peak = read.measures.peaks["up"]
    assert peak is not None
    assert peak.t_s in r.t_s[peaks].tolist()
    # a window's mean against the trapezoidal rule on a grid a hundred times finer
    table = np.array(trace.samples)
    wide = knowledge.traces.recording.window_s
    for at in (-1.2, -0.4, -0.1, 0.0):
        fine = np.linspace(at - wide / 2, at + wide / 2, 20_001)
        line = np.interp(fine, table[:, 0], table[:, 1])
        mean = cumulative_trapezoid(line, fine)[-1] / wide
        assert r.lead_at(at) == pytest.approx(mean, abs=1e-4)


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"columns": ("t", "left_foot")}, "no column of the lead foot"),
        ({"columns": ("when", "lead_pct")}, "no column of time"),
        ({"samples": ((0.0, 50.0), (0.1, 50.0))}, "Only 2 samples"),
        ({"samples": tuple((i / 10, 50.0) for i in range(40))}, "10 samples a second"),
        ({"samples": tuple((i / 5000, 50.0) for i in range(9000))}, "5000 samples a second"),
        ({"samples": tuple((i / 500, 50.0) for i in range(100))}, "span 0.20 s"),
        ({"events": {"tip": 0.0}}, "No event is called 'tip'"),
        ({"events": {"top": 0.1, "impact": 0.0}}, "'impact' must come after 'top'"),
        ({"events": {"top": -9.0}}, "lies outside of the trace"),
    ],
)
def test_what_is_no_swing_is_said(
    change: dict[str, object], says: str, knowledge: Knowledge
) -> None:
    with pytest.raises(TraceError, match=says):
        read_trace(swing().model_copy(update=change), "recentre", knowledge)


def test_untidy_samples_are_read_and_remarked_on(knowledge: Knowledge) -> None:
    tidy = swing(rate_hz=200)
    rows = [list(row) for row in tidy.samples]
    hole = [row for row in rows if not -1.0 < row[0] < -0.8]
    twice = [*hole, *hole[40:60]]
    twice[3][1] = None
    twice[5][1] = 140.0
    untidy = tidy.model_copy(update={"samples": tuple(map(tuple, twice))})
    read = read_trace(untidy, "recentre", knowledge)
    said = " / ".join(remark.text for remark in read.recorded.remarks)
    assert "nothing recorded from -1.00 to -0.80" in said
    assert "not in order" in said
    assert "2 rows without time or share" in said
    assert "1 shares lie outside" in said
    assert read.signs == ()
    loads = tuple((t, lead * 0.9, (100 - lead) * 0.9) for t, lead in tidy.samples)
    for names in (("lead_kg", "trail_kg"), ("lead_pct", "trail_pct")):
        both = tidy.model_copy(update={"columns": ("t", *names), "samples": loads})
        found = recorded_of(both, knowledge.traces.recording)
        assert found.lead_at(-0.25) == pytest.approx(read.recorded.lead_at(-0.25), abs=0.01)
        assert bool(found.remarks) == (names[0] == "lead_pct")


STYLES = {
    # Ball & Best 2007, J. Sports Sci. 25: group means of lead share for the two styles. From
    # memory, so only what is remembered for sure is asked: front-foot players go on to about 80 %
    # at contact, reverse ones fall back toward 50 to 55 % after a peak before it.
    "front_foot": {"top": 30, "lead_arm_level_down": 66, "shaft_level_down": 75, "impact": 80},
    "reverse": {"top": 30, "lead_arm_level_down": 68, "shaft_level_down": 66, "impact": 53},
}


@pytest.mark.parametrize("style", STYLES)
def test_the_two_styles_of_skilled_players(style: str, knowledge: Knowledge) -> None:
    read = read_trace(swing(changed=STYLES[style]), "recentre", knowledge)
    assert read.measures.style == style
    assert ("retreat" in read.signs) == (style == "reverse")
    sound = tuple(Shot(start="straight", curve="straight", contact="clean") for _ in range(8))
    fat = tuple(Shot(start="pull", curve="push", contact="fat") for _ in range(8))
    for shots, fault in ((sound, False), (fat, True)):
        pattern = read_pattern((Block(shots=shots, surface="turf"),), knowledge, 5)
        beside = with_contact(read, pattern, knowledge)
        assert beside.a_style == (style == "reverse" and not fault)
        assert ("lead_peak_then_retreat" in beside.judged.answers) == (not beside.a_style)


def test_lateness_is_as_clear_as_the_faintest_of_its_conditions(
    knowledge: Knowledge, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Half clear in two ways is half clear, not a quarter: the two are one lateness."""
    monkeypatch.setattr(signs._Judging, "_starts_late", lambda _: 0.6)
    monkeypatch.setattr(signs._Judging, "_under", lambda *_: 0.5)
    late = swing(changed=SEEN["late"])
    read = read_trace.__wrapped__(late, "recentre", knowledge)  # not as another test has read it
    assert next(s for s in read.judged.signs if s.id == "late").clear == 0.5
    assert read.judged.answers["shift_starts_after_top"] == 0.5


def test_a_crossing_of_the_trace_is_found(knowledge: Knowledge) -> None:
    """A loop built from a circle: back along the heels, down along the toes, across itself."""
    t = np.arange(-1.6, 0.8, 0.01)
    turn = np.clip((t + 1.05) / 1.05, 0, 1) * 2 * np.pi * 1.15
    lead, toe = 50 - 30 * np.sin(turn), 50 - 30 * np.sin(turn) * np.cos(turn) + 6 * turn / 7
    rows = np.stack([t, lead, toe, toe], axis=1).tolist()
    names = ("t", "lead_pct", "lead_toe_pct", "trail_toe_pct")
    looped = Trace(columns=names, samples=tuple(map(tuple, rows)), events={"address": -1.05})
    loop = read_trace(looped, "recentre", knowledge).measures.loop
    assert loop is not None
    at = [np.interp(moment, t, lead) for moment in (loop.first_s, loop.again_s)]
    assert at == pytest.approx([loop.lead_pct] * 2, abs=1.5)
    assert loop.again_s - loop.first_s > 0.1
    straight = swing(toe=(50, 50))
    assert read_trace(straight, "recentre", knowledge).measures.loop is None


def test_several_swings_have_a_mean_and_an_odd_one(knowledge: Knowledge) -> None:
    swings = [read_trace(swing(noise=1, seed=s), "recentre", knowledge) for s in range(4)]
    found = together(swings)
    assert found is not None
    assert found.odd is None
    at_top = int(np.argmin(np.abs(found.t_s + 0.25)))
    values = [s.recorded.lead_at(-0.25) for s in swings]
    assert found.mean_pct[at_top] == pytest.approx(np.mean(values), abs=1e-9)
    assert found.sd_pct[at_top] == pytest.approx(np.std(values, ddof=1), abs=1e-9)
    odd = read_trace(swing(changed=SEEN["reversed"]), "recentre", knowledge)
    with_odd = together([*swings[:2], odd, *swings[2:]])
    assert with_odd is not None
    assert with_odd.odd == 2
    assert together(swings[:1]) is None


def test_a_trace_is_evidence_as_clear_as_its_signs(knowledge: Knowledge) -> None:
    clear, faint = (
        Case(handedness="right", handicap=15, traces=(swing(changed=SEEN["retreat"] | end),))
        for end in ({}, {"impact": 72})
    )
    nothing = Case(handedness="right", handicap=15, traces=(swing(),))
    before, none, less, sure = (
        {c.id: c.probability for c in diagnose(case, knowledge).causes}["backs_up"]
        for case in (Case(handedness="right", handicap=15), nothing, faint, clear)
    )
    assert none < less < sure
    assert none < before / 2
    assert sure > 2 * before
    cause = next(c for c in diagnose(clear, knowledge).causes if c.id == "backs_up")
    assert cause.speaks_for[0].evidence == "trace:0"
    found = infer(clear, knowledge)
    assert found.answers == 1
    assert "lead_peak_then_retreat" in found.answered


def test_an_answer_by_hand_from_the_mat_replaces_the_trace_s(knowledge: Knowledge) -> None:
    trace = swing(changed=SEEN["retreat"])
    said = Reading(check="lead_peak_then_retreat", answer="no", source="mat")
    felt = said.model_copy(update={"source": "feel"})
    by_mat, by_feel = (
        infer(Case(handedness="right", traces=(trace,), readings=(r,)), knowledge)
        for r in (said, felt)
    )
    assert [r.trace for r in by_mat.counted["lead_peak_then_retreat"]] == [None]
    assert [r.trace for r in by_feel.counted["lead_peak_then_retreat"]] == [None, 0]
    both = Case(handedness="right", traces=(trace,), readings=(felt,))
    assert diagnose(both, knowledge).contradictions == ("lead_peak_then_retreat",)


def test_a_trace_with_a_drill_in_force_does_not_count(knowledge: Knowledge) -> None:
    trace = swing(changed=SEEN["retreat"]).model_copy(update={"block": 0})
    blocks = (Block(kind="trial", drill="step_past", shots=()),)
    found = infer(Case(handedness="right", blocks=blocks, traces=(trace,)), knowledge)
    assert found.counted == {}


@given(order=st.permutations([0, 1, 2]))
def test_the_order_of_traces_is_no_matter(order: list[int], knowledge: Knowledge) -> None:
    swings = [swing(changed=SEEN[s]) for s in ("late", "retreat", "rush")]
    cases = [
        Case(handedness="right", handicap=12, traces=tuple(swings[i] for i in o))
        for o in ([0, 1, 2], order)
    ]
    one, other = ({c.id: c.probability for c in diagnose(c, knowledge).causes} for c in cases)
    assert one == pytest.approx(other, abs=1e-9)
