"""Who may come in over the network? Only devices that were paired at the machine itself.

At the machine a code of six digits is shown, good once and for five minutes. The device that names
it gets a cookie, signed, which scripts cannot read and other sites cannot send.
"""

import secrets
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final, Literal

from fastapi import Depends
from itsdangerous import BadSignature, URLSafeSerializer
from sqlmodel import Session
from starlette.requests import HTTPConnection
from starlette.types import ASGIApp, Receive, Scope, Send

from firm_footing.api.errors import answer
from firm_footing.store.devices import all_devices, secret_of
from firm_footing.store.errors import refused

GOOD_FOR_S: Final = 300.0
WRONG_MOST, LOCKED_S = 5, 60.0
COOKIE: Final = "firm-footing-device"
A_YEAR_S: Final = 365 * 24 * 3600
OPEN: Final = {"/api/pairing", "/api/pairing/claim", "/api/health"}
"""What a device that is not paired may ask."""
AT_THE_MACHINE: Final = {"127.0.0.1", "::1", "testclient"}
Claimed = Literal["right", "wrong", "locked"]


@dataclass
class Codes:
    """The code that is shown at the machine, and how often a wrong one was named.

    clock : seconds that only go forward
    whose : id of the instructor the next device is paired for
    """

    clock: Callable[[], float] = time.monotonic
    code: str | None = None
    whose: str | None = None
    until: float = 0.0
    wrong: int = 0
    locked_until: float = field(default=float("-inf"))

    def offer(self, whose: str | None = None) -> str:
        """A new code; the one before is good no more."""
        self.whose = whose
        self.code, self.until = f"{secrets.randbelow(1_000_000):06}", self.clock() + GOOD_FOR_S
        return self.code

    @property
    def seconds_left(self) -> int:
        """For how long the code is good."""
        return max(0, round(self.until - self.clock())) if self.code else 0

    def claim(self, code: str) -> Claimed:
        """Whether it is the code; five wrong ones lock the door for a minute."""
        if self.clock() < self.locked_until:
            return "locked"
        good = self.code is not None and self.clock() < self.until
        if good and secrets.compare_digest(code.encode(), str(self.code).encode()):
            self.code, self.wrong = None, 0
            return "right"
        self.wrong += 1
        if self.wrong >= WRONG_MOST:
            self.wrong, self.locked_until, self.code = 0, self.clock() + LOCKED_S, None
        return "wrong"


class Doorkeeper:
    """Lets the machine itself and paired devices in."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] == "http" and not self._may_come_in(HTTPConnection(scope)):
            hint = "Open Settings on the machine and name the code that it shows."
            turned_away = answer(401, "not_paired", "This device is not paired.", hint, "cookie")
            await turned_away(scope, receive, send)
            return
        await self.app(scope, receive, send)

    def _may_come_in(self, asked: HTTPConnection) -> bool:
        path = asked.url.path
        if is_at_the_machine(asked) or not path.startswith("/api/") or path in OPEN:
            return True
        with Session(asked.app.state.engine) as session:
            return device_of(asked, session) is not None


def is_at_the_machine(asked: HTTPConnection) -> bool:
    """Whether it comes from the machine that serves."""
    return asked.client is not None and asked.client.host in AT_THE_MACHINE


def at_the_machine(asked: HTTPConnection) -> None:
    """Refuse what is done at the machine itself only."""
    if not is_at_the_machine(asked):
        raise refused(
            "This is done at the machine itself.",
            "address",
            "Open Settings there. Nothing changed.",
        )


AT_THE_MACHINE_ONLY: Final = [Depends(at_the_machine)]
"""Dependencies of a route that other devices may not use."""


def device_of(asked: HTTPConnection, session: Session) -> str | None:
    """The id of the paired device that asks; None for anybody else."""
    signed = asked.cookies.get(COOKIE)
    if signed is None or is_at_the_machine(asked):
        return None
    try:
        named = URLSafeSerializer(secret_of(session), salt="device").loads(signed)
    except BadSignature:
        return None
    return next((d.id for d in all_devices(session) if d.id == named), None)


def cookie_for(device_id: str, session: Session) -> str:
    """The signed cookie of a device."""
    signed = URLSafeSerializer(secret_of(session), salt="device").dumps(device_id)
    return signed if isinstance(signed, str) else signed.decode()
