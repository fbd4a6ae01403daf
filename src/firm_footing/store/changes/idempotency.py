"""Who asks for a change, and has it arrived before?

A device sends a change again until it hears that it arrived: the same id is the same change.
"""

from dataclasses import dataclass
from datetime import timedelta
from typing import Final

from sqlmodel import Session, col, delete

from firm_footing.store.columns import now
from firm_footing.store.errors import refused
from firm_footing.store.own_tables import SentWrite

SENDER: Final = "sender"
"""Where a session keeps its `Sender`."""
REMEMBERED: Final = timedelta(days=90)
"""For how long a change that arrives again is known: longer than a tablet lies in a drawer."""


@dataclass(frozen=True)
class Sender:
    """Who asks for a change.

    write : the id that was given to this change, the same when it is sent again
    page : the page it was done on
    asked : method and path it is sent with
    """

    write: str | None = None
    page: str | None = None
    asked: str | None = None


def sender_of(session: Session) -> Sender:
    """Who asks for the change that this session is for."""
    found: Sender = session.info.get(SENDER, Sender())
    return found


def has_arrived(session: Session) -> SentWrite | None:
    """What is kept of the change that this session is for; None when it has not arrived yet.

    Raises
    ------
    RefusedError
        Its id is another change's.

    """
    sender = sender_of(session)
    found = None if sender.write is None else session.get(SentWrite, sender.write)
    if found is not None and found.asked not in (None, sender.asked):
        raise refused(
            "The id of this change is another's.", "Idempotency-Key", "Nothing was changed."
        )
    return found


def forget_old_writes(session: Session) -> None:
    """Ids of changes that arrived so long ago that nothing sends them again."""
    session.exec(delete(SentWrite).where(col(SentWrite.arrived_at) < now() - REMEMBERED))
    session.commit()


def end_of_change(session: Session, lesson_id: str | None = None, made: str | None = None) -> None:
    """Keep that it has arrived, in the same transaction, and make both last.

    Every change ends here, whatever it changed.

    lesson_id : the lesson it was made in
    made : id of the row it made or changed, where that is no part of a lesson
    """
    sender = sender_of(session)
    if sender.write is not None:
        session.add(SentWrite(id=sender.write, lesson_id=lesson_id, made=made, asked=sender.asked))
    session.commit()
