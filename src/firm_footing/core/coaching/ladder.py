"""On which step of a drill is the student, after the repetitions so far?

Without a ball, slow and waist high, half swings, full. A run of passes moves up, a run of fails
down; either begins counting anew.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

from firm_footing.core.knowledge.coaching import LadderNumbers

Result = Literal["pass", "early", "late"]
"""A pass, or a fail by which the sign came too early or too late."""

STEPS: Final = ("no_ball", "slow", "half", "full")
Said = Literal["begin", "stay", "up", "down", "done", "reopen"]


@dataclass(frozen=True)
class Ladder:
    """Where the ladder stands.

    step : of `STEPS`
    in_a_row : passes (positive) or fails (negative) in a row on this step
    said : what the last repetition led to; 'done' after a run of passes on the top step, 'reopen'
        after a run of fails on the lowest: swap the drill or reopen the cause
    passes, fails : in all
    """

    step: str
    in_a_row: int
    said: Said
    passes: int
    fails: int


def climb(results: Sequence[Result], numbers: LadderNumbers, balls: bool = True) -> Ladder:
    """The ladder after these repetitions, in their order.

    balls : whether the drill is ever hit with a ball; without, it ends at slow swings
    """
    steps = STEPS if balls else STEPS[:2]
    at, row = 0, 0
    said: Said = "begin"
    for result in results:
        passed = result == "pass"
        row = max(row, 0) + 1 if passed else min(row, 0) - 1
        said = "stay"
        if row >= numbers.up_after:
            said = "up" if at + 1 < len(steps) else "done"
            at = min(at + 1, len(steps) - 1)
            row = 0
        elif -row >= numbers.down_after:
            said = "down" if at > 0 else "reopen"
            at = max(at - 1, 0)
            row = 0
    passes = sum(r == "pass" for r in results)
    return Ladder(steps[at], row, said, passes, len(results) - passes)
