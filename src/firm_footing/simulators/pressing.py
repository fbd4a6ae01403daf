"""How would a student with known causes press into a mat?

The body's mass is an upright pendulum over the feet: the pressure must lead it, by its acceleration
over the square of the pendulum's rate,

    pressure = mass - acceleration / rate^2 + turning moments.

A sound player's mass is the one whose pressure runs through the middle of the school's corridor.
Causes move the mass, its timing, the moments and the feet (`pressing.yaml`); the signs follow.
"""

import math
from dataclasses import dataclass
from functools import lru_cache
from importlib import resources
from typing import Final

import numpy as np
import yaml
from numpy.random import Generator
from pydantic import TypeAdapter

from firm_footing.core.case import Trace
from firm_footing.core.case.evidence import PressureSchool
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.pressure import SWING_EVENTS, Ranges, SwingEvent
from firm_footing.core.knowledge.vocabulary import Entry
from firm_footing.simulators.student import SimulatedStudent

RATE_PER_S: Final = math.sqrt(9.81 / 1.0)
"""Of the pendulum: the mass a metre up."""
FINE_S: Final = 0.002
BEFORE_S, AFTER_S = 0.5, 0.6
COLUMNS: Final = (
    "t", "lead_pct", "lead_toe_pct", "trail_toe_pct", "vertical_pct_bw", "lateral_pct_bw",
    "torque_nm",
)  # fmt: skip

# People differ, and no two swings are alike. Estimates of ours.
BACKSWING_S, BACKSWING_SD_S = 0.82, 0.07
TEMPO, TEMPO_SD = 3.0, 0.25
FORWARD_LOST_PER_STROKE, FORWARD_SD = 0.003, 0.05
PERSON_SHARE_SD, PERSON_TOE_SD, PERSON_DELAY_SD_S = 3.0, 7.0, 0.018
SWING_SHARE_SD, SWING_TOE_SD, SWING_DELAY_SD_S = 1.5, 3.0, 0.01
JUMP_SD_S = 0.014
TURNING_SD = 3.5


class Push(Entry):
    """One push: about an event, so wide (s), so large (per cent)."""

    at: SwingEvent
    width_s: float
    size: float


class Pressing(Entry):
    """What one cause does; see `pressing.yaml`."""

    delay_s: float = 0.0
    load_s: float = 0.0
    forward: float = 0.0
    mass: tuple[Push, ...] = ()
    turning: tuple[Push, ...] = ()
    lead_toe: tuple[Push, ...] = ()
    trail_toe: tuple[Push, ...] = ()
    jump_s: float = 0.0


@lru_cache(maxsize=1)
def pressings() -> dict[str, Pressing]:
    """Cause to what it does; causes that are left out do nothing to the feet."""
    text = resources.files("firm_footing.simulators").joinpath("pressing.yaml").read_text("utf-8")
    return TypeAdapter(dict[str, Pressing]).validate_python(yaml.safe_load(text))


@dataclass(frozen=True)
class Habit:
    """How this student moves, whatever the swing: timing and feet, causes aside."""

    backswing_s: float
    tempo: float
    forward: float
    delay_s: float
    share: float
    toe: tuple[float, float]
    jump_s: float
    turning: float


def habit_of(student: SimulatedStudent, rng: Generator) -> Habit:
    """Draw one person; a higher handicap moves less toward the target."""
    handicap = max(0.0, student.handicap)
    return Habit(
        backswing_s=float(rng.normal(BACKSWING_S, BACKSWING_SD_S)),
        tempo=float(np.clip(rng.normal(TEMPO, TEMPO_SD), 2.3, 3.8)),
        forward=float(rng.normal(-FORWARD_LOST_PER_STROKE * handicap, FORWARD_SD)),
        delay_s=float(rng.normal(0, PERSON_DELAY_SD_S)),
        share=float(rng.normal(0, PERSON_SHARE_SD)),
        toe=(float(rng.normal(0, PERSON_TOE_SD)), float(rng.normal(0, PERSON_TOE_SD))),
        jump_s=float(rng.normal(0, JUMP_SD_S)),
        turning=float(rng.normal(0, TURNING_SD)),
    )


def press(
    student: SimulatedStudent,
    habit: Habit,
    school: PressureSchool,
    knowledge: Knowledge,
    rng: Generator,
    rate_hz: float = 100.0,
    noise_pct: float = 1.0,
    name_events: bool = False,
) -> Trace:
    """One swing on the mat.

    noise_pct : standard deviation of each share; half of it on the vertical force
    name_events : whether the device names address, top and impact, as one with a camera does
    """
    at = _moments(habit, rng)
    t = np.arange(at["address"] - BEFORE_S, at["impact"] + AFTER_S, FINE_S)
    does = [(s, pressings()[c]) for c, s in student.severity.items() if c in pressings()]
    lead = _lead(t, at, does, habit, school, knowledge, rng)
    toes = [
        50.0 + habit.toe[i] + rng.normal(0, SWING_TOE_SD) + _pushes(t, at, does, foot)
        for i, foot in enumerate(("lead_toe", "trail_toe"))
    ]
    toes[0] -= 12 * _rise(t, at["lead_arm_level_down"], at["finish"])  # ends in the lead heel
    toes[1] += 35 * _rise(t, at["impact"], at["finish"])  # the trail heel comes up
    vertical = _vertical(t, at, does, habit, rng)
    sampled = np.arange(t[0], t[-1], 1.0 / rate_hz)
    shares = [_within(c) for c in (lead, *toes)]
    noisy = [np.interp(sampled, t, c) + rng.normal(0, noise_pct, len(sampled)) for c in shares]
    forces = [
        np.interp(sampled, t, force) + rng.normal(0, noise_pct / 2, len(sampled))
        for force in (vertical, _sideways(t, at), _turning(t, at))
    ]
    columns = [sampled, *(np.clip(c, 0, 100) for c in noisy), *forces]
    rows = np.round(np.stack(columns, axis=1), 3).tolist()
    named: tuple[SwingEvent, ...] = ("address", "top", "impact") if name_events else ()
    return Trace(
        columns=COLUMNS,
        samples=tuple(tuple(row) for row in rows),
        events={name: round(at[name], 3) for name in named},
    )


def _moments(habit: Habit, rng: Generator) -> dict[SwingEvent, float]:
    """When this swing's events are; impact at zero."""
    back = habit.backswing_s * (1 + rng.normal(0, 0.02))
    down = habit.backswing_s / habit.tempo * (1 + rng.normal(0, 0.02))
    top, address = -down, -down - back
    moments = (
        address, address + 0.5 * back, address + 0.7 * back, top, top + 0.6 * down,
        top + 0.8 * down, 0.0, 0.4,
    )  # fmt: skip
    return dict(zip(SWING_EVENTS, moments, strict=True))


Does = list[tuple[float, Pressing]]


def _lead(
    t: FloatArray,
    at: dict[SwingEvent, float],
    does: Does,
    habit: Habit,
    school: PressureSchool,
    knowledge: Knowledge,
    rng: Generator,
) -> FloatArray:
    """(n,) lead share before it is bounded."""
    mass = _sound_mass(t, at, knowledge.corridors.lead_pct[school])
    # a grave case is not twice as late as a usual one: the ball has to be hit
    delay = sum(math.sqrt(s) * p.delay_s for s, p in does)
    delay += habit.delay_s + rng.normal(0, SWING_DELAY_SD_S)
    load = sum(math.sqrt(s) * p.load_s for s, p in does)
    down = _rise(t, at["lead_arm_level_back"], at["top"])
    mass = np.interp(t - delay * down - load * (1 - down), t, mass)
    forward = max(0.05, 1 + habit.forward + sum(s * p.forward for s, p in does))
    turns = int(np.argmin(np.where(t < at["impact"], mass, np.inf)))
    later = np.arange(len(t)) > turns
    mass = np.where(later, mass[turns] + forward * (mass - mass[turns]), mass)
    mass = _smooth(mass, 0.02) + _pushes(t, at, does, "mass")
    acceleration = np.gradient(np.gradient(mass, FINE_S), FINE_S)
    turning = _pushes(t, at, does, "turning")
    turning += habit.turning * _bump(t, at["impact"], 0.1)
    drift = habit.share + rng.normal(0, SWING_SHARE_SD)
    return _smooth(mass - acceleration / RATE_PER_S**2 + turning + drift, 0.02)


def _sound_mass(t: FloatArray, at: dict[SwingEvent, float], corridor: Ranges) -> FloatArray:
    """(n,) place of the mass whose pressure goes through the corridor's middle."""
    middle: dict[SwingEvent, float] = {name: sum(ends) / 2 for name, ends in corridor.items()}
    times = [t[0], *(at[e] for e in middle), at["finish"], t[-1]]
    shares = [middle["address"], *middle.values(), 92.0, 92.0]
    pressure = _smooth(np.interp(t, times, shares), 0.06)
    reach = np.arange(-1.5, 1.5 + FINE_S / 2, FINE_S)
    kernel = np.exp(-RATE_PER_S * np.abs(reach))
    wide = np.pad(pressure, len(reach) // 2, mode="edge")
    out: FloatArray = np.convolve(wide, kernel / kernel.sum(), mode="valid")
    return out


def _vertical(
    t: FloatArray, at: dict[SwingEvent, float], does: Does, habit: Habit, rng: Generator
) -> FloatArray:
    """(n,) per cent of body weight: lighter at the top, then the push off the ground."""
    early = sum(s * p.jump_s for s, p in does) + habit.jump_s + rng.normal(0, 0.006)
    pushed = (at["lead_arm_level_down"] + at["shaft_level_down"]) / 2 - early
    return (
        100.0
        - 14 * _bump(t, at["top"] - 0.03 - early / 2, 0.07)
        + 48 * _bump(t, pushed, 0.07)
        - 12 * _bump(t, at["impact"] + 0.1, 0.06)
    )


def _sideways(t: FloatArray, at: dict[SwingEvent, float]) -> FloatArray:
    """(n,) per cent of body weight, + toward the target: the first of the three to peak."""
    return 16.0 * _bump(t, (at["top"] + at["lead_arm_level_down"]) / 2, 0.06)


def _turning(t: FloatArray, at: dict[SwingEvent, float]) -> FloatArray:
    """(n,) newton metres, + toward the target: peaks with the lead arm level."""
    return 55.0 * _bump(t, at["lead_arm_level_down"], 0.06)


def _pushes(t: FloatArray, at: dict[SwingEvent, float], does: Does, what: str) -> FloatArray:
    total = np.zeros_like(t)
    for severity, pressing in does:
        for push in getattr(pressing, what):
            total += severity * push.size * _bump(t, at[push.at], push.width_s)
    return total


def _bump(t: FloatArray, at: float, width_s: float) -> FloatArray:
    out: FloatArray = np.exp(-0.5 * ((t - at) / width_s) ** 2)
    return out


def _rise(t: FloatArray, start: float, end: float) -> FloatArray:
    part = np.clip((t - start) / (end - start), 0, 1)
    out: FloatArray = part * part * (3 - 2 * part)
    return out


def _smooth(values: FloatArray, sd_s: float) -> FloatArray:
    reach = np.arange(-4 * sd_s, 4 * sd_s + FINE_S / 2, FINE_S)
    kernel = np.exp(-0.5 * (reach / sd_s) ** 2)
    wide = np.pad(values, len(reach) // 2, mode="edge")
    out: FloatArray = np.convolve(wide, kernel / kernel.sum(), mode="valid")
    return out[: len(values)]


def _within(share: FloatArray) -> FloatArray:
    """A foot carries from nothing to everything: bounded softly."""
    edge = 6.0
    low = np.logaddexp(0, share / edge) * edge
    out: FloatArray = 100 - np.logaddexp(0, (100 - low) / edge) * edge
    return out
