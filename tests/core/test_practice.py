"""Thirty students as one meets them on the tee: does the lesson start where practice would?

Each cause once, with the balls it sends and the looks one would take. Common practice, no source.
"""

import pytest

from firm_footing.core.case import Block, Case, Reading, Shot
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.knowledge import Knowledge


def ball(start: str, curve: str, carry: float, **more: object) -> Shot:
    seen = {"start": start, "curve": curve, "carry_m": carry, "contact": "clean"}
    return Shot.model_validate(seen | more)


PULL_SLICE = ball("pull", "push", 122, heel_toe_mm=-6)
FAT = ball("straight", "straight", 105, contact="fat", divot_start_cm=-14)
FAT_PUSH = ball("push", "push", 108, contact="fat", divot_start_cm=-12)
THIN = ball("straight", "push", 118, contact="thin")
HEEL = ball("straight", "push", 120, heel_toe_mm=-15)
HEEL_PULL = ball("pull", "straight", 122, heel_toe_mm=-14)
FAR_HEEL_PULL = ball("pull", "straight", 118, heel_toe_mm=-18)
LITTLE_HEEL = ball("straight", "straight", 131, heel_toe_mm=-7)
SHANK = Shot(contact="hosel")
PULL = ball("pull", "straight", 134)
PULL_HOOK = ball("pull", "pull", 130)
HOOK = ball("straight", "far_pull", 132)
BLOCK = ball("far_push", "straight", 132)
PUSH = ball("push", "straight", 135)
PUSH_HOOK = ball("push", "far_pull", 130)
SLICE = ball("straight", "far_push", 118)
SHORT = ball("straight", "straight", 112, divot_start_cm=-6)
SCATTERED = [
    HEEL,
    PULL_SLICE,
    ball("far_pull", "straight", 120, heel_toe_mm=-20),
    ball("push", "push", 126, heel_toe_mm=2),
    HEEL,
    PULL_SLICE,
    ball("pull", "far_push", 112, heel_toe_mm=-22),
    ball("far_push", "push", 124, heel_toe_mm=5),
]

# the cause to start with: handicap, balls, answered yes, answered no
STUDENTS: dict[str, tuple[float, list[Shot], str, str]] = {
    "face_rolled_shut": (
        12,
        [PULL_HOOK] * 5 + [HOOK] * 3,
        "face_shut_halfway_through",
        "grip_strong lead_toe_up_at_impact vertical_peak_early",
    ),
    "chest_rush": (
        18,
        [PULL] * 5 + [PULL_SLICE] * 3,
        "hands_out_first hits_from_the_top arms_tense",
        "trail_heel_up_early hips_static_down",
    ),
    "hang_back": (
        22,
        [FAT] * 5 + [THIN] * 3,
        "half_or_more_trail_at_impact finish_falls_back lead_hip_not_ahead",
        "grip_weak loads_late shift_starts_after_top",
    ),
    "weak_grip": (
        20,
        [SLICE] * 6 + [FAT] * 2,
        "grip_weak half_or_more_trail_at_impact hands_flip",
        "",
    ),
    "heels_at_address": (
        15,
        [HEEL] * 8,
        "seat_outside_heels seat_leaves_line toes_both_in_transition",
        "",
    ),
    "early_lead_rush": (
        3,
        [BLOCK] * 4 + [PUSH_HOOK] * 4,
        "lead_rush_early feels_hard_push_off club_stuck_behind",
        "trail_heel_up_early",
    ),
    "toes_in_downswing": (
        12,
        [SHANK] * 3 + [HEEL] * 5,
        "seat_leaves_line toes_both_in_transition feels_falling_to_ball",
        "trail_heel_up_early trail_knee_at_ball seat_outside_heels hands_far_from_body",
    ),
    "over_effort": (14, SCATTERED, "full_effort trail_heel_up_early arms_tense", ""),
    "reach_to_ball": (
        20,
        [HEEL] * 8,
        "hands_far_from_body toes_going_back finish_falls_to_toes",
        "",
    ),
    "inside_takeaway": (18, [PULL_SLICE] * 8, "takeaway_inside hands_out_first", ""),
    "square_lead_foot": (12, [PULL_HOOK] * 8, "lead_foot_square vertical_peak_early", ""),
    "late_shift": (
        18,
        [FAT] * 8,
        "loads_late shift_starts_after_top",
        "hips_drift_trail_going_back",
    ),
    "hips_slide_head_stays": (
        8,
        [FAT_PUSH] * 8,
        "head_held_back_hips_lead hands_flip half_or_more_trail_at_impact",
        "",
    ),
    "no_lateral_shift": (
        16,
        [PULL] * 5 + [FAT] * 3,
        "hips_back_away trail_heel_up_early gap_between_knees_at_impact",
        "",
    ),
    "trail_side_shove": (
        14,
        [PULL_SLICE] * 8,
        "trail_foot_slid_back wobbly_finish feels_hard_push_off",
        "",
    ),
    "jumps_early": (
        10,
        [PULL_HOOK] * 8,
        "vertical_peak_early slows_to_avoid_pull",
        "lead_foot_square grip_strong lead_toe_up_at_impact",
    ),
    "aim_off": (12, [PUSH] * 8, "aim_off_line", ""),
    "ball_position": (15, [PULL] * 5 + [FAT] * 3, "ball_out_of_place", "aim_off_line"),
    "static_hips": (18, [PULL] * 8, "hips_static_down hits_from_the_top", "arms_tense"),
    "early_release": (
        22,
        [SHORT] * 8,
        "angle_lost_early hands_flip",
        "half_or_more_trail_at_impact loads_late",
    ),
    "lead_toe_lifts": (
        9,
        [PULL_HOOK] * 8,
        "lead_toe_up_at_impact side_bend_lost",
        "grip_strong vertical_peak_early",
    ),
    "strong_grip": (12, [HOOK] * 8, "grip_strong", ""),
    "club_fit": (10, [LITTLE_HEEL] * 8, "heel_or_toe_deep_divot", "hands_far_from_body"),
    "deep_trail_heel": (
        14,
        [PULL_SLICE] * 8,
        "trail_heel_deep_going_back takeaway_inside hands_out_first head_away_going_back",
        "",
    ),
    "backs_up": (
        12,
        [PULL_SLICE] * 5 + [FAT] * 3,
        "lead_peak_then_retreat feels_ahead_then_back shaft_steep_down",
        "",
    ),
    "sway_off_ball": (
        20,
        [FAT] * 8,
        "hips_drift_trail_going_back lead_hip_not_ahead",
        "loads_late",
    ),
    "reverse_pivot": (
        25,
        [FAT] * 5 + [THIN] * 3,
        "leans_lead_going_back finish_falls_back half_or_more_trail_at_impact",
        "",
    ),
    "trail_heel_pops": (
        15,
        [HEEL_PULL] * 8,
        "trail_heel_up_early path_diverges_late trail_foot_does_not_roll",
        "",
    ),
    "trail_knee_fires": (
        15,
        [FAR_HEEL_PULL] * 8,
        "trail_knee_at_ball gap_between_knees_at_impact",
        "trail_heel_up_early",
    ),
    "toes_in_backswing": (
        18,
        [HEEL] * 8,
        "toes_going_back arms_leave_body_going_back",
        "hands_far_from_body seat_outside_heels",
    ),
}


@pytest.mark.parametrize("cause", STUDENTS)
def test_the_lesson_starts_where_practice_would(knowledge: Knowledge, cause: str) -> None:
    handicap, shots, yes, no = STUDENTS[cause]
    readings = [Reading(check=c, answer="yes") for c in yes.split()]
    readings += [Reading(check=c, answer="no") for c in no.split()]
    block = Block(expected_carry_m=137.0, shots=tuple(shots))
    case = Case(handedness="right", handicap=handicap, blocks=(block,), readings=tuple(readings))
    found = diagnose(case, knowledge)
    assert found.start_with == cause
    assert found.causes[0].seen == "yes"


def test_every_cause_has_its_student(knowledge: Knowledge) -> None:
    assert set(STUDENTS) == set(knowledge.cause)
