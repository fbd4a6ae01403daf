"""What does every route need? A session on the database and the knowledge."""

from collections.abc import Iterator
from typing import Annotated

from fastapi import Depends, Path, Request
from sqlmodel import Session

from firm_footing.core.knowledge import Knowledge


def _session(request: Request) -> Iterator[Session]:
    with Session(request.app.state.engine, expire_on_commit=False) as session:
        yield session


def _knowledge(request: Request) -> Knowledge:
    knowledge: Knowledge = request.app.state.knowledge
    return knowledge


Store = Annotated[Session, Depends(_session)]
Known = Annotated[Knowledge, Depends(_knowledge)]
RowId = Annotated[str, Path(pattern=r"^[A-Za-z0-9_-]{1,64}$", examples=["5f0c9a52"])]
"""An id in a path; clients make their own, a UUID for instance."""
