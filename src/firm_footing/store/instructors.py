"""Who gives lessons, and whose device is it?"""

from collections.abc import Mapping
from typing import Any, Final

from sqlmodel import Session, col, select

from firm_footing.store.changes.idempotency import end_of_change
from firm_footing.store.errors import not_found, refused
from firm_footing.store.own_tables import AppSetting, Device
from firm_footing.store.tables import Instructor

MOST: Final = 50
HERE: Final = "who works at this machine"


def all_instructors(session: Session) -> list[Instructor]:
    """The one longest here first."""
    return list(session.exec(select(Instructor).order_by(col(Instructor.created_at))))


def get_instructor(session: Session, instructor_id: str) -> Instructor:
    """The instructor of this id; NotFoundError when there is none."""
    found = session.get(Instructor, instructor_id)
    if found is None:
        raise not_found("instructor")
    return found


def instructor_of(session: Session, device_id: str | None) -> Instructor | None:
    """Whose device it is; None is the machine itself, whose instructor a device without one has."""
    device = None if device_id is None else session.get(Device, device_id)
    if device is not None and device.instructor_id is not None:
        return session.get(Instructor, device.instructor_id)
    here = session.get(AppSetting, HERE)
    return None if here is None else session.get(Instructor, here.value)


def add_instructor(session: Session, values: Mapping[str, Any]) -> Instructor:
    """Someone more; the first one there is works at the machine itself.

    Raises
    ------
    RefusedError
        As many are kept as may be, or nothing can be seen of the name.

    """
    everyone = all_instructors(session)
    if len(everyone) >= MOST:
        raise refused(f"At most {MOST} instructors are kept.", "name", "Delete one first.")
    added = Instructor(**values)
    session.add(added)
    session.flush()
    if not everyone:
        session.merge(AppSetting(name=HERE, value=added.id))
    end_of_change(session, made=added.id)
    return added


def change_instructor(session: Session, changed: Instructor, values: Mapping[str, Any]) -> None:
    """New values; lessons given before keep the name they have."""
    for name, value in values.items():
        setattr(changed, name, value)
    session.add(changed)
    end_of_change(session, made=changed.id)


def works_here(session: Session, instructor_id: str) -> None:
    """From now on this one works at the machine itself."""
    get_instructor(session, instructor_id)
    session.merge(AppSetting(name=HERE, value=instructor_id))
    end_of_change(session, made=instructor_id)


def delete_instructor(session: Session, instructor_id: str) -> None:
    """Their lessons stay, with the name; their devices are of whoever works at the machine.

    Raises
    ------
    RefusedError
        They work at the machine itself.

    """
    gone = get_instructor(session, instructor_id)
    here = session.get(AppSetting, HERE)
    if here is not None and here.value == instructor_id:
        raise refused(
            f"{gone.name or 'This instructor'} works at this machine.",
            "instructor_id",
            "Choose somebody else for this machine first. Nothing was deleted.",
        )
    session.delete(gone)
    end_of_change(session, made=instructor_id)
