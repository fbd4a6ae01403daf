"""What each way of noting a ball is taken to say, and how surely."""

import math

import pytest

from firm_footing.core.case import Block, Shot
from firm_footing.core.estimation.readings import (
    READINGS,
    ValueRead,
    Within,
    as_reading,
    curve_deg,
    notes_of,
    start_deg,
)
from firm_footing.core.knowledge import Knowledge


def noted(knowledge: Knowledge, shot: Shot, **block: object) -> dict[str, ValueRead | Within]:
    whole = Block.model_validate(block)
    return notes_of(shot, whole, knowledge.club[whole.club], knowledge.numbers)


@pytest.mark.parametrize(
    ("word", "least", "most"),
    [
        ("straight", -2, 2),
        ("push", 2, 6),
        ("pull", -6, -2),
        ("far_push", 6, math.inf),
        ("far_pull", -math.inf, -6),
    ],
)
def test_a_word_is_an_interval(knowledge: Knowledge, word: str, least: float, most: float) -> None:
    note = start_deg(Shot.model_validate({"start": word}), knowledge.numbers)
    assert isinstance(note, Within)
    assert (note.least, note.most) == (least, most)


def test_an_interval_as_a_value_is_its_middle_and_width(knowledge: Knowledge) -> None:
    numbers = knowledge.numbers
    value, sd = as_reading(Within(2.0, 6.0, 0.0), numbers)
    assert value == 4
    assert sd == pytest.approx(4 / math.sqrt(12))  # of a uniform distribution
    far = as_reading(Within(6.0, math.inf, 0.0), numbers)
    assert far.value == (6 + numbers.reading.word_far_ends_deg) / 2


def test_a_measured_value_wins_over_a_word(knowledge: Knowledge) -> None:
    note = start_deg(Shot(start="push", start_deg=-3.5), knowledge.numbers)
    assert note == ValueRead(-3.5, knowledge.numbers.reading.measured_direction_sd_deg)
    both = Shot(curve="pull", side_m=7.0, carry_m=100.0, start_deg=1.0)
    bent = curve_deg(both, knowledge.numbers, start_deg(both, knowledge.numbers))
    assert isinstance(bent, ValueRead)
    assert bent.value == pytest.approx(math.degrees(math.asin(0.07)) - 1.0)
    assert bent.sd > knowledge.numbers.reading.measured_direction_sd_deg  # two doubts


def test_everything_measured_is_used(knowledge: Knowledge) -> None:
    shot = Shot(
        path_deg=-4, face_deg=-1, attack_deg=-3, dynamic_loft_deg=24, launch_deg=17, spin_rpm=6500,
        spin_axis_deg=6, club_speed_mps=36, ball_speed_mps=48, carry_m=135, heel_toe_mm=-5,
        low_high_mm=2, start_deg=-2, curve_deg=5, divot_start_cm=-1, divot_direction_deg=-6,
    )  # fmt: skip
    made = noted(knowledge, shot)
    words = {"contact_low_point", "contact_strike", "contact_elsewhere"}
    assert set(made) == set(READINGS) - words
    assert made["ball_speed"][0] == pytest.approx(math.log(48))
    assert made["spin"][0] == pytest.approx(math.log(6500))


@pytest.mark.parametrize(
    ("contact", "name", "inside"),
    [
        ("fat", "contact_low_point", -8.0),
        ("clean", "contact_low_point", 5.0),
        ("thin", "contact_low_point", -3.0),
        ("toe", "contact_strike", 26.0),
        ("hosel", "contact_strike", -30.0),
    ],
)
def test_contact_says_where_the_low_point_or_the_strike_lay(
    knowledge: Knowledge, contact: str, name: str, inside: float
) -> None:
    made = noted(knowledge, Shot.model_validate({"contact": contact}))
    note = made[name]
    assert isinstance(note, Within)
    assert note.least <= inside <= note.most
    elsewhere = {"contact_elsewhere"} if name == "contact_low_point" else set()
    assert {n for n in made if n.startswith("contact")} == {name} | elsewhere


def test_a_mark_on_turf_or_face_tells_more_than_the_word(knowledge: Knowledge) -> None:
    made = noted(knowledge, Shot(contact="fat", divot_start_cm=-12))
    assert "contact_low_point" not in made
    assert made["low_point"][0] == -12 + knowledge.numbers.turf.half_length_cm.normal
    assert "contact_strike" not in noted(knowledge, Shot(contact="toe", heel_toe_mm=22))


def test_a_shank_says_nothing_of_the_club_s_way_and_a_topped_ball_nothing_of_its_flight(
    knowledge: Knowledge,
) -> None:
    flight = {"start": "far_push", "curve": "push", "path_deg": 2.0, "carry_m": 60.0}
    shank = noted(
        knowledge, Shot.model_validate(flight | {"contact": "hosel"}), expected_carry_m=135
    )
    assert set(shank) == {"contact_strike"}
    topped = noted(
        knowledge, Shot.model_validate(flight | {"contact": "top"}), expected_carry_m=135
    )
    assert {"curve", "carry"}.isdisjoint(topped)
    assert "path" in topped


def test_from_a_tee_contact_says_nothing_of_the_turf(knowledge: Knowledge) -> None:
    assert set(noted(knowledge, Shot(contact="fat"), club="d")) == {"contact_elsewhere"}
    assert set(noted(knowledge, Shot(contact="fat"), club="7i", teed=True)) == {"contact_elsewhere"}
    assert "contact_low_point" in noted(knowledge, Shot(contact="fat"), club="d", teed=False)


def test_a_carry_counts_only_against_something(knowledge: Knowledge) -> None:
    """Against a figure of the instructor or a measured club speed; else it explains itself."""
    assert "carry" not in noted(knowledge, Shot(carry_m=120))
    assert "carry" in noted(knowledge, Shot(carry_m=120), expected_carry_m=135)
    assert "carry" in noted(knowledge, Shot(carry_m=120, club_speed_mps=34))
