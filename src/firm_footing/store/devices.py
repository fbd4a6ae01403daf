"""Which devices may come in over the network?"""

import secrets

from sqlmodel import Session, col, select

from firm_footing.store.database import take_turn
from firm_footing.store.errors import not_found, refused
from firm_footing.store.own_tables import AppSetting, Device

MOST = 50
SECRET = "cookies are signed with"


def all_devices(session: Session) -> list[Device]:
    """The newest first."""
    return list(session.exec(select(Device).order_by(col(Device.paired_at).desc())))


def add_device(session: Session, name: str) -> Device:
    """Let one in."""
    if len(all_devices(session)) >= MOST:
        raise refused(
            f"At most {MOST} devices are paired.", "name", "Send one away on the machine first."
        )
    device = Device(name=name)
    session.add(device)
    session.commit()
    return device


def rename_device(session: Session, device_id: str, name: str) -> None:
    """Call it otherwise."""
    device = _device(session, device_id)
    device.name = name
    session.add(device)
    session.commit()


def send_away(session: Session, device_id: str) -> None:
    """It comes in no more until it is paired again."""
    session.delete(_device(session, device_id))
    session.commit()


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


def _device(session: Session, device_id: str) -> Device:
    device = session.get(Device, device_id)
    if device is None:
        raise not_found("device")
    return device
