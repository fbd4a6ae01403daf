"""What should the ball do once the cause to start with is mended?"""

from dataclasses import dataclass

from firm_footing.core.conclusions.attribution import Attribution
from firm_footing.core.conclusions.what_if import WhatIf, without
from firm_footing.core.inference.inference import Inference
from firm_footing.core.knowledge.numbers import SpokenNumbers
from firm_footing.core.patterns import Estimate


@dataclass(frozen=True)
class ExpectedBall:
    """The pattern without the cause to start with.

    alone : without it; what it brought about stays
    together : without it and what it brought about
    worse : whether the ball first looks worse than the miss it had
    rest : the cause that would mend the rest; None where nothing is left or none accounts for it
    """

    alone: WhatIf
    together: WhatIf
    worse: bool
    rest: str | None


def expected_ball(
    inference: Inference, start: str, attribution: Attribution
) -> ExpectedBall | None:
    """The prediction without the cause to start with; None without balls."""
    if inference.balls.delivery is None:
        return None
    found = without(inference, start, alone=True)
    spoken = inference.knowledge.numbers.spoken
    rest = _rest(found, start, attribution, spoken)
    return ExpectedBall(found, without(inference, start), is_worse(found, spoken), rest)


def is_worse(found: WhatIf, spoken: SpokenNumbers) -> bool:
    """Whether the ball ends farther from the target, or curves more, than it did."""
    now, then = found.now, found.without
    if not (now.start_deg and now.curve_deg and then.start_deg and then.curve_deg):
        return False
    ended = abs(now.start_deg.value + now.curve_deg.value)
    will_end = abs(then.start_deg.value + then.curve_deg.value)
    curved, will_curve = abs(now.curve_deg.value), abs(then.curve_deg.value)
    return any(
        after > max(before + spoken.worse_deg, spoken.straight_deg)
        for before, after in ((ended, will_end), (curved, will_curve))
    )


def _rest(found: WhatIf, start: str, attribution: Attribution, spoken: SpokenNumbers) -> str | None:
    """The cause that accounts for most of what is left of the flight."""
    curve, begin = found.without.curve_deg, found.without.start_deg
    if curve is not None and abs(curve.value) >= spoken.straight_deg:
        dimension, left = "face_to_path_deg", curve.value
    elif begin is not None and abs(begin.value) >= spoken.straight_deg:
        dimension, left = "path_deg", begin.value
    else:
        return None
    parts = {
        cause: row[dimension]
        for cause, row in attribution.causes.items()
        if cause != start and row.get(dimension, 0.0) * left > 0
    }
    best = max(parts, key=lambda cause: abs(parts[cause]), default=None)
    enough = best is not None and abs(parts[best]) >= spoken.least_part * abs(left)
    return best if enough else None


def change_in(found: WhatIf, name: str) -> float:
    """By how much a number of the pattern changes; zero where it is not known."""
    now: Estimate | None = getattr(found.now, name)
    then: Estimate | None = getattr(found.without, name)
    return 0.0 if now is None or then is None else then.value - now.value
