"""What is this ball flight called, and is the miss two-way?"""

from collections.abc import Iterable

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


def is_two_way(balls: Iterable[tuple[float, float]], two_way: TwoWay) -> bool:
    """Whether a block holds both blocks and hooks: (start, curve) pairs in degrees, + push side.

    A block starts out to the push side and stays there; a hook curves hard and ends on the pull
    side. Scatter around one middle rarely makes both.
    """
    blocks = hooks = 0
    for start, curve in balls:
        ends = start + curve
        blocks += start >= two_way.push_from_deg and ends >= two_way.push_from_deg
        hooks += curve <= -two_way.hook_from_deg and ends < 0
    return min(blocks, hooks) >= two_way.least_each


def _named(value: float, least: float, names: tuple[str, str]) -> str:
    if abs(value) < least:
        return ""
    return names[0] if value < 0 else names[1]
