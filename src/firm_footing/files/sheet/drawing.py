"""What does the miss and its cause look like, as one drawing?

On the left the range from above with the middle of the student's own balls; on the right both shoes
with the part lit that the cause is about. Drawn for the student's hand.
"""

import math
from typing import Final

from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge.vocabulary import PlanPart

WIDTH, HEIGHT = 640, 230
SHOE: Final = (
    "M-58 0C-60-18-46-25-30-23C-14-21-4-19 10-23C30-29 56-25 60-4C63 14 44 26 22 24"
    "C6 22-8 17-24 20C-44 24-57 16-58 0Z"
)
LEAD, TRAIL, BALL = (470, 62), (470, 168), (598, 115)
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
ABOVE: Final = {"hips": 430, "chest": 452, "hands": 532, "grip": 532, "club": 556, "aim": 512}
"""Parts above the feet, by how far from the heels they are drawn."""
INK, LINE, CLAY = "#1b2624", "#8d8672", "#a8431d"
OPEN: Final = f'fill="#fff" stroke="{INK}" stroke-width="2.5"'
RING: Final = f'fill="none" stroke="{CLAY}" stroke-width="4"'
"""Colours stand in the drawing itself: the maker of PDF heeds no styles of the page in it."""
WIDER: Final = 2.2
"""Angles on the range are drawn wider, so that they show."""


def plan_svg(
    hand: Handedness, place: PlanPart, start_deg: float | None, curve_deg: float | None
) -> str:
    """The drawing; bearings + to the push side, None where no ball was seen."""
    flip = f"translate({WIDTH} 0) scale(-1 1)" if hand == "left" else ""
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {HEIGHT}" class="plan" '
        f'role="img" aria-label="The miss from above, and where its cause sits">'
        f'<g transform="{flip}">{_range(start_deg, curve_deg)}{_feet(place)}</g></svg>'
    )


def _range(start_deg: float | None, curve_deg: float | None) -> str:
    foot, far = (160.0, 222.0), 200.0
    parts = [
        f'<line stroke="{LINE}" stroke-width="1.5" stroke-dasharray="5 5" '
        f'x1="{foot[0]}" y1="{foot[1]}" x2="{foot[0]}" y2="14"/>',
        f'<circle {OPEN} cx="{foot[0]}" cy="{foot[1]}" r="5"/>',
    ]
    if start_deg is not None:

        def at(bearing: float, way: float) -> tuple[float, float]:
            angle = math.radians(WIDER * bearing)
            return foot[0] + far * way * math.sin(angle), foot[1] - far * way * math.cos(angle)

        bend, end = at(start_deg, 0.55), at(start_deg + (curve_deg or 0.0), 1.0)
        parts.append(
            f'<path fill="none" stroke="{INK}" stroke-width="4" '
            f'd="M{foot[0]} {foot[1]}Q{bend[0]:.1f} {bend[1]:.1f} {end[0]:.1f} {end[1]:.1f}"/>'
            f'<circle {OPEN} cx="{end[0]:.1f}" cy="{end[1]:.1f}" r="6"/>'
        )
    return "".join(parts)


def _feet(place: PlanPart) -> str:
    shoes = []
    for foot, (x, y), turn in (("lead", LEAD, -14), ("trail", TRAIL, 4)):
        lit = "".join(
            f'<rect fill="{CLAY}" fill-opacity="0.8" '
            f'x="{start}" y="-32" width="{wide}" height="64"/>'
            for which, start, wide in PARTS.get(place, ())
            if which == foot
        )
        shoes.append(
            f'<g transform="translate({x} {y}) rotate({turn})"><clipPath id="{foot}">'
            f'<path d="{SHOE}"/></clipPath><g clip-path="url(#{foot})">{lit}</g>'
            f'<path fill="none" stroke="{INK}" stroke-width="2.5" d="{SHOE}"/></g>'
        )
    x, y = BALL
    shoes.append(f'<circle {OPEN} cx="{x}" cy="{y}" r="8"/>')
    if place == "ball":
        shoes.append(f'<circle {RING} cx="{x}" cy="{y}" r="17"/>')
    elif place in ABOVE:
        shoes.append(f'<circle {RING} cx="{ABOVE[place]}" cy="{y}" r="15"/>')
    return "".join(shoes)
