"""The lead foot's share before and after, small enough for the sheet."""

import math

from firm_footing.core.coaching.compare_traces import TimedSwings, TracesCompared

WIDTH, HEIGHT = 640, 84
LEFT, RIGHT, TOP, FLOOR = 34.0, 520.0, 8.0, 66.0
FROM_S, TO_S = -1.0, 0.3
INK, LINE = "#1b2624", "#8d8672"


def traces_svg(compared: TracesCompared, lead_foot: str) -> str:
    """Dashed before, full after; impact where the upright stands.

    lead_foot : what it is called
    """
    ticks = "".join(
        f'<line stroke="{LINE}" stroke-width="0.6" x1="{LEFT}" x2="{RIGHT}" y1="{_y(p)}" '
        f'y2="{_y(p)}"/>{_word(str(p), LEFT - 6, _y(p) + 4, "end")}'
        for p in (0, 50, 100)
    )
    ball = (
        f'<line stroke="{LINE}" x1="{_x(0)}" x2="{_x(0)}" y1="{TOP}" y2="{FLOOR}"/>'
        f"{_word('ball', _x(0), HEIGHT - 4, 'middle')}"
    )
    before = _line(compared.before, 'stroke-dasharray="6 4" stroke-width="2"')
    after = _line(compared.after, 'stroke-width="3"')
    words = (
        _word(f"% on the {lead_foot}", LEFT, HEIGHT - 4, "start")
        + _word("dashed: before", RIGHT + 12, 30, "start")
        + _word("full: after", RIGHT + 12, 48, "start")
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {HEIGHT}" class="traces" '
        f'role="img" aria-label="EventShare of the {lead_foot} before and after">'
        f"{ticks}{ball}{before}{after}{words}</svg>"
    )


def _x(t_s: float) -> float:
    return round(LEFT + (t_s - FROM_S) / (TO_S - FROM_S) * (RIGHT - LEFT), 1)


def _y(pct: float) -> float:
    return round(FLOOR - pct / 100 * (FLOOR - TOP), 1)


def _line(swings: TimedSwings, look: str) -> str:
    points = [
        f"{_x(t)} {_y(share)}"
        for t, share in zip(swings.t_s.tolist(), swings.lead_pct.tolist(), strict=True)
        if FROM_S <= t <= TO_S and not math.isnan(share)
    ]
    return f'<path fill="none" stroke="{INK}" {look} d="M{"L".join(points[::2])}"/>'


def _word(word: str, x: float, y: float, anchor: str) -> str:
    return (
        f'<text x="{x}" y="{y}" text-anchor="{anchor}" font-family="Sheet, sans-serif" '
        f'font-size="12" fill="{INK}">{word}</text>'
    )
