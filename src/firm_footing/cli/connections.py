"""How long may a request take to arrive, and how many lines may one address hold open?

The server alone waits for ever for the rest of a request, and takes lines until there are no more.
"""

import asyncio
import resource
from collections import Counter
from dataclasses import dataclass, field
from typing import Any, Final

import h11
from uvicorn.protocols.http.h11_impl import H11Protocol

from firm_footing.api.security.device_auth import AT_THE_MACHINE

HEADERS_S: Final = 10.0
"""From the first letter of a request, or from the opened line, to the end of its headers."""
BODY_S: Final = 60.0
"""From there to the end of what is sent: twenty megabytes over a bad Wi-Fi."""
OF_ONE_ADDRESS: Final = 48
"""Open lines: some browsers hold six for each window."""
OF_ALL: Final = 400
"""Of all other addresses together; the machine itself is always let in."""
FILES: Final = 4096
"""Open files that the program asks for, lines among them."""


@dataclass
class Lines:
    """Who holds how many lines open."""

    of_one: int = OF_ONE_ADDRESS
    of_all: int = OF_ALL
    held: Counter[str] = field(default_factory=Counter)

    def take(self, address: str) -> bool:
        """Whether one more is let in; then it is counted until `give_back`."""
        if address in AT_THE_MACHINE:
            return True
        if self.held[address] >= self.of_one or self.held.total() >= self.of_all:
            return False
        self.held[address] += 1
        return True

    def give_back(self, address: str) -> None:
        """One is closed."""
        if address in AT_THE_MACHINE:
            return
        self.held[address] -= 1
        if self.held[address] <= 0:
            del self.held[address]


def limited(
    lines: Lines, headers_s: float = HEADERS_S, body_s: float = BODY_S
) -> type[asyncio.Protocol]:
    """The server's protocol with these limits; a line that breaks one is closed without a word."""

    class LimitedProtocol(H11Protocol):
        def connection_made(self, transport: asyncio.BaseTransport) -> None:
            super().connection_made(transport)  # type: ignore[arg-type]
            self._address = self.client[0] if self.client else ""
            self._waits_for: Any = None
            self._deadline: asyncio.TimerHandle | None = None
            self._counted = lines.take(self._address)
            if self._counted:
                self._wait(h11.IDLE, headers_s)
            else:
                self.transport.abort()

        def connection_lost(self, exc: Exception | None) -> None:
            self._wait(None, 0.0)
            if self._counted:
                self._counted = False
                lines.give_back(self._address)
            super().connection_lost(exc)

        def data_received(self, data: bytes) -> None:
            if not self._counted:
                return
            super().data_received(data)
            if self.conn.their_state is h11.IDLE:
                self._wait(h11.IDLE, headers_s)
            elif self.conn.their_state is h11.SEND_BODY:
                self._wait(h11.SEND_BODY, body_s)
            else:
                self._wait(None, 0.0)

        def _wait(self, for_what: Any, seconds: float) -> None:
            """One deadline for each part, however often a letter of it comes."""
            if for_what is self._waits_for:
                return
            if self._deadline is not None:
                self._deadline.cancel()
            self._waits_for, self._deadline = for_what, None
            if for_what is not None:
                self._deadline = self.loop.call_later(seconds, self.transport.abort)

    return LimitedProtocol


def ask_for_files(most: int = FILES) -> None:
    """As many open files as there may be lines and more, where the system allows it."""
    now, at_most = resource.getrlimit(resource.RLIMIT_NOFILE)
    wanted = most if at_most == resource.RLIM_INFINITY else min(most, at_most)
    if now != resource.RLIM_INFINITY and now < wanted:
        resource.setrlimit(resource.RLIMIT_NOFILE, (wanted, at_most))
