"""Which changes of answers are there?"""

from typing import Literal

from sqlmodel import Session

from firm_footing.api.changes.change import RowChange
from firm_footing.api.changes.schemas import AnswerIn
from firm_footing.core.knowledge import Knowledge
from firm_footing.store import answers
from firm_footing.store.errors import refused


class AnswerCheck(RowChange):
    """Answer a look, or change the answer; several to one check stand side by side."""

    kind: Literal["answer"]
    body: AnswerIn

    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """Where no source was named, it is the check's first."""
        new = self.body
        check = known.check.get(new.check_id)
        if check is None:
            what = f"No check is called '{new.check_id}'."
            raise refused(what, "check_id", "Nothing was changed.")
        values = new.model_dump(exclude={"was"}) | {"source": new.source or check.sources[0]}
        answers.put_answer(session, lesson_id, self.id, check.question, values, new.was)


class DeleteAnswer(RowChange):
    """Take an answer back; one already gone is no error."""

    kind: Literal["answer-gone"]

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """It can be undone."""
        answers.delete_answer(session, lesson_id, self.id)
