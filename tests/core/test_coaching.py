"""Which drills serve, which stay away, and why. Limits and exclusions: common practice."""

from typing import Any

import numpy as np
import pytest

from firm_footing.core.case import School
from firm_footing.core.coaching import Situation, drills_for, withheld_for
from firm_footing.core.coaching.cards import cards_for
from firm_footing.core.coaching.cautions import cautions_for, general_cautions
from firm_footing.core.coaching.drills import fit_of
from firm_footing.core.knowledge import Knowledge

BALANCE = {"step_away", "toes_curled", "trail_toes_up", "trail_foot_back"}
# cause, limits, other likely causes, path -> drills kept back
TABLE = [
    ("toes_in_downswing", (), {}, 0.0, set()),
    ("toes_in_downswing", ("knee",), {}, 0.0, {"step_away", "lead_leg_straighten"}),
    ("toes_in_downswing", ("balance",), {}, 0.0, BALANCE),
    ("toes_in_downswing", (), {"jumps_early": 0.8}, 0.0, {"lead_leg_straighten"}),
    ("toes_in_downswing", (), {"jumps_early": 0.3}, 0.0, set()),
    ("chest_rush", (), {"static_hips": 0.6}, -4.0, {"feet_together_pause"}),
    ("chest_rush", (), {}, 3.0, set()),  # stuck players who hook may have the trail foot back too
    ("chest_rush", (), {}, None, set()),
    ("static_hips", (), {"chest_rush": 0.9}, 0.0, {"belt_stick"}),
    ("deep_trail_heel", ("ankle",), {}, 0.0, {"cushions"}),
]


@pytest.mark.parametrize(("cause", "limits", "present", "path", "kept_back"), TABLE)
def test_drills_are_kept_back(
    knowledge: Knowledge,
    cause: str,
    limits: Any,
    present: dict[str, float],
    path: float | None,
    kept_back: set[str],
) -> None:
    here = Situation(limits=limits, present=present, path_deg=path)
    withheld = withheld_for(cause, knowledge, here)
    assert {w.drill for w in withheld} == kept_back
    offered = set(drills_for(cause, knowledge, here))
    serving = {d.id for d in knowledge.drills if cause in d.targets}
    assert offered == serving - kept_back
    for w in withheld:
        assert w.limits or w.worse_for or w.path_too_far_in_to_out


def test_opposite_remedies_are_never_both_offered(knowledge: Knowledge) -> None:
    """A drill for one of two opposite causes names the other as what it is not for."""
    for cause in knowledge.causes:
        if cause.opposite_of is None:
            continue
        assert knowledge.cause[cause.opposite_of].opposite_of == cause.id
        both = {cause.id: 0.9, cause.opposite_of: 0.9}
        one = drills_for(cause.id, knowledge, Situation(present=both))
        other = drills_for(cause.opposite_of, knowledge, Situation(present=both))
        assert not set(one) & set(other)


@pytest.mark.parametrize("seed", range(20))
def test_no_advice_holds_drills_of_two_opposite_remedies(knowledge: Knowledge, seed: int) -> None:
    """Whatever the cause to start with and however likely the others are."""
    rng = np.random.default_rng(seed)
    present = dict(zip(knowledge.cause, rng.uniform(0, 1, len(knowledge.causes)), strict=True))
    pairs = {(c.id, c.opposite_of) for c in knowledge.causes if c.opposite_of}
    assert pairs
    for cause in knowledge.causes:
        drills = drills_for(cause.id, knowledge, Situation(present=present))
        served = {t for d in drills for t in knowledge.drill[d].targets}
        for one, other in pairs:
            if max(present[one], present[other]) >= knowledge.numbers.possible_from or cause.id in (
                one,
                other,
            ):
                assert not {one, other} <= served
            assert other not in served or cause.id != one
            if cause.id not in (one, other) and present[other] > max(present[one], 0.5):
                assert one not in served


def test_a_limit_has_a_side(knowledge: Knowledge) -> None:
    """A drill that loads the other leg is offered, and says so."""
    both = Situation(limits=("knee",))
    trail = Situation(limits=("knee",), sides={"knee": "trail"})
    lead = Situation(limits=("knee",), sides={"knee": "lead"})
    for here, offered in ((both, False), (trail, True), (lead, False)):
        assert ("lead_toes_down" in drills_for("lead_toe_lifts", knowledge, here)) == offered
    drill = knowledge.drill["lead_toes_down"]
    said = fit_of(drill, "lead_toe_lifts", knowledge, trail).pros
    assert "does not load the trail knee" in said


def test_a_drill_that_can_feed_a_likely_cause_says_so(knowledge: Knowledge) -> None:
    cards = cards_for("hang_back", knowledge, Situation(present={"reverse_pivot": 0.4}))
    (card,) = [c for c in cards if c.drill == "stay_lead"]
    assert any(
        "reverse" in c or "wrong way" in c for c in card.cautions if c.startswith("Take care")
    )
    cards = cards_for("hang_back", knowledge, Situation(present={"reverse_pivot": 0.05}))
    (card,) = [c for c in cards if c.drill == "stay_lead"]
    assert not any(c.startswith("Take care") for c in card.cautions)


def test_a_school_puts_its_own_drills_first(knowledge: Knowledge) -> None:
    def first(**school: str) -> str:
        chosen = School.model_validate(school)
        return drills_for("hang_back", knowledge, Situation(school=chosen))[0]

    assert first(start="ground_up") == "mirror_press"
    assert first(start="upper_led") in ("start_trail_go_lead", "shoulder_through")
    assert first(pressure="stay_lead", start="arms_led") == "stay_lead"


def test_what_is_not_here_sinks_and_says_so(knowledge: Knowledge) -> None:
    usual = drills_for("late_shift", knowledge, Situation())
    assert usual.index("mirror_press") <= 1
    here = Situation(lacking=("mirror", "turf"))
    without = drills_for("late_shift", knowledge, here)
    assert set(without) == set(usual)
    assert set(without[-2:]) == {"mirror_press", "line_and_divots"}
    fit = fit_of(knowledge.drill["line_and_divots"], "late_shift", knowledge, here)
    assert fit.cons == ("turf is not here",)


def test_a_drill_that_asks_much_comes_later_for_a_beginner(knowledge: Knowledge) -> None:
    def place(handicap: float | None) -> int:
        here = Situation(handicap=handicap)
        return drills_for("toes_in_downswing", knowledge, here).index("step_away")

    assert place(5) == 0 < place(36)
    drill = knowledge.drill["step_away"]
    assert (
        "asks much of this player"
        in fit_of(drill, "heels_at_address", knowledge, Situation(handicap=36)).cons
    )
    assert not fit_of(drill, "heels_at_address", knowledge, Situation()).cons  # 18 when left out


def test_a_cause_of_the_set_up_is_drilled_at_set_up_first(knowledge: Knowledge) -> None:
    for cause in (c for c in knowledge.causes if c.group == "setup"):
        first = knowledge.drill[drills_for(cause.id, knowledge, Situation())[0]]
        assert first.on_course is not None
        assert first.on_course.at_setup, cause.id


def test_cautions_go_with_the_drills_they_touch(knowledge: Knowledge) -> None:
    every = general_cautions(False, knowledge)
    assert len(general_cautions(True, knowledge)) == len(every) + 1
    assert any("doctor" in c for c in every)
    said = {d.id: " ".join(cautions_for(d, knowledge)) for d in knowledge.drills}
    assert "shank" in said["sixty_percent"]
    assert "shank" not in said["cushions"]
    assert "firm, dry" in said["cushions"]
    assert "ankle, balance" in said["cushions"]
    assert "sticks" in said["hip_stick"]
    for drill in knowledge.drills:
        if drill.limits:
            assert said[drill.id].startswith(f"Leave out “{drill.name.lower()}” when")


def test_every_drill_names_limits_that_are_known(knowledge: Knowledge) -> None:
    known = {limit.id for limit in knowledge.cautions.limits}
    for drill in knowledge.drills:
        assert set(drill.limits) <= known
    for test in knowledge.cautions.force_tests:
        assert set(test.limits) <= known


def test_what_became_of_lessons_with_a_drill_counts_once_there_are_enough(
    knowledge: Knowledge,
) -> None:
    drill = knowledge.drill["mirror_press"]
    worth = knowledge.numbers.coaching.fit

    def points(came: int, of: int) -> float:
        here = Situation(worked={("late_shift", drill.id): (came, of)})
        usual = fit_of(drill, "late_shift", knowledge, Situation()).points
        return fit_of(drill, "late_shift", knowledge, here).points - usual

    assert points(2, 2) == 0  # too few to be said
    assert points(3, 3) == pytest.approx(worth.worked * (5 / 7 - 0.5))
    assert points(0, 6) == pytest.approx(worth.worked * (0.2 - 0.5))
    assert points(30, 30) > points(3, 3)
