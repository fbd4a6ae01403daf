"""What does every write answer? The lesson as it then is and, when asked, what follows from it."""

import zlib
from collections.abc import AsyncIterator, Callable, Sequence
from typing import Annotated, NamedTuple, cast

from fastapi import Depends, Query, Request
from pydantic import Field
from sqlmodel import Session
from starlette.concurrency import run_in_threadpool
from starlette.responses import Response, StreamingResponse

from firm_footing.api.balls.schemas import ReadBlock
from firm_footing.api.balls.views import read_content
from firm_footing.api.conclusions.kept import KeptConclusions, version
from firm_footing.api.conclusions.schemas import DiagnosisOut
from firm_footing.api.conclusions.views import diagnosis_view
from firm_footing.api.context import Conclusions, Known, Store
from firm_footing.api.lessons.schemas import LessonOut
from firm_footing.api.lessons.views import lesson_view, shown
from firm_footing.core.conclusions.next_check import next_checks
from firm_footing.core.conclusions.reported_miss import as_if_hit
from firm_footing.core.diagnosis.diagnosis import diagnose, with_checks
from firm_footing.core.inference.inference import infer
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.knowledge.vocabulary import Source
from firm_footing.store.cases import case_of
from firm_footing.store.changes.steps import revision_of
from firm_footing.store.earlier import answered_before
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.lesson_reading import content_of


class ChangedLesson(LessonOut):
    """A lesson after a change."""

    diagnosis: DiagnosisOut | None = Field(
        default=None, description="What follows from it, when asked for with `diagnosis=true`"
    )
    balls: list[ReadBlock] | None = Field(
        default=None, description="What the balls show, told together with what follows from it"
    )


def _outcome(
    request: Request,
    session: Store,
    known: Known,
    kept: Conclusions,
    diagnosis: Annotated[
        bool, Query(description="Whether the answer also says what follows from the change")
    ] = False,
) -> Callable[[str], ChangedLesson]:
    def answer(lesson_id: str) -> ChangedLesson:
        session.rollback()  # where it has read before, that was before the change
        if not diagnosis:
            return changed_lesson(session, known, kept, lesson_id, diagnosis=False)
        found = _found(session, known, kept, lesson_id)
        return cast(ChangedLesson, _ranking_first(found, request))  # FastAPI passes it on as it is

    return answer


Reply = Annotated[Callable[[str], ChangedLesson], Depends(_outcome)]
"""Give it the lesson's id once the change is made; what it returns is the answer."""


class _Found(NamedTuple):
    """A lesson, what follows from it, and how to find out what its balls show."""

    lesson: LessonOut
    diagnosis: DiagnosisOut
    balls: Callable[[], list[ReadBlock]]

    def whole(self) -> ChangedLesson:
        return ChangedLesson.model_construct(
            **dict(self.lesson), diagnosis=self.diagnosis, balls=self.balls()
        )


def changed_lesson(
    session: Session, known: Knowledge, kept: KeptConclusions, lesson_id: str, diagnosis: bool
) -> ChangedLesson:
    """The lesson as it is; with `diagnosis`, what follows from it besides."""
    if not diagnosis:
        return ChangedLesson.model_construct(**dict(lesson_view(session, lesson_id)))
    return _found(session, known, kept, lesson_id).whole()


def _found(session: Session, known: Knowledge, kept: KeptConclusions, lesson_id: str) -> _Found:
    revision = revision_of(session, lesson_id)
    content = content_of(session, lesson_id)
    now = version(content.student, content.past, content.taught, lesson_id, revision)
    before = answered_before(session, content.lesson) if content.has_earlier else frozenset()
    return _Found(
        shown(session, content, revision),
        kept.get_or_compute(
            ("diagnosis", None, before, *now),
            lambda: conclude(content, known, content.lesson.at_hand, before),
        ),
        lambda: kept.get_or_compute(("balls", *now), lambda: read_content(content, known)),
    )


def _ranking_first(found: _Found, request: Request) -> Response:
    """The same JSON as of the whole, sent in two lines: what is waited for is there sooner."""
    packed = "gzip" in request.headers.get("accept-encoding", "")
    packer = zlib.compressobj(level=2, wbits=31) if packed else None
    first = b'{"diagnosis":%b,\n' % found.diagnosis.model_dump_json().encode()

    async def lines() -> AsyncIterator[bytes]:
        yield packer.compress(first) + packer.flush(zlib.Z_SYNC_FLUSH) if packer else first
        rest = await run_in_threadpool(
            lambda: found.whole().model_dump_json(exclude={"diagnosis"}).encode()[1:]
        )
        yield packer.compress(rest) + packer.flush() if packer else rest

    return StreamingResponse(
        lines(),
        request.scope["route"].status_code or 200,
        {"Content-Encoding": "gzip", "Vary": "Accept-Encoding"} if packed else {},
        media_type="application/json",
    )


def conclude(
    content: LessonContent,
    known: Knowledge,
    at_hand: Sequence[Source] | None,
    before: frozenset[str] = frozenset(),
) -> DiagnosisOut:
    """All there is to conclude from a lesson; `at_hand` None means all means are.

    Before a ball is hit, what to look at follows from the miss that the student tells. What was
    answered in the lesson before is not asked anew before anything else.

    before : checks answered in the lesson before
    """
    case = case_of(content)
    found = diagnose(case, known, at_hand)
    told = as_if_hit(case, content.lesson.listen.misses, known)
    checks = found.next_checks if told is case else next_checks(infer(told, known), at_hand)
    in_order = sorted(checks, key=lambda look: look.id in before)
    if in_order != list(found.next_checks):
        found = with_checks(found, in_order, known)
    return diagnosis_view(found, case, known)
