"""How is a stored lesson shown to the outside?"""

from collections.abc import Sequence

from sqlmodel import Session

from firm_footing.api.coaching.schemas import FollowUpOut, RepetitionOut
from firm_footing.api.lessons.schemas import (
    AnswerOut,
    BlockOut,
    DecidedBefore,
    DecisionOut,
    LessonBrief,
    LessonOut,
    NextOut,
    NoteOut,
    ShotOut,
    StillOut,
    StudentOut,
)
from firm_footing.core.coaching.lesson import Listen
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.text.next_stage import Reached, next_stage
from firm_footing.store.briefs import Brief, briefs_of
from firm_footing.store.changes.steps import next_steps, revision_of
from firm_footing.store.earlier import decided_before
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.stills import stills_of
from firm_footing.store.tables import Lesson


def lesson_view(session: Session, lesson_id: str) -> LessonOut:
    """A lesson with everything in it and what could be undone.

    The revision is read before the rest: a ball that a device puts in meanwhile makes another one,
    so that whoever has this view asks again, rather than never seeing the ball.
    """
    revision = revision_of(session, lesson_id)
    return shown(session, content_of(session, lesson_id), revision)


def shown(session: Session, content: LessonContent, revision: int) -> LessonOut:
    """The same of a lesson already read; `revision` is from before it was."""
    lesson, follow_up = content.lesson, content.follow_up
    done, undone = next_steps(session, lesson.id)
    return LessonOut(
        id=lesson.id,
        student=StudentOut.model_validate(content.student),
        complaint=lesson.complaint,
        given_by=lesson.given_by,
        school=lesson.school,
        at_hand=lesson.at_hand,
        finished=lesson.finished,
        started_at=lesson.started_at,
        blocks=_blocks(content),
        answers=[AnswerOut.model_validate(a) for a in content.answers],
        traces=len(content.traces),
        stills=[
            StillOut.model_validate(s)
            for s in (
                stills_of(session, lesson.id, with_pictures=False) if content.has_stills else ()
            )
        ],
        notes=[NoteOut.model_validate(n) for n in content.notes],
        decisions=[DecisionOut.model_validate(d) for d in content.decisions],
        listen=lesson.listen,
        cue=lesson.cue,
        drill=lesson.drill,
        aid=lesson.aid,
        lacking=lesson.lacking,
        reopens=lesson.reopens,
        earlier=_earlier(session, lesson) if content.has_earlier else [],
        primary=lesson.primary,
        next_at=lesson.next_at,
        sheet=lesson.sheet,
        repetitions=[RepetitionOut.model_validate(r) for r in content.repetitions],
        follow_up=follow_up and FollowUpOut.model_validate(follow_up),
        revision=revision,
        undo=done.what if done else None,
        redo=undone.what if undone else None,
        unreadable=list(content.unreadable),
        undo_step=done.step if done else None,
        redo_step=undone.step if undone else None,
    )


def _stills(session: Session, lesson: Lesson) -> list[StillOut]:
    found = stills_of(session, lesson.id, with_pictures=False)
    return [StillOut.model_validate(still) for still in found]


def _earlier(session: Session, lesson: Lesson) -> list[DecidedBefore]:
    return [
        DecidedBefore(
            lesson_id=before.lesson.id,
            started_at=before.lesson.started_at,
            cause=before.decision.cause,
            drill=before.lesson.drill,
            follow_up=before.follow_up and FollowUpOut.model_validate(before.follow_up),
        )
        for before in decided_before(session, lesson)
    ]


def _blocks(content: LessonContent) -> list[BlockOut]:
    return [
        BlockOut(
            **block.model_dump(exclude={"lesson_id"}),
            shots=[ShotOut.model_validate(s) for s in content.shots[block.id]],
        )
        for block in content.blocks
    ]


def lesson_briefs(
    session: Session, known: Knowledge, lessons: Sequence[Lesson]
) -> list[LessonBrief]:
    """Lessons in a list."""
    least = known.numbers.decision.least_balls
    return [
        LessonBrief(
            id=brief.lesson.id,
            student_id=brief.student.id,
            student_name=brief.student.name,
            handedness=brief.student.handedness,
            started_at=brief.lesson.started_at,
            complaint=brief.lesson.complaint,
            given_by=brief.lesson.given_by,
            finished=brief.lesson.finished,
            stage=brief.stage,
            balls=sum(brief.balls.values()),
            answers=brief.answers,
            decided=brief.decided,
            next=NextOut.model_validate(next_stage(_reached(brief), least)),
        )
        for brief in briefs_of(session, lessons)
    ]


def _reached(brief: Brief) -> Reached:
    lesson, follow_up, balls = brief.lesson, brief.follow_up, brief.balls
    return Reached(
        told=bool(lesson.complaint) or lesson.listen != Listen(),
        balls=balls.get("baseline", 0),
        looks=brief.answers,
        decided=brief.decided is not None,
        drill=lesson.drill is not None,
        tried=brief.repetitions + balls.get("trial", 0),
        retest=balls.get("retest", 0),
        sent=lesson.finished or follow_up is not None,
        back=follow_up is not None and follow_up.verdict is not None,
    )
