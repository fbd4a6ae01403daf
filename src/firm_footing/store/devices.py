"""Which devices may come in over the network?"""

import secrets
from collections.abc import Mapping

from sqlmodel import Session, col, select

from firm_footing.store.changes.idempotency import end_of_change
from firm_footing.store.database import take_turn
from firm_footing.store.errors import name_can_be_seen, not_found, refused
from firm_footing.store.own_tables import AppSetting, Device

MOST = 50
SECRET = "cookies are signed with"


def all_devices(session: Session) -> list[Device]:
    """The newest first."""
    return list(session.exec(select(Device).order_by(col(Device.paired_at).desc())))


def add_device(session: Session, name: str, instructor_id: str | None = None) -> Device:
    """Let one in, for this instructor.

    Raises
    ------
    RefusedError
        As many are paired as may be.

    """
    if len(all_devices(session)) >= MOST:
        raise refused(
            f"At most {MOST} devices are paired.", "name", "Send one away on the machine first."
        )
    name_can_be_seen(name)
    device = Device(name=name, instructor_id=instructor_id)
    session.add(device)
    session.flush()
    end_of_change(session, made=device.id)
    return device


def change_device(session: Session, device_id: str, values: Mapping[str, str]) -> None:
    """Call it otherwise, or give it to another instructor."""
    device = get_device(session, device_id)
    for name, value in values.items():
        setattr(device, name, value)
    session.add(device)
    end_of_change(session, made=device_id)


def send_away(session: Session, device_id: str) -> None:
    """It comes in no more until it is paired again."""
    session.delete(get_device(session, device_id))
    end_of_change(session, made=device_id)


def secret_of(session: Session) -> str:
    """What cookies are signed with: made once for a database."""
    kept = session.get(AppSetting, SECRET)
    if kept is None:
        take_turn(session)
        kept = session.get(AppSetting, SECRET) or AppSetting(
            name=SECRET, value=secrets.token_urlsafe(32)
        )
        session.add(kept)
        session.commit()
    return kept.value


def get_device(session: Session, device_id: str) -> Device:
    """The device of this id; NotFoundError when there is none."""
    device = session.get(Device, device_id)
    if device is None:
        raise not_found("device")
    return device
