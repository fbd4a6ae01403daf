"""How is what became of the retest said on one line of the sheet?"""

from firm_footing.core.coaching.before_after import Compared, Comparison
from firm_footing.core.frame import Handedness, side


def retest_said(found: Comparison | None, hand: Handedness) -> str:
    """The measure that decides and what it did; '' before there is anything to say.

    "Real: low point 5 cm further forward." or "Not yet more than chance: ..."
    """
    if found is None or found.verdict is None or found.verdict.state == "too_few":
        return ""
    primary = next(m for m in found.measures if m.name == found.primary)
    moved = _moved(primary, hand)
    if not moved:
        return ""
    real = found.verdict.state == "real"
    return f"{'Real' if real else 'Not yet more than chance'}: {moved}."


def _moved(measure: Compared, hand: Handedness) -> str:
    if measure.change is None:
        return ""
    by, before = measure.change.by, measure.change.before
    size = f"{abs(by):.0f}"
    words = {
        "start_deg": f"the start {size}° further {side(by, hand)}",
        "curve_deg": f"the curve {size}° further {side(by, hand)}",
        "heel_toe_mm": f"the strike {size} mm nearer the {'toe' if by > 0 else 'heel'}",
        "low_point_cm": f"the low point {size} cm further {'forward' if by > 0 else 'back'}",
        "carry_m": f"the carry {abs(100 * by / before):.0f} % {'longer' if by > 0 else 'shorter'}"
        if before
        else "",
    }
    return words[measure.name]
