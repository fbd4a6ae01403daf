r"""How does a ball leave the club?

Head and ball as two rigid bodies that touch for an instant. The impulse follows from what the two
surfaces do to each other at the point of contact: along the face's normal they part with
`restitution` of the speed they met with; across it the ball grips, and springs back a little.

              n  face's normal, where the ball was struck
        u    /                                          u0  head against ball before
         \  /  ) spin loft                              J   impulse on the ball
          \/----> V  club head's way                    K   how both give way to an impulse
                                                        J = K⁻¹ (u0 + what they part with)

Heel and toe, high and low come out of this: the head turns under a blow away from its centre of
mass, gives less, and drags the ball's surface along with it (the gear effect, large where the
centre of mass lies far behind the face). The rolling-sphere limit and its excess spin: Cross,
"Grip-slip behavior of a bouncing ball", Am. J. Phys. 70 (2002); bulge, roll and gear effect:
Cochran & Stobbs, "Search for the Perfect Swing" (1968), and Penner, "The physics of golf", Rep.
Prog. Phys. 66 (2003); all from memory. Sizes of heads are values of the trade, from memory.
"""

import math
from typing import NamedTuple

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.clubs import Club
from firm_footing.core.physics.flight import MASS_KG, RADIUS_M, Launch

BALL_INERTIA = 0.4 * MASS_KG * RADIUS_M**2
"""Of a uniform sphere, kg m²; a real ball's lies within a few per cent of it."""
FRICTION = 0.40
"""Most the face can pull across for its push; reached by lob wedges only. From memory."""
HOSEL_FROM_MM = -27.0
"""Struck this far to the heel the ball meets the hosel; common practice, about -25."""
HOSEL_DIRECTION_DEG, HOSEL_SPEED, HOSEL_SPIN_RPM = 32.0, 0.60, 2500.0
"""A shank leaves far to the push side of the path, at part of the speed. Estimates."""
HOSEL_LAUNCH_DEG = 12.0
LEAST_LAUNCH_DEG = 0.5
"""A ball struck into the ground hops off at about this."""


class Delivery(NamedTuple):
    """How the club meets the ball; every array (n,).

    club_speed_mps : above 0
    path_deg : + push side (in-to-out)
    face_deg : to the target line, + push side
    attack_deg : + up
    dynamic_loft_deg : of the face's middle, above the horizon
    heel_toe_mm : from the face's middle, + toe
    low_high_mm : from the face's middle, + high
    """

    club_speed_mps: FloatArray
    path_deg: FloatArray
    face_deg: FloatArray
    attack_deg: FloatArray
    dynamic_loft_deg: FloatArray
    heel_toe_mm: FloatArray
    low_high_mm: FloatArray


def strike(delivery: Delivery, club: Club) -> Launch:
    """Launch of every ball, direction and axis + push side.

    A topped ball would leave below the horizon; it is given `LEAST_LAUNCH_DEG`.
    """
    d = Delivery(*np.broadcast_arrays(*(np.atleast_1d(np.float64(a)) for a in delivery)))
    frame = _face(d, club)
    velocity = d.club_speed_mps * _unit(d.attack_deg, d.path_deg)
    impulse = _impulse(d, club, (frame * velocity).sum(axis=1))
    # the impulse turns the ball about its middle, a radius behind the face
    across, along = (-RADIUS_M / BALL_INERTIA) * impulse[1:]
    spin = across * frame[2] - along * frame[1]
    launch = _leaving((frame * impulse[:, None]).sum(axis=0) / MASS_KG, spin)
    return _with_hosel(launch, d, club)


def _unit(up_deg: FloatArray, aside_deg: FloatArray) -> FloatArray:
    """(3, n) of length one: along the target line, up, push side."""
    up, aside = np.radians(up_deg), np.radians(aside_deg)
    return np.stack((np.cos(up) * np.cos(aside), np.sin(up), np.cos(up) * np.sin(aside)))


def _face(d: Delivery, club: Club) -> FloatArray:
    """(3, 3, n) the face where the ball was struck: its normal, up the face, toward the toe.

    Each along the target line, up and to the push side; normal × up = toe.
    """
    head = club.head
    loft, face = d.dynamic_loft_deg, d.face_deg
    if head.bulge_mm is not None:
        face = face + np.degrees(d.heel_toe_mm / head.bulge_mm)
    if head.roll_mm is not None:
        loft = loft + np.degrees(d.low_high_mm / head.roll_mm)
    toe = _unit(np.zeros_like(face), face + 90.0)
    return np.stack((_unit(loft, face), _unit(loft + 90.0, face), toe))


def _impulse(d: Delivery, club: Club, velocity: FloatArray) -> FloatArray:
    """(3, n) impulse on the ball, N s; it and the head's velocity along normal, up and toe."""
    head = club.head
    mass, depth = club.head_mass_g / 1000, head.depth_mm / 1000
    right, above = d.heel_toe_mm / 1000, d.low_high_mm / 1000
    about_up = 1 / (head.inertia_vertical_g_cm2 * 1e-7)
    about_toe = 1 / (head.inertia_heel_toe_g_cm2 * 1e-7)
    # how both give way: K, whose up and toe do not touch each other
    both = 1 / MASS_KG + 1 / mass
    rolling = both + RADIUS_M**2 / BALL_INERTIA
    normal = both + about_up * right**2 + about_toe * above**2
    up, normal_up = rolling + about_toe * depth**2, -about_toe * depth * above
    toe, normal_toe = rolling + about_up * depth**2, -about_up * depth * right
    off_cm2 = (d.heel_toe_mm**2 + d.low_high_mm**2) / 100
    restitution = np.maximum(0.3, club.restitution - head.restitution_lost_per_cm2 * off_cm2)
    parted = velocity * np.stack((1 + restitution, *np.full((2, len(right)), club.grip)))
    push = parted[0] - normal_up * parted[1] / up - normal_toe * parted[2] / toe
    push = push / (normal - normal_up**2 / up - normal_toe**2 / toe)
    pull_up, pull_toe = (parted[1] - normal_up * push) / up, (parted[2] - normal_toe * push) / toe
    size = np.hypot(pull_up, pull_toe)
    held = np.minimum(1.0, FRICTION * push / np.maximum(size, 1e-12))
    return np.stack((push, held * pull_up, held * pull_toe))


def _leaving(velocity: FloatArray, spin: FloatArray) -> Launch:
    """Speed, direction and tilt of (3, n); what spins about the ball's own way is left out."""
    speed = np.sqrt((velocity**2).sum(axis=0))
    launch = np.degrees(np.arcsin(velocity[1] / speed))
    direction = np.degrees(np.arctan2(velocity[2], velocity[0]))
    right = _unit(np.zeros_like(direction), direction + 90.0)
    above = _unit(launch + 90.0, direction)
    back, side = (spin * right).sum(axis=0), -(spin * above).sum(axis=0)
    return Launch(
        ball_speed_mps=speed,
        launch_deg=np.maximum(launch, LEAST_LAUNCH_DEG),
        direction_deg=direction,
        spin_rpm=np.hypot(back, side) * 60 / (2 * math.pi),
        spin_axis_deg=np.degrees(np.arctan2(side, back)),
    )


def _with_hosel(launch: Launch, d: Delivery, club: Club) -> Launch:
    """Balls that met the hosel leave as shanks do."""
    hosel = d.heel_toe_mm <= HOSEL_FROM_MM
    if club.kind in ("driver", "wood") or not hosel.any():
        return launch
    shank = Launch(
        ball_speed_mps=HOSEL_SPEED * d.club_speed_mps * 1.3,
        launch_deg=np.full_like(d.path_deg, HOSEL_LAUNCH_DEG),
        direction_deg=d.path_deg + HOSEL_DIRECTION_DEG,
        spin_rpm=np.full_like(d.path_deg, HOSEL_SPIN_RPM),
        spin_axis_deg=np.full_like(d.path_deg, 10.0),
    )
    return Launch(*(np.where(hosel, a, b) for a, b in zip(shank, launch, strict=True)))
