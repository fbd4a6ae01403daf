"""Where does a ball with this launch land?

Many balls at once: Runge-Kutta of fourth order in fixed steps, all balls of a batch side by side.

    x  along the target line     y  up     z  to the right of it      (right-handed: x × y = z)

Drag acts against the air's stream, lift at right angles to it and to the spin axis; spin dies away.
With the spin parameter S = radius × spin / airspeed,

    C_D = DRAG_SMOOTH + DRAG_SPIN × S        C_L = LIFT × S ** LIFT_POWER

the form of Smits & Ogg, "Aerodynamics of the golf ball" (2004), who give 0.24, 0.18, 0.54 and 0.4
with a dependence on Reynolds number (from memory). Here the first three are fitted to carries and
heights of skilled men and women, driver to wedge (`tests/core/trade_flights.py`); the orders of
size agree with Bearman & Harvey, "Golf ball aerodynamics", Aeronautical Quarterly 27 (1976).
"""

import math
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from firm_footing.core.frame.arrays import FloatArray

MASS_KG = 0.04593
"""The heaviest ball the Rules of Golf allow: 1.620 ounces."""
DIAMETER_M = 0.04267
"""The smallest ball the Rules of Golf allow: 1.680 inches."""
RADIUS_M = DIAMETER_M / 2
AREA_M2 = math.pi * RADIUS_M**2
GRAVITY_MPS2 = 9.80665

DRAG_SMOOTH, DRAG_SPIN, LIFT = 0.224, 0.291, 0.467
"""Fitted; see the module."""
LIFT_POWER = 0.4
"""Smits & Ogg (2004), from memory."""
SPIN_DECAY = 2.0e-5
"""Spin loses this × airspeed / radius of itself each second; Smits & Smith (1994), from memory."""

STANDARD_DENSITY = 1.225
"""Of air in kg/m³: dry, 15 °C, at sea level (International Standard Atmosphere)."""
STEP_S = 0.4
"""Halving it moves no landing by more than a centimetre."""
LONGEST_S = 30.0
BATCH = 4096
"""Balls worked on at once: few enough for all their numbers to stay in the processor's cache."""


class Launch(NamedTuple):
    """How balls leave the club; every array (n,).

    ball_speed_mps : above 0
    launch_deg : above the horizon
    direction_deg : + right of the target line
    spin_rpm : total spin
    spin_axis_deg : tilt of the axis, + tilts the lift to the right; 0 is pure backspin
    """

    ball_speed_mps: FloatArray
    launch_deg: FloatArray
    direction_deg: FloatArray
    spin_rpm: FloatArray
    spin_axis_deg: FloatArray


@dataclass(frozen=True)
class Air:
    """The air the ball flies through.

    density : kg/m³
    wind_mps : speed of the wind
    wind_from_deg : where it comes from, clockwise from the target: 0 is a headwind, 90 blows from
        the right to the left
    """

    density: float = STANDARD_DENSITY
    wind_mps: float = 0.0
    wind_from_deg: float = 0.0

    @property
    def wind(self) -> tuple[float, float]:
        """Velocity of the air along x and z, m/s."""
        toward = math.radians(self.wind_from_deg + 180.0)
        return self.wind_mps * math.cos(toward), self.wind_mps * math.sin(toward)


class Flight(NamedTuple):
    """Where balls came down, at the height they were hit from; every array (n,).

    carry_m : level distance from the ball's place to the landing
    side_m : from the target line, + right
    apex_m : greatest height
    time_s : in the air
    landing_deg : below the horizon
    """

    carry_m: FloatArray
    side_m: FloatArray
    apex_m: FloatArray
    time_s: FloatArray
    landing_deg: FloatArray


def air_density(temperature_c: float = 15.0, altitude_m: float = 0.0) -> float:
    """Density of dry air in kg/m³.

    Pressure at this altitude by the International Standard Atmosphere (ISO 2533), then the ideal
    gas law at this temperature. Altitudes from -500 to 5000 m.
    """
    pressure_pa: float = 101325.0 * (1 - 0.0065 * altitude_m / 288.15) ** 5.2559
    return pressure_pa / (287.053 * (temperature_c + 273.15))


def fly(launch: Launch, air: Air | None = None) -> Flight:
    """Fly every ball until it comes down to the height it was hit from.

    Raises
    ------
    ValueError
        When a ball does not leave upward, or stays up longer than any ball can.

    """
    arrays = _checked(launch)
    count = len(arrays.ball_speed_mps)
    parts = [
        _fly_batch(Launch(*(a[i : i + BATCH] for a in arrays)), air or Air())
        for i in range(0, count, BATCH)
    ]
    return Flight(*(np.concatenate(column) for column in zip(*parts, strict=True)))


def fly_drawn(launch: Launch, drawn: int, points: int) -> tuple[Flight, FloatArray]:
    """As `fly` in still air, with the ways of the first balls for drawing.

    Parameters
    ----------
    launch : arrays (n,), n at most `BATCH`
    drawn : how many of the balls are drawn
    points : places of each, evenly spaced in time from the club to the ground

    Returns
    -------
    flight : of all n balls
    tracks : (drawn, points, 3) places along, up, to the right; metres

    Raises
    ------
    ValueError
        As `fly`.

    """
    passed: list[tuple[FloatArray, FloatArray]] = []
    flight = _fly_batch(_checked(launch), Air(), passed)
    states, slopes = (np.stack([p[i][:, :drawn] for p in passed], axis=1) for i in (0, 1))
    times = np.linspace(0.0, 1.0, points)[:, None] * flight.time_s[:drawn] / STEP_S
    below = np.minimum(times.astype(int), len(passed) - 2)
    ball = np.arange(drawn)
    ends = [each[:, at, ball] for at in (below, below + 1) for each in (states, slopes)]
    places = [_cubic(row, times - below, np.stack(ends)) for row in range(3)]
    out: FloatArray = np.stack(places).transpose(2, 1, 0)
    return flight, out


def _checked(launch: Launch) -> Launch:
    arrays = Launch(*np.broadcast_arrays(*(np.atleast_1d(np.float64(a)) for a in launch)))
    if not (arrays.ball_speed_mps > 0).all() or not (arrays.launch_deg > 0).all():
        raise ValueError("a ball must leave with some speed, above the horizon")
    return arrays


def _fly_batch(
    launch: Launch, air: Air, passed: list[tuple[FloatArray, FloatArray]] | None = None
) -> Flight:
    """One batch, step by step; `passed` is given the balls' state and slope at every step."""
    state, axis = _start(launch)
    wind = np.array([[air.wind[0]], [0.0], [air.wind[1]]])
    share = 0.5 * air.density * AREA_M2 / MASS_KG
    count = state.shape[1]
    apex, step_down = np.zeros(count), np.full(count, -1)
    ends = np.zeros((4, *state.shape))
    slope = _slope(state, axis, wind, share)
    if passed is not None:
        passed.append((state, slope))
    for number in range(int(LONGEST_S / STEP_S)):
        after = _step(state, slope, axis, wind, share)
        slope_after = _slope(after, axis, wind, share)
        if passed is not None:
            passed.append((after, slope_after))
        top = np.flatnonzero((state[4] > 0) & (after[4] <= 0))
        if len(top):
            apex[top] = _apex(np.stack((state, slope, after, slope_after))[:, :, top])
        down = np.flatnonzero((step_down < 0) & (after[1] <= 0))
        for end, values in zip(ends, (state, slope, after, slope_after), strict=True):
            end[:, down] = values[:, down]
        step_down[down] = number
        if (step_down >= 0).all():
            return _landed(ends, step_down * STEP_S, apex)
        state, slope = after, slope_after
    raise ValueError(f"a ball was still in the air after {LONGEST_S:.0f} s")


def _start(launch: Launch) -> tuple[FloatArray, FloatArray]:
    """State (7, n): place, velocity, spin in rad/s; and the spin axis (3, n), a unit vector."""
    up, aside = np.radians(launch.launch_deg), np.radians(launch.direction_deg)
    tilt = np.radians(launch.spin_axis_deg)
    speed = launch.ball_speed_mps
    state = np.zeros((7, len(speed)))
    state[3] = speed * np.cos(up) * np.cos(aside)
    state[4] = speed * np.sin(up)
    state[5] = speed * np.cos(up) * np.sin(aside)
    state[6] = launch.spin_rpm * (2 * math.pi / 60)
    right = np.array([-np.sin(aside), np.zeros_like(aside), np.cos(aside)])
    above = np.array([-np.sin(up) * np.cos(aside), np.cos(up), -np.sin(up) * np.sin(aside)])
    return state, np.cos(tilt) * right - np.sin(tilt) * above


def _slope(state: FloatArray, axis: FloatArray, wind: FloatArray, share: float) -> FloatArray:
    """(7, n) change of the state per second.

    share : half the air's density × area / mass, 1/m
    """
    stream = state[3:6] - wind
    x, y, z = stream
    speed = np.sqrt(x * x + y * y + z * z)
    spin_parameter = RADIUS_M * state[6] / speed
    drag = share * (DRAG_SMOOTH + DRAG_SPIN * spin_parameter) * speed
    lift = share * LIFT * spin_parameter**LIFT_POWER * speed
    out = np.empty_like(state)
    out[0:3] = state[3:6]
    a, b, c = axis
    out[3] = -drag * x + lift * (b * z - c * y)
    out[4] = -drag * y + lift * (c * x - a * z) - GRAVITY_MPS2
    out[5] = -drag * z + lift * (a * y - b * x)
    out[6] = -SPIN_DECAY / RADIUS_M * speed * state[6]
    return out


def _step(
    state: FloatArray, slope: FloatArray, axis: FloatArray, wind: FloatArray, share: float
) -> FloatArray:
    """One Runge-Kutta step of the fourth order; `slope` is that at the state."""
    h = STEP_S
    second = _slope(state + (h / 2) * slope, axis, wind, share)
    third = _slope(state + (h / 2) * second, axis, wind, share)
    fourth = _slope(state + h * third, axis, wind, share)
    out: FloatArray = state + (h / 6) * (slope + 2 * (second + third) + fourth)
    return out


def _apex(ends: FloatArray) -> FloatArray:
    """Greatest height within the step in which the ball stops rising; `ends` as for `_landed`."""
    rising, falling = ends[0, 4], ends[2, 4]
    return _cubic(1, rising / (rising - falling), ends)


def _landed(ends: FloatArray, time_before: FloatArray, apex: FloatArray) -> Flight:
    """Where the height is zero on the cubic through both ends of the last step, by bisection.

    ends : (4, 7, n) state and slope before the step, state and slope after it
    """
    low, high = np.zeros(len(apex)), np.ones(len(apex))
    for _ in range(30):
        middle = (low + high) / 2
        above = _cubic(1, middle, ends) > 0
        low, high = np.where(above, middle, low), np.where(above, high, middle)
    part = (low + high) / 2
    x, z, vx, vy, vz = (_cubic(row, part, ends) for row in (0, 2, 3, 4, 5))
    return Flight(
        carry_m=np.hypot(x, z),
        side_m=z,
        apex_m=apex,
        time_s=time_before + part * STEP_S,
        landing_deg=np.degrees(np.arctan2(-vy, np.hypot(vx, vz))),
    )


def _cubic(row: int, part: FloatArray, ends: FloatArray) -> FloatArray:
    """One row of the state part of the way through a step: Hermite's cubic."""
    before, slope, after, slope_after = ends[:, row]
    rest = 1 - part
    left = before * (1 + 2 * part) + slope * STEP_S * part
    right = after * (1 + 2 * rest) - slope_after * STEP_S * rest
    out: FloatArray = left * rest**2 + right * part**2
    return out
