"""How does a tablet come in over the network?"""

from datetime import datetime
from typing import Annotated

import segno
from fastapi import APIRouter, Body, Request, Response
from pydantic import Field, StringConstraints

from firm_footing.api.changes.schemas import OwnId
from firm_footing.api.context import IdHeader, RowId, Store, Writing
from firm_footing.api.errors import responses
from firm_footing.api.security.device_auth import (
    A_YEAR_S,
    AT_THE_MACHINE_ONLY,
    COOKIE,
    Codes,
    cookie_for,
    is_at_the_machine,
)
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.wire import In, Out
from firm_footing.store import devices, instructors
from firm_footing.store.database import take_turn
from firm_footing.store.errors import refused

router = APIRouter(route_class=ParsedOnceRoute, tags=["pairing"])
DeviceName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]


class DeviceOut(Out):
    """A device that may come in."""

    id: str
    name: str
    instructor_id: str | None = Field(description="Whose it is; null: of who works at the machine")
    paired_at: datetime


class OfferOut(Out):
    """A code, good once; the picture holds the address with it."""

    code: str
    seconds: int
    picture: str = Field(description="The QR code, as an SVG data address")


class PairingOut(Out):
    """How the network stands."""

    address: str | None = Field(description="Where other devices find it; null: this machine only")
    encrypted: bool = Field(description="Nobody on the network can listen")
    here: bool = Field(description="Whether this page is on the machine itself")
    devices: list[DeviceOut] = Field(description="Told to the machine itself only")


class Claim(In):
    """The code as it stands on the machine, and what the device is called."""

    code: Annotated[str, StringConstraints(pattern=r"^[0-9]{6}$")]
    name: DeviceName = Field(examples=["Tablet on the range"])


class Offering(In):
    """Whose device is to come in."""

    instructor_id: OwnId | None = Field(None, description="Left out: of who works at the machine")


class DeviceChange(In):
    """Another name, another instructor; what is left out stays."""

    name: DeviceName | None = None
    instructor_id: OwnId | None = None


ANYBODY = Offering()


@router.get("/pairing", summary="How the network stands")
def read_pairing(request: Request, session: Store) -> PairingOut:
    """Devices are told to the machine itself only."""
    here = is_at_the_machine(request)
    return PairingOut(
        address=request.app.state.address,
        encrypted=request.app.state.encrypted,
        here=here,
        devices=[DeviceOut.model_validate(d) for d in devices.all_devices(session)] if here else [],
    )


@router.post(
    "/pairing/offer",
    summary="Show a new code",
    responses=responses(404, 409, 422),
    dependencies=AT_THE_MACHINE_ONLY,
)
def offer_code(
    request: Request, session: Store, new: Annotated[Offering, Body()] = ANYBODY
) -> OfferOut:
    """At the machine itself, when it serves the network."""
    address = request.app.state.address
    if address is None:
        raise refused(
            "The application serves this machine only.",
            "address",
            "Start it with 'firm-footing serve --network' to let a tablet in.",
        )
    codes: Codes = request.app.state.codes
    if new.instructor_id is not None:
        instructors.get_instructor(session, new.instructor_id)
    code = codes.offer(new.instructor_id)
    picture = segno.make(f"{address}/pair?code={code}", error="m").svg_data_uri(scale=5, border=4)
    return OfferOut(code=code, seconds=codes.seconds_left, picture=picture)


@router.post("/pairing/claim", status_code=204, summary="Come in", responses=responses(409, 422))
def claim_code(
    request: Request, response: Response, session: Store, claim: Claim, page_id: IdHeader = None
) -> None:
    """With the code of the machine; the answer brings the cookie."""
    codes: Codes = request.app.state.codes
    address = request.client.host if request.client else ""
    found = codes.claim(claim.code, address, page_id or "")
    if found == "locked":
        raise refused(
            "Too many codes from here were wrong.", "code", "Wait a minute, then name it again."
        )
    if found == "wrong":
        raise refused(
            "This code is not good, or no more.", "code", "Show a new one on the machine."
        )
    take_turn(session)
    device = devices.add_device(session, claim.name, codes.whose)
    response.set_cookie(
        COOKIE,
        cookie_for(device.id, session),
        max_age=A_YEAR_S,
        httponly=True,
        samesite="strict",
        secure=request.app.state.encrypted,
    )


@router.patch(
    "/devices/{device_id}",
    status_code=204,
    summary="Rename a device, or give it to another instructor",
    responses=responses(404, 409, 422),
    dependencies=AT_THE_MACHINE_ONLY,
)
def change_device(session: Writing, device_id: RowId, change: DeviceChange) -> None:
    """At the machine itself."""
    if change.instructor_id is not None:
        instructors.get_instructor(session, change.instructor_id)
    devices.change_device(session, device_id, change.model_dump(exclude_none=True))


@router.delete(
    "/devices/{device_id}",
    status_code=204,
    summary="Send a device away",
    responses=responses(404, 409, 422),
    dependencies=AT_THE_MACHINE_ONLY,
)
def send_away(session: Writing, device_id: RowId) -> None:
    """At the machine itself; it comes in no more until it is paired again."""
    devices.send_away(session, device_id)
