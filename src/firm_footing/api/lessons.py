"""What happens in a lesson? Every write answers with the whole lesson as it then is."""

from typing import Annotated

from fastapi import APIRouter, Query

from firm_footing.api.context import Known, RowId, Store
from firm_footing.api.errors import responses
from firm_footing.api.shapes import (
    BetweenOut,
    BlockIn,
    DecisionIn,
    DiagnosisOut,
    LessonChange,
    LessonOut,
    NewLesson,
    NoteIn,
    ShotIn,
)
from firm_footing.api.views import between_view, diagnosis_view, lesson_view
from firm_footing.core.knowledge.vocabulary import Source
from firm_footing.core.reasoning import between, diagnose, ranking_of, weigh
from firm_footing.store import decisions, history, lessons, notes, shots
from firm_footing.store.cases import case_of
from firm_footing.store.errors import refused
from firm_footing.store.tables import Lesson

router = APIRouter(tags=["lessons"])
ERRORS = responses(404, 409, 422)


@router.post(
    "/students/{student_id}/lessons",
    status_code=201,
    summary="Start a lesson",
    responses=responses(404, 409, 422),
)
def add_lesson(session: Store, known: Known, student_id: RowId, new: NewLesson) -> LessonOut:
    """It starts with an empty baseline block."""
    _club_is_known(known, new.club)
    lesson = Lesson(student_id=student_id, complaint=new.complaint, school=new.school)
    return lesson_view(session, lessons.add_lesson(session, lesson, new.club).id)


@router.get("/lessons/{lesson_id}", summary="A lesson with everything in it", responses=ERRORS)
def read_lesson(session: Store, lesson_id: RowId) -> LessonOut:
    """Student, blocks with balls, answers, notes, decisions."""
    return lesson_view(session, lesson_id)


@router.patch("/lessons/{lesson_id}", summary="Change a lesson", responses=ERRORS)
def change_lesson(session: Store, lesson_id: RowId, change: LessonChange) -> LessonOut:
    """What is left out stays; `at_hand` null means everything is at hand."""
    sent = change.model_dump(exclude_unset=True)
    values = {k: v for k, v in sent.items() if v is not None or k == "at_hand"}
    lessons.change_lesson(session, lesson_id, values)
    return lesson_view(session, lesson_id)


@router.delete("/lessons/{lesson_id}", status_code=204, summary="Delete a lesson", responses=ERRORS)
def delete_lesson(session: Store, lesson_id: RowId) -> None:
    """Cannot be undone."""
    lessons.delete_lesson(session, lesson_id)


@router.put(
    "/lessons/{lesson_id}/blocks/{block_id}", summary="Add or change a block", responses=ERRORS
)
def put_block(
    session: Store, known: Known, lesson_id: RowId, block_id: RowId, block: BlockIn
) -> LessonOut:
    """The client makes the id; what is left out stays."""
    values = {name: getattr(block, name) for name in block.model_fields_set}
    values = {k: v for k, v in values.items() if not (k in ("kind", "club") and v is None)}
    if "club" in values:
        _club_is_known(known, values["club"])
    if values.get("drill") is not None and values["drill"] not in known.drill:
        raise refused(f"No drill is called '{values['drill']}'.", "drill", "Nothing was changed.")
    lessons.put_block(session, lesson_id, block_id, values)
    return lesson_view(session, lesson_id)


@router.put(
    "/lessons/{lesson_id}/shots/{shot_id}", summary="Log or change a ball", responses=ERRORS
)
def put_shot(session: Store, lesson_id: RowId, shot_id: RowId, shot: ShotIn) -> LessonOut:
    """The client makes the id, so a repeated request stores the ball once."""
    shots.put_shot(session, lesson_id, shot_id, shot.block_id, shot.observed, shot.touched)
    return lesson_view(session, lesson_id)


@router.delete("/lessons/{lesson_id}/shots/{shot_id}", summary="Delete a ball", responses=ERRORS)
def delete_shot(session: Store, lesson_id: RowId, shot_id: RowId) -> LessonOut:
    """It can be undone; a ball already gone is no error."""
    shots.delete_shot(session, lesson_id, shot_id)
    return lesson_view(session, lesson_id)


@router.put("/lessons/{lesson_id}/notes/{note_id}", summary="Write a note", responses=ERRORS)
def put_note(session: Store, lesson_id: RowId, note_id: RowId, note: NoteIn) -> LessonOut:
    """The client makes the id."""
    notes.put_note(session, lesson_id, note_id, note.text)
    return lesson_view(session, lesson_id)


@router.delete("/lessons/{lesson_id}/notes/{note_id}", summary="Delete a note", responses=ERRORS)
def delete_note(session: Store, lesson_id: RowId, note_id: RowId) -> LessonOut:
    """It can be undone."""
    notes.delete_note(session, lesson_id, note_id)
    return lesson_view(session, lesson_id)


@router.post(
    "/lessons/{lesson_id}/decisions",
    status_code=201,
    summary="Decide on one cause",
    responses=ERRORS,
)
def add_decision(session: Store, known: Known, lesson_id: RowId, decision: DecisionIn) -> LessonOut:
    """Kept with what the ranking says now and the version of the knowledge that says it."""
    if decision.cause not in known.cause:
        raise refused(f"No cause is called '{decision.cause}'.", "cause", "Nothing was changed.")
    content = lessons.content_of(session, lesson_id)
    ranking = ranking_of(diagnose(case_of(content), known, content.lesson.at_hand), known)
    decisions.add_decision(
        session, lesson_id, decision.cause, decision.reason, ranking, known.version
    )
    return lesson_view(session, lesson_id)


@router.get(
    "/lessons/{lesson_id}/diagnosis", summary="The causes, ranked by the evidence", responses=ERRORS
)
def read_diagnosis(
    session: Store,
    known: Known,
    lesson_id: RowId,
    at_hand: Annotated[list[Source] | None, Query(description="Means at hand for looks")] = None,
) -> DiagnosisOut:
    """All there is to conclude from the lesson, in one call."""
    content = lessons.content_of(session, lesson_id)
    case = case_of(content)
    means = at_hand if at_hand is not None else content.lesson.at_hand
    return diagnosis_view(diagnose(case, known, means), case, known)


@router.get(
    "/lessons/{lesson_id}/between", summary="Why this cause and not that one", responses=ERRORS
)
def read_between(
    session: Store,
    known: Known,
    lesson_id: RowId,
    one: Annotated[str, Query(examples=["trail_heel_pops"])],
    other: Annotated[str, Query(examples=["toes_in_downswing"])],
) -> BetweenOut:
    """The evidence that separates the two, and the looks that would."""
    content = lessons.content_of(session, lesson_id)
    for name, cause in (("one", one), ("other", other)):
        if cause not in known.cause:
            raise refused(f"No cause is called '{cause}'.", name, "Nothing was changed.")
    if one == other:
        raise refused("These are the same cause.", "other", "Choose two different ones.")
    found = between(weigh(case_of(content), known), one, other, content.lesson.at_hand)
    return between_view(found)


@router.post("/lessons/{lesson_id}/undo", summary="Take back the last step", responses=ERRORS)
def undo(session: Store, lesson_id: RowId) -> LessonOut:
    """Does nothing when there is nothing to take back."""
    lessons.get_lesson(session, lesson_id)
    history.undo(session, lesson_id)
    return lesson_view(session, lesson_id)


@router.post("/lessons/{lesson_id}/redo", summary="Do a step again", responses=ERRORS)
def redo(session: Store, lesson_id: RowId) -> LessonOut:
    """Does nothing when nothing was taken back."""
    lessons.get_lesson(session, lesson_id)
    history.redo(session, lesson_id)
    return lesson_view(session, lesson_id)


def _club_is_known(known: Known, club: str) -> None:
    if club not in known.club:
        names = ", ".join(known.club)
        raise refused(f"No club is called '{club}'.", "club", f"Known are {names}.")
