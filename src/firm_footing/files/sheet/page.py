"""How does the sheet become a page, and the page a PDF?"""

import base64
from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache, partial
from pathlib import Path

from jinja2 import Environment, PackageLoader, StrictUndefined
from markupsafe import Markup

from firm_footing.core.case import Stance
from firm_footing.core.coaching.compare_traces import TracesCompared
from firm_footing.core.frame import Handedness, SideWords, in_words
from firm_footing.core.knowledge import Drill, Knowledge
from firm_footing.core.patterns import Pattern
from firm_footing.core.text.chain import link_words
from firm_footing.core.text.sheet import Sheet
from firm_footing.files.sheet.drawing import links_of, plan_svg
from firm_footing.files.sheet.figure import figure_svg
from firm_footing.files.sheet.traces import traces_svg

FONTS = Path(__file__).parent / "fonts"
LONG = 500
"""Characters of the drills' words from which on the page is set smaller."""
WHAT = {
    "rehearse": "{minutes} min without a ball",
    "balls": "{minutes} min without a ball, then {balls} balls",
    "setup_only": "set-up only, {minutes} min",
    "event": "the event: nothing new",
    "check_in": "check in",
}


@dataclass(frozen=True)
class SheetStill:
    """A picture out of a film: JPEG in base64, and what is said under it."""

    jpeg_base64: str
    words: str


@dataclass(frozen=True)
class SheetPage:
    """Everything a sheet's page is made of.

    on : the day of the lesson
    pattern : of the baseline, for the drawing
    shown_chain : from the cause to the ball, as far as these balls show it
    stance : as measured with the baseline
    sides : whether feet are lead and trail or left and right
    complaint : what the student said, in their own words
    retest : what became of it in the lesson; '' where there is nothing to say
    traces : swings before and after; None where they were not taken
    stills : pictures out of a film that both want on it
    by, place : who gave the lesson and where; '' where it is not said
    """

    student: str
    hand: Handedness
    on: date
    sheet: Sheet
    pattern: Pattern
    shown_chain: tuple[str, ...] = ()
    stance: Stance | None = None
    sides: SideWords = "lead_trail"
    by: str = ""
    place: str = ""
    complaint: str = ""
    retest: str = ""
    traces: TracesCompared | None = None
    stills: tuple[SheetStill, ...] = ()


def as_html(page: SheetPage, knowledge: Knowledge) -> str:
    """One self-contained page: styles, fonts and drawing are in it."""
    sheet, pattern = page.sheet, page.pattern
    cause = knowledge.cause[sheet.cause_id]
    lead_foot = in_words("lead foot", page.hand, page.sides)
    drawing = plan_svg(
        page.hand,
        links_of(page.shown_chain or (cause.id,), knowledge),
        page.stance,
        pattern.start_deg.value if pattern.start_deg else None,
        pattern.curve_deg.value if pattern.curve_deg else None,
        (lead_foot, in_words("trail foot", page.hand, page.sides)),
    )
    named = (sheet.rehearsal, sheet.ball_drill)
    cards = [d for name in dict.fromkeys(named) if (d := _drill(name, knowledge)) is not None]
    return (
        _environment()
        .get_template("sheet.html")
        .render(
            page=page,
            say=partial(in_words, hand=page.hand, sides=page.sides),
            long=sum(len(text) for d in cards for text in (*d.steps, d.pass_sign)) > LONG,
            links=link_words(page.shown_chain, knowledge),
            figures={d.id: Markup(figure_svg(d.id, page.hand, knowledge)) for d in cards},
            sheet=sheet,
            cause=cause,
            drawing=Markup(drawing),
            traces=Markup(traces_svg(page.traces, lead_foot) if page.traces else ""),
            told=knowledge.traces.told,
            rehearsal=_drill(sheet.rehearsal, knowledge),
            ball_drill=_drill(sheet.ball_drill, knowledge),
            days=[
                (
                    f"{page.on + timedelta(days=d.day):%a %d %b}",
                    WHAT[d.what].format(minutes=d.minutes, balls=d.balls),
                )
                for d in sheet.days
            ],
            fonts={name: _font(name) for name in ("regular", "bold")},
        )
    )


def as_pdf(html: str) -> bytes:
    """The page as PDF, with its fonts embedded."""
    from weasyprint import HTML  # noqa: PLC0415 (slow to load, and only this needs it)

    pdf: bytes = HTML(string=html).write_pdf()
    return pdf


def _drill(drill_id: str | None, knowledge: Knowledge) -> Drill | None:
    return None if drill_id is None else knowledge.drill[drill_id]


@lru_cache(maxsize=1)
def _environment() -> Environment:
    return Environment(
        loader=PackageLoader("firm_footing.files.sheet", "."),
        autoescape=True,
        undefined=StrictUndefined,
        trim_blocks=True,
        lstrip_blocks=True,
    )


@lru_cache(maxsize=4)
def _font(name: str) -> str:
    return base64.b64encode((FONTS / f"{name}.woff2").read_bytes()).decode()
