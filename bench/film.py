"""How soon does a film show the next picture, and how much memory do two films take?"""

import tempfile
from collections.abc import Iterator
from itertools import cycle, islice
from pathlib import Path
from statistics import median
from uuid import uuid4

import numpy as np
from playwright.sync_api import Browser, Page

from firm_footing.core.knowledge.film import FilmView
from firm_footing.files.knowledge_files import load_knowledge
from firm_footing.simulators.film.camera import Camera
from firm_footing.simulators.film.drawing import Picture, Quality, pictures
from firm_footing.simulators.film.figure import swing
from firm_footing.simulators.film.marking import Filmed
from firm_footing.simulators.film.recording import write

Row = tuple[str, str, str]
VIEWS: tuple[FilmView, ...] = ("down_the_line", "face_on")
FPS, WIDTH, HEIGHT, SECONDS = 240.0, 1080, 1920, 10
DRAWN = 60
"""Different pictures; they come again and again."""
STEPS, BETWEEN_MS = 40, 250
"""Four steps a second, as one does who looks at each picture."""
SHOWN = """async ([name, way]) => {
    const frame = document.querySelector('.picture')
    const button = document.querySelector(`[aria-label="${name}"]`)
    const took = []
    for (let i = 0; i < STEPS; i++) {
        const wanted = String(Number(frame.dataset.shown) + way)
        const begun = performance.now()
        const seen = new Promise((done) => {
            const look = () => frame.dataset.shown === wanted
                ? done(performance.now()) : requestAnimationFrame(look)
            look()
        })
        button.click()
        took.push((await seen) - begun)
        await new Promise((r) => setTimeout(r, BETWEEN))
    }
    return took
}""".replace("STEPS", str(STEPS)).replace("BETWEEN", str(BETWEEN_MS))
"""Milliseconds from a touch of the button until the picture that it asks for is on the page."""


NO_DECODER = "delete globalThis.VideoDecoder"
"""As in pages over an open network: pictures are sought in the film as it plays."""


def stepping(browser: Browser, url: str) -> Iterator[Row]:
    """Rows of name, wanted, found, with two films of ten seconds in full HD at 240 a second."""
    with tempfile.TemporaryDirectory() as folder:
        films = [_film(view, Path(folder) / f"{view}.mp4") for view in VIEWS]
        for how in ("decoded", "sought"):
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            if how == "sought":
                page.add_init_script(NO_DECODER)
            lesson = _marked(page, url, films)
            page.goto(f"{url}/lessons/{lesson}/look")
            page.get_by_test_id("next-look").wait_for()
            before = _megabytes(browser)
            yield from _stepped(page, films[0], how)
            _second(page, films[1])
            yield (
                f"memory of two such films, played and scrubbed, {how}",
                "600 MB",
                f"{_megabytes(browser) - before:.0f} MB",
            )
            page.close()


def _stepped(page: Page, film: Path, how: str) -> Iterator[Row]:
    page.get_by_role("button", name="Film", exact=True).click()
    page.locator("input[type=file]").set_input_files(film)
    page.get_by_test_id("film-frame").wait_for()
    page.get_by_role("slider", name="Picture").press("PageUp")
    page.wait_for_timeout(3000)
    for name, word, way in (("on", "One picture on", 1), ("back", "One picture back", -1)):
        took = page.evaluate(SHOWN, [word, way])
        worst = sorted(took)[int(0.95 * len(took))]
        yield f"a picture {name}, 1080 by 1920 at 240, {how}", "60 ms", f"{median(took):.0f} ms"
        yield "... of twenty the slowest", "120 ms", f"{worst:.0f} ms"


def _filmed(view: FilmView) -> Filmed:
    person, again = np.random.default_rng(1), np.random.default_rng(2)
    return Filmed(swing({}, person, again), Camera(view, FPS, width=WIDTH, height=HEIGHT))


def _film(view: FilmView, to: Path) -> Path:
    filmed = _filmed(view)
    drawn: list[Picture] = list(
        islice(pictures(filmed, "right", Quality(noise=4), np.random.default_rng(3)), DRAWN)
    )
    many = islice(cycle(drawn), int(FPS * SECONDS))
    write(many, (WIDTH, HEIGHT), to, "libx264", FPS, preset="ultrafast")
    return to


def _marked(page: Page, url: str, films: list[Path]) -> str:
    """A lesson in which every event is marked in both films."""
    day = page.request.get(f"{url}/api/day").json()
    lesson: str = next(x["id"] for x in day["lessons"] if x["student_name"] == "Jory Pask")
    numbers = load_knowledge().film
    for film, view in zip(films, VIEWS, strict=True):
        marks = _filmed(view).marked(numbers, np.random.default_rng(3)).model_dump(mode="json")
        body = {"marks": marks, "name": film.name}
        answer = page.request.post(
            f"{url}/api/lessons/{lesson}/changes",
            data={"kind": "film", "id": str(uuid4()), "body": body},
        )
        assert answer.ok, answer.text()
    return lesson


def _second(page: Page, film: Path) -> None:
    """The second film beside the first, played a little and scrubbed through."""
    page.get_by_role("button", name="With film and pressure").click()
    page.get_by_label("Second film", exact=True).first.click(force=True)
    page.get_by_role("option").first.click()
    page.locator("input[type=file]").set_input_files(film)
    page.get_by_test_id("film-other").wait_for()
    page.get_by_role("button", name="Play the film").click()
    page.wait_for_timeout(4000)
    page.get_by_role("button", name="Pause").click()
    slider = page.get_by_role("slider", name="Picture")
    slider.press("Home")
    for _ in range(60):
        slider.press("PageUp")
    page.wait_for_timeout(1000)


def _megabytes(browser: Browser) -> float:
    """Memory of the browser with all its processes, each page of it counted once."""
    session = browser.new_browser_cdp_session()
    ids = [p["id"] for p in session.send("SystemInfo.getProcessInfo")["processInfo"]]
    session.detach()
    kilobytes = 0
    for process in ids:
        for line in Path(f"/proc/{process}/smaps_rollup").read_text().splitlines():
            if line.startswith("Pss:"):
                kilobytes += int(line.split()[1])
    return kilobytes / 1024
