"""Which changes of a lesson itself are there: its words, its student, its blocks, its steps?"""

from collections.abc import Container, Iterable
from typing import Literal

from pydantic import Field
from sqlmodel import Session

from firm_footing.api.changes.change import Change, RowChange
from firm_footing.api.changes.schemas import (
    BlockIn,
    DecisionIn,
    LessonChange,
    NoteIn,
    StepIn,
    StudentChange,
)
from firm_footing.core.coaching.lesson import Cue, Listen, SheetWords
from firm_footing.core.knowledge import Knowledge
from firm_footing.store import decisions, lessons, notes
from firm_footing.store.changes import history
from firm_footing.store.errors import refused


class ChangeLesson(Change):
    """Change the lesson; what is left out stays."""

    kind: Literal["lesson"]
    body: LessonChange

    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """`at_hand` null: all is at hand; `drill` and `aid` null: none."""
        sent = self.body.model_dump(exclude_unset=True, exclude={"was"})
        empties = ("at_hand", "drill", "aid", "primary", "next_at")
        values = {k: v for k, v in sent.items() if v is not None or k in empties}
        _all_is_known(known, self.body)
        lessons.change_lesson(session, lesson_id, values, self.body.was)


class ChangeStudentOf(Change):
    """Change the student as a step of the lesson, which can be undone."""

    kind: Literal["student"]
    body: StudentChange

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """What is left out stays."""
        lessons.change_student_of(session, lesson_id, self.body.values(), self.body.was)


class PutBlock(RowChange):
    """Add a block, or change it; what is left out stays."""

    kind: Literal["block"]
    body: BlockIn

    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """Club and drill have to be known."""
        block = self.body
        sent = {name: getattr(block, name) for name in block.model_fields_set - {"was"}}
        never_null = ("kind", "club", "own_targets")
        values = {k: v for k, v in sent.items() if not (k in never_null and v is None)}
        if "club" in values:
            club_is_known(known, values["club"])
        if values.get("drill") is not None and values["drill"] not in known.drill:
            what = f"No drill is called '{values['drill']}'."
            raise refused(what, "drill", "Nothing was changed.")
        lessons.put_block(session, lesson_id, self.id, values, block.was)


class PutNote(RowChange):
    """Write a note, or change it."""

    kind: Literal["note"]
    body: NoteIn

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """The client makes the id."""
        notes.put_note(session, lesson_id, self.id, self.body.text, self.body.was)


class DeleteNote(RowChange):
    """Delete a note."""

    kind: Literal["note-gone"]

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """It can be undone."""
        notes.delete_note(session, lesson_id, self.id)


class Decide(Change):
    """Decide on one cause."""

    kind: Literal["decision"]
    body: DecisionIn

    def apply(self, session: Session, known: Knowledge, lesson_id: str) -> None:
        """Kept with what the ranking says now, by which knowledge, and what it predicts."""
        sent = self.body
        if sent.cause not in known.cause:
            raise refused(f"No cause is called '{sent.cause}'.", "cause", "Nothing was changed.")
        decisions.add_decision(session, lesson_id, sent.cause, sent.reason, known, sent.id)


class Undo(Change):
    """Take a step back: the one named, else the last one of this page."""

    kind: Literal["undo"]
    body: StepIn = Field(default_factory=StepIn)

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """Does nothing where there is nothing, or it was taken back already."""
        lessons.get_lesson(session, lesson_id)
        history.undo(session, lesson_id, self.body.step, self.body.write)


class Redo(Change):
    """Do a step again: the one named, else the first one of this page that was taken back."""

    kind: Literal["redo"]
    body: StepIn = Field(default_factory=StepIn)

    def apply(self, session: Session, _known: Knowledge, lesson_id: str) -> None:
        """Does nothing where nothing was taken back, or it stands already."""
        lessons.get_lesson(session, lesson_id)
        history.redo(session, lesson_id, self.body.step, self.body.write)


def _all_is_known(known: Knowledge, change: LessonChange) -> None:
    """Ids that stand in no part of the knowledge would be kept for nothing."""
    listen, sheet = change.listen or Listen(), change.sheet or SheetWords()
    drills = {"drill": change.drill, "aid": change.aid}
    # on the sheet an empty name says that none is to go home
    drills |= {
        "sheet.rehearsal": sheet.rehearsal or None,
        "sheet.ball_drill": sheet.ball_drill or None,
    }
    given: dict[str, tuple[Iterable[str], Container[str], str]] = {
        **{
            place: (() if name is None else (name,), known.drill, "drill")
            for place, name in drills.items()
        },
        "primary": ((change.primary,) if change.primary else (), known.measure, "measure"),
        "lacking": (change.lacking or (), {e.id for e in known.equipment}, "equipment"),
        "cue.felt": (
            (change.cue or Cue()).felt,
            {t.id for t in known.cautions.force_tests},
            "feel test",
        ),
        "listen.misses": (listen.misses, {m.id for m in known.misses}, "miss"),
        "listen.corrected": (listen.corrected, known.check, "belief"),
    }
    for place, (names, there, kind) in given.items():
        for name in names:
            if name not in there:
                raise refused(f"No {kind} is called '{name:.60}'.", place, "Nothing was changed.")


def club_is_known(known: Knowledge, club: str) -> None:
    """Refuse a club that the knowledge does not name."""
    if club not in known.club:
        names = ", ".join(known.club)
        raise refused(f"No club is called '{club}'.", "club", f"Known are {names}.")
