"""Where are the joints of the invented player, at every moment of a swing?

`figure.yaml` says where they are at the events and what each cause adds, by its severity. In
between they move smoothly (PCHIP). Elbows and knees follow: each limb of two bones bends where its
ends leave it to, so that bones keep their length.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache, cached_property
from pathlib import Path
from typing import Any, Final

import numpy as np
import yaml
from numpy.random import Generator
from scipy.interpolate import PchipInterpolator

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.film import FILM_EVENTS

NUMBERS: Final = Path(__file__).with_name("figure.yaml")
THROUGH: Final = "shaft_level_through"
MOMENTS: Final = (*FILM_EVENTS[:-2], THROUGH, *FILM_EVENTS[-2:])
"""The events, and the shaft level after impact, without which the club would stop at the ball."""
AFTER_IMPACT: Final = (THROUGH, "arms_level_through")
BENT: Final = ("lead_elbow", "lead_knee", "trail_knee", "lead_hip")
"""Joints that follow from their limbs, and that causes move besides."""
STAND: Final = ("lead_heel", "trail_heel", "lead_toe", "trail_toe")
"""Joints on the ground do not differ by chance upward."""


@dataclass(frozen=True)
class Swing:
    """One swing.

    seconds : moment to when it is, 0 is address
    joints : joint to (moments, 3) centimetres: toward the target, toward the ball, up
    """

    seconds: Mapping[str, float]
    joints: Mapping[str, FloatArray]

    @cached_property
    def _curve(self) -> PchipInterpolator:
        """(moments, joints, 3) joined up smoothly."""
        times = [self.seconds[m] for m in MOMENTS]
        return PchipInterpolator(times, np.stack(list(self.joints.values()), axis=1))

    def at(self, t: float | FloatArray) -> dict[str, FloatArray]:
        """Joint to (..., 3) places at (...) moments; before and after the swing it stands."""
        when = np.clip(t, self.seconds["address"], self.seconds["finish"])
        places = np.moveaxis(self._curve(when), -2, 0)
        return _whole(dict(zip(self.joints, places, strict=True)))


@cache
def numbers() -> dict[str, Any]:
    """What `figure.yaml` holds."""
    found: dict[str, Any] = yaml.safe_load(NUMBERS.read_text(encoding="utf-8"))
    return found


def swing(
    severity: Mapping[str, float], person: Generator, again: Generator, *, anyone: bool = False
) -> Swing:
    """A swing of someone with these causes.

    severity : cause id to how strongly it is there, 1 on average
    person : draws what differs between people; again : from swing to swing
    anyone : whether the causes show in this person as they show in people, more here and less
        there, beside habits that no cause brought about; else they show as `figure.yaml` has them
    """
    n = numbers()
    own = person.spawn(1)[0]
    shows: list[tuple[Mapping[str, Any], float]] = [
        (n["causes"].get(cause, {}), strength) for cause, strength in severity.items()
    ]
    spread = n["shows_spread"] if anyone else 0.0
    if anyone:
        shows += [(h["moves"], 1.0) for h in n["habits"] if own.random() < h["share"]]

    def moved(joint: str) -> FloatArray:
        out = np.zeros((len(MOMENTS), 3))
        for moves, strength in shows:
            if joint in moves:
                here = np.exp(spread * own.standard_normal() - spread**2 / 2)
                out += strength * here * _moved(moves[joint])
        return out

    size = float(np.exp(n["height_spread"] * person.standard_normal()))
    joints = {}
    for name, places in sorted({**n["joints"], "club": n["club"]}.items()):
        path = np.broadcast_to(np.array(places, dtype=np.float64), (len(MOMENTS), 3)) + moved(name)
        off = person.normal(0, n["person_cm"], 3) + again.normal(0, n["again_cm"], path.shape)
        if anyone:
            off = off + own.normal(0, n["anyone_cm"], path.shape)
        joints[name] = _settled(name, path, off, size)
    for name in BENT:
        joints[f"{name}_off"] = moved(name)
    turned = np.array(n["hips_turned_deg"], dtype=np.float64)[:, None] * [1.0, 0.0, 0.0]
    joints["turned"] = turned
    tempo = float(np.exp(0.06 * person.standard_normal()))
    return Swing({e: t * tempo for e, t in n["seconds"].items()}, joints)


def _settled(name: str, path: FloatArray, own: FloatArray, size: float) -> FloatArray:
    if name in ("club", "ball"):
        return path
    if name in STAND:
        own = own * [1.0, 1.0, 0.0]
        own = own[:1] + np.zeros_like(own)  # a shoe does not move by chance
    return path * [1.0, 1.0, size] + own


def _moved(by_event: Mapping[str, Any]) -> FloatArray:
    """(moments, 3) what is added; what impact has, the moments after it have too."""
    nothing = by_event.get("all", [0.0, 0.0, 0.0])
    by_event = {**dict.fromkeys(AFTER_IMPACT, by_event.get("impact", nothing)), **by_event}
    return np.array([by_event.get(event, nothing) for event in MOMENTS], dtype=np.float64)


def _whole(at: dict[str, FloatArray]) -> dict[str, FloatArray]:
    """The joints that follow, and the club at its length."""
    n = numbers()
    turned = np.radians(at.pop("turned")[..., 0])
    level = np.zeros_like(turned)
    across = n["hip_half_cm"] * np.stack([np.cos(turned), -np.sin(turned), level], axis=-1)
    at["lead_hip"], at["trail_hip"] = at["hips"] + across, at["hips"] - across
    toward = at.pop("club")
    at["club_head"] = at["hands"] + n["club_cm"] * toward / _long(toward)
    arms, legs = (n["upper_arm_cm"], n["lower_arm_cm"]), (n["thigh_cm"], n["shin_cm"])
    for side, out in (("lead", 1.0), ("trail", -1.0)):
        bend = np.array([0.4 * out, -0.3, -0.6])
        at[f"{side}_elbow"] = _between(at[f"{side}_shoulder"], at["hands"], arms, bend)
        ankle = at[f"{side}_heel"] + np.array([0.0, 4.0, 7.0])
        bend = np.array([0.35 * out, 1.0, 0.0])
        at[f"{side}_knee"] = _between(at[f"{side}_hip"], ankle, legs, bend)
    for name in BENT:
        at[name] = at[name] + at.pop(f"{name}_off")
    return at


def _between(
    start: FloatArray, end: FloatArray, bones: tuple[float, float], toward: FloatArray
) -> FloatArray:
    """The joint of two bones from start to end that bends this way; stretched where too far."""
    along = end - start
    far = _long(along)
    one, other = bones
    part = (far**2 + one**2 - other**2) / (2 * far)
    aside = toward - along * (along @ toward)[..., None] / far**2
    height = np.sqrt(np.maximum(one**2 - part**2, 0.0))
    bent = along * part / far + height * aside / _long(aside)
    return np.where(far >= one + other, start + along * one / (one + other), start + bent)


def _long(arrow: FloatArray) -> FloatArray:
    """(..., 1) how long (..., 3) arrows are."""
    out: FloatArray = np.linalg.norm(arrow, axis=-1, keepdims=True)
    return out
