"""What does every route need? A session on the database and the knowledge."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Annotated

from fastapi import Depends, Header, Path, Request
from sqlalchemy.event import listen
from sqlmodel import Session

from firm_footing.api.conclusions.kept import KeptConclusions
from firm_footing.api.security.intake import PARSED
from firm_footing.core.knowledge import Knowledge
from firm_footing.store.changes.idempotency import SENDER, Sender, has_arrived
from firm_footing.store.database import take_turn
from firm_footing.store.known import KNOWLEDGE, TAUGHT, WORKED
from firm_footing.store.own_tables import SentWrite

RowId = Annotated[str, Path(pattern=r"^[A-Za-z0-9_-]{1,64}$", examples=["5f0c9a52"])]
"""An id in a path; clients make their own, a UUID for instance."""
IdHeader = Annotated[str | None, Header(pattern=r"^[A-Za-z0-9_-]{1,64}$")]


class DuplicateWriteError(Exception):
    """The change was made already, when it was sent the first time."""

    def __init__(self, before: SentWrite) -> None:
        super().__init__(before.id)
        self.before = before


def _changed(request: Request) -> None:
    request.app.state.arrivals.tell()
    request.app.state.learner.wake()


@contextmanager
def session_for(request: Request, sender: Sender) -> Iterator[Session]:
    """A session that knows who asks, and reads against the knowledge of the application."""
    with Session(request.app.state.engine, expire_on_commit=False) as session:
        session.info[KNOWLEDGE] = request.app.state.knowledge
        session.info[SENDER] = sender
        in_use = request.app.state.learner.in_use
        session.info.update({TAUGHT: in_use.taught, WORKED: in_use.worked})
        listen(session, "after_commit", lambda _: _changed(request))
        yield session


def _session(request: Request, page_id: IdHeader = None) -> Iterator[Session]:
    with session_for(request, Sender(page=page_id)) as session:
        yield session


def _asked(request: Request) -> str:
    """Method and path; of a change of a lesson, its kind and its row as well."""
    said = request.scope.get(PARSED)
    which = [said.get("kind"), said.get("id")] if isinstance(said, dict) and "kind" in said else []
    return " ".join([request.method, request.url.path, *(str(w) for w in which if w)])


def _writing(
    request: Request, idempotency_key: IdHeader = None, page_id: IdHeader = None
) -> Iterator[Session]:
    sender = Sender(idempotency_key, page_id, asked=_asked(request))
    with session_for(request, sender) as session:
        take_turn(session)
        before = has_arrived(session)
        if before is not None:
            raise DuplicateWriteError(before)
        yield session


def _writing_by_content(request: Request, page_id: IdHeader = None) -> Iterator[Session]:
    with session_for(request, Sender(page=page_id)) as session:
        take_turn(session)
        yield session


def _knowledge(request: Request) -> Knowledge:
    knowledge: Knowledge = request.app.state.knowledge
    return knowledge


def _conclusions(request: Request) -> KeptConclusions:
    kept: KeptConclusions = request.app.state.conclusions
    return kept


Conclusions = Annotated[KeptConclusions, Depends(_conclusions)]
"""What was concluded already."""
Store = Annotated[Session, Depends(_session)]
"""For reading."""
Writing = Annotated[Session, Depends(_writing)]
"""For a change: it has its turn from the beginning, and is made once, however often it is sent.

With the headers `Idempotency-Key`, the same whenever the change is sent again, and `page-id`, the
page it was done on, whose steps are taken back there.
"""
WritingByContent = Annotated[Session, Depends(_writing_by_content)]
"""For a change that is the same however often it is made, by what is in it: it needs no key."""
Known = Annotated[Knowledge, Depends(_knowledge)]
