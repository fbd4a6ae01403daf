"""How much is taken in of who may come in, and is it JSON that can be worked with?

Asked after the door: who is not paired has no body read. Parsed once, beside the event loop.
"""

from collections.abc import Awaitable, Callable, Coroutine
from typing import Any, Final

from fastapi import Request, Response
from fastapi.routing import APIRoute
from starlette.concurrency import run_in_threadpool
from starlette.datastructures import Headers
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from firm_footing.api.errors import NOTHING_KEPT, answer
from firm_footing.api.security.device_auth import OPEN
from firm_footing.core.case.limits import BODY_BYTES
from firm_footing.files.plain_json import BadJsonError, read_json

CHANGES: Final = {"POST", "PUT", "PATCH", "DELETE"}
SMALL: Final = 20_000
"""Bodies up to so many bytes are parsed where they are; larger ones beside."""
OPEN_BYTES: Final = 2_000
"""Of who is not paired yet: a code and a name."""
PARSED: Final = "firm_footing.json"
"""Where a request's scope has what its body says."""


class Intake:
    """Reads the body of a change, counted as it arrives, before any route sees it."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if _is_change(scope):
            most = OPEN_BYTES if scope["path"] in OPEN else BODY_BYTES
            headers = Headers(scope=scope)
            body, refused = await _body(headers, receive, most)
            if refused is None and body and "json" in headers.get("content-type", "json"):
                refused = await _parse(body, scope)
            if refused is not None:
                await refused(scope, receive, send)
                return
            receive = _again(body, receive)
        await self.app(scope, receive, send)


def _is_change(scope: Scope) -> bool:
    """Nothing else reads a body, and nothing of one is read for it."""
    is_ours = scope["type"] == "http" and scope["path"].startswith("/api/")
    return is_ours and scope["method"] in CHANGES


class ParsedOnceRoute(APIRoute):
    """A route whose request knows what its body says, so that nothing is parsed twice."""

    def get_route_handler(self) -> Callable[[Request], Coroutine[Any, Any, Response]]:
        """As the base has it, of such a request."""
        handle = super().get_route_handler()

        async def with_parsed(request: Request) -> Response:
            return await handle(_ParsedRequest(request.scope, request.receive))

        return with_parsed


class _ParsedRequest(Request):
    async def json(self) -> Any:
        return self.scope[PARSED] if PARSED in self.scope else await super().json()


async def _body(headers: Headers, receive: Receive, most: int) -> tuple[bytes, Any]:
    """What was sent, and the answer where it is too much."""
    said = f"{most // 1_000_000} MB" if most >= 1_000_000 else f"{most // 1000} kB"
    too_large = answer(
        413, "too_large", f"A request holds at most {said}.", f"{NOTHING_KEPT} Send less at once.",
        "body",
    )  # fmt: skip
    declared = headers.get("content-length", "0")
    if not declared.isdecimal() or len(declared) > 12 or int(declared) > most:
        return b"", too_large
    parts, size, more = [], 0, True
    while more:
        message = await receive()
        part = message.get("body", b"")
        size += len(part)
        if size > most:
            return b"", too_large
        parts.append(part)
        more = message["type"] == "http.request" and message.get("more_body", False)
    return b"".join(parts), None


async def _parse(body: bytes, scope: Scope) -> Any:
    """Put what it says into the scope; the answer where it is no good."""
    try:
        if len(body) > SMALL:
            scope[PARSED] = await run_in_threadpool(read_json, body)
        else:
            scope[PARSED] = read_json(body)
    except BadJsonError as error:
        hint = f"{NOTHING_KEPT} To mend it: {error.remedy}."
        return answer(422, "bad_input", f"{error.place}: {error.problem}.", hint, error.place)
    return None


def _again(body: bytes, receive: Receive) -> Callable[[], Awaitable[Message]]:
    """The body, once more for the route, and then whatever else comes."""
    given = False

    async def get_or_compute() -> Message:
        nonlocal given
        if given:
            return await receive()
        given = True
        return {"type": "http.request", "body": body, "more_body": False}

    return get_or_compute
