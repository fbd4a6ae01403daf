"""What did the instructor write down?"""

from sqlmodel import Session

from firm_footing.store.changes.conflicts import Was, merged, was_there
from firm_footing.store.changes.history import Step
from firm_footing.store.changes.quotas import require_quota
from firm_footing.store.errors import not_found
from firm_footing.store.lessons import get_lesson
from firm_footing.store.tables import Note


def put_note(
    session: Session, lesson_id: str, note_id: str, text: str, was: Was | None = None
) -> Note:
    """Keep a note under the client's id, or change the one that has it; `was` as for `merged`.

    Raises
    ------
    NotFoundError
        There is no such lesson, or the note is another's.
    RefusedError
        There are as many as may be.
    ConflictError
        It is another than `was` by now.

    """
    get_lesson(session, lesson_id)
    note = session.get(Note, note_id)
    if note is not None and note.lesson_id != lesson_id:
        raise not_found("note")
    with Step(session, lesson_id, "note") as step:
        if note is None:
            was_there("note", was, {"text": text})
            require_quota(session, Note, lesson_id)
            note = Note(id=note_id, lesson_id=lesson_id, text=text)
            step.add(note)
        else:
            step.change(note, **merged(note, {"text": text}, was))
    return note


def delete_note(session: Session, lesson_id: str, note_id: str) -> None:
    """Take a note out; it can be undone. A note already gone is no error."""
    note = session.get(Note, note_id)
    if note is None:
        return
    if note.lesson_id != lesson_id:
        raise not_found("note")
    with Step(session, lesson_id, "deletion of a note") as step:
        step.delete(note)
