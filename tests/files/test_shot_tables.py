"""Tables of balls: any delimiter, decimal sign, unit and side; bad rows never lose good ones."""

import re
from typing import Any

import pytest

from firm_footing.core.case import Block, Shot
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns.chance import values_of
from firm_footing.files.shot_tables import (
    TableError,
    balls_of,
    fingerprint,
    guess,
    read_table,
    write_balls,
)

GERMAN = """Session of a made-up bay;;;
Date;2026-11-01;;

Shot;Club;Ball Speed;Launch Angle;Launch Direction;Spin Rate;Carry;Face to Path;Landing height
;;[mph];[deg];[deg];[rpm];[yds];[deg];
1;7 Iron;104,3;18,2;3,1L;6.500;142,1;1,9;0
2;Iron 7;101,0;17,2;2,0 R;6.300;139,1;1,9;0
3;Spoon;101,0;17,2;2,0L;6300;139,1;1,9;0
4;7 Iron;fast;17,2;2,0L;6300;139,1;1,9;0
5;7 Iron;101,0;17,2;200,0;6300;139,1;1,9;0
Average;;102;;;;;;
"""


def read(text: str, knowledge: Knowledge, hand: Any = "right") -> Any:
    table = read_table(text)
    return balls_of(table, guess(table, knowledge), hand, knowledge)


def test_a_semicolon_table_with_commas_and_a_unit_row(knowledge: Knowledge) -> None:
    found = read("\ufeff" + GERMAN, knowledge)
    first, second, third, fourth = (b.shot for b in found.balls)
    assert {b.club for b in found.balls} == {"7i"}
    # exact: a mile is 1609.344 m, a yard 0.9144 m (international yard and pound agreement, 1959)
    assert first.ball_speed_mps == pytest.approx(104.3 * 1609.344 / 3600, abs=1e-3)
    assert first.carry_m == pytest.approx(142.1 * 0.9144, abs=1e-3)
    assert (first.start_deg, second.start_deg) == (-3.1, 2.0)
    assert (first.spin_rpm, second.spin_rpm) == (6500, 6300)
    assert first.face_deg is None  # face to path is not face to target
    assert (third.ball_speed_mps, third.spin_rpm) == (None, 6300)  # a bad cell costs that cell
    assert (fourth.start_deg, fourth.launch_deg) == (None, 17.2)


def test_everything_bad_is_said_with_its_line_and_reason(knowledge: Knowledge) -> None:
    bad = {b.line: (b.heading, b.reason) for b in read(GERMAN, knowledge).bad}
    assert bad[8] == ("Club", "no club is called this")
    assert bad[9] == ("Ball Speed", "not a number")
    assert bad[10][0] == "Launch Direction"
    assert "90" in bad[10][1]
    assert bad[11] == ("", "a summary, not a ball")
    assert len(bad) == 4


def test_a_left_hander_s_real_sides_are_mirrored(knowledge: Knowledge) -> None:
    text = "start_deg,heel_toe_mm,carry [m]\n3,-4,120\n"
    (right,), (left,) = (read(text, knowledge, hand).balls for hand in ("right", "left"))
    assert (right.shot.start_deg, left.shot.start_deg) == (3, -3)
    assert right.shot.heel_toe_mm == left.shot.heel_toe_mm == -4


@pytest.mark.parametrize(
    ("speeds", "unit"),
    [("46,48,47", "m/s"), ("104,101,99", "mph"), ("168,203,190", "km/h")],
)
def test_a_speed_without_a_unit_is_known_by_its_size(
    speeds: str, unit: str, knowledge: Knowledge
) -> None:
    rows = "\n".join(f"{s},100" for s in speeds.split(","))
    (speed, _) = guess(read_table(f"Club speed,Carry\n{rows}"), knowledge)
    assert speed.field == "club_speed"
    if unit != "m/s":
        assert speed.unit == ("mph" if unit == "mph" else "km/h")


def test_an_axis_that_runs_against_the_curve_is_positive_to_the_left(
    knowledge: Knowledge,
) -> None:
    rows = [(-3, 130, 2 * i - 9, 9 - 2 * i) for i in range(8)]
    lines = "\n".join(",".join(map(str, row)) for row in rows)
    table = read_table(f"Start,Carry,Side,Spin axis\n{lines}")
    columns = {c.field: c for c in guess(table, knowledge)}
    assert columns["spin_axis_deg"].positive == "left"
    assert columns["side"].positive == "right"


def test_what_is_written_reads_back_the_same(knowledge: Knowledge) -> None:
    shots = (
        Shot(start="far_pull", curve="push", contact="clean", heel_toe_mm=-14, carry_m=118.25),
        Shot(start_deg=-2.5, curve_deg=4.25, side_m=-3.5, carry_m=120, ball_speed_mps=47.5,
             club_speed_mps=35.5, spin_rpm=6400, spin_axis_deg=7, launch_deg=18, apex_m=22.5),
        Shot(divot_start_cm=-2, divot_length_cm=11, divot_depth="deep", divot_direction_deg=-4,
             path_deg=-5, face_deg=-1, attack_deg=-4, dynamic_loft_deg=24, drill_ok=False),
    )  # fmt: skip
    for hand in ("right", "left"):
        text = write_balls([Block(club="8i", shots=shots)], hand)  # type: ignore[arg-type]
        back = read(text, knowledge, hand)
        assert back.bad == ()
        assert tuple(b.shot for b in back.balls) == shots
        assert {b.club for b in back.balls} == {"8i"}


def test_headings_are_known_again_whatever_the_rows() -> None:
    one, other = (read_table(f"Carry [m];Start\n{n};1\n") for n in (120, 130))
    assert fingerprint(one) == fingerprint(other)
    assert fingerprint(one) != fingerprint(read_table("Carry [yd];Start\n120;1\n"))


@pytest.mark.parametrize("text", ["", "\n\n", "hello", "Carry,Start\n", "1,2\n3,4\n", "\x00"])
def test_what_is_no_table_is_said(text: str) -> None:
    with pytest.raises(TableError):
        read_table(text)


def test_columns_that_fit_another_table_are_refused(knowledge: Knowledge) -> None:
    table, other = read_table("Carry,Start\n120,1\n"), read_table("Carry,Apex\n120,20\n")
    with pytest.raises(ValueError, match="do not fit"):
        balls_of(table, guess(other, knowledge), "right", knowledge)


def test_a_low_point_has_a_column_and_a_limit_is_said_in_the_file_s_unit(
    knowledge: Knowledge,
) -> None:
    text = "Club,Low Point [in],Carry [yds]\n7i,2.0,150\n7i,-1.5,900\n"
    found = read(text, knowledge)
    assert found.balls[0].shot.low_point_cm == pytest.approx(2 * 2.54)
    (bad,) = found.bad
    assert re.fullmatch(r"it can be \d+ yd at most", bad.reason)
    series = values_of([Block(shots=tuple(b.shot for b in found.balls))], knowledge.numbers)
    assert series["low_point_cm"] == pytest.approx((5.08, -3.81))
