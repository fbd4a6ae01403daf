"""How is it said that schools would start elsewhere?"""

from collections.abc import Iterable

from firm_footing.core.conclusions.schools import SchoolStart
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.text.words import listed

MOST = 3
"""Causes that are named; beyond them it is only said that there are more."""


def schools_sentence(elsewhere: Iterable[SchoolStart], knowledge: Knowledge) -> str:
    """Which schools would start elsewhere, and where, in one sentence; '' where none would.

    "Another school would start elsewhere: Steady with “rushes to the lead leg”; Heels and Lead toe
    with “toes going back”."
    """
    by_start: dict[str, list[str]] = {}
    for question, option, start in elsewhere:
        name = knowledge.schools.questions[question].option(option).name
        if option == "undecided":
            name = f"{knowledge.schools.questions[question].title.lower()} undecided"
        by_start.setdefault(start, []).append(name)
    if not by_start:
        return ""
    parts = [
        f"{listed(names)} with “{knowledge.cause[start].label}”"
        for start, names in list(by_start.items())[:MOST]
    ]
    if len(by_start) > MOST:
        parts.append("others with another cause again")
    one = sum(map(len, by_start.values())) == 1
    lead = "Another school would start elsewhere" if one else "Other schools would start elsewhere"
    return f"{lead}: {'; '.join(parts)}."
