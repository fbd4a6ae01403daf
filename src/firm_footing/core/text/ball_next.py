"""What should the ball do next, once the cause to start with is mended?

The pattern without that cause, in one plain sentence. Where it looks worse than the miss (the path
is mended and the face is not: the slice grows first), that is said with it, and what mends the
rest.
"""

from dataclasses import dataclass

from firm_footing.core.conclusions.attribution import Attribution
from firm_footing.core.conclusions.ball_next import change_in, expected_ball
from firm_footing.core.conclusions.what_if import Moved, WhatIf
from firm_footing.core.frame import side
from firm_footing.core.inference.inference import Inference
from firm_footing.core.text import words

WORSE = " That looks worse than the miss did and is the way there"


@dataclass(frozen=True)
class BallNext:
    """What to expect.

    sentence : in plain words, with real sides for the student's hand
    worse : whether the ball first looks worse than the miss it had
    rest : the cause that would mend the rest; None where nothing is left or none accounts for it
    """

    sentence: str
    worse: bool
    rest: str | None


def ball_next(inference: Inference, start: str, attribution: Attribution) -> BallNext | None:
    """The prediction without the cause to start with; None without balls."""
    expected = expected_ball(inference, start, attribution)
    if expected is None:
        return None
    say = _Sentence(inference)
    found = expected.alone
    told = say.first(found), say.flight(found), say.struck(found), say.carries(found)
    parts = [part for part in told if part]
    more = say.brings(found, expected.together)
    if not parts:
        own = "The balls hardly change by this alone."
        return BallNext(f"{own}{more}", False, expected.rest)
    then = say.then(found, expected.worse, expected.rest)
    return BallNext(f"{_joined(parts)}{more}{then}", expected.worse, expected.rest)


class _Sentence:
    """The parts of it, each '' where there is too little to speak of."""

    def __init__(self, inference: Inference) -> None:
        knowledge = inference.knowledge
        self.knowledge, self.hand = knowledge, inference.case.handedness
        self.met_in_words = inference.pattern.contact_says
        self.least = knowledge.numbers.spoken.least
        self.straight_deg = knowledge.numbers.spoken.straight_deg

    def brings(self, alone: WhatIf, together: WhatIf) -> str:
        """What goes with it besides, by what it brought about; '' where that changes little."""
        said = []
        strike = change_in(together, "heel_toe_mm") - change_in(alone, "heel_toe_mm")
        low = self._low(together) - self._low(alone)
        start = change_in(together, "start_deg") - change_in(alone, "start_deg")
        curve = change_in(together, "curve_deg") - change_in(alone, "curve_deg")
        if abs(start) >= self.least["start_deg"] or abs(curve) >= self.least["curve_deg"]:
            said.append("the flight")
        if abs(strike) >= self.least["heel_toe_mm"]:
            said.append("the strike")
        if abs(low) >= self.least["low_point_cm"]:
            said.append("the low point")
        if not said:
            return ""
        names = words.listed(said)
        return f" Where it brings about others, {names} should change with them."

    def first(self, found: WhatIf) -> str:
        """Which of path and face moves more, and whether that is for the better.

        Only where the flight changes enough to be seen.
        """
        start, curve = change_in(found, "start_deg"), change_in(found, "curve_deg")
        if max(abs(start), abs(curve)) < self.least["start_deg"]:
            return ""
        path, face = _size(found.path_deg), _size(found.face_to_path_deg)
        if max(path, face) < self.least["start_deg"]:
            return ""
        if path >= face:
            said = self._way(found.path_deg, "the path", "straightens")
        else:
            said = self._way(found.face_to_path_deg, "the face", "squares")
        return f"{said} first" if said and min(path, face) >= self.least["curve_deg"] else said

    def _way(self, moved: Moved | None, part: str, better: str) -> str:
        """Whether a part of the club comes nearer to square; '' where it is and stays near it."""
        if moved is None or max(abs(moved.now), abs(moved.then)) < self.straight_deg:
            return ""
        if abs(moved.then) > abs(moved.now):
            return f"{part} moves further off"
        crosses = moved.now * moved.then < 0 and abs(moved.then) >= self.straight_deg
        return f"{part} moves over to the other side" if crosses else f"{part} {better}"

    def flight(self, found: WhatIf) -> str:
        """Start and curve as they should be."""
        start, curve = found.without.start_deg, found.without.curve_deg
        if start is None or curve is None:
            return ""
        if (
            abs(change_in(found, "start_deg")) < self.least["start_deg"]
            and abs(change_in(found, "curve_deg")) < self.least["curve_deg"]
        ):
            return ""
        begins = self._direction(start.value)
        before = found.now.curve_deg.value if found.now.curve_deg else 0.0
        still = "still " if before * curve.value > 0 and abs(before) >= self.straight_deg else ""
        bends = (
            "fly straight"
            if abs(curve.value) < self.straight_deg
            else f"{still}curve {side(curve.value, self.hand)}"
        )
        return f"expect it to start {begins} and {bends}"

    def _direction(self, value: float) -> str:
        return "straight" if abs(value) < self.straight_deg else side(value, self.hand)

    def struck(self, found: WhatIf) -> str:
        """Strike and divot, where they change."""
        said = []
        strike, now = found.without.heel_toe_mm, found.now.heel_toe_mm
        if strike and now and abs(strike.value - now.value) >= self.least["heel_toe_mm"]:
            nearer = (
                "nearer the middle"
                if abs(strike.value) < abs(now.value)
                else words.strike(strike.value)
            )
            said.append(f"struck {nearer}")
        low = self._low(found)
        if abs(low) >= self.least["low_point_cm"]:
            way = "forward" if low > 0 else "back"
            marked = found.now.low_point_cm is not None
            said.append(
                f"the divot about {abs(low):.0f} cm further {way}"
                if marked
                else f"the low point moves {way}"
            )
        return " and ".join(said)

    def _low(self, found: WhatIf) -> float:
        """Cm that the low point moves, + forward; also where only words of contact tell it."""
        moved = found.moves.low_point_cm
        told = found.now.low_point_cm is not None or self.met_in_words
        return moved.value if told and moved is not None else 0.0

    def carries(self, found: WhatIf) -> str:
        carry = change_in(found, "carry_pct")
        if abs(carry) < self.least["carry_pct"]:
            return ""
        return f"about {abs(carry):.0f} % {'longer' if carry > 0 else 'shorter'}"

    def then(self, found: WhatIf, worse: bool, rest: str | None) -> str:
        """What mends the rest, said whenever the ball first looks worse."""
        left = self._left(found)
        if rest is not None:
            said = f"{left} comes with {words.cause_name(rest, self.knowledge)}."
            return f"{WORSE}: {said}" if worse else f" {words.capital(said)}"
        return f"{WORSE}: for {left} another cause is still to be found." if worse else ""

    def _left(self, found: WhatIf) -> str:
        curve = found.without.curve_deg
        start = found.without.start_deg
        if curve is not None and abs(curve.value) >= self.straight_deg:
            return "what is left of the curve"
        if start is not None and abs(start.value) >= self.straight_deg:
            return "what is left of the start"
        return "the rest"


def _joined(parts: list[str]) -> str:
    return f"{words.capital('; '.join(parts))}."


def _size(moved: Moved | None) -> float:
    return 0.0 if moved is None else abs(moved.then - moved.now)
