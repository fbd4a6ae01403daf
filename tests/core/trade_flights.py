"""What skilled men and women do with each club: values of the trade, averages, from memory.

Ball speed in mph, launch in degrees, spin in rpm, carry and greatest height in yards. Heights are
rounder numbers than carries. No source can be named for them but the trade's common knowledge.
"""

import numpy as np

from firm_footing.core.physics.flight import Launch

MEN = """
d 167 10.9 2686 275 32
3w 158 9.2 3655 243 30
5w 152 9.4 4350 230 31
3h 146 10.2 4437 225 29
3i 142 10.4 4630 212 27
4i 137 11.0 4836 203 28
5i 132 12.1 5361 194 31
6i 127 14.1 6231 183 30
7i 120 16.3 7097 172 32
8i 115 18.1 7998 160 31
9i 109 20.4 8647 148 30
pw 102 24.2 9304 136 29
"""
WOMEN = """
d 140 13.2 2611 218 25
3w 132 11.2 2704 195 23
5w 128 12.1 4501 185 26
4h 116 14.3 4801 169 24
5i 112 14.8 5081 161 23
6i 109 17.1 5943 152 25
7i 104 19.0 6699 141 26
8i 100 20.8 7494 130 25
9i 93 23.9 7589 119 26
pw 86 25.6 8403 107 23
"""
ROWS = [line.split() for line in (MEN + WOMEN).split("\n") if line]
NAMES = [f"{row[0]}-{i}" for i, row in enumerate(ROWS)]
_TABLE = np.array([[float(v) for v in row[1:]] for row in ROWS])
YARD_M, MPH_MPS = 0.9144, 0.44704

LAUNCHES = Launch(
    ball_speed_mps=_TABLE[:, 0] * MPH_MPS,
    launch_deg=_TABLE[:, 1],
    direction_deg=np.zeros(len(ROWS)),
    spin_rpm=_TABLE[:, 2],
    spin_axis_deg=np.zeros(len(ROWS)),
)
CARRY_M = _TABLE[:, 3] * YARD_M
APEX_M = _TABLE[:, 4] * YARD_M
FITTED = np.arange(0, len(ROWS), 2)
"""Every other club of the table was fitted to; the others only test."""
TESTED = np.arange(1, len(ROWS), 2)
