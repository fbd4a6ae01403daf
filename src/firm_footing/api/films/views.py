"""What is told of a film: its marks, its measures, and what the student believed."""

from datetime import datetime

from pydantic import Field

from firm_footing.api.wire import Out
from firm_footing.core.case import Case, Film
from firm_footing.core.conclusions.next_touch import next_measures
from firm_footing.core.film import FilmError, MeasureRead, read_film
from firm_footing.core.film.felt import FeltAndSeen
from firm_footing.core.film.finder import rates_that_fit
from firm_footing.core.film.measures import when_it_leaves
from firm_footing.core.film.other_hand import shows_other_hand
from firm_footing.core.inference.film_answers import USUAL_CLUB, counts
from firm_footing.core.inference.inference import Inference
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.film import FilmEvent
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
    event: FilmEvent
    value: float
    sd: float
    text: str
    answers: list[FilmAnswerOut]
    felt: str | None = Field(description="What the student believed, and what is so, in sentences")


class WantedMeasure(Out):
    """A measure that a film could still have."""

    measure: str
    tells: bool = Field(description="Something about where to start; false: next to nothing")
    touches: int = Field(description="Points still to be touched for it")


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
    other_hand: bool = Field(
        description="Points lie as in a swing of the other hand: the film may be mirrored"
    )
    wanted: list[WantedMeasure] = Field(
        description="Measures whose points are not all touched yet, what tells most a touch first"
    )
    rates: list[float] = Field(
        description="Pictures a second that the time from top to impact allows; empty: none does"
    )


def film_view(row: FilmMarks, inference: Inference, index: int) -> FilmOut:
    """One film of a lesson; `index` is its place among the case's films."""
    case, known = inference.case, inference.knowledge
    measures, problem = _measured(row.marks, club_of(case, index), known)
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
        other_hand=shows_other_hand(row.marks, known.film),
        wanted=[
            WantedMeasure(measure=n.measure.id, tells=n.gain_bits > 0.0, touches=n.touches)
            for n in next_measures(inference, row.marks)
        ],
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
    return rates_that_fit(impact - top, marks.fps, known)
