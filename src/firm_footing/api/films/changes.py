"""Which changes of films are there? Of what is marked in them: a film itself never comes here."""

from typing import Annotated, Literal

from pydantic import Field
from sqlmodel import Session

from firm_footing.api.changes.change import RowChange
from firm_footing.api.changes.schemas import OwnId, WasWhole
from firm_footing.api.wire import In
from firm_footing.core.case import Film
from firm_footing.core.case.limits import NAME
from firm_footing.core.knowledge import Knowledge
from firm_footing.store import films
from firm_footing.store.errors import refused


class FilmIn(In):
    """A film as far as it is marked; sending it again with more replaces it."""

    marks: Film = Field(description="Golfer-neutral; the block is named beside it")
    block_id: OwnId | None = Field(None, description="Left out: before anything was changed")
    name: Annotated[str, Field(max_length=NAME)] = ""
    was: WasWhole = None


class PutFilm(RowChange):
    """Keep a film's marks; the same id again has the marks of then."""

    kind: Literal["film"]
    body: FilmIn

    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """Points and measures have to be known, and events in their order."""
        sent = self.body
        for point in sent.marks.points:
            if point not in known.film.point:
                raise refused(f"There is no point '{point}'.", "marks", "Nothing was changed.")
        for measure in sent.marks.felt:
            if known.film.can_be_felt(measure) is None:
                raise refused(f"Nobody points to '{measure}'.", "marks", "Nothing was changed.")
        if sent.marks.out_of_order is not None:
            one, other = (e.replace("_", " ") for e in sent.marks.out_of_order)
            what = f"'{other}' does not come after '{one}'."
            raise refused(what, "marks", "Nothing was changed.")
        marks = sent.marks.model_copy(update={"block": None})
        films.put_film(session, lesson_id, self.id, marks, sent.block_id, sent.name, sent.was)


class DeleteFilm(RowChange):
    """Delete a film's marks; one already gone is no error."""

    kind: Literal["film-gone"]

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """It can be undone."""
        films.delete_film(session, lesson_id, self.id)
