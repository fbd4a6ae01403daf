"""How does a lesson become a case, and a case a lesson?"""

from collections.abc import Callable, Iterable, Sequence

from sqlmodel import Session, SQLModel

from firm_footing.core.case import Block, Case, Reading, Trace
from firm_footing.core.case.still import FileStill
from firm_footing.core.coaching.lesson import Listen
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pressure.recorded import with_feet_swapped
from firm_footing.store.changes.idempotency import end_of_change
from firm_footing.store.errors import name_can_be_seen
from firm_footing.store.lesson_content import LessonContent
from firm_footing.store.stills import guardian_agreed, stills_of
from firm_footing.store.tables import (
    CheckAnswer,
    FilmMarks,
    Lesson,
    LoggedBlock,
    LoggedShot,
    Note,
    PressureTrace,
    Recording,
    Still,
    Student,
    new_id,
)

BLOCK_FIELDS = (
    "kind", "club", "drill", "expected_carry_m", "effort_pct", "surface", "teed", "stance"
)  # fmt: skip


def case_of(content: LessonContent) -> Case:
    """The evidence of a lesson, for the core."""
    index = {block.id: i for i, block in enumerate(content.blocks)}
    student, listen = content.student, content.lesson.listen
    return Case(
        handedness=student.handedness,
        handicap=student.handicap,
        dominant_leg=student.dominant_leg,
        limits=student.limits,
        school=content.lesson.school,
        blocks=tuple(
            Block(
                **{name: getattr(block, name) for name in BLOCK_FIELDS},
                shots=tuple(shot.observed for shot in content.shots[block.id]),
            )
            for block in content.blocks
        ),
        readings=tuple(
            Reading(
                check=a.check_id,
                answer=a.answer,
                source=a.source,
                share=a.share,
                block=None if a.block_id is None else index[a.block_id],
            )
            for a in content.answers
        ),
        traces=tuple(
            trace_of(t, content.recordings, None if t.block_id is None else index[t.block_id])
            for t in content.traces
        ),
        films=tuple(
            f.marks.model_copy(update={"block": None if f.block_id is None else index[f.block_id]})
            for f in content.films
        ),
        how_common=content.taught.how_common,
        eye=content.taught.eye,
        history=() if listen.past_left_out else (*content.past, *listen.past),
    )


def stills_to_file(session: Session, content: LessonContent) -> tuple[FileStill, ...]:
    """The stills of a lesson as a case file holds them when it is asked to."""
    place = {film.id: i for i, film in enumerate(content.films)}
    return tuple(
        FileStill(
            film=place.get(still.film_id or ""),
            event=still.event,
            measure=still.measure,
            consent=still.consent,
            jpeg_base64=still.jpeg_base64,
        )
        for still in stills_of(session, content.lesson.id)
    )


def trace_of(row: PressureTrace, recordings: dict[str, Trace], block: int | None = None) -> Trace:
    """A stored trace as evidence: its samples with what was said of them."""
    samples = recordings[row.recording_id]
    if row.swapped:
        samples = with_feet_swapped(samples)
    return samples.model_copy(update={"events": dict(row.events), "block": block})


def store_case(
    session: Session,
    case: Case,
    student: Student,
    knowledge: Knowledge,
    notes: tuple[str, ...] = (),
    complaint: str = "",
    stills: tuple[FileStill, ...] = (),
    also: Callable[[Lesson], Iterable[SQLModel]] = lambda _: (),
) -> Lesson:
    """Open a case as a new lesson of this student, all of it or nothing.

    also : rows that are made with the lesson

    Raises
    ------
    RefusedError
        A still of a junior to which no guardian agreed.

    """
    name_can_be_seen(student.name)
    for still in stills:
        guardian_agreed(student, still.consent)
    lesson = Lesson(
        student_id=student.id,
        school=case.school,
        complaint=complaint,
        listen=Listen(past=case.history),
    )
    session.add(student)
    session.flush()
    session.add(lesson)
    session.flush()
    blocks = _store_blocks(session, lesson, case)
    session.add_all(_answers(lesson, case, blocks, knowledge))
    _store_traces(session, lesson, case, blocks)
    films = _store_films(session, lesson, case, blocks)
    session.add_all(
        Still(
            id=new_id(),
            lesson_id=lesson.id,
            film_id=None if still.film is None else films[still.film].id,
            **still.model_dump(exclude={"film"}),
        )
        for still in stills
    )
    session.add_all(Note(lesson_id=lesson.id, text=text) for text in notes)
    session.add_all(also(lesson))
    session.flush()
    end_of_change(session, lesson.id)
    return lesson


def _store_blocks(session: Session, lesson: Lesson, case: Case) -> list[LoggedBlock]:
    """The blocks of a case with their balls; an empty one where it has none."""
    blocks = [
        LoggedBlock(
            lesson_id=lesson.id, position=i, **{name: getattr(b, name) for name in BLOCK_FIELDS}
        )
        for i, b in enumerate(case.blocks or (Block(),))
    ]
    session.add_all(blocks)
    session.flush()
    for row, block in zip(blocks, case.blocks, strict=False):
        session.add_all(
            LoggedShot(id=new_id(), block_id=row.id, position=i, observed=shot)
            for i, shot in enumerate(block.shots)
        )
    return blocks


def _answers(
    lesson: Lesson, case: Case, blocks: Sequence[LoggedBlock], knowledge: Knowledge
) -> list[CheckAnswer]:
    return [
        CheckAnswer(
            id=new_id(),
            lesson_id=lesson.id,
            check_id=reading.check,
            answer=reading.answer,
            share=reading.share,
            source=reading.source or knowledge.check[reading.check].sources[0],
            block_id=None if reading.block is None else blocks[reading.block].id,
        )
        for reading in case.readings
    ]


def _store_traces(
    session: Session, lesson: Lesson, case: Case, blocks: Sequence[LoggedBlock]
) -> None:
    for i, t in enumerate(case.traces):
        recording = Recording(lesson_id=lesson.id, samples=t)
        session.add(recording)
        session.flush()
        session.add(
            PressureTrace(
                lesson_id=lesson.id,
                block_id=None if t.block is None else blocks[t.block].id,
                recording_id=recording.id,
                position=i,
                events=dict(t.events),
            )
        )


def _store_films(
    session: Session, lesson: Lesson, case: Case, blocks: Sequence[LoggedBlock]
) -> list[FilmMarks]:
    films = [
        FilmMarks(
            lesson_id=lesson.id,
            block_id=None if film.block is None else blocks[film.block].id,
            position=i,
            marks=film.model_copy(update={"block": None}),
        )
        for i, film in enumerate(case.films)
    ]
    session.add_all(films)
    return films
