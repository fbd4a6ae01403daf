"""Who may come in over the network? Only devices that were paired at the machine itself.

At the machine a code of six digits is shown, good once and for five minutes. The device that names
it gets a cookie, signed, which scripts cannot read and other sites cannot send.
"""

import secrets
import time
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final, Literal

from fastapi import Depends
from itsdangerous import BadSignature, URLSafeSerializer
from sqlmodel import Session
from starlette.requests import HTTPConnection
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Receive, Scope, Send

from firm_footing.api.errors import answer
from firm_footing.store.devices import all_devices, secret_of
from firm_footing.store.errors import refused

GOOD_FOR_S: Final = 300.0
WRONG_MOST, WRONG_OF_ADDRESS, LOCKED_S = 5, 20, 60.0
A_SECOND: Final = 200
"""Requests that somebody who is not paired may make in a second: the screens are some eighty."""
COOKIE: Final = "firm-footing-device"
A_YEAR_S: Final = 365 * 24 * 3600
OPEN: Final = {"/api/pairing", "/api/pairing/claim", "/api/health"}
"""What a device that is not paired may ask."""
AT_THE_MACHINE: Final = {"127.0.0.1", "::1", "testclient"}
Claimed = Literal["right", "wrong", "locked"]


@dataclass
class Codes:
    """The code that is shown at the machine, and who named wrong ones.

    Wrong codes lock out who named them, by address and device, and never anybody else. Of a
    million codes somebody with a hundred addresses names 10,000 in the five minutes that one is
    good: a chance of 1 %.

    clock : seconds that only go forward
    whose : id of the instructor the next device is paired for
    """

    clock: Callable[[], float] = time.monotonic
    code: str | None = None
    whose: str | None = None
    until: float = 0.0
    wrong: dict[tuple[str, str], list[float]] = field(default_factory=dict)

    def offer(self, whose: str | None = None) -> str:
        """A new code; the one before is good no more."""
        self.whose = whose
        self.code, self.until = f"{secrets.randbelow(1_000_000):06}", self.clock() + GOOD_FOR_S
        return self.code

    @property
    def seconds_left(self) -> int:
        """For how long the code is good."""
        return max(0, round(self.until - self.clock())) if self.code else 0

    def claim(self, code: str, address: str = "", device: str = "") -> Claimed:
        """Whether it is the code; who names five wrong ones waits a minute.

        address, device : who names it. Several devices behind one address do not lock each other
            out, up to twenty wrong codes of all of them in a minute.
        """
        now = self.clock()
        self.wrong = {
            who: [t for t in times if now - t < LOCKED_S]
            for who, times in self.wrong.items()
            if now - times[-1] < LOCKED_S
        }
        who = (address, device)
        of_address = sum(len(times) for (a, _), times in self.wrong.items() if a == address)
        if len(self.wrong.get(who, ())) >= WRONG_MOST or of_address >= WRONG_OF_ADDRESS:
            return "locked"
        good = self.code is not None and now < self.until
        if good and secrets.compare_digest(code.encode(), str(self.code).encode()):
            self.code = None
            self.wrong.pop(who, None)
            return "right"
        self.wrong.setdefault(who, []).append(now)
        return "wrong"


@dataclass
class Patience:
    """How often somebody who is not paired may ask: who asks more in a second is not answered.

    clock : seconds that only go forward
    """

    clock: Callable[[], float] = time.monotonic
    second: int = 0
    asked: Counter[str] = field(default_factory=Counter)

    def is_over(self, address: str) -> bool:
        """Whether this was once too often."""
        if int(self.clock()) != self.second:
            self.second, self.asked = int(self.clock()), Counter()
        self.asked[address] += 1
        return self.asked[address] > A_SECOND


class DeviceAuth:
    """Lets the machine itself and paired devices in."""

    def __init__(self, app: ASGIApp) -> None:
        self.app, self.patience = app, Patience()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] == "http":
            turned_away = self._turned_away(HTTPConnection(scope))
            if turned_away is not None:
                await turned_away(scope, receive, send)
                return
        await self.app(scope, receive, send)

    def _turned_away(self, asked: HTTPConnection) -> JSONResponse | None:
        """What is answered before anything is read; None: it may come in."""
        path = asked.url.path
        if is_at_the_machine(asked) or _is_paired(asked):
            return None
        if self.patience.is_over(asked.client.host if asked.client else ""):
            hint = "Ask again in a second."
            return answer(429, "too_often", "This device asks too often.", hint, "address")
        if not path.startswith("/api/") or path in OPEN:
            return None
        hint = "Open Settings on the machine and name the code that it shows."
        return answer(401, "not_paired", "This device is not paired.", hint, "cookie")


def _is_paired(asked: HTTPConnection) -> bool:
    if COOKIE not in asked.cookies:
        return False
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
        named = URLSafeSerializer(_secret(asked, session), salt="device").loads(signed)
    except BadSignature:
        return None
    return next((d.id for d in all_devices(session) if d.id == named), None)


def _secret(asked: HTTPConnection, session: Session) -> str:
    """What cookies are signed with, read once: a cookie that was made up costs no database."""
    state = asked.app.state
    if getattr(state, "secret", None) is None:
        state.secret = secret_of(session)
    return str(state.secret)


def cookie_for(device_id: str, session: Session) -> str:
    """The signed cookie of a device."""
    signed = URLSafeSerializer(secret_of(session), salt="device").dumps(device_id)
    return signed if isinstance(signed, str) else signed.decode()
