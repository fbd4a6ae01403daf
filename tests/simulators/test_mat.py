"""The simulated mat: mechanics follow from causes, and the trade's signs come out of them."""

import numpy as np
import pytest
from starlette.testclient import TestClient

from firm_footing.core.case.evidence import PressureSchool
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pressure.trace import TraceRead, read_trace
from firm_footing.simulators.mat import SimulatedMat, send
from firm_footing.simulators.pressing import COLUMNS, habit_of, press, pressings
from firm_footing.simulators.sending import find_lesson
from firm_footing.simulators.student import make_student

STUDENTS = 60


def swings(
    causes: tuple[str, ...],
    knowledge: Knowledge,
    handicap: float = 12,
    school: PressureSchool = "recentre",
) -> list[TraceRead]:
    found = []
    for seed in range(STUDENTS):
        rng = np.random.default_rng([3, seed])
        student = make_student(causes, handicap, "thrown", knowledge, rng)
        habit = habit_of(student, rng)
        trace = press(student, habit, school, knowledge, rng, name_events=True)
        found.append(read_trace(trace, school, knowledge))
    return found


def share(reads: list[TraceRead], check: str) -> float:
    return float(np.mean([r.judged.answers.get(check, 0.0) >= 0.5 for r in reads]))


@pytest.mark.parametrize("school", ["recentre", "steady", "stay_lead"])
def test_sound_players_of_every_school_show_few_signs(
    school: PressureSchool, knowledge: Knowledge
) -> None:
    reads = swings((), knowledge, handicap=2, school=school)
    assert np.mean([len(r.signs) for r in reads]) < 0.2
    assert np.mean([np.mean(np.abs(list(r.judged.deviation_pct.values()))) for r in reads]) < 3


@pytest.mark.parametrize(
    ("cause", "check"),
    [
        ("late_shift", "shift_starts_after_top"),
        ("hang_back", "half_or_more_trail_at_impact"),
        ("reverse_pivot", "leans_lead_going_back"),
        ("early_lead_rush", "lead_rush_early"),
        ("backs_up", "lead_peak_then_retreat"),
        ("toes_in_downswing", "toes_both_in_transition"),
        ("jumps_early", "vertical_peak_early"),
    ],
)
def test_a_cause_brings_its_strong_sign_out(cause: str, check: str, knowledge: Knowledge) -> None:
    assert knowledge.check[check].pointers("thrown")[cause] == "strong"
    with_it, without = (share(swings(c, knowledge), check) for c in ((cause,), ()))
    assert with_it > 0.5
    assert without < 0.15


def test_what_causes_do_is_named_by_known_causes(knowledge: Knowledge) -> None:
    assert set(pressings()) <= set(knowledge.cause)
    assert "weak_grip" not in pressings()


def test_swings_reach_the_open_lesson_each_once(
    client: TestClient, lesson: dict[str, object], knowledge: Knowledge
) -> None:
    target = find_lesson(client, None, knowledge)
    device = SimulatedMat(("backs_up",), "thrown", target, knowledge, 4, rate_hz=500)
    for number in range(3):
        send(client, target, device.swing(), f"swing {number}", lambda _s: None)
    found = client.get(f"/api/lessons/{lesson['id']}/traces").json()["traces"]
    assert [t["name"] for t in found] == ["swing 0", "swing 1", "swing 2"]
    assert {t["read"]["rate_hz"] for t in found} == {500.0}


def test_the_same_seed_makes_the_same_swings(
    client: TestClient, lesson: dict[str, object], knowledge: Knowledge
) -> None:
    target = find_lesson(client, str(lesson["id"]), knowledge)
    one, other, third = (
        SimulatedMat(("late_shift",), "thrown", target, knowledge, seed) for seed in (7, 7, 8)
    )
    trace = one.swing()
    assert trace.columns == COLUMNS
    assert other.swing() == trace
    assert third.swing() != trace
