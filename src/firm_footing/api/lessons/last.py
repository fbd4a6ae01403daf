"""What is there of the student's lesson before this one?"""

from datetime import datetime

from fastapi import APIRouter
from pydantic import BaseModel, Field

from firm_footing.api.coaching.schemas import FollowUpOut
from firm_footing.api.context import RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.lessons.schemas import ShotOut
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.wire import Out
from firm_footing.core.knowledge.casebook import Fate, KnownBy
from firm_footing.core.knowledge.film import FilmView
from firm_footing.core.knowledge.vocabulary import Answer, Source
from firm_footing.store import earlier, lessons
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.lesson_reading import content_of

router = APIRouter(route_class=ParsedOnceRoute, tags=["lessons"])


class Hit(BaseModel):
    """Baseline balls with one club."""

    club: str
    shots: list[ShotOut]


class AnswerBefore(Out):
    """What a look was answered in the lesson before."""

    check_id: str
    answer: Answer
    source: Source


class CameraBefore(Out):
    """Where the camera stood in the lesson before; null: as usual."""

    view: FilmView
    distance_cm: float | None
    off_line_cm: float | None


class LastLesson(BaseModel):
    """The lesson before: what was said, decided and drilled, what came back, the balls."""

    lesson_id: str
    started_at: datetime
    complaint: str
    misses: tuple[str, ...]
    cause: str | None = Field(description="The cause decided on last; null without a decision")
    cue: str
    drill: str | None
    right: int = Field(description="Repetitions with the drill in the lesson that were right")
    not_yet: int
    measured: dict[KnownBy, Fate] = Field(
        description="What the lesson itself said became of the decision, once it was studied"
    )
    follow_up: FollowUpOut | None
    baselines: list[Hit]
    answers: list[AnswerBefore] = Field(description="Looks answered without a drill")
    cameras: list[CameraBefore] = Field(description="Where the camera stood, by view")


@router.get(
    "/lessons/{lesson_id}/last",
    summary="The student's lesson before this one",
    responses=responses(404, 422),
)
def read_last(session: Store, lesson_id: RowId) -> LastLesson | None:
    """Null on the first lesson; a lesson without balls and decision is passed over."""
    lesson = lessons.get_lesson(session, lesson_id)
    for before in earlier.earlier_lessons(session, lesson):
        content = content_of(session, before.id)
        if content.decisions or any(content.shots.values()):
            return _last(content, earlier.measured_in(session, content))
    return None


def _last(content: LessonContent, measured: dict[KnownBy, Fate]) -> LastLesson:
    lesson, follow_up = content.lesson, content.follow_up
    results = [r.result for r in content.repetitions if r.drill == lesson.drill]
    by_club: dict[str, list[ShotOut]] = {}
    for block in content.blocks:
        if block.kind == "baseline":
            logged = [ShotOut.model_validate(s) for s in content.shots[block.id]]
            by_club.setdefault(block.club, []).extend(logged)
    return LastLesson(
        lesson_id=lesson.id,
        started_at=lesson.started_at,
        complaint=lesson.complaint,
        misses=lesson.listen.misses,
        cause=content.decisions[-1].cause if content.decisions else None,
        cue=lesson.cue.text,
        drill=lesson.drill,
        right=results.count("pass"),
        not_yet=len(results) - results.count("pass"),
        measured=measured,
        follow_up=follow_up and FollowUpOut.model_validate(follow_up),
        answers=[
            AnswerBefore.model_validate(a)
            for a in content.answers
            if a.block_id is None and a.answer != "unknown"
        ],
        cameras=[
            CameraBefore.model_validate(marks)
            for marks in {film.marks.view: film.marks for film in content.films}.values()
        ],
        baselines=[Hit(club=club, shots=shots) for club, shots in by_club.items() if shots],
    )
