"""How is it said whether the evidence carries a decision?"""

from dataclasses import replace

from firm_footing.core.conclusions.decision_status import DecisionStatus
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.text.words import cause_name, count_of, percent


def in_words(decision_status: DecisionStatus, knowledge: Knowledge) -> DecisionStatus:
    """The same with its sentences."""
    headline, detail = _headline(decision_status, knowledge), _detail(decision_status)
    balls = count_of(decision_status.balls, "ball")
    have = f"{balls} and {count_of(decision_status.answers, 'answer')}"
    said = (f"{have}.", headline, detail, _look_first(decision_status, knowledge))
    reason = " ".join(part for part in said if part)
    return replace(decision_status, reason=reason, headline=headline, detail=detail)


def _headline(decision_status: DecisionStatus, knowledge: Knowledge) -> str:
    """The verdict in a sentence."""
    first, second = (cause_name(c, knowledge) for c in decision_status.leading)
    if decision_status.balls_missing:
        balls = count_of(decision_status.balls_missing, "more ball")
        answers = count_of(decision_status.answers_missing, "more answer")
        return f"Not enough yet: {balls} or {answers} would do."
    if decision_status.no_miss:
        return "Most of these balls are sound, so there is little yet for a cause to be behind."
    if decision_status.start_with is None:
        return "Nothing stands out yet."
    if decision_status.kind == "open":
        if decision_status.probabilities[1] >= knowledge.numbers.possible_from:
            return f"Open between {first} and {second}."
        return f"Much is still open; {first} is ahead."
    return {
        "settled": f"Start with {first}.",
        "nearly": f"Most likely so far: {first}.",
        "not_enough": f"Nothing stands out yet. If you must choose now: {first}.",
    }[decision_status.kind]


def _detail(decision_status: DecisionStatus) -> str:
    """What it rests on and what would change it; names no cause that the headline names."""
    if decision_status.balls_missing or decision_status.no_miss:
        return ""
    lead, next_lead = (percent(p) for p in decision_status.probabilities)
    said = []
    if decision_status.start_with is None:
        said.append("No ball and no look points to the first of the list.")
    else:
        said.append(f"{lead} against {next_lead} for the next.")
    if decision_status.unexplaining:
        said.append("It was seen, but it explains next to nothing of these balls.")
    if decision_status.kind == "nearly" and not decision_status.spoken_to:
        said.append("No look and no trial has spoken to it yet.")
    return " ".join(said)


def _look_first(decision_status: DecisionStatus, knowledge: Knowledge) -> str:
    """The look to take before deciding, as long as it is not settled."""
    if decision_status.kind == "settled" or decision_status.ask_first is None:
        return ""
    return f"Look first: {knowledge.check[decision_status.ask_first].question}"
