"""Who may ask, how much may be sent, and what may a page of ours do? Asked before any route.

Pages elsewhere reach programs on this machine through the browser of whoever opens them: under
another name bound to this address (a foreign `Host`), or by sending forms here (a foreign
`Origin`). Both are turned away. What comes in is counted and looked at as it arrives.
"""

import logging
import traceback
from collections.abc import Awaitable, Callable, MutableMapping, Sequence
from typing import Any, Final

from starlette.concurrency import run_in_threadpool
from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from firm_footing.api.errors import NOTHING_KEPT, answer
from firm_footing.core.case.limits import BODY_BYTES
from firm_footing.files.plain_json import BadJsonError, read_json

LOOPBACK_NAMES: Final = ("127.0.0.1", "localhost", "[::1]", "testserver")
"""Names of this machine for itself; the last is what tests call it."""
CHANGES: Final = {"POST", "PUT", "PATCH", "DELETE"}
SMALL: Final = 100_000
"""Bodies up to so many bytes are looked at where they are; larger ones beside."""
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
            taken = receive
            if scope["method"] in CHANGES:
                body, refused = await _body(headers, receive)
                if refused is not None:
                    await refused(scope, receive, send_guarded)
                    return
                taken = _again(body, receive)
            await self.app(scope, taken, send_guarded)
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


async def _body(headers: Headers, receive: Receive) -> tuple[bytes, Any]:
    """What was sent, and the answer where it is too much or no JSON."""
    most = f"A request holds at most {BODY_BYTES // 1_000_000} MB."
    too_large = answer(413, "too_large", most, f"{NOTHING_KEPT} Send less at once.", "body")
    declared = headers.get("content-length", "0")
    if not declared.isdecimal() or int(declared) > BODY_BYTES:
        return b"", too_large
    parts, size, more = [], 0, True
    while more:
        message = await receive()
        part = message.get("body", b"")
        size += len(part)
        if size > BODY_BYTES:
            return b"", too_large
        parts.append(part)
        more = message["type"] == "http.request" and message.get("more_body", False)
    body = b"".join(parts)
    if body and "json" in headers.get("content-type", "json"):
        try:
            if size > SMALL:
                await run_in_threadpool(read_json, body)
            else:
                read_json(body)
        except BadJsonError as error:
            hint = f"{NOTHING_KEPT} To mend it: {error.remedy}."
            said = f"{error.place}: {error.problem}."
            return b"", answer(422, "bad_input", said, hint, error.place)
    return body, None


def _again(body: bytes, receive: Receive) -> Callable[[], Awaitable[Message]]:
    """The body, once more for the route, and then whatever else comes."""
    given = False

    async def once() -> Message:
        nonlocal given
        if given:
            return await receive()
        given = True
        return {"type": "http.request", "body": body, "more_body": False}

    return once
