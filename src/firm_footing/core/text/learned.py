"""What was learned, in sentences: from what to what, and on how many lessons."""

from collections.abc import Iterator, Sequence
from typing import Final, NamedTuple

import numpy as np

from firm_footing.core.inference.answers import error_rates
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.eye import EVERY_LOOK, EyeTally
from firm_footing.core.learning.learned import CauseLearned, Learned
from firm_footing.core.text.words import capital, cause_name, count_of

VISIBLY: Final = 1.15
"""A factor nearer to one than this is not spoken of."""
FAVOURITE: Final = (5, 0.6)
"""So many decisions, and such a part of all, make a favourite."""


def what_moved(learned: Learned, knowledge: Knowledge) -> Iterator[str]:
    """One sentence for all, one for each number that moved, one for a favourite."""
    least = knowledge.casebook.least_outcomes
    lessons = round(learned.everything.lessons)
    measured = round(learned.measured.lessons)
    moved = moved_visibly(learned)
    of_none = (
        "No outcome of your own is known yet."
        if moved
        else "No outcome is known yet, and nothing is learned."
    )
    yield (
        f"{count_of(learned.outcomes, 'outcome')} of {count_of(lessons, 'student')} known,"
        f" {'all' if measured == lessons else f'of {measured} of them'} by more than your own word."
        if learned.outcomes
        else of_none
    )
    if learned.outcomes and not moved and not looks_moved(learned, knowledge):
        yield (
            f"Nothing moves before {least} outcomes are known."
            if learned.outcomes < least
            else "Nothing moved: the causes are as common here as the shipped knowledge has them."
        )
    for cause, found in moved:
        expected = learned.everything.expected.get(cause, 0.0)
        counts = f", expected in {expected:.1f} of {lessons}" if lessons else ""
        yield (
            f"{knowledge.cause[cause].name}: {100 * found.shipped:.1f} % of students by the files,"
            f" {100 * found.here:.1f} % here{counts}."
        )
    for look in looks_moved(learned, knowledge):
        yield _of_eye(look, knowledge)
    yield from _favourite(learned, knowledge)


class MovedRate(NamedTuple):
    """How often something is so, 0 to 1."""

    files: float
    here: float


class LookMoved(NamedTuple):
    """How often an eye is wrong at a look, by the files and here.

    look : its id; `EVERY_LOOK`: what all looks have in common
    answers : that say so
    false_yes, false_no : 0 to 1; None where it is much as the files have it
    """

    look: str
    answers: int
    false_yes: MovedRate | None
    false_no: MovedRate | None


def looks_moved(learned: Learned, knowledge: Knowledge) -> list[LookMoved]:
    """What moved alike at most looks, then the looks that differ from that, most answers first."""
    found = [_moved(EVERY_LOOK, learned.answers, learned.every_look, knowledge)]
    for look, yes, no in learned.eye:
        of_look = [tally for tally in learned.answers if tally.check == look]
        if (yes, no) != learned.every_look:
            found.append(_moved(look, of_look, (yes, no), knowledge))
    visible = [f for f in found if f.false_yes or f.false_no]
    return sorted(visible, key=lambda f: (f.look != EVERY_LOOK, -f.answers))


def _moved(
    look: str, tallies: Sequence[EyeTally], factor: tuple[float, float], knowledge: Knowledge
) -> LookMoved:
    """Rates by these factors, as often as each look was answered from each source."""
    answers = sum(tally.answers for tally in tallies)
    files, here = np.zeros(2), np.zeros(2)
    for tally in tallies:
        check, eye = knowledge.check[tally.check], ((tally.check, *factor),)
        part = tally.answers / answers
        files += part * np.array(error_rates(check, tally.source, (), knowledge.numbers))
        here += part * np.array(error_rates(check, tally.source, eye, knowledge.numbers))
    rates = (MovedRate(*pair) for pair in np.column_stack([files, here]).tolist())
    return LookMoved(look, answers, *(rate if _is_visible(rate) else None for rate in rates))


def _is_visible(rate: MovedRate) -> bool:
    return rate.files > 0 and max(rate.here / rate.files, rate.files / rate.here) > VISIBLY


def _of_eye(moved: LookMoved, knowledge: Knowledge) -> str:
    every = moved.look == EVERY_LOOK
    where = "At every look" if every else capital(knowledge.check[moved.look].label)
    parts = [
        f"{word} {100 * rate.here:.0f} % of the time (by the files {100 * rate.files:.0f} %)"
        for word, rate in (
            ("sees it where it is not", moved.false_yes),
            ("misses it where it is", moved.false_no),
        )
        if rate is not None
    ]
    return f"{where}: your eye {' and '.join(parts)}, by {count_of(moved.answers, 'answer')}."


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
