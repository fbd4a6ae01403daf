"""What does the miss and its cause look like, as one drawing?

On the left the student's own stance from above with the cause's chain: the part of the shoe lit, a
number and an arrow at each link, the club's way and the face at the ball. On the right the range
with the middle of the student's own balls. Drawn for the student's hand.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from firm_footing.core.case import Stance
from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import PlanPart

WIDTH, HEIGHT = 640, 236
PLAN: Final = 400
"""Width of the plan; the range takes the rest."""
SHOE: Final = (
    "M-58 0C-60-18-46-25-30-23C-14-21-4-19 10-23C30-29 56-25 60-4C63 14 44 26 22 24"
    "C6 22-8 17-24 20C-44 24-57 16-58 0Z"
)
LEAD, TRAIL, BALL = (118.0, 66.0), (118.0, 172.0), (336.0, 118.0)
USUAL_FLARE_DEG, PX_PER_CM = 14.0, 4.2
PARTS: Final[dict[str, tuple[tuple[str, float, float], ...]]] = {
    "lead_foot": (("lead", -64, 130),),
    "trail_foot": (("trail", -64, 130),),
    "lead_heel": (("lead", -64, 46),),
    "trail_heel": (("trail", -64, 46),),
    "lead_toe": (("lead", 14, 56),),
    "trail_toe": (("trail", 14, 56),),
    "both_toes": (("lead", 14, 56), ("trail", 14, 56)),
    "both_heels": (("lead", -64, 46), ("trail", -64, 46)),
}
"""Part of the plan to (foot, from, width) on the shoe, heel to the left."""
PLACES: Final[dict[str, tuple[float, float]]] = {
    "lead_foot": LEAD, "lead_heel": (76, 66), "lead_toe": (162, 62),
    "trail_foot": TRAIL, "trail_heel": (76, 172), "trail_toe": (162, 174),
    "both_toes": (168, 118), "both_heels": (62, 118), "hips": (84, 130), "chest": (150, 106),
    "hands": (212, 96), "grip": (212, 96), "club": (214, 150), "ball": BALL, "aim": (258, 34),
    "path_minus": (352, 204), "path_plus": (320, 204), "face_open": (366, 92),
    "face_shut": (366, 92), "heel_strike": (308, 118), "toe_strike": (366, 134),
    "turf_behind": (304, 168), "turf_ahead": (304, 70), "loft_lost": (590, 120),
    "loft_added": (590, 120), "speed_lost": (590, 60), "speed_gained": (590, 60),
}  # fmt: skip
"""Where a link of the chain has its number; links without a place have none."""
MOVES: Final[dict[str, tuple[float, float]]] = {
    "toward_ball": (1, 0), "away_from_ball": (-1, 0), "toward_target": (0, -1),
    "away_from_target": (0, 1), "up": (0.6, -0.8),
}  # fmt: skip
INK, LINE, CLAY = "#1b2624", "#8d8672", "#a8431d"
OPEN: Final = f'fill="#fff" stroke="{INK}" stroke-width="2.5"'
"""Colours stand in the drawing itself: the maker of PDF heeds no styles of the page in it."""
RANGE: Final = (524.0, 226.0)
"""Where the ball lies on the range."""
WIDER: Final = 2.2
"""Angles on the range are drawn wider, so that they show."""


@dataclass(frozen=True)
class Link:
    """One link of a chain as it is drawn: its number, and where it moves."""

    number: int
    id: str
    place: PlanPart | None
    moves: str


def links_of(chain: Sequence[str], knowledge: Knowledge) -> tuple[Link, ...]:
    """The chain's links, from 1; an effect on club and ball has no place of a body."""
    found = []
    for number, name in enumerate(chain, 1):
        known = knowledge.cause.get(name) or knowledge.mechanism.get(name)
        place, moves = (known.place, known.moves) if known else (None, "still")
        found.append(Link(number, name, place, moves))
    return tuple(found)


def plan_svg(
    hand: Handedness,
    links: Sequence[Link],
    stance: Stance | None,
    start_deg: float | None,
    curve_deg: float | None,
    feet: tuple[str, str] = ("lead foot", "trail foot"),
) -> str:
    """The drawing; bearings + to the push side, None where no ball was seen.

    feet : what the lead and the trail foot are called
    """
    left = hand == "left"
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {HEIGHT}" class="plan" '
        f'role="img" aria-label="The miss from above, and how its cause leads to it">'
        f"{_feet(links, stance or Stance(), left)}{_club(links, left)}{_marks(links, left)}"
        f"{_names(feet, left)}{_range(start_deg, curve_deg, left)}</svg>"
    )


def _names(feet: tuple[str, str], left: bool) -> str:
    """What is what: both feet, the ball, the target."""
    lead, trail = feet
    return "".join(
        (
            _word(lead, _x(LEAD[0] - 42, left), LEAD[1] - 42),
            _word(trail, _x(TRAIL[0] - 42, left), TRAIL[1] + 50),
            _word("ball", _x(BALL[0] + 30, left), BALL[1] + 5),
            _word("target", RANGE[0] + 34, 24),
        )
    )


def _word(word: str, x: float, y: float) -> str:
    return (
        f'<text x="{x}" y="{y}" text-anchor="middle" font-family="Sheet, sans-serif" '
        f'font-size="13" fill="{INK}">{word}</text>'
    )


def _x(x: float, left: bool) -> float:
    """Across the plan; a left-hander stands on the other side of the ball."""
    return PLAN - x if left else x


def _feet(links: Sequence[Link], stance: Stance, left: bool) -> str:
    flare = USUAL_FLARE_DEG if stance.lead_flare_deg is None else stance.lead_flare_deg
    drop = PX_PER_CM * (stance.trail_drop_cm or 0.0)
    lit = {part for link in links for part in PARTS.get(link.place or "", ())}
    shoes = []
    for foot, (x, y), turn in (("lead", LEAD, -flare), ("trail", (TRAIL[0] - drop, TRAIL[1]), 4)):
        parts = "".join(
            f'<rect fill="{CLAY}" fill-opacity="0.75" '
            f'x="{start}" y="-32" width="{wide}" height="64"/>'
            for which, start, wide in sorted(lit)
            if which == foot
        )
        flip = " scale(-1 1)" if left else ""
        shoes.append(
            f'<g transform="translate({_x(x, left)} {y}){flip} rotate({turn})">'
            f'<clipPath id="{foot}"><path d="{SHOE}"/></clipPath>'
            f'<g clip-path="url(#{foot})">{parts}</g>'
            f'<path fill="none" stroke="{INK}" stroke-width="2.5" d="{SHOE}"/></g>'
        )
    return "".join(shoes)


def _club(links: Sequence[Link], left: bool) -> str:
    """The ball, the club's way through it and the face, as far as the chain speaks of them."""
    ids = {link.id for link in links}
    side = -1 if left else 1
    x, y = _x(BALL[0], left), BALL[1]
    drawn = [f'<circle {OPEN} cx="{x}" cy="{y}" r="7"/>']
    way = ("path_plus" in ids) - ("path_minus" in ids)
    if way:
        dx = 28 * way * side
        drawn.append(
            f'<line class="way" stroke="{CLAY}" stroke-width="3" x1="{x - dx}" y1="{y + 84}" '
            f'x2="{x + dx}" y2="{y - 84}"/>'
        )
    turned = ("face_open" in ids) - ("face_shut" in ids)
    if turned:
        dy = 10 * turned * side
        drawn.append(
            f'<line class="face" stroke="{INK}" stroke-width="4" x1="{x - 22}" y1="{y + 13 - dy}" '
            f'x2="{x + 22}" y2="{y + 13 + dy}"/>'
        )
    return "".join(drawn)


def _marks(links: Sequence[Link], left: bool) -> str:
    """A number at each link that has a place, with an arrow where something moves."""
    drawn, taken = [], dict[tuple[float, float], int]()
    for link in links:
        at = PLACES.get(link.place or link.id)
        if at is None:
            continue
        before = taken.get(at, 0)
        taken[at] = before + 1
        # what the ball does stands beside the range, which is the same for both hands
        x, y = at[0] if at[0] > PLAN else _x(at[0] - 26 * before, left), at[1]
        dx, dy = MOVES.get(link.moves, (0.0, 0.0))
        if dx or dy:
            dx = -dx if left else dx
            drawn.append(_arrow(x + 13 * dx, y + 13 * dy, x + 40 * dx, y + 40 * dy))
        drawn.append(
            f'<circle fill="{CLAY}" cx="{x}" cy="{y}" r="11"/>'
            f'<text x="{x}" y="{y + 5}" text-anchor="middle" font-family="Sheet, sans-serif" '
            f'font-size="14" font-weight="700" fill="#fff">{link.number}</text>'
        )
    return "".join(drawn)


def _arrow(x1: float, y1: float, x2: float, y2: float) -> str:
    angle = math.atan2(y2 - y1, x2 - x1)
    wings = " ".join(
        f"M{x2 - 9 * math.cos(angle + by):.1f} {y2 - 9 * math.sin(angle + by):.1f}L{x2} {y2}"
        for by in (0.5, -0.5)
    )
    return f'<path fill="none" stroke="{CLAY}" stroke-width="3" d="M{x1} {y1}L{x2} {y2} {wings}"/>'


def _range(start_deg: float | None, curve_deg: float | None, left: bool) -> str:
    foot, far = RANGE, 204.0
    drawn = [
        f'<line stroke="{LINE}" stroke-width="1.5" stroke-dasharray="5 5" '
        f'x1="{foot[0]}" y1="{foot[1]}" x2="{foot[0]}" y2="14"/>',
        f'<circle {OPEN} cx="{foot[0]}" cy="{foot[1]}" r="5"/>',
    ]
    if start_deg is not None:

        def at(bearing: float, way: float) -> tuple[float, float]:
            angle = math.radians(WIDER * bearing * (-1 if left else 1))
            return foot[0] + far * way * math.sin(angle), foot[1] - far * way * math.cos(angle)

        bend, end = at(start_deg, 0.55), at(start_deg + (curve_deg or 0.0), 1.0)
        drawn.append(
            f'<path class="flight" fill="none" stroke="{INK}" stroke-width="4" '
            f'd="M{foot[0]} {foot[1]}Q{bend[0]:.1f} {bend[1]:.1f} {end[0]:.1f} {end[1]:.1f}"/>'
            f'<circle {OPEN} cx="{end[0]:.1f}" cy="{end[1]:.1f}" r="6"/>'
        )
    return "".join(drawn)
