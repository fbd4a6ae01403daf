"""What do the films answer by themselves?

Only films of swings made without a drill count toward the diagnosis. An answer given by hand stands
above what was measured: it is the one that counts, and where the two differ, that is said.
"""

from collections.abc import Iterator, Mapping

from firm_footing.core.case import Case, Reading
from firm_footing.core.film import FilmError, MeasureRead, read_film
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.soft_threshold import in_a_word

USUAL_CLUB = "7i"


def read_films(case: Case, knowledge: Knowledge) -> Iterator[tuple[int, list[MeasureRead]]]:
    """Every film that can be measured, with its index."""
    for i, film in enumerate(case.films):
        block = case.blocks[film.block] if film.block is not None else None
        club = block.club if block is not None else USUAL_CLUB
        try:
            yield i, read_film(film, club, knowledge)
        except FilmError:
            continue


def counts(case: Case, index: int) -> bool:
    """Whether a film counts toward the diagnosis: made without a drill, before any change."""
    block = case.films[index].block
    return block is None or case.blocks[block].kind == "baseline"


def answers_of(measures: list[MeasureRead]) -> dict[str, float]:
    """Check to how clearly its fact shows: of several measures, the one that says most for it."""
    found: dict[str, float] = {}
    for measure in measures:
        for check, share in measure.answers.items():
            found[check] = max(share, found.get(check, 0.0))
    return found


def answers_of_films(case: Case, knowledge: Knowledge) -> dict[str, list[Reading]]:
    """Check to what the films that count answer."""
    found: dict[str, list[Reading]] = {}
    for reading in _said(case, knowledge):
        found.setdefault(reading.check, []).append(reading)
    return found


def against_films(
    counted: Mapping[str, list[Reading]], case: Case, knowledge: Knowledge
) -> tuple[str, ...]:
    """Checks whose answer by hand is the opposite of what a film measures."""
    opposite = {"yes": "no", "no": "yes"}
    return tuple(
        dict.fromkeys(
            said.check
            for said in _said(case, knowledge)
            if any(
                r.by_hand and opposite.get(r.answer) == said.answer
                for r in counted.get(said.check, ())
            )
        )
    )


def _said(case: Case, knowledge: Knowledge) -> Iterator[Reading]:
    for i, measures in read_films(case, knowledge):
        if not counts(case, i):
            continue
        for check, share in answers_of(measures).items():
            word = in_a_word(share) or "partly"
            yield Reading(check=check, answer=word, source="film", share=share, film=i)
