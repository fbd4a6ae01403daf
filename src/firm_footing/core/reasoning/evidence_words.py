"""How is one piece of evidence said, and why does it speak against a cause?"""

from collections import Counter
from collections.abc import Callable, Sequence

import numpy as np

from firm_footing.core.knowledge import DIMENSIONS
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.core.reasoning import words
from firm_footing.core.reasoning.delivery import CONTACT
from firm_footing.core.reasoning.weighing import Weighing


def noted(weighing: Weighing, evidence: str) -> str:
    """What was noted, in a few words: "16 mm to the heel", "trail heel up early: yes"."""
    kind, _, name = evidence.partition(".")
    if kind == "pattern":
        return _of_pattern(weighing, name)
    if evidence.startswith("trace:"):
        return "pressure on the mat"
    if evidence.startswith("film:"):
        return "measured on film"
    if evidence.startswith("trial:"):
        trial = next(t for t in weighing.trials if t.evidence == evidence)
        balls = len(trial.block.shots)
        with_drill = words.quoted(trial.drill.name)
        return f"{balls} {'ball' if balls == 1 else 'balls'} with {with_drill}"
    check = weighing.knowledge.check[evidence]
    said = [r.answer for r in weighing.counted[evidence] if r.by_hand]
    return f"{check.label}: {_counted(said)}"


def _counted(answers: Sequence[str]) -> str:
    """Answers to one check: "yes", or "yes twice, no"."""
    times = {1: "", 2: " twice"}
    found = Counter(answers)
    return ", ".join(f"{a}{times.get(n, f' {n} times')}" for a, n in found.items())


def _of_pattern(weighing: Weighing, name: str) -> str:
    hand = weighing.case.handedness
    plain: dict[str, Callable[[], str]] = {
        "scatter": lambda: "how far the balls scatter",
        "no_miss": lambda: "how many of the balls are sound",
        CONTACT: lambda: _contacts(weighing),
        "carry_lost_pct": lambda: _carry(weighing),
    }
    if name in plain:
        return plain[name]()
    return words.number(name, _value(weighing, name), hand)


def _contacts(weighing: Weighing) -> str:
    """Contact as it was noted: "4 fat, 2 clean"."""
    return ", ".join(f"{n} {word}" for word, n in weighing.pattern.contacts.items())


def _carry(weighing: Weighing) -> str:
    """What the carry says of loft and speed, once strike and a glancing blow are accounted for."""
    pattern = weighing.pattern
    if pattern.club_speed_pct is not None:
        return f"by the carry, the club {words.speed(pattern.club_speed_pct.value)}"
    return "how far the balls carry"


def _value(weighing: Weighing, name: str) -> float:
    """A number as the pattern gives it; as it was read where the pattern does not."""
    estimate = getattr(weighing.pattern, name)
    if estimate is not None:
        return float(estimate.value)
    delivery = weighing.balls.delivery
    assert delivery is not None
    return float(delivery.reading.value[delivery.reading.names.index(name)])


def against(
    weighing: Weighing, evidence: str, said: str, cause: str, told: tuple[Mode | None, str | None]
) -> str:
    """What was noted and why it speaks against: what this cause alone would make of it.

    said : as `noted` has it
    told : the cause's mode and side
    """
    name = evidence.removeprefix("pattern.")
    if name not in DIMENSIONS:
        return said
    effect = weighing.knowledge.effects[cause, *told][DIMENSIONS.index(name)]
    if effect == 0:
        return f"{said}, which this cause does not make"
    makes = words.number(name, effect + _usual(weighing, name), weighing.case.handedness)
    return f"{said}, this cause alone makes about {_without_noun(makes)}"


def _without_noun(text: str) -> str:
    """The number without what it is of, which was said already."""
    return text.partition(" ")[2].removeprefix("point ")


def _usual(weighing: Weighing, name: str) -> float:
    """What a player without causes shows."""
    return weighing.usual_low_point_cm if name == "low_point_cm" else 0.0


def explains_better(weighing: Weighing, row: int, alone: np.ndarray, cause: str) -> str | None:
    """The likelier cause that this piece by itself speaks for more than for `cause`.

    row : of the piece among the pieces
    alone : (pieces, causes) bits of each cause alone
    """
    index = weighing.knowledge.cause_index[cause]
    gains = np.where(alone[row] >= alone[row, index] / 2, weighing.now.present, 0.0)
    gains[index] = 0.0
    best = int(np.argmax(gains))
    return weighing.knowledge.causes[best].id if gains[best] > 0 else None
