"""How is it said whether the evidence carries a decision?"""

from dataclasses import replace

from firm_footing.core.conclusions.decision_status import Standing
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.text.words import cause_name, percent


def in_words(standing: Standing, knowledge: Knowledge) -> Standing:
    """The same with its sentences."""
    headline, detail = _headline(standing, knowledge), _detail(standing)
    have = f"{_count(standing.balls, 'ball')} and {_count(standing.answers, 'answer')}"
    said = (f"{have}.", headline, detail, _look_first(standing, knowledge))
    reason = " ".join(part for part in said if part)
    return replace(standing, reason=reason, headline=headline, detail=detail)


def _headline(standing: Standing, knowledge: Knowledge) -> str:
    """The verdict in a sentence."""
    first, second = (cause_name(c, knowledge) for c in standing.leading)
    if standing.balls_missing:
        balls = _count(standing.balls_missing, "more ball")
        answers = _count(standing.answers_missing, "more answer")
        return f"Not enough yet: {balls} or {answers} would do."
    if standing.no_miss:
        return "These balls hardly miss, so there is nothing yet for a cause to be behind."
    if standing.start_with is None:
        return "Nothing stands out yet."
    if standing.kind == "open":
        possible = knowledge.numbers.words_for_probability["possible"]
        if standing.probabilities[1] >= possible:
            return f"Open between {first} and {second}."
        return f"Much is still open; {first} is ahead."
    return {
        "settled": f"Start with {first}.",
        "nearly": f"Most likely so far: {first}.",
        "not_enough": f"Nothing stands out yet. If you must choose now: {first}.",
    }[standing.kind]


def _detail(standing: Standing) -> str:
    """What it rests on and what would change it; names no cause that the headline names."""
    if standing.balls_missing or standing.no_miss:
        return ""
    lead, next_lead = (percent(p) for p in standing.probabilities)
    said = []
    if standing.start_with is None:
        said.append("No ball and no look points to the first of the list.")
    else:
        said.append(f"{lead} against {next_lead} for the next.")
    if standing.unexplaining:
        said.append("It was seen, but it explains next to nothing of these balls.")
    if standing.kind == "nearly" and not standing.spoken_to:
        said.append("No look and no trial has spoken to it yet.")
    return " ".join(said)


def _look_first(standing: Standing, knowledge: Knowledge) -> str:
    """The look to take before deciding, as long as it is not settled."""
    if standing.kind == "settled" or standing.ask_first is None:
        return ""
    return f"Look first: {knowledge.check[standing.ask_first].question}"


def _count(n: int, noun: str) -> str:
    return f"{n} {noun}" if n == 1 else f"{n} {noun}s"
