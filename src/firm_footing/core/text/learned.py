"""What was learned, in sentences: from what to what, and on how many lessons."""

from collections.abc import Iterator
from typing import Final

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.learned import CauseLearned, Learned
from firm_footing.core.text.words import cause_name, count_of

VISIBLY: Final = 1.15
"""A factor nearer to one than this is not spoken of."""
FAVOURITE: Final = (5, 0.6)
"""So many decisions, and such a part of all, make a favourite."""


def what_moved(learned: Learned, knowledge: Knowledge) -> Iterator[str]:
    """One sentence for all, one for each number that moved, one for a favourite."""
    least = knowledge.casebook.least_outcomes
    lessons = round(learned.everything.lessons)
    measured = round(learned.measured.lessons)
    yield (
        f"{count_of(learned.outcomes, 'outcome')} of {count_of(lessons, 'student')} known,"
        f" {'all' if measured == lessons else f'of {measured} of them'} by more than your own word."
        if learned.outcomes
        else "No outcome is known yet, and nothing is learned."
    )
    moved = moved_visibly(learned)
    if learned.outcomes and not moved:
        yield (
            f"Nothing moves before {least} outcomes are known."
            if learned.outcomes < least
            else "Nothing moved: the causes are as common here as the shipped knowledge has them."
        )
    for cause, found in moved:
        expected = learned.everything.expected.get(cause, 0.0)
        yield (
            f"{knowledge.cause[cause].name}: {100 * found.shipped:.1f} % of students by the files,"
            f" {100 * found.here:.1f} % here, expected in {expected:.1f} of {lessons}."
        )
    yield from _favourite(learned, knowledge)


def moved_visibly(learned: Learned) -> list[tuple[str, CauseLearned]]:
    """Causes that are commoner or rarer here than by the files, those that moved most first."""
    moved = [
        (c, found)
        for c, found in learned.causes.items()
        if max(found.factor, 1 / found.factor) > VISIBLY
    ]
    return sorted(moved, key=lambda m: -abs(m[1].here - m[1].shipped))


def _favourite(learned: Learned, knowledge: Knowledge) -> Iterator[str]:
    """That one cause takes most decisions, beside what measured fates say of it."""
    if not learned.decisions:
        return
    cause, most = max(learned.decisions.items(), key=lambda d: d[1].decided)
    all_of_them = sum(d.decided for d in learned.decisions.values())
    if most.decided >= FAVOURITE[0] and most.decided >= FAVOURITE[1] * all_of_them:
        yield (
            f"{most.decided} of {all_of_them} decisions were {cause_name(cause, knowledge)};"
            f" {most.confirmed} of {most.measured} measured outcomes agreed."
        )
