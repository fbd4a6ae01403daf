"""What does a lesson need next?"""

from dataclasses import dataclass

from firm_footing.core.knowledge.vocabulary import Stage


@dataclass(frozen=True)
class Reached:
    """How far a lesson has come.

    told : something was noted of what the student says
    balls, looks : of the baseline; answered
    decided, drill : a cause, and the drill chosen for it
    tried : repetitions and balls with the drill
    retest : balls after it
    sent, back : a follow-up was arranged; it came back
    """

    told: bool
    balls: int
    looks: int
    decided: bool
    drill: bool
    tried: int
    retest: int
    sent: bool
    back: bool


@dataclass(frozen=True)
class NextStage:
    """The stage to open, and why in a few words; `done` when nothing is left to do."""

    stage: Stage
    words: str
    done: bool = False


def next_stage(reached: Reached, least_balls: int) -> NextStage:
    """The first stage, in the order of a lesson, that still wants something."""
    if reached.back:
        return NextStage("send", "Done; the follow-up came back.", done=True)
    if reached.sent:
        return NextStage("send", "Done; to be followed up.", done=True)
    if reached.decided:
        return _after_the_decision(reached)
    if reached.balls == 0 and not reached.told:
        return NextStage("listen", "Listen first: nothing is noted yet.")
    if reached.balls == 0:
        return NextStage("shots", "Baseline: no ball yet.")
    if reached.balls < least_balls:
        return NextStage("shots", f"Baseline: {reached.balls} of {least_balls} balls so far.")
    if reached.looks == 0:
        return NextStage("look", "Look: nothing has been looked at yet.")
    return NextStage("decide", "Decide on one cause.")


def _after_the_decision(reached: Reached) -> NextStage:
    if not reached.drill:
        return NextStage("drill", "Choose the drill.")
    if reached.tried == 0 and reached.retest == 0:
        return NextStage("drill", "Try the drill.")
    if reached.retest == 0:
        return NextStage("retest", "Retest: no ball since the drill.")
    return NextStage("send", "Send home.")
