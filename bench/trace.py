"""How soon is a pressure trace read, measured and judged, and how smoothly does it play?"""

import time
from collections.abc import Iterator
from statistics import median

from playwright.sync_api import Browser
from tests.core.swings import SEEN, swing

from firm_footing.core.case import Trace
from firm_footing.core.pressure.trace import read_trace
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.files.trace_tables import read_trace_table

Row = tuple[str, str, str]
RUNS = 15
PLAYED = 10_000


def measure() -> Iterator[Row]:
    """Rows of name, wanted, found."""
    knowledge = load_knowledge()
    trace = swing(changed=SEEN["retreat"], rate_hz=1000, toe=(90, 70), jump_s=-0.1, noise=1)
    lines = [",".join(f"{v:.3f}" for v in row) for row in trace.samples[:2000]]
    text = "\n".join([",".join(trace.columns), *lines])
    judged, read = [], []
    for _ in range(RUNS):
        start = time.perf_counter()
        found = read_trace_table(text, "right").trace
        middle = time.perf_counter()
        read_trace.cache_clear()
        read_trace(found, "recentre", knowledge)
        judged.append(1000 * (time.perf_counter() - middle))
        read.append(1000 * (middle - start))
    yield "trace of 2 s at 1 kHz measured and judged", "-", f"{median(judged):.1f} ms"
    both = median(judged) + median(read)
    yield "... its table of samples read besides", "20 ms", f"{both:.1f} ms"


def long_trace() -> Trace:
    """A trace of `PLAYED` samples: five seconds at 2 kHz."""
    one = swing(changed=SEEN["late"], rate_hz=2000, toe=(70, 70), jump_s=-0.07, noise=1)
    rows = list(one.samples)
    first = rows[0]
    wait = [(first[0] - (i + 1) / 2000, *first[1:]) for i in range(PLAYED - len(rows))]  # type: ignore[operator]
    return one.model_copy(update={"samples": (*reversed(wait), *rows)})


def playing(browser: Browser, url: str) -> Iterator[Row]:
    """Frames a second while such a trace plays at full speed, in the middle of all runs."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    day = page.request.get(f"{url}/api/day").json()
    lesson = day["lessons"][0]["id"]
    trace = long_trace()
    body = {"columns": trace.columns, "samples": trace.samples, "events": trace.events}
    page.request.post(
        f"{url}/api/lessons/{lesson}/changes",
        data={"kind": "trace", "id": "long", "body": {"recorded": body}},
    )
    page.goto(f"{url}/lessons/{lesson}/pressure")
    page.get_by_test_id("play").wait_for()
    rates = []
    for _ in range(3):
        page.get_by_test_id("play").click()
        rates.append(page.evaluate(COUNT_MOVES))
    page.close()
    yield f"frames a second, {PLAYED:,} samples playing", "30", f"{median(rates):.0f}"


COUNT_MOVES = """() => new Promise((done) => {
  const line = document.querySelector('[data-testid="now"]')
  const places = new Set()
  const began = performance.now()
  const look = () => {
    places.add(line.getAttribute('x1'))
    if (performance.now() - began < 1000) requestAnimationFrame(look)
    else done(places.size / ((performance.now() - began) / 1000))
  }
  requestAnimationFrame(look)
})"""
"""How many different places the line of the moment has had within a second."""
