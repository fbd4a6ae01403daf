"""What is this ball flight called, and is the miss two-way?"""

from collections.abc import Sequence

from firm_footing.core.knowledge.numbers import Shape, TwoWay


def shape_name(start_deg: float, curve_deg: float, shape: Shape) -> str:
    """The trade's word for a start and a curve, both in degrees, + push side.

    Thresholds are common practice, no source.
    """
    start = _named(start_deg, shape.start_from_deg, ("pull", "push"))
    strong = abs(curve_deg) >= shape.strong_curve_from_deg
    curves = ("hook", "slice") if strong else ("draw", "fade")
    curve = _named(curve_deg, shape.curve_from_deg, curves)
    return "-".join(word for word in (start, curve) if word) or "straight"


def is_two_way(balls: Sequence[tuple[float, float]], two_way: TwoWay) -> bool:
    """Whether many balls of a block are pushed and many hooked: (start, curve) pairs.

    In degrees, + push side. A push starts out to the push side and stays there; a hook curves hard
    and ends on the pull side. Forty balls hold a few of each by scatter alone: it takes a share of
    them. This is a name for the pattern and no evidence of its own, for start and curve have told
    path, face and their scatter already.
    """
    pushes = hooks = 0
    for start, curve in balls:
        ends = start + curve
        pushes += start >= two_way.push_from_deg and ends >= two_way.push_from_deg
        hooks += curve <= -two_way.hook_from_deg and ends < 0
    return min(pushes, hooks) >= max(two_way.least_each, two_way.least_share * len(balls))


def _named(value: float, least: float, names: tuple[str, str]) -> str:
    if abs(value) < least:
        return ""
    return names[0] if value < 0 else names[1]
