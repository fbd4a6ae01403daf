"""What does choosing a school change?"""

from collections.abc import Iterator

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.schools import SchoolOption

NOTHING = "It changes nothing in the numbers, the drills or the cues."


def changes_of(question: str, option: SchoolOption, knowledge: Knowledge) -> tuple[str, ...]:
    """What differs under this option, in sentences; that nothing does, where it is so."""
    return tuple(_changes(question, option, knowledge)) or (NOTHING,)


def _changes(question: str, option: SchoolOption, knowledge: Knowledge) -> Iterator[str]:
    if question == "pressure":
        yield "Pressure traces are judged by its corridor."
    counts = knowledge.traces.signs.heel_back_counts.get(option.id)
    if question == "heel_toe" and counts is not None:
        yield {
            "always": "A deep trail heel going back is a fault in a trace.",
            "with_toes_down": "A deep trail heel counts in a trace only when the toes follow.",
            "never": "A deep trail heel going back is no fault in a trace.",
        }[counts]
    for cause, factor in option.cause_weight.items():
        word = "more often" if factor > 1 else "less often"
        yield f"“{knowledge.cause[cause].name}” is taken for the cause {word}."
    for check in option.check_base:
        yield f"Sound players too may show “{knowledge.check[check].label}”."
    if option.even_of:
        parts = [knowledge.schools.questions[question].option(o).name for o in option.even_of]
        yield f"{' and '.join(parts)} count half each."
    for above, below in sorted(option.dropped):
        came, source = knowledge.cause[below].name, knowledge.cause[above].name
        yield f"“{came}” is not taken to come from “{source}”."
    if option.begins_with:
        names = [f"“{knowledge.cause[c].name}”" for c in option.begins_with]
        yield f"Once seen, these come before the feet: {', '.join(names)}."
    taught = [d.name for d in knowledge.drills if option.id in d.schools]
    if taught:
        yield f"Its drills come first: {', '.join(taught)}."
    cued = [c for c, cue in knowledge.cues.causes.items() if option.id in cue.by_school]
    for cause in cued:
        yield f"“{knowledge.cause[cause].name}” is cued in its own words."
