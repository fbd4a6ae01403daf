"""How does a drill look when it is right? The posed figure as SVG, for the page that goes home.

The same few numbers (knowledge/poses.yaml) and the same geometry as on the screen
(`web/src/drawing/pose.ts`): angles from hanging down, + to the right; a drawing of 100 by 120.
"""

import math
from collections.abc import Mapping
from typing import Final

from firm_footing.core.frame import Handedness
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.poses import Thing

Pose = Mapping[str, float]
Point = tuple[float, float]

FLOOR, TRUNK, NECK, SHAFT, HIP_Y = 112, 34, 10, 40, 64
HEAD: Final = 7
SHOE: Final = (
    "M-29 0C-30-9-23-12-15-11C-7-10-2-9 5-11C15-14 28-12 30-2C31 7 22 13 11 12C3 11-4 8-12 10"
    "C-22 12-28 8-29 0Z"
)
BOTTLE, CHAIR = "M-4 0V-17Q-4-20-1.5-22V-28H1.5V-22Q4-20 4-17V0Z", "M-2-62V0M-2-34H-20V0"
STYLE: Final = (
    "<style>.fig path,.fig line,.fig circle,.fig rect,.fig ellipse{fill:none;stroke:#1b2624;"
    "stroke-width:4;stroke-linecap:round;stroke-linejoin:round}.fig .far{stroke-opacity:.4}"
    ".fig .club{stroke-width:2}.fig .floor{stroke:#8d8672;stroke-width:1.5}"
    ".fig .head{fill:#1b2624}.fig .ball,.fig .shoe{stroke-width:1.5}"
    ".fig .thing *{stroke:#2f4a5f;stroke-width:2.5}</style>"
)


def figure_svg(drill: str, hand: Handedness, knowledge: Knowledge) -> str:
    """The figure at the moment when the drill is right; '' where it has no such drawing."""
    moments = knowledge.poses.drills.get(drill, ())
    drawn = next((m for m in moments if m.word == "right"), None)
    if drawn is None or drawn.view not in ("down_the_line", "face_on", "feet"):
        return ""
    pose = knowledge.poses.moment(drawn)
    parts = {"down_the_line": _down_the_line, "face_on": _face_on, "feet": _feet}[drawn.view](pose)
    things = "".join(_thing(t) for t in drawn.things)
    flip = ' transform="translate(100 0) scale(-1 1)"' if hand == "left" else ""
    name = knowledge.drill[drill].name
    return (
        f'<svg class="fig" viewBox="0 0 100 120" role="img" aria-label="{name}, right">'
        f'{STYLE}<g{flip}>{parts}<g class="thing">{things}</g></g></svg>'
    )


def _at(pose: Pose, name: str) -> float:
    return pose.get(name, 0.0)


def _away(start: Point, deg: float, far: float) -> Point:
    """So far from a place, by an angle from hanging down, + to the right."""
    angle = math.radians(deg)
    return start[0] + far * math.sin(angle), start[1] + far * math.cos(angle)


def _line(kind: str, *points: Point) -> str:
    way = "L".join(f"{x:.1f} {y:.1f}" for x, y in points)
    return f'<path class="{kind}" d="M{way}"/>'


def _leg(kind: str, hip: Point, foot: Point, knee: float) -> str:
    """A leg bends at the knee, so far to the side."""
    return _line(kind, hip, ((hip[0] + foot[0]) / 2 + knee, (hip[1] + foot[1]) / 2), foot)


def _rest(head: Point, ball: Point | None) -> str:
    floor = '<line class="floor" x1="4" x2="96" y1="113" y2="113"/>'
    drawn = f'{floor}<circle class="head" cx="{head[0]:.1f}" cy="{head[1]:.1f}" r="6.5"/>'
    if ball is None:
        return drawn
    return f'{drawn}<circle class="ball" cx="{ball[0]:.1f}" cy="{ball[1]:.1f}" r="3"/>'


def _down_the_line(pose: Pose) -> str:
    """Seen from behind the hands: toes and ball to the right."""
    heel = (38.0, float(FLOOR))
    trail = (heel[0] - _at(pose, "slid"), FLOOR - _at(pose, "heel"))
    hip = (heel[0] + 4 + _at(pose, "seat"), HIP_Y + _at(pose, "low"))
    spine = 180 - _at(pose, "spine")
    shoulder = _away(hip, spine, TRUNK)
    head = _away(shoulder, spine, NECK)
    hands = _away(shoulder, _at(pose, "reach"), _at(pose, "arm"))
    return "".join(
        (
            _leg("far", hip, (heel[0] + 4, heel[1] - 4), _at(pose, "knee") + 3),
            _line("far", heel, (heel[0] + 19, FLOOR - _at(pose, "lead_toes"))),
            _leg("body", hip, (trail[0] + 4, trail[1] - 4), 3 + _at(pose, "trail_knee")),
            _line("foot", trail, (trail[0] + 19, FLOOR - _at(pose, "toes"))),
            _line("body", hip, shoulder),
            _line("arm", shoulder, hands),
            _line("club", hands, _away(hands, _at(pose, "shaft"), SHAFT)),
            _rest((head[0] + _at(pose, "head"), head[1]), (94, FLOOR - 3 - _at(pose, "ball_up"))),
        )
    )


def _face_on(pose: Pose) -> str:
    """Facing the student: the target to the right."""
    trail = (34 + _at(pose, "trail_foot"), FLOOR - _at(pose, "heel"))
    lead = (66 + _at(pose, "lead_foot"), FLOOR - _at(pose, "lead_heel"))
    hip = (50 + _at(pose, "hips"), float(HIP_Y))
    spine = 180 + _at(pose, "spine")
    chest = _away(hip, spine, TRUNK)
    head = _away(chest, spine, NECK)
    lead_shoulder, trail_shoulder = (chest[0] + 9, chest[1] + 3), (chest[0] - 9, chest[1] + 3)
    hands = (50 + _at(pose, "hands"), 72 - _at(pose, "high"))
    elbow = (
        (lead_shoulder[0] + hands[0]) / 2 + _at(pose, "fold"),
        (lead_shoulder[1] + hands[1]) / 2,
    )
    rolled = _at(pose, "roll") * 5
    toe = (lead[0] + 4 + 12 * _at(pose, "lead_flare"), FLOOR - _at(pose, "lead_toe"))
    club = _line("club", hands, _away(hands, _at(pose, "shaft"), SHAFT))
    ball = _at(pose, "ball")
    return "".join(
        (
            _leg("body", (hip[0] - 5, hip[1]), trail, rolled + _at(pose, "knees")),
            _leg("body", (hip[0] + 5, hip[1]), lead, 2),
            _line("foot", (trail[0] - 5 + rolled, trail[1]), (trail[0] + 4, FLOOR)),
            _line("foot", (lead[0] - 4, lead[1]), toe),
            _line("body", (hip[0] - 5, hip[1]), (hip[0] + 5, hip[1])),
            _line("body", hip, chest),
            _line("body", trail_shoulder, lead_shoulder),
            _line("far", trail_shoulder, hands),
            _line("arm", lead_shoulder, elbow, hands),
            club if pose.get("club", 1) else "",
            _rest(
                (head[0] + _at(pose, "head"), head[1]),
                None if ball > 30 else (50 + ball, FLOOR - 2),
            ),
        )
    )


def _feet(pose: Pose) -> str:
    """Both shoes from above, toes and ball to the right, the target upward."""
    lead = _at(pose, "lead")
    shoes = (
        (50 - _at(pose, "lead_back"), 34.0, -_at(pose, "lead_turn"), lead, _at(pose, "lead_toe")),
        (
            50 - _at(pose, "trail_back"), 86 - _at(pose, "trail_in"), _at(pose, "trail_turn"),
            100 - lead, _at(pose, "trail_toe"),
        ),
    )  # fmt: skip
    drawn = "".join(
        f'<g transform="translate({x:.1f} {y:.1f}) rotate({turn:.1f})">'
        f'<path class="shoe" d="{SHOE}"/>'
        f'<circle class="shoe" cx="{-22 + 0.44 * toe:.1f}" cy="0"'
        f' r="{2 + 10 * math.sqrt(share / 100):.1f}"/></g>'
        for x, y, turn, share, toe in shoes
    )
    ball = '<circle class="ball" cx="94" cy="60" r="3.5"/>' if _at(pose, "ball") else ""
    return f'<g transform="rotate({_at(pose, "aim"):.1f} 50 60)">{drawn}{ball}</g>'


def _thing(thing: Thing) -> str:
    """What stands beside the figure."""
    if thing.to_x is not None and thing.to_y is not None:
        ends = f'x1="{thing.x}" y1="{thing.y}" x2="{thing.to_x}" y2="{thing.to_y}"'
        drawn = f"<line {ends}/>"
        if thing.kind != "arrow":
            return drawn
        angle = math.atan2(thing.to_y - thing.y, thing.to_x - thing.x)
        tip = (thing.to_x, thing.to_y)
        wings = [
            (tip[0] - HEAD * math.cos(angle + by), tip[1] - HEAD * math.sin(angle + by))
            for by in (0.5, -0.5)
        ]
        return drawn + _line("", wings[0], tip, wings[1])
    shapes = {
        "bottle": f'<path d="{BOTTLE}"/>',
        "chair": f'<path d="{CHAIR}"/>',
        "cushion": '<rect x="-38" y="-20" width="76" height="40" rx="16"/>',
        "pad": '<rect x="-9" y="-13" width="18" height="26" rx="4"/>',
        "half_ball": '<circle r="9"/>',
        "divot": '<ellipse rx="6" ry="10"/>',
    }
    shape = shapes.get(thing.kind, '<circle r="3.5"/>')
    return f'<g transform="translate({thing.x} {thing.y}) rotate({thing.tilt})">{shape}</g>'
