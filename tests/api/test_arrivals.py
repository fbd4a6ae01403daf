"""Streams that tell pages of changes: told at once, and over by themselves."""

import asyncio
import time

from firm_footing.api.lessons.arrivals import Arrivals


def test_a_stream_tells_of_changes_and_ends_by_itself() -> None:
    """Else the lines of pages that a browser left, and keeps, would use up all it has."""

    async def told() -> list[float]:
        arrivals, began = Arrivals(), time.monotonic()
        asyncio.get_running_loop().call_later(0.1, arrivals.tell)
        return [time.monotonic() - began async for _ in arrivals.each(0.4)]

    began = time.monotonic()
    now, changed = asyncio.run(told())
    assert now < 0.1 <= changed < 0.4
    assert 0.4 <= time.monotonic() - began < 5.0
