"""What is told of a film: its marks, its measures, and what the student believed."""

from datetime import datetime

from pydantic import Field

from firm_footing.api.wire import Out
from firm_footing.core.case import Case, Film
from firm_footing.core.film import FilmError, MeasureRead, read_film
from firm_footing.core.film.felt import FeltAndSeen
from firm_footing.core.film.finder import rates_that_fit
from firm_footing.core.film.measures import when_it_leaves
from firm_footing.core.inference.film_answers import USUAL_CLUB, counts
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.pressure import SwingEvent
from firm_footing.core.knowledge.soft_threshold import in_a_word
from firm_footing.core.knowledge.vocabulary import Answer
from firm_footing.store.tables import FilmMarks


class FilmAnswerOut(Out):
    """A look that a measure answers."""

    check: str
    share: float = Field(description="How clearly its fact shows, 0 to 1")
    answer: Answer | None = Field(description="In a word; null: it says nothing clear")


class FilmMeasureOut(Out):
    """One number of a film, a projection onto the picture."""

    id: str
    name: str
    unit: str
    event: SwingEvent
    value: float
    sd: float
    text: str
    answers: list[FilmAnswerOut]
    felt: str | None = Field(description="What the student believed, and what is so, in sentences")


class FilmOut(Out):
    """A film with what it measures."""

    id: str
    block_id: str | None
    name: str
    marked_at: datetime
    marks: Film
    counts: bool = Field(description="Toward the diagnosis: filmed before anything was changed")
    measures: list[FilmMeasureOut]
    leaves: str | None = Field(description="From when on a heel is off the ground, in a sentence")
    problem: str | None = Field(description="Why nothing can be measured yet")
    wanted: list[str] = Field(description="Measures whose points are not all touched yet")
    rates: list[float] = Field(
        description="Pictures a second that the time from top to impact allows; empty: none does"
    )


def film_view(row: FilmMarks, case: Case, index: int, known: Knowledge) -> FilmOut:
    """One film of a lesson; `index` is its place among the case's films."""
    measures, problem = _measured(row.marks, club_of(case, index), known)
    read = {m.measure.id for m in measures}
    return FilmOut(
        id=row.id,
        block_id=row.block_id,
        name=row.name,
        marked_at=row.marked_at,
        marks=row.marks,
        counts=counts(case, index),
        measures=[_shown(m, row.marks) for m in measures],
        leaves=when_it_leaves(measures),
        problem=problem,
        wanted=[m.id for m in known.film.of_view(row.marks.view) if m.id not in read],
        rates=_rates(row.marks, known),
    )


def club_of(case: Case, index: int) -> str:
    """The club in hand in a film."""
    block = case.films[index].block
    return USUAL_CLUB if block is None else case.blocks[block].club


def felt_in(film: Film, club: str, known: Knowledge) -> list[FeltAndSeen]:
    """What was believed of what is measured; nothing where nothing can be measured."""
    measures, _ = _measured(film, club, known)
    return [FeltAndSeen(m, film.felt[m.measure.id]) for m in measures if m.measure.id in film.felt]


def _measured(marks: Film, club: str, known: Knowledge) -> tuple[list[MeasureRead], str | None]:
    try:
        return read_film(marks, club, known), None
    except FilmError as error:
        return [], str(error)


def _shown(read: MeasureRead, marks: Film) -> FilmMeasureOut:
    felt = marks.felt.get(read.measure.id)
    return FilmMeasureOut(
        id=read.measure.id,
        name=read.measure.name,
        unit=read.measure.unit,
        event=read.measure.event,
        value=read.value,
        sd=read.sd,
        text=read.text,
        answers=[
            FilmAnswerOut(check=c, share=s, answer=in_a_word(s)) for c, s in read.answers.items()
        ],
        felt=None if felt is None else FeltAndSeen(read, felt).text,
    )


def _rates(marks: Film, known: Knowledge) -> list[float]:
    top, impact = marks.events.get("top"), marks.events.get("impact")
    if top is None or impact is None:
        return [marks.fps]
    return rates_that_fit(impact - top, marks.fps, known.traces.timing)
