"""How is one piece of evidence said, and why does it speak against a cause?"""

from collections import Counter
from collections.abc import Callable, Sequence
from typing import Final

from firm_footing.core.inference.delivery_likelihood import CONTACT
from firm_footing.core.inference.inference import Inference
from firm_footing.core.knowledge import DIMENSIONS
from firm_footing.core.knowledge.casebook import Fate, KnownBy
from firm_footing.core.knowledge.vocabulary import Mode
from firm_footing.core.text import words
from firm_footing.core.text.missed import OFF_THE_MIDDLE, missed_words


def noted(inference: Inference, evidence: str) -> str:
    """What was noted, in a few words: "16 mm to the heel", "trail heel up early: yes"."""
    kind, _, name = evidence.partition(".")
    if kind == "pattern":
        return _of_pattern(inference, name)
    if evidence.startswith("trace:"):
        return "pressure on the mat"
    if evidence.startswith("film:"):
        return "measured on film"
    if evidence.startswith("history:"):
        return _of_history(inference, int(evidence.partition(":")[2]))
    if evidence.startswith("trial:"):
        trial = next(t for t in inference.trials if t.evidence == evidence)
        balls = len(trial.block.shots)
        with_drill = words.quoted(trial.drill.name)
        return f"{balls} {'ball' if balls == 1 else 'balls'} with {with_drill}"
    check = inference.knowledge.check[evidence]
    said = [r.answer for r in inference.counted[evidence] if r.by_hand]
    return f"{check.label}: {_counted(said)}"


FATE_WORDS: Final[dict[Fate, str]] = {
    "confirmed": "confirmed", "partly": "partly confirmed", "rejected": "not confirmed"
}  # fmt: skip
KNOWN_BY_WORDS: Final[dict[KnownBy, str]] = {
    "retest": "the retest", "trace": "the pressure trace", "film": "the film",
    "follow_up": "what came back", "later_lesson": "a later lesson", "word": "your own word",
}  # fmt: skip


def _of_history(inference: Inference, index: int) -> str:
    """An earlier decision: "confirmed 16 days ago, by the retest; it stayed away"."""
    past = inference.case.history[index]
    days = round(past.days_ago)
    when = "today" if days == 0 else f"{days} {'day' if days == 1 else 'days'} ago"
    by = words.listed([KNOWN_BY_WORDS[kind] for kind in past.known_by])
    name = words.quoted(inference.knowledge.cause[past.decided].label)
    held = {True: "; it stayed away", False: "; it came back", None: ""}[past.held]
    return f"{name} {FATE_WORDS[past.fate]} {when}, by {by}{held}"


def _counted(answers: Sequence[str]) -> str:
    """Answers to one check: "yes", or "yes twice, no"."""
    times = {1: "", 2: " twice"}
    found = Counter(answers)
    return ", ".join(f"{a}{times.get(n, f' {n} times')}" for a, n in found.items())


def _of_pattern(inference: Inference, name: str) -> str:
    hand = inference.case.handedness
    plain: dict[str, Callable[[], str]] = {
        "scatter": lambda: "how far the balls scatter",
        "no_miss": lambda: "how many of the balls are sound",
        CONTACT: lambda: _contacts(inference),
        "carry_lost_pct": lambda: _carry(inference),
    }
    if name in plain:
        return plain[name]()
    if name == "heel_toe_mm" and inference.pattern.strike_in_words:
        return words.listed(missed_words(inference.pattern, OFF_THE_MIDDLE))
    return words.number(name, _value(inference, name), hand)


def _contacts(inference: Inference) -> str:
    """Contact as it was noted: "4 fat, 2 clean"."""
    return ", ".join(f"{n} {word}" for word, n in inference.pattern.contacts.items())


def _carry(inference: Inference) -> str:
    """What the carry says of loft and speed, once strike and a glancing blow are accounted for."""
    pattern = inference.pattern
    if pattern.club_speed_pct is not None:
        return f"by the carry, the club {words.speed(pattern.club_speed_pct.value)}"
    return "how far the balls carry"


def _value(inference: Inference, name: str) -> float:
    """A number as the pattern gives it; as it was read where the pattern does not."""
    estimate = getattr(inference.pattern, name)
    if estimate is not None:
        return float(estimate.value)
    delivery = inference.balls.delivery
    assert delivery is not None
    return float(delivery.reading.value[delivery.reading.names.index(name)])


def against(
    inference: Inference, evidence: str, said: str, cause: str, told: tuple[Mode | None, str | None]
) -> str:
    """What was noted and why it speaks against: what this cause alone would make of it.

    said : as `noted` has it
    told : the cause's mode and side
    """
    name = evidence.removeprefix("pattern.")
    if name not in DIMENSIONS:
        return said
    effect = inference.knowledge.effects[cause, *told][DIMENSIONS.index(name)]
    if effect == 0:
        return f"{said}, which this cause does not make"
    makes = words.number(name, effect + _usual(inference, name), inference.case.handedness)
    return f"{said}, this cause alone makes about {_without_noun(makes)}"


def _without_noun(text: str) -> str:
    """The number without what it is of, which was said already."""
    return text.partition(" ")[2].removeprefix("point ")


def _usual(inference: Inference, name: str) -> float:
    """What a player without causes shows."""
    return inference.usual_low_point_cm if name == "low_point_cm" else 0.0
