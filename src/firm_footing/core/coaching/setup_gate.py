"""Is something of the set-up off that has to be changed before any foot drill?"""

from dataclasses import dataclass

from firm_footing.core.case import Case
from firm_footing.core.knowledge import Check, Knowledge


@dataclass(frozen=True)
class SetupChange:
    """A set-up look that was answered yes, and the change to try first.

    drill : that sets it right; None where the knowledge has none
    balls : hit with the change so far
    wanted : how many are asked for
    """

    check: str
    drill: str | None
    balls: int
    wanted: int

    @property
    def tried(self) -> bool:
        """Whether enough balls were hit with it."""
        return self.balls >= self.wanted


def setup_changes(case: Case, knowledge: Knowledge) -> tuple[SetupChange, ...]:
    """Set-up looks seen before any change that were answered yes or partly, in their order."""
    yes = {r.check for r in case.readings if r.answer in ("yes", "partly") and r.block is None}
    found = []
    for check in (c for c in knowledge.checks if c.view == "setup" and c.id in yes):
        drill = _drill_for(check, knowledge)
        balls = sum(len(b.shots) for b in case.blocks if b.kind == "trial" and b.drill == drill)
        wanted = knowledge.numbers.coaching.setup_balls
        found.append(SetupChange(check.id, drill, balls if drill else 0, wanted))
    return tuple(found)


def _drill_for(check: Check, knowledge: Knowledge) -> str | None:
    """The drill made for the cause that the look points to most."""
    pointed = check.all_pointers()
    causes = sorted(pointed, key=lambda cause: pointed[cause] != "strong")
    serving = (d for cause in causes for d in knowledge.drills if cause in d.targets)
    return next((d.id for d in serving if d.ball != "none" and not d.limits), None)
