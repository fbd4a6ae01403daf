"""What does the student take home, and what came of it?"""

from collections.abc import Sequence
from dataclasses import replace
from datetime import date, timedelta
from typing import Annotated, Any

from fastapi import APIRouter, Depends, Query, Response

from firm_footing.api.coaching.routes import (
    cards_of,
    conditions_of,
    cues_of,
    retest_of,
    traces_compared,
)
from firm_footing.api.coaching.schemas import DayOut, DueOut, SheetOut
from firm_footing.api.context import Known, RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.event_days import event_in
from firm_footing.api.films.views import club_of, felt_in
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.attachments import attached_as
from firm_footing.core.case import Case
from firm_footing.core.conclusions.chain import shown_by
from firm_footing.core.diagnosis.diagnosis import Diagnosis, diagnose
from firm_footing.core.frame import SideWords, in_words
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.text.retest import retest_words
from firm_footing.core.text.sheet import sheet_of
from firm_footing.files.calendar_files import practice_calendar
from firm_footing.files.sheet.page import SheetPage, SheetStill, as_html, as_pdf
from firm_footing.store import coaching
from firm_footing.store.cases import case_of
from firm_footing.store.columns import now
from firm_footing.store.errors import refused
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.stills import stills_of
from firm_footing.store.tables import Lesson, Still

router = APIRouter(route_class=ParsedOnceRoute, tags=["sheets"])
ERRORS = responses(404, 409, 422)
SignedBy = Annotated[
    str, Query(max_length=80, description="On the sheet: who gave the lesson, where")
]


@router.get("/lessons/{lesson_id}/sheet", summary="The sheet to take home", responses=ERRORS)
def read_sheet(
    session: Store, known: Known, lesson_id: RowId, sides: SideWords = "lead_trail"
) -> SheetOut:
    """As proposed, with the instructor's own words where they changed some."""
    content = content_of(session, lesson_id)
    sheet = _sheet(session, content, known, sides).sheet
    on = content.lesson.day
    days = [
        DayOut(on=on + timedelta(days=d.day), what=d.what, minutes=d.minutes, balls=d.balls)
        for d in sheet.days
    ]
    return SheetOut(
        cause_id=sheet.cause_id,
        miss=sheet.miss,
        cause=sheet.cause,
        cue=sheet.cue,
        corrections=list(sheet.corrections),
        thought=sheet.thought,
        rescue=sheet.rescue,
        rehearsal=sheet.rehearsal,
        ball_drill=sheet.ball_drill,
        days=days,
        home_work=list(sheet.home_work),
        cautions=list(sheet.cautions),
        minutes=next((d.minutes for d in sheet.days if d.minutes), 0),
        check_in=days[-1].on,
    )


def _page(
    session: Store,
    known: Known,
    lesson_id: RowId,
    sides: SideWords = "lead_trail",
    by: SignedBy = "",
    place: SignedBy = "",
) -> SheetPage:
    content = content_of(session, lesson_id)
    pictures = _stills(stills_of(session, lesson_id), content, known)
    return replace(_sheet(session, content, known, sides), by=by, place=place, stills=pictures)


Page = Annotated[SheetPage, Depends(_page)]
"""The sheet of the lesson in the address, in the words asked for and signed."""


@router.get(
    "/lessons/{lesson_id}/sheet.html",
    summary="The sheet as a web page",
    responses=ERRORS,
    response_class=Response,
)
def read_sheet_page(known: Known, page: Page) -> Response:
    """One self-contained page."""
    return Response(as_html(page, known), media_type="text/html; charset=utf-8")


@router.get(
    "/lessons/{lesson_id}/sheet.pdf",
    summary="The sheet as PDF",
    responses=ERRORS,
    response_class=Response,
)
def read_sheet_pdf(known: Known, page: Page) -> Response:
    """A4, with its fonts."""
    headers = attached_as(page.student, page.on, ".pdf")
    return Response(as_pdf(as_html(page, known)), media_type="application/pdf", headers=headers)


@router.get(
    "/lessons/{lesson_id}/practice.ics",
    summary="Practice and check-in as a calendar",
    responses=ERRORS,
    response_class=Response,
)
def read_calendar(
    session: Store, known: Known, lesson_id: RowId, sides: SideWords = "lead_trail"
) -> Response:
    """iCalendar; the same lesson makes the same entries."""
    content = content_of(session, lesson_id)
    sheet = _sheet(session, content, known, sides).sheet
    on = content.lesson.day
    text = practice_calendar(lesson_id, on, sheet.days, sheet.cue, now())
    headers = attached_as(content.student.name, on, "-practice.ics")
    return Response(text, media_type="text/calendar", headers=headers)


def check_in(session: Store, content: LessonContent, known: Knowledge) -> date:
    """The day of the check-in, the last one of the sheet."""
    last = _sheet(session, content, known, "lead_trail").sheet.days[-1]
    return content.lesson.day + timedelta(days=last.day)


@router.get("/due", summary="Who is due a word")
def read_due(session: Store) -> list[DueOut]:
    """Lessons sent home that nobody has asked after, the longest due first."""
    return [
        DueOut(
            lesson_id=lesson.id,
            student_id=student.id,
            student_name=student.name,
            handedness=student.handedness,
            cause=cause,
            due_on=asked.due_on,
            late=asked.due_on <= lesson.today(),
        )
        for asked, lesson, student, cause in coaching.due(session)
    ]


def _stills(rows: list[Still], content: LessonContent, known: Knowledge) -> tuple[SheetStill, ...]:
    """The stills that go home, with what was felt of what they show."""
    case = case_of(content)
    felt = {
        (film.id, found.read.measure.id): found.text
        for i, film in enumerate(content.films)
        for found in felt_in(film.marks, club_of(case, i), known)
    }
    return tuple(
        SheetStill(row.jpeg_base64, felt.get((row.film_id or "", row.measure), ""))
        for row in rows
        if row.on_sheet
    )


def _tried(content: LessonContent) -> list[str]:
    """Drills tried in the lesson, the chosen one first: others go home only when chosen there."""
    chosen = [content.lesson.drill] if content.lesson.drill else []
    done = [r.drill for r in content.repetitions]
    hit = [b.drill for b in content.blocks if b.drill and content.shots[b.id]]
    return list(dict.fromkeys([*chosen, *reversed(done), *hit]))


def _own_words(lesson: Lesson, serving: Sequence[str]) -> dict[str, Any]:
    """What the instructor wrote or chose for the sheet, by the sheet's names."""
    own = {k: v for k, v in lesson.sheet.model_dump(exclude={"minutes"}).items() if v is not None}
    for drill in ("rehearsal", "ball_drill"):
        if own.get(drill) == "":  # none is to go home
            own[drill] = None
        elif own.get(drill) not in serving:
            own.pop(drill, None)
    return own


def _shown_chain(cause: str, found: Diagnosis, case: Case, known: Knowledge) -> tuple[str, ...]:
    """The links from the cause to the ball that these balls show."""
    numbers = known.numbers
    handicap = numbers.handicap_left_out if case.handicap is None else case.handicap
    chain = next(c.chain for c in found.causes if c.id == cause)
    usual = numbers.delivery.cause_free_low_point_cm(handicap)
    return shown_by(chain, found.pattern, usual, known)


def _sheet(session: Store, content: LessonContent, known: Knowledge, sides: SideWords) -> SheetPage:
    """The sheet with the instructor's own words as they were typed, and all that is drawn on it.

    Raises
    ------
    RefusedError
        Nothing is decided: the sheet is about one cause.

    """
    if not content.decisions:
        raise refused(
            "Nothing is decided yet, so there is nothing to take home.",
            "lesson_id",
            "The lesson is as it was. Decide on one cause first, with or against the ranking.",
        )
    case, lesson, student = case_of(content), content.lesson, content.student
    found = diagnose(case, known, lesson.at_hand)
    cause = content.decisions[-1].cause
    cards = cards_of(cause, case, found, conditions_of(content), known)
    serving = [c.drill for c in cards if c.withheld is None]
    tried = _tried(content)
    proposed = [d for d in serving if d in tried]
    proposals = cues_of(content, cause, known)
    cue = lesson.cue.text or proposals[0]
    sheet = sheet_of(
        cause, found.pattern, proposed, cue, event_in(lesson),
        student.age_group == "junior", known, others_serve=bool(serving),
        corrected=lesson.listen.corrected, misses=lesson.listen.misses,
        minutes=lesson.sheet.minutes, limits=case.limits,
    )  # fmt: skip
    typed = lesson.cue.text and lesson.cue.text not in proposals  # their own words stay theirs
    said = {
        name: in_words(getattr(sheet, name), student.handedness, sides)
        for name in ("miss", "cause", "thought", "rescue", *(() if typed else ("cue",)))
    }
    return SheetPage(
        student=student.name,
        hand=student.handedness,
        on=lesson.day,
        sheet=replace(sheet, **{**said, **_own_words(lesson, serving)}),
        pattern=found.pattern,
        shown_chain=_shown_chain(cause, found, case, known),
        stance=next((b.stance for b in case.baselines if b.stance), None),
        sides=sides,
        complaint=lesson.complaint,
        retest=_retest(session, content, case, known),
        traces=traces_compared(case, known),
    )


def _retest(session: Store, content: LessonContent, case: Case, known: Knowledge) -> str:
    """What became of it; '' before the retest says anything."""
    found = retest_of(session, content, case, known)
    if found is None or found.result is None or found.result.state == "too_few":
        return ""
    return retest_words(found, case.handedness, known, content.lesson.primary_before).to_student
