"""Where practitioners differ, and what a student shows by nature: facts of the trade.

Common practice, no source.
"""

from typing import Any

import numpy as np
import pytest

from firm_footing.core.case import Block, Case, Reading, School, Shot, Trace
from firm_footing.core.coaching import Situation, drills_for
from firm_footing.core.diagnosis.diagnosis import Diagnosis, RankedCause, diagnose
from firm_footing.core.inference.inference import infer
from firm_footing.core.inference.prior import set_prior
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import read_pattern
from firm_footing.core.pressure.trace import read_trace
from firm_footing.core.text.schools import schools_sentence
from firm_footing.core.text.sheet import sheet_of
from tests.core.by_cause import starts_by_cause

FAT = Shot(start="straight", curve="straight", contact="fat", divot_start_cm=-13, carry_m=116)
BLOCK_HOOK = Shot(start="push", curve="pull")
WEAK_FADE = Shot(start="straight", curve="push", carry_m=122)
SHANK = Shot(contact="hosel")
EVENTS = (
    "address", "shaft_level_back", "lead_arm_level_back", "top", "lead_arm_level_down",
    "shaft_level_down", "impact",
)  # fmt: skip


def yes(check: str, source: str = "film") -> Reading:
    return Reading.model_validate({"check": check, "answer": "yes", "source": source})


def case_of(shot: Shot, *readings: Reading, **more: Any) -> Case:
    school = School.model_validate(more.pop("school", {}))
    blocks = (Block(expected_carry_m=135, shots=(shot,) * 8), *more.pop("blocks", ()))
    return Case(handedness="right", blocks=blocks, readings=readings, school=school, **more)


def of(found: Diagnosis, cause: str) -> RankedCause:
    return next(c for c in found.causes if c.id == cause)


def typed(*shares: float) -> Trace:
    return Trace.model_validate({"typed_pct": dict(zip(EVENTS, shares, strict=True))})


STAYS_AND_FALLS = Trace.model_validate({"typed_pct": {"address": 70, "top": 70, "impact": 45}})
STEADILY_EARLY = typed(50, 20, 20, 40, 75, 82, 85)
"""Sound to who re-centres early; to the steady school a rush."""


def test_an_ordinary_player_s_rush_is_thrown_out_and_a_good_one_s_is_stuck(
    knowledge: Knowledge,
) -> None:
    rush = knowledge.cause["early_lead_rush"]
    thrown, stuck = rush.effect_in("thrown", None), rush.effect_in("stuck", None)
    assert (thrown.path_deg, thrown.face_to_path_deg) == (-2.0, 1.0)
    assert (stuck.path_deg, stuck.face_to_path_deg) == (4.5, -2.0)
    plate = yes("lead_rush_early", "plate")
    slicer = diagnose(case_of(WEAK_FADE, plate, handicap=18), knowledge)
    blocker = diagnose(case_of(BLOCK_HOOK, plate, handicap=2), knowledge)
    assert slicer.start_with == blocker.start_with == "early_lead_rush"
    assert of(slicer, "early_lead_rush").probability > 0.4
    assert "over_the_top" in of(slicer, "early_lead_rush").chain
    assert "stuck_inside" in of(blocker, "early_lead_rush").chain


def test_who_comes_over_the_top_slices_because_of_the_path(knowledge: Knowledge) -> None:
    for cause, face in (("trail_side_shove", 1.0), ("chest_rush", 0.7)):
        effect = knowledge.cause[cause].effect
        assert effect.face_to_path_deg == face
        assert abs(effect.path_deg) > 4 * face
    assert knowledge.cause["reverse_pivot"].effect.club_speed_pct == -4


def test_what_a_reverse_pivot_shows_by_nature_does_not_settle_on_another(
    knowledge: Knowledge,
) -> None:
    """Falling back is seen in both: what is asked next is what tells the two apart."""
    retreats = yes("lead_peak_then_retreat", "mat")
    fell = diagnose(case_of(FAT, retreats), knowledge)
    assert fell.start_with == "reverse_pivot"
    assert fell.next_checks[0].id == "leans_lead_going_back"
    leans = diagnose(case_of(FAT, retreats, yes("leans_lead_going_back")), knowledge)
    assert of(leans, "reverse_pivot").root > 0.8
    no = Reading(check="leans_lead_going_back", answer="no", source="film")
    stands = diagnose(case_of(FAT, retreats, no), knowledge)
    assert of(stands, "backs_up").root > of(stands, "reverse_pivot").root
    both = knowledge.points(knowledge.check["lead_peak_then_retreat"], None)
    assert both["reverse_pivot"] == both["backs_up"] == knowledge.numbers.pointer_shown


@pytest.mark.parametrize(("school", "there"), [("recentre", False), ("stay_lead", True)])
def test_staying_on_the_lead_side_and_falling_back_is_that_school_s_danger(
    school: str, there: bool, knowledge: Knowledge
) -> None:
    read = read_trace(STAYS_AND_FALLS, school, knowledge)
    assert ("reversed" in read.signs) == there
    case = case_of(FAT, traces=(STAYS_AND_FALLS,), school={"pressure": school})
    found = diagnose(case, knowledge)
    assert (found.start_with == "reverse_pivot") == there
    if there:
        assert "step_past" in found.drills


@pytest.mark.parametrize(("impact", "there"), [(88, False), (66, False), (55, True)])
def test_who_stays_and_goes_on_is_sound(impact: float, there: bool, knowledge: Knowledge) -> None:
    shares = {"address": 70, "top": 68, "impact": impact}
    read = read_trace(Trace.model_validate({"typed_pct": shares}), "stay_lead", knowledge)
    assert ("reversed" in read.signs) == there


def test_every_school_that_changes_the_start_is_named_with_its_start(
    knowledge: Knowledge,
) -> None:
    """The same balls and one trace: re-centring early is sound, or a rush."""
    found = {
        school: diagnose(
            case_of(BLOCK_HOOK, handicap=4, traces=(STEADILY_EARLY,), school={"pressure": school}),
            knowledge,
        )
        for school in ("recentre", "steady")
    }
    assert found["steady"].start_with == "early_lead_rush"
    assert found["recentre"].start_with != "early_lead_rush"
    for school, other in (("recentre", "steady"), ("steady", "recentre")):
        here = found[school]
        assert not here.schools_agree
        named = {(s.question, s.option): s.start_with for s in here.start_elsewhere}
        assert named["pressure", other] == found[other].causes[0].id
        said = schools_sentence(here.start_elsewhere, knowledge)
        assert knowledge.schools.pressure.option(other).name in said
        assert knowledge.cause[found[other].causes[0].id].label in said


def test_before_anything_is_known_no_school_starts_elsewhere(knowledge: Knowledge) -> None:
    found = diagnose(Case(handedness="right"), knowledge)
    assert found.start_with is None
    assert found.schools_agree
    assert schools_sentence(found.start_elsewhere, knowledge) == ""


def test_a_school_that_chooses_the_start_counts_its_own_cause_more(knowledge: Knowledge) -> None:
    """Arms-led: a body that hits with tense arms; hips first: hips that stand still."""
    case = case_of(Shot(start="pull", curve="straight"), yes("hits_from_the_top"))

    def root(start: str, cause: str) -> float:
        school = School.model_validate({"start": start})
        return of(diagnose(case.model_copy(update={"school": school}), knowledge), cause).root

    assert root("arms_led", "chest_rush") > root("ground_up", "chest_rush")
    assert root("hips_first", "static_hips") > root("ground_up", "static_hips")
    assert root("upper_led", "hips_slide_head_stays") > root("ground_up", "hips_slide_head_stays")
    first = {s: drills_for("static_hips", knowledge, Situation(school=School(start=s)))[0]
             for s in ("hips_first",)}  # fmt: skip
    assert first["hips_first"] in ("belt_stick", "lead_leg_straighten")


def test_the_club_s_angles_come_before_ground_work_where_that_is_the_rule(
    knowledge: Knowledge,
) -> None:
    case = case_of(FAT, yes("angle_lost_early"), yes("half_or_more_trail_at_impact", "mat"))
    rule = case.model_copy(update={"school": School(start="angles_first")})
    ground, angles = diagnose(case, knowledge), diagnose(rule, knowledge)
    assert of(angles, "hang_back").root < of(ground, "hang_back").root
    both = [knowledge.cause_index[c] for c in ("early_release", "hang_back")]
    for case_, starts in ((case, [1, 1]), (rule, [1, 0])):
        found = infer(case_, knowledge)
        (row,) = np.flatnonzero(
            (found.space.members[:, both] > 0).all(axis=1) & (found.space.sizes == 2)
        )
        assert starts_by_cause(found)[row, both].tolist() == starts


@pytest.mark.parametrize("evidence", [(), ("trail_heel_up_early",), ("trail_knee_at_ball",)])
def test_heel_first_or_knee_first(knowledge: Knowledge, evidence: tuple[str, ...]) -> None:
    """Undecided is the mean of both, in what one starts with and in what is there."""
    pull = Shot(start="pull", curve="straight", heel_toe_mm=-14)
    case = case_of(pull, *(yes(check) for check in evidence))
    now = {
        school: infer(
            case.model_copy(update={"school": School.model_validate({"heel_or_knee": school})}),
            knowledge,
        )
        for school in ("undecided", "heel_first", "knee_first")
    }
    heel, knee = (knowledge.cause_index[c] for c in ("trail_heel_pops", "trail_knee_fires"))
    for view, first, second in (("heel_first", heel, knee), ("knee_first", knee, heel)):
        both = (now[view].space.members[:, [heel, knee]] > 0).all(axis=1)
        starts = starts_by_cause(now[view])[both]
        assert starts[:, first].any()
        assert not starts[:, second].any()
    space, plain = now["undecided"].space, now["undecided"].schools
    views = [plain._replace(views=(view._replace(share=1.0),)) for view in plain.views]
    prior = sum(set_prior(space, view) for view in views) / 2
    assert now["undecided"].prior == pytest.approx(prior)
    for cause, school, other in (
        (heel, "heel_first", "knee_first"),
        (knee, "knee_first", "heel_first"),
    ):
        assert now[school].root[cause] > now[other].root[cause]


def test_the_drills_of_both_serve_the_heel(knowledge: Knowledge) -> None:
    for school, drill in (
        ("heel_first", "club_under_heel"),
        ("knee_first", "knees_together_through"),
    ):
        here = Situation(school=School.model_validate({"heel_or_knee": school}))
        drills = drills_for("trail_heel_pops", knowledge, here)
        assert {"club_under_heel", "knees_together_through"} <= set(drills)
        assert drills[0] == drill


def test_a_high_heel_points_strongly_to_the_knee(knowledge: Knowledge) -> None:
    check = knowledge.check["trail_heel_up_early"]
    assert check.points["trail_knee_fires"] == "strong"
    assert knowledge.cause["trail_knee_fires"].base_weight == 0.12
    assert knowledge.check["shaft_steep_down"].points["toes_in_downswing"] == "moderate"


@pytest.mark.parametrize(
    ("seen", "cause"),
    [
        ("trail_knee_at_ball", "trail_knee_fires"),
        ("toes_both_in_transition", "toes_in_downswing"),
    ],
)
def test_one_cause_alone_can_reach_the_hosel(knowledge: Knowledge, seen: str, cause: str) -> None:
    found = infer(case_of(SHANK, yes(seen, "film")), knowledge)
    index = knowledge.cause_index[cause]
    alone = found.space.members[:, index] * (found.space.sizes == 1)
    together = found.space.members[:, index] * (found.space.sizes > 1)
    by_itself = float(found.now.cause_set @ alone)
    assert by_itself > 0.03
    assert by_itself + float(found.now.cause_set @ together) > 0.7


def test_a_puller_with_a_sound_grip_and_sound_feet_has_somewhere_to_land(
    knowledge: Knowledge,
) -> None:
    hook = Shot(start="pull", curve="pull", carry_m=134)
    no = [
        Reading(check=c, answer="no")
        for c in ("grip_strong", "lead_toe_up_at_impact", "vertical_peak_early")
    ]
    found = diagnose(case_of(hook, *no), knowledge)
    assert "face_shut_halfway_through" in [c.id for c in found.next_checks[:3]]
    seen = diagnose(case_of(hook, *no, yes("face_shut_halfway_through")), knowledge)
    assert seen.start_with == "face_rolled_shut"
    assert seen.drills == ("turn_to_square",)


def test_a_trial_that_removes_a_cause_leaves_a_line_for_it(knowledge: Knowledge) -> None:
    """A step away with the shank gone speaks for still hips too."""
    clean = Shot(start="straight", curve="straight", contact="clean", heel_toe_mm=-4)
    trial = Block(kind="trial", drill="step_away", expected_carry_m=135, shots=(clean,) * 5)
    found = diagnose(case_of(SHANK, blocks=(trial,)), knowledge)
    for cause in ("static_hips", "toes_in_downswing", "heels_at_address"):
        (line,) = [s for s in of(found, cause).speaks_for if s.evidence == "trial:1"]
        assert line.bits > 0.5


def test_drills_serve_the_causes_they_are_used_for(knowledge: Knowledge) -> None:
    for drill, cause in (
        ("mirror_press", "backs_up"),
        ("angled_tee", "early_release"),
        ("stay_lead", "sway_off_ball"),
        ("trail_foot_back", "toes_in_downswing"),
        ("knees_together_through", "trail_heel_pops"),
        ("turn_to_square", "face_rolled_shut"),
    ):
        assert drill in drills_for(cause, knowledge, Situation())
    known = knowledge.drill
    assert known["toes_curled"].schools == ("mid_foot",)
    assert "mirror" in known["mirror_press"].steps[-1]
    assert "lead foot a little forward" in known["trail_foot_back"].steps[0]
    assert "gap" in known["bottle_guard"].steps[0]
    assert "across the shoulders" in known["press_pads"].steps[0]
    assert "fall back" in known["shoulder_through"].fail_signs[0]
    assert "tip forward" in known["shoulder_through"].mistake
    both = known["club_under_heel"].pass_sign
    assert "just after impact" in both
    assert "a little before" in both
    assert knowledge.corridors.lead_pct["recentre"]["address"] == (40, 55)


def test_cues_of_their_own(knowledge: Knowledge) -> None:
    late, lifts = (knowledge.cues.causes[c] for c in ("late_shift", "lead_toe_lifts"))
    assert late.loads == lifts.loads == "lead"
    assert "lead foot" in (late.pushing or "")
    assert "lead toes" in (lifts.pushing or "")
    assert any("lead hand up" in image for image in lifts.images)


def test_a_heel_that_lifts_late_is_weaker_to_some_and_as_bad_to_others(
    knowledge: Knowledge,
) -> None:
    shares = [f.share for f in knowledge.check["trail_heel_up_early"].finer]
    assert {0.6, 0.85} < set(shares)


def test_a_belief_is_answered_by_one_sentence(knowledge: Knowledge) -> None:
    check = knowledge.check["drives_trail_leg"]
    assert set(check.points) == {"trail_knee_fires", "trail_side_shove"}
    assert all(c.correction for c in knowledge.checks if c.view == "belief")


@pytest.mark.parametrize(
    ("check", "cause", "handicap"),
    [
        ("turn_blocked_going_back", "toes_in_backswing", 18),
        ("trail_shoulder_drops", "hips_slide_head_stays", 18),
        ("trail_hip_high", "trail_heel_pops", 18),
        ("lead_arm_pinned", "chest_rush", 18),
        ("shaft_flat_down", "early_lead_rush", 2),
    ],
)
def test_looks_that_were_missing(
    knowledge: Knowledge, check: str, cause: str, handicap: float
) -> None:
    nothing = Case(handedness="right", handicap=handicap)
    seen = nothing.model_copy(update={"readings": (yes(check),)})
    before, after = (of(diagnose(c, knowledge), cause).probability for c in (nothing, seen))
    assert after > 1.3 * before


def test_pressure_weight_and_force_are_told_apart(knowledge: Knowledge) -> None:
    told = knowledge.traces.told
    assert all(word in told.lower() for word in ("pressure", "weight", "force"))


def test_stiff_hips_get_home_work_that_defers_to_who_is_licensed(knowledge: Knowledge) -> None:
    pattern = read_pattern([], knowledge, 15)
    for limits, said in ((("stiff_hips",), "hips"), (("stiff_ankles",), "ankles"), (("knee",), "")):
        sheet = sheet_of("reach_to_ball", pattern, [], "x", None, False, knowledge, limits=limits)
        assert len(sheet.home_work) == bool(said)
        for line in sheet.home_work:
            assert f"For the {said}:" in line
            assert "physiotherapist" in line
