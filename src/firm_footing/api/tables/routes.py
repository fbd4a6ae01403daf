"""How does a table of balls come in, and how do a lesson's balls go out as one?"""

from collections.abc import Sequence

from fastapi import APIRouter, Response
from sqlmodel import Session

from firm_footing.api.context import Known, RowId, Store, WritingByContent
from firm_footing.api.errors import responses
from firm_footing.api.lessons.views import lesson_view
from firm_footing.api.security.intake import ParsedOnceRoute
from firm_footing.api.sheets.attachments import attached_as
from firm_footing.api.tables.schemas import (
    BadRowOut,
    FieldOut,
    PreviewBall,
    TableImport,
    TableIn,
    TablePreview,
    TableTaken,
)
from firm_footing.core.knowledge import Knowledge
from firm_footing.files.shot_tables import (
    FIELDS,
    UNITS,
    Column,
    Field,
    Table,
    TableBall,
    TableError,
    balls_of,
    fingerprint,
    guess,
    read_table,
    unit_of,
    write_balls,
)
from firm_footing.store import imports, lessons
from firm_footing.store.cases import case_of
from firm_footing.store.errors import refused
from firm_footing.store.imports import Incoming
from firm_footing.store.lesson_reading import content_of

router = APIRouter(route_class=ParsedOnceRoute, tags=["tables"])
ERRORS = responses(404, 409, 422)
SAMPLES = 4


@router.post(
    "/lessons/{lesson_id}/table/preview", summary="What is in a table of balls", responses=ERRORS
)
def preview_table(session: Store, known: Known, lesson_id: RowId, sent: TableIn) -> TablePreview:
    """Columns as sent; else as remembered for these headings; else guessed. Nothing is kept."""
    hand = content_of(session, lesson_id).student.handedness
    table = _table(sent.text)
    club = _club(session, lesson_id, sent)
    columns, kept = _columns(session, table, sent.columns, known, club)
    read = balls_of(table, columns, hand, known, sent.keep_doubtful, club)
    return TablePreview(
        columns=columns,
        remembered=kept,
        fields=[_field(f) for f in FIELDS.values()],
        samples=[list(cells) for _, cells in table.rows[:SAMPLES]],
        balls=len(read.balls),
        already=imports.how_many_there(session, lesson_id, _incoming(read.balls)),
        first=[PreviewBall(line=b.line, club=b.club, shot=b.shot) for b in read.balls[:SAMPLES]],
        bad=[BadRowOut.model_validate(b) for b in read.bad],
        doubtful=[BadRowOut.model_validate(b) for b in read.doubtful],
    )


@router.post("/lessons/{lesson_id}/table", summary="Take in a table of balls", responses=ERRORS)
def import_table(
    session: WritingByContent, known: Known, lesson_id: RowId, sent: TableImport
) -> TableTaken:
    """Good rows are kept, bad ones listed; a ball that is there already is not added again."""
    hand = content_of(session, lesson_id).student.handedness
    table = _table(sent.text)
    club = _club(session, lesson_id, sent)
    columns, _ = _columns(session, table, sent.columns, known, club)
    read = balls_of(table, columns, hand, known, sent.keep_doubtful, club)
    taken = imports.take_in(session, lesson_id, sent.block_id, _incoming(read.balls))
    if read.balls:
        kept = [c.model_dump(mode="json") for c in columns]
        imports.remember(session, fingerprint(table), kept)
    return TableTaken(
        lesson=lesson_view(session, lesson_id),
        added=taken.added,
        already=taken.already,
        bad=[BadRowOut.model_validate(b) for b in read.bad],
        doubtful=[BadRowOut.model_validate(b) for b in read.doubtful],
    )


@router.get(
    "/lessons/{lesson_id}/balls.csv",
    summary="All balls as a table",
    responses=responses(404, 422),
    response_class=Response,
)
def export_table(session: Store, lesson_id: RowId) -> Response:
    """One row a ball; metres, metres a second, degrees + to the right of the target."""
    content = content_of(session, lesson_id)
    case = case_of(content)
    headers = attached_as(content.student.name, content.lesson.day, "-balls.csv")
    text = write_balls(case.blocks, case.handedness)
    return Response(text, media_type="text/csv", headers=headers)


def _table(text: str) -> Table:
    try:
        return read_table(text)
    except TableError as error:
        hint = "Nothing was changed. A table has a row of headings and one row for each ball."
        raise refused(str(error), "text", hint) from error


def _columns(
    session: Session, table: Table, sent: list[Column] | None, known: Knowledge, club: str
) -> tuple[list[Column], bool]:
    """The columns, and whether they are those remembered."""
    if sent is not None:
        _check(table, sent)
        units = [c.unit or unit_of(c.field, table, i, known, club) for i, c in enumerate(sent)]
        both = zip(sent, units, strict=True)
        return [c.model_copy(update={"unit": unit}) for c, unit in both], False
    kept = imports.remembered(session, fingerprint(table))
    if kept is not None:
        return [Column.model_validate(c) for c in kept], True
    return list(guess(table, known, club)), False


def _check(table: Table, columns: list[Column]) -> None:
    hint = "Nothing was changed. Ask for the preview again."
    if [c.heading for c in columns] != list(table.headings):
        raise refused("The columns do not fit the headings of the table.", "columns", hint)
    fields = [c.field for c in columns if c.field is not None]
    twice = next((f for f in fields if fields.count(f) > 1), None)
    if twice is not None:
        name = FIELDS[twice].name if twice in FIELDS else twice
        hint = "Choose one column for it and leave the other out."
        raise refused(f"Two columns are said to hold “{name}”.", "columns", hint)
    for column in columns:
        if column.field is None:
            continue
        if column.field not in FIELDS:
            raise refused(f"There is no field '{column.field}'.", "columns", hint)
        units = UNITS[FIELDS[column.field].kind]
        if column.unit and column.unit not in units:
            message = f"“{column.heading}” cannot be in {column.unit}."
            raise refused(message, "columns", f"Choose one of {', '.join(units)}.")


def _club(session: Session, lesson_id: str, sent: TableIn) -> str:
    """Of the block that takes the balls in."""
    return lessons.get_block(session, lesson_id, sent.block_id).club if sent.block_id else "7i"


def _incoming(balls: Sequence[TableBall]) -> list[Incoming]:
    return [Incoming(b.key, b.club, b.shot) for b in balls]


def _field(field: Field) -> FieldOut:
    sides = {"target": ["right", "left"], "face": ["toe", "heel"], "": []}[field.sided]
    return FieldOut(id=field.id, name=field.name, units=list(UNITS[field.kind]), positive=sides)
