"""Who waits to hear that something was changed?

A page keeps one stream open for the lesson it shows, so that a ball of the launch monitor or an
answer given on the other tablet is there as soon as it is stored.
"""

import asyncio
from collections.abc import AsyncIterator


class Arrivals:
    """Streams that are told of every change, whichever thread stores it."""

    def __init__(self) -> None:
        self._waiting: set[tuple[asyncio.AbstractEventLoop, asyncio.Event]] = set()
        self._ended = False

    def tell(self) -> None:
        """Something was stored; from any thread."""
        for loop, event in tuple(self._waiting):
            loop.call_soon_threadsafe(event.set)

    def end(self) -> None:
        """The server stops, which waits for open streams; from any thread or signal."""
        self._ended = True
        self.tell()

    async def each(self, seconds: float) -> AsyncIterator[None]:
        """Now, and then after every change or several, for so long or until the server stops."""
        event, loop = asyncio.Event(), asyncio.get_running_loop()
        mine, until = (loop, event), loop.time() + seconds
        self._waiting.add(mine)
        try:
            while not self._ended:
                yield
                try:
                    await asyncio.wait_for(event.wait(), until - loop.time())
                except TimeoutError:
                    return
                event.clear()
        finally:
            self._waiting.discard(mine)
