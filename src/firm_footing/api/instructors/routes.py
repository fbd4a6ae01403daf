"""Who gives lessons, and what follows them to each of their devices?"""

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, Depends, Request
from pydantic import Field, StringConstraints

from firm_footing.api.context import RowId, Store, Writing
from firm_footing.api.errors import responses
from firm_footing.api.security.device_auth import AT_THE_MACHINE_ONLY, device_of
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.wire import In, Out
from firm_footing.core.case import School
from firm_footing.core.frame import SideWords
from firm_footing.store import instructors
from firm_footing.store.tables import Instructor

router = APIRouter(route_class=ParsedOnceRoute, tags=["instructors"])
Signature = Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)]


class InstructorOut(Out):
    """Someone who gives lessons."""

    id: str
    name: str
    place: str
    school: School
    sides: SideWords
    created_at: datetime


class InstructorsOut(Out):
    """Everybody who gives lessons here."""

    mine: InstructorOut | None = Field(description="Whose device this is; null: nobody said yet")
    all: list[InstructorOut]


class InstructorChange(In):
    """New values; what is left out stays."""

    name: Signature | None = Field(None, examples=["Ona Field"])
    place: Signature | None = Field(None, description="Where the lessons are given")
    school: School | None = None
    sides: SideWords | None = Field(None, description="What feet are called")

    def values(self) -> dict[str, object]:
        """What was sent."""
        sent = {name: getattr(self, name) for name in self.model_fields_set}
        return {name: value for name, value in sent.items() if value is not None}


def _mine(request: Request, session: Store) -> Instructor | None:
    return instructors.instructor_of(session, device_of(request, session))


Mine = Annotated[Instructor | None, Depends(_mine)]
"""Whose device asks."""


@router.get("/instructors", summary="Who gives lessons, and whose device this is")
def read_instructors(session: Store, mine: Mine) -> InstructorsOut:
    """The one longest here first."""
    return InstructorsOut(
        mine=mine and InstructorOut.model_validate(mine),
        all=[InstructorOut.model_validate(i) for i in instructors.all_instructors(session)],
    )


@router.put("/instructors/mine", summary="Change one's own profile", responses=responses(409, 422))
def change_mine(request: Request, session: Writing, change: InstructorChange) -> InstructorOut:
    """It follows to all one's devices; the first one to say something is added."""
    mine = instructors.instructor_of(session, device_of(request, session))
    if mine is None:
        mine = instructors.add_instructor(session, change.values())
    else:
        instructors.change_instructor(session, mine, change.values())
    return InstructorOut.model_validate(mine)


@router.post(
    "/instructors",
    status_code=201,
    summary="Add an instructor",
    responses=responses(409, 422),
    dependencies=AT_THE_MACHINE_ONLY,
)
def add_instructor(session: Writing, new: InstructorChange) -> InstructorOut:
    """At the machine itself."""
    return InstructorOut.model_validate(instructors.add_instructor(session, new.values()))


@router.put(
    "/instructors/{instructor_id}/here",
    status_code=204,
    summary="Work at the machine",
    responses=responses(404, 409, 422),
    dependencies=AT_THE_MACHINE_ONLY,
)
def work_here(session: Writing, instructor_id: RowId) -> None:
    """Lessons begun at the machine itself are this instructor's from now on."""
    instructors.works_here(session, instructor_id)


@router.delete(
    "/instructors/{instructor_id}",
    status_code=204,
    summary="Delete an instructor",
    responses=responses(404, 409, 422),
    dependencies=AT_THE_MACHINE_ONLY,
)
def delete_instructor(session: Writing, instructor_id: RowId) -> None:
    """At the machine itself; their lessons stay, with the name."""
    instructors.delete_instructor(session, instructor_id)
