"""On which step of a drill is the student, after the repetitions so far?

A drill has steps of its own, each with its speed and how often it has to be right in a row, or the
four that every drill has. A run of passes moves up, a run of fails down; either begins counting
anew.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from firm_footing.core.knowledge.coaching import Dose, Drill, LadderNumbers

Result = Literal["pass", "early", "late"]
"""A pass, or a fail by which the sign came too early or too late."""

Said = Literal["begin", "stay", "up", "down", "done", "reopen"]


@dataclass(frozen=True)
class Ladder:
    """Where the ladder stands.

    steps : of the drill, the easiest first
    at : the step it stands on, from 0
    in_a_row : passes (positive) or fails (negative) in a row on this step
    said : what the last repetition led to; 'done' after a run of passes on the top step, 'reopen'
        after a run of fails on the lowest: swap the drill or reopen the cause
    passes, fails : in all
    """

    steps: tuple[Dose, ...]
    at: int
    in_a_row: int
    said: Said
    passes: int
    fails: int


def steps_of(drill: Drill, numbers: LadderNumbers) -> tuple[Dose, ...]:
    """The drill's own steps, else the usual ones; without a ball where it is never hit with one."""
    if drill.dose:
        return drill.dose
    return tuple(s for s in numbers.steps if drill.ball != "none" or not s.ball)


def climb(results: Sequence[Result], drill: Drill, numbers: LadderNumbers) -> Ladder:
    """The ladder after these repetitions, in their order."""
    steps = steps_of(drill, numbers)
    at, row = 0, 0
    said: Said = "begin"
    for result in results:
        passed = result == "pass"
        row = max(row, 0) + 1 if passed else min(row, 0) - 1
        said = "stay"
        if row >= steps[at].times:
            said = "up" if at + 1 < len(steps) else "done"
            at = min(at + 1, len(steps) - 1)
            row = 0
        elif -row >= numbers.down_after:
            said = "down" if at > 0 else "reopen"
            at = max(at - 1, 0)
            row = 0
    passes = sum(r == "pass" for r in results)
    return Ladder(steps, at, row, said, passes, len(results) - passes)
