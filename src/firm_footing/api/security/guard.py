"""Who may ask, and what may a page of ours do? Asked before any route.

Pages elsewhere reach programs on this machine through the browser of whoever opens them: under
another name bound to this address (a foreign `Host`), or by sending forms here (a foreign
`Origin`). Both are turned away.
"""

import logging
import traceback
from collections.abc import MutableMapping, Sequence
from typing import Any, Final

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from firm_footing.api.errors import NOTHING_KEPT, answer
from firm_footing.api.security.intake import CHANGES

LOOPBACK_NAMES: Final = ("127.0.0.1", "localhost", "[::1]", "testserver")
"""Names of this machine for itself; the last is what tests call it."""
HEADERS: Final = {
    "Content-Security-Policy": "default-src 'self'; script-src 'self'; "
    "style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; media-src 'self' blob:; "
    "font-src 'self' data:; object-src 'none'; base-uri 'self'; form-action 'self'; "
    "frame-ancestors 'self'",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Permissions-Policy": "camera=(self), microphone=(), geolocation=(), payment=(), usb=()",
    "Cross-Origin-Resource-Policy": "same-origin",
}
log = logging.getLogger("firm_footing")


class Guard:
    """Turns away what does not belong here, and lets no error out that tells what was written.

    names : hosts, without port, that this program answers to
    """

    def __init__(self, app: ASGIApp, names: Sequence[str] = LOOPBACK_NAMES) -> None:
        self.app, self.names = app, frozenset(names)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        turned_away = self._turned_away(scope, headers)
        if turned_away is not None:
            await turned_away(scope, receive, send)
            return
        begun = False

        async def send_guarded(message: Message) -> None:
            nonlocal begun
            if message["type"] == "http.response.start":
                begun = True
                found = MutableHeaders(scope=message)
                for name, value in HEADERS.items():
                    found.setdefault(name, value)
                found.setdefault("Cache-Control", _kept_for(scope["path"], message["status"]))
            await send(message)

        try:
            await self.app(scope, receive, send_guarded)
        except Exception as error:
            # the place, never the message: it may hold what was written of a person
            where = traceback.format_tb(error.__traceback__)[-1].strip().splitlines()[0]
            log.error("%s at %s", type(error).__name__, where)
            if begun:
                return
            failed = answer(
                500, "server", "The application failed at this.", NOTHING_KEPT, "server"
            )
            await failed(scope, receive, send_guarded)

    def _turned_away(self, scope: MutableMapping[str, Any], headers: Headers) -> Any:
        host = headers.get("host", "")
        if _name(host) not in self.names:
            hint = "Open the address that was printed when the application started."
            return answer(400, "host", "The application is not known by this name.", hint, "host")
        if scope["method"] not in CHANGES:
            return None
        origin = headers.get("origin")
        elsewhere = headers.get("sec-fetch-site", "same-origin") not in ("same-origin", "none")
        if elsewhere or (origin is not None and origin.partition("://")[2] != host):
            return answer(
                403, "origin", "Another page asked for this change.", NOTHING_KEPT, "origin"
            )
        return None


def _kept_for(path: str, status: int) -> str:
    """How long browsers keep it: what is built has its content in its name."""
    if path.startswith("/api/"):
        return "no-store"
    built = path.startswith("/assets/") and status == 200
    return "public, max-age=31536000, immutable" if built else "no-cache"


def _name(host: str) -> str:
    """A host without its port."""
    return host.partition("]")[0] + "]" if host.startswith("[") else host.partition(":")[0]
