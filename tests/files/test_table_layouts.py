"""Tables as made-up devices and people write them, each with the balls it is known to hold.

All layouts are inventions of these tests. Units are exact: a mile is 1609.344 m, a yard 0.9144 m, a
foot 0.3048 m, an inch 25.4 mm (international yard and pound agreement, 1959).
"""

from typing import Any, NamedTuple

import pytest

from firm_footing.core.knowledge import Knowledge
from firm_footing.files.shot_tables import Read, balls_of, guess, read_table

MPH, YD, FT, KMH = 1609.344 / 3600, 0.9144, 0.3048, 1 / 3.6


class Layout(NamedTuple):
    """A table and the values of its first ball, for a right-hander."""

    text: str
    first: dict[str, Any]
    balls: int


LAYOUTS = {
    "abbreviated, units in brackets": Layout(
        "Ball Spd (mph),Club Spd (mph),Carry Dist. (yds),AoA,Push/Pull,V-Launch\n"
        "104.2,80.1,141,-4.1,3.1 L,18.2\n103.0,79.4,139,-3.9,L 2,17.9\n",
        {"ball_speed_mps": 104.2 * MPH, "club_speed_mps": 80.1 * MPH, "carry_m": 141 * YD,
         "attack_deg": -4.1, "start_deg": -3.1, "launch_deg": 18.2},
        2,
    ),
    "units in a row of their own, commas": Layout(
        "Shot;Club Head Speed;Carry;Spin Rate;H. Launch\n;[km/h];[m];[rpm];[°]\n"
        "1;128,5;129,4;6.480;-2,5\n2;127,0;127,9;6.350;-1,5\n",
        {"club_speed_mps": 128.5 * KMH, "carry_m": 129.4, "spin_rpm": 6480, "start_deg": -2.5},
        2,
    ),
    "no unit anywhere: by what can be": Layout(
        "Ball speed\tClub speed\tCarry\n168\t129\t131\n166\t128\t129\n",
        {"ball_speed_mps": 168 * KMH, "club_speed_mps": 129 * KMH, "carry_m": 131},
        2,
    ),
    "miles an hour beside a carry without a unit": Layout(
        "Club,Carry,Ball Speed [mph]\n7i,148,108\n7i,151,110\n",
        {"carry_m": 148 * YD, "ball_speed_mps": 108 * MPH},
        2,
    ),
    "words run together, unit at the end": Layout(
        "ShotNo,ClubSpeedMph,CarryYds,LaunchDirectionDeg\n1,81,150,-1.5\n",
        {"club_speed_mps": 81 * MPH, "carry_m": 150 * YD, "start_deg": -1.5},
        1,
    ),
    "under scores": Layout(
        "club_speed_mps,carry_m,face_angle,club_path,dynamic_loft\n36.2,131.5,1.2,-3.4,24\n",
        {"club_speed_mps": 36.2, "carry_m": 131.5, "face_deg": 1.2, "path_deg": -3.4,
         "dynamic_loft_deg": 24},
        1,
    ),
    "sides in words, thousands, dashes": Layout(
        "Carry (yd),Spin,Spin axis,Offline,Peak height (ft)\n"
        '"141","6,245",12.4 R,9 right,78\n138,-,8.0 L,4 left,75\n',
        {"carry_m": 141 * YD, "spin_rpm": 6245, "spin_axis_deg": 12.4, "side_m": 9 * YD,
         "apex_m": 78 * FT},
        2,
    ),
    "strike with its side, divot in inches": Layout(
        "Impact offset [mm],Impact height [mm],Divot start\n"
        "9 heel,4 low,4 in.\n6 toe,2 high,2 in.\n",
        {"heel_toe_mm": -9, "low_high_mm": -4, "divot_start_cm": 4 * 2.54},
        2,
    ),
    "what is none of ours beside it": Layout(
        "Face to Path,Smash Factor,Total Dist,Landing Angle,Club Path,Face Angle\n"
        "4.4,1.33,151,46,-5.1,-0.7\n",
        {"path_deg": -5.1, "face_deg": -0.7, "carry_m": None, "launch_deg": None},
        1,
    ),
    "title, settings and averages around": Layout(
        "Evening session;;\nBay;4;\n\nShot;Carry [m];Side [m]\n1;120;-6\n2;124;-2\n"
        "Average;122;-4\n",
        {"carry_m": 120, "side_m": -6},
        2,
    ),
    "slips of the pen, another order": Layout(
        "Lateral (m);Bal Speed (m/s);Cary (m)\n3;46,5;127\n",
        {"side_m": 3, "ball_speed_mps": 46.5, "carry_m": 127},
        1,
    ),
    "bars and units in the cells": Layout(
        "Carry|Ball speed|Launch\n152 yds|109 mph|17.5°\n",
        {"carry_m": 152 * YD, "ball_speed_mps": 109 * MPH, "launch_deg": 17.5},
        1,
    ),
    "apostrophes part thousands, a minus sign proper": Layout(
        "Spin rate (rpm);Attack ang.;Swing speed (km/h)\n6'310;\u22124,2;129\n",
        {"spin_rpm": 6310, "attack_deg": -4.2, "club_speed_mps": 129 * KMH},
        1,
    ),
    "club by name": Layout(
        "Club used,Carry [yds],Launch angle\nPitching Wedge,118,26\nIron 9,130,22\n",
        {"carry_m": 118 * YD, "launch_deg": 26},
        2,
    ),
}  # fmt: skip


def read(text: str, knowledge: Knowledge, club: str = "7i", **more: Any) -> Read:
    table = read_table(text)
    columns = guess(table, knowledge, club)
    return balls_of(table, columns, "right", knowledge, club=club, **more)


@pytest.mark.parametrize("name", LAYOUTS)
def test_a_layout_is_read_as_it_is_meant(knowledge: Knowledge, name: str) -> None:
    layout = LAYOUTS[name]
    found = read(layout.text, knowledge)
    assert len(found.balls) == layout.balls
    assert found.doubtful == ()
    shot = found.balls[0].shot
    for field, value in layout.first.items():
        wanted = None if value is None else pytest.approx(value, abs=2e-4)
        assert getattr(shot, field) == wanted, field


def test_a_bad_cell_costs_that_cell(knowledge: Knowledge) -> None:
    found = read("Carry [m],Launch,Ball speed [m/s]\n120,fast,47\n121,17,-\n,,\n", knowledge)
    assert [b.shot.carry_m for b in found.balls] == [120, 121]
    assert found.balls[0].shot.ball_speed_mps == 47
    assert [(b.line, b.heading, b.cell, b.reason) for b in found.bad] == [
        (2, "Launch", "fast", "not a number")
    ]


def test_what_can_hardly_be_is_named_and_left_out_unless_it_is_wanted(
    knowledge: Knowledge,
) -> None:
    text = "Club,Ball speed [m/s],Carry [m]\n7i,98,131\n7i,47,129\nD,71,213\n"
    found = read(text, knowledge)
    (doubt,) = found.doubtful
    assert (doubt.line, doubt.heading, doubt.cell) == (2, "Ball speed", "98")
    assert doubt.reason == "98 m/s: with a 7 iron between 15 and 70 is possible"
    assert [b.shot.ball_speed_mps for b in found.balls] == [None, 47, 71]
    assert [b.shot.carry_m for b in found.balls] == [131, 129, 213]
    (in_mph,) = read("Ball speed [mph]\n219\n105\n", knowledge).doubtful
    assert in_mph.reason == "219 mph: with a 7 iron between 34 and 157 is possible"
    kept = read(text, knowledge, keep_doubtful=True)
    assert kept.balls[0].shot.ball_speed_mps == 98
    assert kept.doubtful == found.doubtful  # named all the same


def test_a_row_without_a_club_is_judged_by_the_block_s(knowledge: Knowledge) -> None:
    text = "Carry [m],Ball speed [m/s]\n230,72\n228,71\n"
    assert read(text, knowledge, club="d").doubtful == ()
    assert {d.cell for d in read(text, knowledge, club="9i").doubtful} == {"72", "71"}


def test_a_unit_in_the_heading_is_there_when_a_column_is_assigned_by_hand(
    knowledge: Knowledge,
) -> None:
    columns = guess(read_table("Velo ball (mph),Carry (yds)\n104,140\n"), knowledge)
    assert (columns[0].field, columns[0].unit) == (None, "mph")


def test_a_side_that_a_cell_names_is_not_turned_with_the_column(knowledge: Knowledge) -> None:
    table = read_table("Carry [m],Spin axis\n120,12 R\n121,-4\n")
    columns = [
        c.model_copy(update={"positive": "left"}) if c.field == "spin_axis_deg" else c
        for c in guess(table, knowledge)
    ]
    found = balls_of(table, columns, "right", knowledge)
    assert [b.shot.spin_axis_deg for b in found.balls] == [12, 4]
